import { bodySpaces } from '../panel/body'
import { columnOf, feedOf, halvesOf, legOf, positionText, rowOf, spaceName } from '../panel/positions'
import type { Circuit, Panel } from '../panel/schema'
import { escaped, shortened } from './svg-text'

const rowPx = 34
const columnPx = 300
const busPx = 46
const numberPx = 40
const top = 96
const gap = ' '
/** Width of a letter in its height, on the wide side, so that no breaker's text leaves it. */
const letterShare = 0.53

/**
 * A panel as a drawing for documents: positions as printed, ratings, labels, shared neutrals, and the legs told by letter
 * and by pattern, plain for L1 and hatched for L2. `marks`: signs of what is planned, by circuit. Text only, no script; it stands by itself.
 */
export function panelSvg(panel: Panel, marks: ReadonlyMap<string, string> = new Map()): string {
  const rows = panel.spaces / 2
  const width = 2 * (columnPx + numberPx) + busPx + 40
  const height = top + rows * rowPx + 40
  const x = { left: 20 + numberPx, right: 20 + numberPx + columnPx + busPx }
  const y = (space: number) => top + (rowOf(space) - 1) * rowPx
  const parts = [
    `<text x="20" y="34" font-size="20" font-weight="700">${escaped(panel.name)}</text>`,
    `<text x="20" y="58" font-size="14">${escaped(mainText(panel))}</text>`,
    `<text x="20" y="78" font-size="12">legs: L1 plain, L2 hatched; ■ picked for the outage; N shares its neutral</text>`,
    ...Array.from({ length: rows }, (_, row) =>
      bus(panel, 2 * row + 1, x.left + columnPx, top + row * rowPx),
    ),
    ...Array.from({ length: panel.spaces }, (_, i) => place(panel, i + 1, x[columnOf(i + 1)], y(i + 1))),
    ...panel.circuits.map(c => breaker(panel, c, x[columnOf(c.position)], y(c.position), marks.get(c.id))),
  ]
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" fill="#111111" role="img" aria-label="${escaped(panel.name)}">
<defs><pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect width="6" height="6" fill="#ffffff"/><rect width="2.4" height="6" fill="#777777"/></pattern></defs>
<rect width="${width}" height="${height}" fill="#ffffff"/>
${parts.join('\n')}
</svg>
`
}

const mainText = ({ mainA, busA, spaces, feedsFrom }: Panel) =>
  [
    mainA === undefined ? 'main lugs' : `main ${mainA} A`,
    ...(busA === undefined ? [] : [`bus ${busA} A`]),
    `${spaces} spaces`,
    `fed from the ${feedsFrom}`,
  ].join(', ')

function bus(panel: Panel, space: number, x: number, y: number): string {
  const leg = legOf(panel, space)
  return `<rect x="${x}" y="${y}" width="${busPx}" height="${rowPx}" fill="${leg === 'L1' ? '#e4e4e4' : 'url(#hatch)'}" stroke="#999999"/><rect x="${x + 11}" y="${y + 9}" width="24" height="17" fill="#ffffff"/><text x="${x + 23}" y="${y + 22}" text-anchor="middle" font-size="13" font-weight="700">${leg}</text>`
}

function place(panel: Panel, space: number, x: number, y: number): string {
  const left = columnOf(space) === 'left'
  const unusable = panel.unusable.includes(space)
  return `<text x="${left ? x - 8 : x + columnPx + 8}" y="${y + 22}" text-anchor="${left ? 'end' : 'start'}" font-size="14">${spaceName(panel, space)}</text><rect x="${x}" y="${y + 1}" width="${columnPx}" height="${rowPx - 2}" fill="none" stroke="#bbbbbb" stroke-dasharray="4 3"/>${unusable ? `<text x="${x + 10}" y="${y + 22}" font-size="12" fill="#555555">not usable</text>` : ''}`
}

function breaker(panel: Panel, c: Circuit, x: number, y: number, mark = ''): string {
  const spaces = bodySpaces([c]).length
  const half = halvesOf(c)[0]?.endsWith('b')
  const single = c.half && c.poles === 1
  const high = single ? rowPx / 2 - 1 : spaces * rowPx - 3
  // of a quad, the inner pair is drawn inside the outer one
  const inset = c.half && c.poles === 2 && half ? 60 : 0
  const from = y + 1 + (single && half ? rowPx / 2 : 0) + (inset ? rowPx / 2 : 0)
  const size = single ? 11 : 14
  const partner =
    c.neutral.kind === 'shared'
      ? panel.circuits.find(o => c.neutral.kind === 'shared' && o.id === c.neutral.with)
      : undefined
  const before = [mark, `${c.picked ? '■ ' : ''}${positionText(panel, c)}`].filter(Boolean)
  const after = [
    `${c.breakerA} A`,
    feedOf(panel, c) === 'both' ? '240 V' : '',
    partner ? `N ${positionText(panel, partner)}` : '',
  ].filter(Boolean)
  // what the label has left of the breaker beside all else that stands on it
  const fits = Math.floor((columnPx - inset - 16) / (letterShare * size))
  const label = shortened(
    c.label || 'unlabelled',
    fits - [...before, ...after].join(gap).length - 2 * gap.length,
  )
  const text = [...before, label, ...after]
  return `<g><title>${escaped(`${positionText(panel, c)} ${c.label || 'unlabelled'}, ${c.breakerA} A`)}</title><rect x="${x + inset}" y="${from}" width="${columnPx - inset}" height="${inset ? rowPx - 2 : high}" fill="#ffffff" stroke="#111111" stroke-width="${mark ? 3 : 1.5}"${mark ? ' stroke-dasharray="9 4"' : ''}/><text x="${x + inset + 8}" y="${from + (inset ? rowPx - 2 : high) / 2 + size / 3}" font-size="${size}">${escaped(text.join(gap))}</text></g>`
}
