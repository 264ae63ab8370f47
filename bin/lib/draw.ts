/**
 * Draws the demo jobs' photographs, once and for all: npm run draw. The pictures are committed, because what a machine
 * draws depends on its fonts. Everything on them is made up.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
import sharp from 'sharp'
import type { Photo } from '../../src/core/ask/evidence'
import { circuitOf } from '../../src/core/job/panels'
import type { Job } from '../../src/core/job/schema'
import { columnOf, positionText, rowOf, spaceName, spacesOf } from '../../src/core/panel/positions'
import type { Panel } from '../../src/core/panel/schema'
import { demoJobs } from '../../src/server/seeds/jobs'

/** A little disorder that is the same every time. */
function dice(seed: number) {
  let state = seed
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return state / 2_147_483_648
  }
}
const esc = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

const wall = `<defs><filter id="grain"><feTurbulence baseFrequency="0.9" numOctaves="2" seed="7"/><feColorMatrix values="0 0 0 0 0.5  0 0 0 0 0.48  0 0 0 0 0.42  0 0 0 0.16 0"/><feComposite in2="SourceGraphic" operator="over"/></filter>
<radialGradient id="light" cx="35%" cy="25%" r="90%"><stop offset="0" stop-color="#fff" stop-opacity="0.34"/><stop offset="1" stop-color="#000" stop-opacity="0.22"/></radialGradient></defs>`
const lit = (w: number, h: number) =>
  `<rect width="${w}" height="${h}" filter="url(#grain)" opacity="0.1"/><rect width="${w}" height="${h}" fill="url(#light)"/>`

function panelSvg(panel: Panel, roll: () => number): string {
  const rows = panel.spaces / 2
  const pitch = Math.min(64, 860 / rows)
  const top = 190 + (860 - rows * pitch) / 2
  const at = (space: number) => ({
    x: columnOf(space) === 'left' ? 288 : 462,
    y: top + (rowOf(space) - 1) * pitch,
  })
  const breakers = panel.circuits.map(c => {
    const { x, y } = at(c.position)
    const h = pitch * (c.half && c.poles === 1 ? 0.5 : spacesOf(c).length) - 3
    const dy = c.half === 'b' ? pitch / 2 : 0
    const toggle = columnOf(c.position) === 'left' ? x + 100 : x + 30
    return `<rect x="${x}" y="${y + dy}" width="150" height="${h}" rx="3" fill="#23262a" stroke="#000"/>
      <rect x="${toggle}" y="${y + dy + h / 2 - 7}" width="26" height="14" rx="3" fill="#4a4f55"/>
      <text x="${toggle + (columnOf(c.position) === 'left' ? 5 : 5)}" y="${y + dy + h / 2 + 5}" font-size="12" fill="#e8e4d8">${c.breakerA}</text>`
  })
  const fillers = Array.from({ length: panel.spaces }, (_, i) => i + 1)
    .filter(s => !panel.circuits.some(c => spacesOf(c).includes(s)))
    .map(s => {
      const { x, y } = at(s)
      return `<rect x="${x}" y="${y}" width="150" height="${pitch - 3}" fill="#9a978c" stroke="#77746a"/>${panel.unusable.includes(s) ? `<path d="M${x} ${y}l150 ${pitch - 3}m0 ${3 - pitch}l-150 ${pitch - 3}" stroke="#5d2a20" stroke-width="3"/>` : ''}`
    })
  const numbers = Array.from({ length: panel.spaces }, (_, i) => i + 1).map(s => {
    const { x, y } = at(s)
    return `<text x="${columnOf(s) === 'left' ? x - 34 : x + 160}" y="${y + pitch / 2 + 6}" font-size="17" fill="#333">${spaceName(panel, s)}</text>`
  })
  const mainY = panel.feedsFrom === 'top' ? 96 : 1072
  return `<rect width="900" height="1200" fill="#b9ae97"/>
    <g transform="rotate(${(roll() - 0.5) * 2.4} 450 600)">
    <path d="M40 60 L180 40 L180 1160 L40 1140Z" fill="#8d8b83" stroke="#5e5c55"/>
    <rect x="180" y="40" width="540" height="1120" fill="#a8a59a" stroke="#55534b" stroke-width="6"/>
    <rect x="236" y="70" width="428" height="1060" fill="#c6c3b8" stroke="#77746a"/>
    ${panel.mainA ? `<rect x="380" y="${mainY}" width="140" height="62" rx="6" fill="#17191c"/><text x="418" y="${mainY + 40}" font-size="26" fill="#e8e4d8">${panel.mainA}</text>` : ''}
    ${breakers.join('')}${fillers.join('')}${numbers.join('')}</g>${lit(900, 1200)}`
}

function directorySvg(panel: Panel, roll: () => number): string {
  const rows = panel.spaces / 2
  const pitch = Math.min(70, 940 / rows)
  const cell = (space: number) => {
    const y = 180 + rowOf(space) * pitch
    const x = columnOf(space) === 'left' ? 110 : 470
    const here = panel.circuits.filter(c => c.position === space)
    const text = here.map(c => c.label.toLowerCase()).join(' / ')
    const faint = roll() < 0.25 ? 0.45 : 0.9
    return `<text x="${x}" y="${y}" font-size="20" fill="#333">${spaceName(panel, space)}</text>
      <line x1="${x + 36}" x2="${x + 330}" y1="${y + 8}" y2="${y + 8}" stroke="#99907a"/>
      <text transform="translate(${x + 42 + roll() * 8} ${y + 2}) rotate(${(roll() - 0.5) * 3})" font-size="${Math.min(26, pitch * 0.55)}" font-style="italic" font-family="cursive, serif" fill="#23346b" opacity="${faint}">${esc(text)}</text>`
  }
  return `<rect width="900" height="1200" fill="#8d8b83"/><g transform="rotate(${(roll() - 0.5) * 3} 450 600)">
    <rect x="70" y="70" width="760" height="1080" fill="#efe9d8" stroke="#b8ae95"/>
    <text x="110" y="135" font-size="30" fill="#333">CIRCUIT DIRECTORY</text>
    ${Array.from({ length: panel.spaces }, (_, i) => cell(i + 1)).join('')}</g>${lit(900, 1200)}`
}

function linesSvg(
  w: number,
  h: number,
  lines: readonly string[],
  roll: () => number,
  ground: string,
): string {
  return `<rect width="${w}" height="${h}" fill="${ground}"/><g transform="rotate(${(roll() - 0.5) * 4} ${w / 2} ${h / 2})">
    <rect x="${w * 0.16}" y="${h * 0.16}" width="${w * 0.68}" height="${h * 0.68}" rx="10" fill="#d9d6cb" stroke="#6a675e" stroke-width="4"/>
    ${lines.map((line, i) => `<text x="${w * 0.2}" y="${h * 0.28 + i * h * 0.085}" font-size="${(i ? 0.045 : 0.058) * Math.min(w, h)}" fill="#20242a">${esc(line)}</text>`).join('')}
    ${[0, 1].map(i => `<circle cx="${w * (0.185 + 0.63 * i)}" cy="${h * 0.2}" r="9" fill="#8d8b83" stroke="#444"/>`).join('')}</g>${lit(w, h)}`
}

function stickerLines(panel: Panel): string[] {
  if (!panel.series) return ['(label worn off)']
  return [
    panel.series.toUpperCase(),
    `Bus ${panel.busA ?? '?'} A   120/240 V   1 PH 3 W`,
    `Spaces: ${panel.spaces}`,
    'Use only breaker types:',
    `   ${panel.breakerTypes.join('   ')}`,
    panel.tandemSpaces?.length
      ? `Half-size breakers only in: ${panel.tandemSpaces[0]} to ${panel.tandemSpaces.at(-1)}`
      : panel.tandemSpaces
        ? 'No half-size breakers'
        : '',
    'Copper or aluminum, 75 °C',
  ]
}

function wallSvg(panel: Panel, roll: () => number): string {
  return `<rect width="1200" height="900" fill="#c2b79f"/><rect y="730" width="1200" height="170" fill="#8b8479"/>
    <rect x="${690 + roll() * 60}" y="170" width="220" height="420" fill="#a19e94" stroke="#55534b" stroke-width="5"/>
    <path d="M800 170V0M740 590V730" stroke="#8f8c83" stroke-width="22"/>
    <rect x="${120 + roll() * 90}" y="470" width="230" height="260" fill="#7c6a50"/><rect x="180" y="260" width="120" height="120" fill="#e4dfd0" stroke="#8d8b83"/>
    <text x="60" y="860" font-size="26" fill="#2b2b28">${esc(panel.where)}</text>${lit(1200, 900)}`
}

function svgOf(job: Job, photo: Photo, seed: number): string {
  const roll = dice(seed)
  roll()
  const { about } = photo
  const panel = job.panels.find(p => about.kind === 'panel' && p.id === about.panelId) ?? job.panels[0]
  if (!panel) throw new Error('no panel')
  const size = `width="${photo.width}" height="${photo.height}"`
  const [mark] = photo.marks
  const circuit =
    about.kind === 'load' || about.kind === 'circuit' ? circuitOf(job, about.circuitId) : undefined
  const body = mark
    ? linesSvg(
        1200,
        900,
        [
          photo.name.replace(/^Nameplate, /, '').toUpperCase(),
          ...mark.text.split(', '),
          circuit ? `CIRCUIT ${positionText(circuit.panel, circuit.circuit)}` : '',
        ],
        roll,
        '#6f7577',
      )
    : photo.name === 'Directory'
      ? directorySvg(panel, roll)
      : photo.name.startsWith('Sticker')
        ? linesSvg(900, 1200, stickerLines(panel), roll, '#8d8b83')
        : about.kind === 'wall'
          ? wallSvg(panel, roll)
          : panelSvg(panel, roll)
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size} font-family="sans-serif">${wall}${body}</svg>`
}

async function main() {
  const to = 'src/server/seeds/photos'
  mkdirSync(to, { recursive: true })
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const page = await browser.newPage()
  let seed = 11
  for (const { job } of demoJobs)
    for (const photo of job.photos) {
      await page.setViewportSize({ width: photo.width, height: photo.height })
      await page.setContent(`<body style="margin:0">${svgOf(job, photo, seed++)}`)
      const png = await page.screenshot()
      writeFileSync(`${to}/${photo.id}.jpg`, await sharp(png).jpeg({ quality: 62, mozjpeg: true }).toBuffer())
    }
  await browser.close()
}

void main()
