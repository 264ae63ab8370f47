import type { WiringPlan } from '../work/wiring/parts'
import { escaped } from './svg-text'
import { inks } from './wire-inks'
import { type Drawing, type Shape, type Wire, wiringDrawing } from './wiring-drawing'

const n = (v: number) => v.toFixed(1)

/** From point to point, leaving and coming in level. */
const pathOf = ({ points, pulls }: Wire): string =>
  points
    .map((p, i) => {
      const from = points[i - 1]
      const [out, into] = pulls[i - 1] ?? [0, 0]
      return from
        ? `C${n(from.x + out)} ${n(from.y)} ${n(p.x + into)} ${n(p.y)} ${n(p.x)} ${n(p.y)}`
        : `M${n(p.x)} ${n(p.y)}`
    })
    .join('')

function drawn(shape: Shape): string {
  switch (shape.kind) {
    case 'box':
      return shape.weight === 'enclosure'
        ? `<rect x="${n(shape.x)}" y="${n(shape.y)}" width="${n(shape.w)}" height="${n(shape.h)}" rx="4" fill="#ffffff" stroke="#111111" stroke-width="1.6"/>`
        : `<rect x="${n(shape.x)}" y="${n(shape.y)}" width="${n(shape.w)}" height="${n(shape.h)}" rx="2" fill="#f3f5f6" stroke="#9aa4aa" stroke-width="0.8"/>`
    case 'text':
      return `<text x="${n(shape.x)}" y="${n(shape.y)}" font-size="${shape.size}"${shape.bold ? ' font-weight="700"' : ''}${shape.end ? ' text-anchor="end"' : ''}${shape.rimmed ? ' stroke="#ffffff" stroke-width="3" paint-order="stroke"' : ''}>${escaped(shape.text)}</text>`
    case 'dot':
      return `<circle cx="${n(shape.x)}" cy="${n(shape.y)}" r="2.4"/>`
    case 'wire': {
      const d = pathOf(shape)
      const { line, rim } = inks[shape.ink]
      const dash = shape.there ? ' stroke-dasharray="6 4"' : ''
      return `<g data-wire="${shape.id}" data-route="${escaped(shape.route)}"${shape.circuitId ? ` data-circuit="${escaped(shape.circuitId)}"` : ''} fill="none">${rim ? `<path d="${d}" stroke="${rim}" stroke-width="3.4"${dash}/>` : ''}<path d="${d}" stroke="${line}" stroke-width="${rim ? 1.8 : 2}"${dash}/></g>`
    }
  }
}

/** A drawing as SVG that stands by itself: no script, its text selectable. */
export function drawingSvg({ width, height, shapes }: Drawing, title: string): string {
  const order = (kind: Shape['kind']) => shapes.filter(s => s.kind === kind).map(drawn)
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="'Atkinson Hyperlegible Next Variable', sans-serif" fill="#111111" role="img" aria-label="${escaped(title)}">
<rect width="100%" height="100%" fill="#ffffff"/>
${[...order('box'), ...order('wire'), ...order('dot'), ...order('text')].join('\n')}
</svg>
`
}

export const wiringSvg = (plan: WiringPlan, title: string): string =>
  drawingSvg(wiringDrawing(plan), `Wiring plan of ${title}`)
