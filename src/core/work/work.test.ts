import { evaluate } from '../assess/evaluate'
import { circuit, job, load, splitStation } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { directoryOf } from './directory'

const texts = (j: Parameters<typeof evaluate>[0]) =>
  evaluate(j)
    .cautions.map(c => c.text)
    .join(' | ')
const byHand = (id: string, W: number) => load(W, { id, name: id, byHand: true })

test('the directory lists every space once, a two-pole in both of its own', () => {
  const j = job([circuit(1, { poles: 2 }), circuit(4), circuit(5, { id: 'up', half: 'a' })])
  const [panel] = j.panels
  const rows = panel ? directoryOf(j, panel) : []
  expect(rows).toHaveLength(6)
  expect(rows.flat().map(e => e.space)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])
  expect(rows[0]?.[0]).toMatchObject({ entries: [{ need: { circuit: { id: 'c1' } }, continued: false }] })
  expect(rows[1]?.[0]).toMatchObject({ entries: [{ need: { circuit: { id: 'c1' } }, continued: true }] })
  expect(rows[1]?.[1]).toMatchObject({ entries: [{ need: { circuit: { id: 'c4' } } }] })
  expect(rows[2]?.[0]?.entries.map(e => e.need.position)).toEqual(['5A'])
  expect(rows[2]?.[1]?.entries).toEqual([])
})

test('paralleling, the live line side and the single bond stand on every sheet, with their articles', () => {
  const { cautions } = evaluate(job([]))
  expect(cautions.slice(0, 3).map(c => c.article)).toEqual([
    'NEC 702.5',
    'NEC 110.25, 702.7',
    'NEC 250.24, 250.30',
  ])
})

test('an appliance that is plugged in directly is not told about feeding panels', () => {
  expect(texts(job([], { hookup: { method: 'extension-cords', bondingPlug: false } }))).not.toMatch(
    /Never feed a panel/,
  )
})

test('what stays off, what must not run together, and what needs rest are named', () => {
  const oneLeg = (method: Job['hookup']['method']) =>
    texts(
      job([circuit(2, { poles: 2, picked: false, label: 'Range' })], {
        source: { arrangement: 'one-leg' },
        hookup: { method, bondingPlug: false },
      }),
    )
  expect(oneLeg('interlocked-inlet')).toMatch(/Every two-pole breaker stays off.*2·4 Range/)
  // what a switch never reaches is not told to stay off
  expect(oneLeg('multi-circuit-switch')).not.toMatch(/stays off/)
  const kitchen = job([
    circuit(1, { loads: [byHand('Kettle', 1300)] }),
    circuit(3, { loads: [byHand('Toaster', 900)] }),
  ])
  expect(texts(kitchen)).toMatch(/Not at the same time: Kettle with Toaster/)
  expect(texts(kitchen)).toMatch(/One at a time: Kettle and Toaster/)
  expect(texts(job([circuit(1, { loads: [load(90, { nature: 'compressor' })] })]))).toMatch(/five minutes/)
  const split = { source: { station: splitStation(), arrangement: 'split-phase' as const } }
  expect(texts(job([circuit(1)], split))).not.toMatch(/no 240 V|stays off/)
})
