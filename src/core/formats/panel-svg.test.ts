import { circuit, job } from '../job/fixtures/jobs'
import type { Circuit } from '../panel/schema'
import { panelSvg } from './panel-svg'

const drawn = (circuits: Circuit[], marks?: ReadonlyMap<string, string>, facts = {}) => {
  const [panel] = job(circuits, { panel: facts }).panels
  if (!panel) throw new Error('no panel')
  return panelSvg(panel, marks)
}
/** What stands on the breaker of a name, as drawn. */
const written = (svg: string, name: string) =>
  new RegExp(`<title>${name}[^<]*</title>.*?<text[^>]*>([^<]*)</text>`).exec(svg)?.[1] ?? ''

test('it stands by itself: XML, no script, a name; legs by letter and pattern on every row', () => {
  const svg = drawn([])
  expect(svg).toMatch(/^<\?xml[\s\S]*<svg[\s\S]*aria-label="Main panel"[\s\S]*<\/svg>\s*$/)
  expect(svg).not.toMatch(/<script|href=/)
  expect(svg.match(/>L1<\/text>/g)).toHaveLength(3)
  expect(svg.match(/>L2<\/text>/g)).toHaveLength(3)
  expect(svg.match(/url\(#hatch\)/g)).toHaveLength(3)
})

test('place, label, rating, 240 V and the shared neutral stand on the breaker; a square where it is picked', () => {
  const svg = drawn([
    circuit(1, { label: 'Kitchen', neutral: { kind: 'shared', with: 'c3' } }),
    circuit(3, { label: 'Hall', picked: false, neutral: { kind: 'shared', with: 'c1' } }),
    circuit(2, { label: 'Range', poles: 2, breakerA: 50, picked: false }),
  ])
  expect(written(svg, '1 Kitchen')).toBe('■ 1 Kitchen 20 A N 3')
  expect(written(svg, '3 Hall')).toBe('3 Hall 20 A N 1')
  expect(written(svg, '2·4 Range')).toBe('2·4 Range 50 A 240 V')
})

test('the longest label gives way to what stands beside it: nothing runs into the bus', () => {
  const long = 'Everything that was ever wired into the western garage and the shed behind it'
  const marks = new Map([['c1', '⟳']])
  const texts = [
    written(drawn([circuit(1, { label: long, poles: 2 })], marks), '1·3'),
    written(drawn([circuit(1, { label: long })]), '1 '),
    written(drawn([circuit(1, { label: long, half: 'a' })]), '1A'),
  ]
  for (const text of texts) {
    expect(text).toContain('…')
    expect(text.length).toBeLessThanOrEqual(48)
  }
  expect(texts[0]).toMatch(/^⟳ ■ 1·3 Every.*… 20 A 240 V$/)
  expect(texts[0]?.length).toBeLessThanOrEqual(38)
})

test('what is planned carries its sign and a dashed edge; a space that cannot be used says so', () => {
  const svg = drawn([circuit(1, { label: 'Kitchen' })], new Map([['c1', '↷']]), { unusable: [7] })
  expect(written(svg, '1 Kitchen')).toMatch(/^↷/)
  expect(svg).toMatch(/stroke-dasharray="9 4"/)
  expect(svg).toContain('not usable')
  expect(drawn([circuit(1)])).not.toMatch(/stroke-dasharray="9 4"/)
})

test('a label that looks like markup is written, not obeyed; what XML cannot hold is left out', () => {
  const svg = drawn([circuit(1, { label: '<b>&"\u0007Hall' })])
  expect(svg).not.toContain('<b>')
  expect(written(svg, '1 &lt;b&gt;')).toContain('&lt;b&gt;&amp;&quot;Hall')
})
