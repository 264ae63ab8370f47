import fc from 'fast-check'
import { panelSvg } from '../formats/panel-svg'
import { circuit, job } from '../job/fixtures/jobs'
import { labelPages, labelSheets, labelsOf, tapeOf } from './labels'

const quad = [
  circuit(1, { id: 'outer', poles: 2, half: 'a', label: 'Range' }),
  circuit(1, { id: 'inner', poles: 2, half: 'b', label: 'Dryer' }),
  circuit(5, { label: 'Lights' }),
  circuit(2, { id: 'up', half: 'a' }),
  circuit(2, { id: 'down', half: 'b' }),
]
const j = job(quad)
const [panel] = j.panels
if (!panel) throw new Error('no panel')

test('every sheet fits on its page', () => {
  for (const s of labelSheets) {
    expect(s.margin.left + (s.across - 1) * s.pitch.x + s.label.width).toBeLessThanOrEqual(s.page.width)
    expect(s.margin.top + (s.down - 1) * s.pitch.y + s.label.height).toBeLessThanOrEqual(s.page.height)
    expect(s.pitch.x).toBeGreaterThanOrEqual(s.label.width)
    expect(s.pitch.y).toBeGreaterThanOrEqual(s.label.height)
  }
})

test('a label for every breaker, none lost between pages, used places skipped', () => {
  expect(labelsOf(j, panel).map(l => l.place)).toEqual(['1A·3B', '1B·3A', '5', '2A', '2B'])
  const [sheet] = labelSheets
  if (!sheet) throw new Error('no sheet')
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 200 }), fc.integer({ min: -5, max: 100 }), (count, skip) => {
      const labels = Array.from({ length: count }, (_, i) => i)
      const pages = labelPages(labels, sheet, skip)
      expect(pages.flat().filter(l => l !== null)).toEqual(labels)
      for (const page of pages) expect(page.length).toBeLessThanOrEqual(30)
    }),
  )
  expect(labelPages(['a'], sheet, 2)[0]).toEqual([null, null, 'a'])
})

test('a tape is as long as its side, and a breaker’s cell as high as the breaker', () => {
  const left = tapeOf(j, panel, 'left')
  expect(left.map(c => [c.key, c.spaces, c.labels.map(l => l.text)])).toEqual([
    ['1', 2, ['Range', 'Dryer']],
    ['5', 1, ['Lights']],
    ['7', 1, []],
    ['9', 1, []],
    ['11', 1, []],
  ])
  expect(tapeOf(j, panel, 'right')[0]?.labels.map(l => l.place)).toEqual(['2A', '2B'])
})

test('the drawing is whole XML whatever stands on a label, with legs told by letter and pattern', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60, unit: 'binary' }), label => {
      const svg = panelSvg({ ...panel, name: label, circuits: [circuit(1, { label })] })
      const inside = svg.replace(/<\/?[a-z][^<>]*>|<\?xml[^<>]*\?>/gi, '')
      expect(inside).not.toMatch(/[<>]/)
      expect(inside.replace(/&(amp|lt|gt|quot);/g, '')).not.toMatch(/&/)
    }),
  )
  const svg = panelSvg(panel)
  expect(svg).toContain('url(#hatch)')
  expect(svg.match(/>L1</g)).toHaveLength(3)
  expect(svg).toContain('1A·3B')
})
