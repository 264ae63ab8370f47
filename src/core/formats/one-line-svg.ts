import { Graph, layout } from '@dagrejs/dagre'
import { deference } from '../deference'
import type { Job } from '../job/schema'
import type { Fill, Water } from '../order/water'
import { type Line, oneLineOf, type Part, type PartKind } from '../work/one-line'
import { escaped, shortened } from './svg-text'

const symbolPx = 44
const linePx = 15
const charPx = 6.6
const framePx = 24
const titlePx = 112
const electrodePx = 26

export interface Sheet {
  firm: string
  revision: number
  on: string
}

const widthOf = (part: Part) =>
  Math.max(
    120,
    symbolPx + 26 + Math.min(210, Math.max(...[part.title, ...part.lines].map(t => t.length)) * charPx),
  )
const heightOf = (part: Part) =>
  Math.max(56, 26 + part.lines.length * linePx) + (part.electrode ? electrodePx : 0)

/**
 * The one-line diagram of a job as a drawing: parts placed by dagre (layered, from the utility down), standard symbols,
 * neutral-to-ground bonds and the electrode, a sheet frame with title. Text only, no script; it stands by itself.
 * `hrefOf` makes each part a link to where it is changed. `water` fills what is live and drains what is dead. Without a sheet it stands without frame and title.
 */
export function oneLineSvg(
  job: Job,
  sheet: Sheet | null,
  hrefOf?: (part: Part) => string,
  water?: Water,
): string {
  const { parts, lines, notes } = oneLineOf(job)
  const graph = new Graph({ multigraph: true })
  graph.setGraph({ rankdir: 'TB', nodesep: 34, ranksep: 46, marginx: 12, marginy: 12 })
  for (const part of parts) graph.setNode(part.id, { width: widthOf(part), height: heightOf(part) })
  lines.forEach((line, n) => {
    const widest = Math.max(0, ...line.label.map(t => shortened(t, 30).length))
    graph.setEdge(
      line.from,
      line.to,
      {
        width: widest ? widest * charPx + 14 : 0,
        height: line.label.length * linePx,
        labelpos: 'r',
        labeloffset: 4,
      },
      `e${n}`,
    )
  })
  layout(graph)
  const { width: inner = 0, height: tall = 0 } = graph.graph()
  const noteLines = notes.length
  const width = Math.max(sheet ? 760 : 300, inner + 2 * framePx)
  const footer = sheet ? Math.max(titlePx, 26 + noteLines * linePx) : 0
  const height = tall + 2 * framePx + footer
  const shift = (width - inner) / 2
  const drawnLines = lines.map((line, n) => {
    const edge = graph.edge({ v: line.from, w: line.to, name: `e${n}` })
    // the box of a service ends above its electrode
    const lift = parts.find(p => p.id === line.from)?.electrode ? electrodePx : 0
    const [first, ...rest] = edge.points ?? []
    return drawnLine(
      line,
      { ...edge, points: first ? [{ x: first.x, y: first.y - lift }, ...rest] : [] },
      shift,
      water?.lines[n],
    )
  })
  const drawnParts = parts.map(part => {
    const at = graph.node(part.id)
    const box = {
      x: at.x - at.width / 2 + shift,
      y: at.y - at.height / 2 + framePx,
      w: at.width,
      h: at.height,
    }
    const drawing = drawnPart(part, box, water?.parts[part.id])
    return hrefOf
      ? `<a href="${escaped(hrefOf(part))}" data-part="${escaped(part.id)}">${drawing}</a>`
      : drawing
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${Math.round(width)} ${Math.round(height)}" width="${Math.round(width)}" height="${Math.round(height)}" font-family="'Atkinson Hyperlegible Next Variable', sans-serif" font-size="12" fill="#111111" role="group" aria-label="One-line diagram of ${escaped(job.title)}">
<rect width="100%" height="100%" fill="#ffffff"/>
${sheet ? `<rect x="8" y="8" width="${Math.round(width - 16)}" height="${Math.round(height - 16)}" fill="none" stroke="#111111" stroke-width="1.6"/>` : ''}
${drawnLines.join('\n')}
${drawnParts.join('\n')}
${sheet ? frame(job, sheet, notes, width, height, footer) : ''}
</svg>
`
}

function frame(
  job: Job,
  sheet: Sheet,
  notes: readonly string[],
  width: number,
  height: number,
  footer: number,
): string {
  const top = height - footer - 8
  const titleW = 300
  const x = width - titleW - 8
  return `<line x1="8" y1="${top}" x2="${width - 8}" y2="${top}" stroke="#111111"/>
<line x1="${x}" y1="${top}" x2="${x}" y2="${height - 8}" stroke="#111111"/>
${notes.map((n, i) => `<text x="20" y="${top + 22 + i * linePx}" font-size="11">${escaped(shortened(n, 96))}</text>`).join('\n')}
<text x="${x + 12}" y="${top + 22}" font-size="14" font-weight="700">${escaped(shortened(job.title, 36))}</text>
<text x="${x + 12}" y="${top + 38}" font-size="11">${escaped(shortened(job.place, 48))}</text>
<text x="${x + 12}" y="${top + 54}" font-size="11">One-line diagram · NEC ${job.edition}</text>
<text x="${x + 12}" y="${top + 70}" font-size="11">${escaped(sheet.firm)} · revision ${sheet.revision} · ${escaped(sheet.on)}</text>
${wrapped(deference, 66)
  .map((t, i) => `<text x="${x + 12}" y="${top + 82 + i * 9}" font-size="8">${escaped(t)}</text>`)
  .join('\n')}`
}

/** Lines of at most so many characters, parted between words. */
function wrapped(text: string, most: number): string[] {
  return text.split(' ').reduce<string[]>((lines, word) => {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length < most) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
    return lines
  }, [])
}

type Point = { x: number; y: number }

function drawnLine(
  line: Line,
  edge: { points?: Point[]; x?: number; y?: number; width?: number },
  shift: number,
  fill: Fill | undefined,
): string {
  const points = (edge.points ?? []).map(p => ({ x: p.x + shift, y: p.y + framePx }))
  const path = squared(points)
  const label = line.label.map((text, i) => {
    const x = (edge.x ?? 0) + shift - (edge.width ?? 0) / 2 + 6
    const y = (edge.y ?? 0) + framePx - ((line.label.length - 1) * linePx) / 2 + i * linePx + 4
    return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="11" stroke="#ffffff" stroke-width="4" paint-order="stroke" fill="#111111">${escaped(shortened(text, 30))}</text>`
  })
  const end = points.at(-1)
  // an open contact where only one of two lines can be closed
  const contact =
    line.exclusive && end
      ? `<circle cx="${end.x.toFixed(1)}" cy="${(end.y - 5).toFixed(1)}" r="4" fill="#ffffff" stroke="#111111" stroke-width="1.5"/>`
      : ''
  const stream =
    fill && fill !== 'dry' ? `<path d="${path}" fill="none" stroke="${waterInk}" stroke-width="9"/>` : ''
  const drained = fill === 'dry' ? ' stroke-opacity="0.35"' : ''
  return `${stream}<path d="${path}" fill="none" stroke="#111111" stroke-width="2"${drained}${line.cord ? ' stroke-dasharray="7 5"' : ''}/>${contact}${label.join('')}`
}

/** Only upright and level strokes, as a one-line is drawn. */
function squared(points: readonly Point[]): string {
  const [first, ...rest] = points
  if (!first) return ''
  let at = first
  return rest.reduce(
    (path, p) => {
      const middle = (at.y + p.y) / 2
      const step =
        Math.abs(p.x - at.x) < 0.5
          ? `V${p.y.toFixed(1)}`
          : `V${middle.toFixed(1)}H${p.x.toFixed(1)}V${p.y.toFixed(1)}`
      at = p
      return path + step
    },
    `M${first.x.toFixed(1)} ${first.y.toFixed(1)}`,
  )
}

interface Box {
  x: number
  y: number
  w: number
  h: number
}

/** Water, and what is written on it. */
const waterInk = '#8fc9d6'
const shares = { full: 1, half: 0.35, dry: 0 } as const
const halves: Partial<Record<PartKind, string>> = { panel: 'LINE SIDE LIVE', unit: 'STORE LIVE' }
const wordOf = (fill: NonNullable<Fill>, kind: PartKind) =>
  fill === 'full' ? 'LIVE' : fill === 'dry' ? 'dead' : (halves[kind] ?? 'PARTLY LIVE')

function drawnPart(part: Part, { x, y, w, h }: Box, fill?: Fill): string {
  const body = part.electrode ? h - electrodePx : h
  const textX = x + symbolPx + 18
  const lines = part.lines.map(
    (t, i) =>
      `<text x="${textX}" y="${y + 36 + i * linePx}" font-size="11">${escaped(shortened(t, 34))}</text>`,
  )
  // water comes from above: a line side that is live stands full over the rest
  const level =
    fill && fill !== 'dry'
      ? `<rect x="${x + 1.5}" y="${y + 1.5}" width="${w - 3}" height="${(body - 3) * shares[fill]}" fill="${waterInk}"/>`
      : ''
  const dash = part.kind === 'loads' ? ' stroke-dasharray="2 3"' : ''
  return `<g><rect x="${x}" y="${y}" width="${w}" height="${body}" rx="3" fill="#ffffff" stroke="#111111" stroke-width="${part.kind === 'panel' ? 2.4 : 1.2}"${dash}/>${level}
<g transform="translate(${x + 8} ${y + (body - symbolPx) / 2})">${symbols[part.kind]}</g>
<text x="${textX}" y="${y + 20}" font-weight="700">${escaped(shortened(part.title, 32))}</text>
${lines.join('\n')}
${fill ? fillMark(fill, part.kind, x + w, y + body) : bondMark(part, x + w, y)}${part.electrode ? electrode(x + 30, y + body) : ''}</g>`
}

/** What a part is, in a word beside the colour. */
function fillMark(fill: NonNullable<Fill>, kind: PartKind, right: number, bottom: number): string {
  const word = wordOf(fill, kind)
  const w = word.length * 6.4 + 10
  const dead = fill === 'dry'
  return `<g><rect x="${right - w - 4}" y="${bottom - 9}" width="${w}" height="16" rx="3" fill="${dead ? '#ffffff' : '#111111'}" stroke="#111111"${dead ? ' stroke-dasharray="2 2"' : ''}/><text x="${right - w / 2 - 4}" y="${bottom + 3}" font-size="10" font-weight="700" text-anchor="middle" fill="${dead ? '#111111' : '#ffffff'}">${word}</text></g>`
}

/** `N=G` where neutral and ground are joined, `N G` where they are kept apart. */
function bondMark({ bond }: Part, right: number, y: number): string {
  if (!bond) return ''
  const text = { bonded: 'N–G joined', floating: 'N, G apart', 'not stated': 'N–G not stated' }[bond]
  const w = text.length * 5.6 + 8
  const fill = bond === 'bonded' ? '#111111' : '#ffffff'
  const ink = bond === 'bonded' ? '#ffffff' : '#111111'
  return `<g><rect x="${right - w - 4}" y="${y - 8}" width="${w}" height="15" rx="7" fill="${fill}" stroke="#111111"/><text x="${right - w / 2 - 4}" y="${y + 3}" font-size="10" text-anchor="middle" fill="${ink}">${text}</text></g>`
}

/** The grounding electrode, three lines under a stem. */
const electrode = (x: number, y: number) =>
  `<g stroke="#111111" stroke-width="1.6"><path d="M${x} ${y}v10M${x - 10} ${y + 10}h20M${x - 6.5} ${y + 15}h13M${x - 3} ${y + 20}h6" fill="none"/></g>`

const ink = 'fill="none" stroke="#111111" stroke-width="1.8"'
const circleOf = (letter: string) =>
  `<circle cx="22" cy="22" r="19" ${ink}/><text x="22" y="28" text-anchor="middle" font-size="17">${letter}</text>`

/** Symbols in a square of 44, after the usual ones of North American one-lines. */
const symbols: Record<PartKind, string> = {
  utility: `<path d="M8 40L22 4L36 40M13 27h18M10 34h24M17 16h10" ${ink}/>`,
  meter: circleOf('M'),
  generator: circleOf('G'),
  panel: `<path d="M22 2v40" stroke="#111111" stroke-width="4"/><path d="M22 10h-14M22 22h-14M22 34h-14M22 10h14M22 22h14M22 34h14" ${ink}/>`,
  switch: `<circle cx="12" cy="8" r="3" ${ink}/><circle cx="32" cy="8" r="3" ${ink}/><circle cx="22" cy="36" r="3" ${ink}/><path d="M21 33L13 11" ${ink}/><path d="M12 5V0M32 5V0M22 39v5" ${ink}/>`,
  interlock: `<path d="M12 0v12M12 32v12M12 12l8 18M32 0v12M32 32v12M32 12l8 18" ${ink}/><path d="M17 23h19" stroke="#111111" stroke-width="1.4" stroke-dasharray="3 2"/>`,
  breaker: `<path d="M22 0v12M22 32v12M22 12l9 18" ${ink}/>`,
  inlet: `<path d="M22 0v12" ${ink}/><path d="M10 26a12 12 0 0 1 24 0z" ${ink}/><path d="M16 26v9M28 26v9M22 26v12" ${ink}/>`,
  unit: `<rect x="3" y="3" width="38" height="38" ${ink}/><path d="M41 3L3 41" ${ink}/><path d="M9 14h12M9 19h12" ${ink}/><path d="M24 33q4-8 8 0t8 0" transform="translate(-3 -1)" ${ink}/>`,
  inverter: `<rect x="3" y="3" width="38" height="38" ${ink}/><path d="M41 3L3 41" ${ink}/><path d="M9 12h12M9 17h3m2 0h3m2 0h3" ${ink}/><path d="M21 33q4-8 8 0t8 0" ${ink}/>`,
  bank: `<path d="M22 0v10M22 34v10M6 10h32M13 18h18M6 26h32M13 34h18" ${ink}/>`,
  array: `<rect x="4" y="8" width="36" height="28" ${ink}/><path d="M16 8v28M28 8v28M4 22h36" ${ink}/><path d="M30 0l-5 5M36 2l-5 5" ${ink}/>`,
  solar: `<rect x="4" y="8" width="36" height="28" ${ink}/><path d="M16 8v28M28 8v28M4 22h36" ${ink}/>`,
  combiner: `<path d="M10 0v14L22 26L34 14V0M22 26v18" ${ink}/><circle cx="22" cy="26" r="3.5" fill="#111111"/>`,
  transformer: `<path d="M22 0v4a5 5 0 0 1 0 9a5 5 0 0 1 0 9a5 5 0 0 1 0 9a5 5 0 0 1 0 9v4M22 22H6" ${ink}/>`,
  loads: `<path d="M22 4v22" ${ink}/><path d="M14 24h16L22 40z" fill="#111111"/>`,
}
