import { circuit, job } from '../job/fixtures/jobs'
import { panelTakes } from './panel-takes'

const takes = (...args: Parameters<typeof job>) => {
  const j = job(...args)
  const [panel] = j.panels
  if (!panel) throw new Error('no panel')
  return panelTakes(j, panel)
}

test('spaces: free, unusable, and what a two-pole costs anywhere and beside the main', () => {
  // 12 spaces; 1, 3 and 5 taken on the left, all of the right but 8 and 12; 11 cannot be used
  const circuits = [1, 3, 5, 2, 4, 6, 10].map(p => circuit(p))
  expect(takes(circuits, { panel: { unusable: [11] } })).toMatchObject({
    free: 4,
    unusable: 1,
    pair: [
      { where: 'anywhere', moves: 0 },
      { where: 'beside the main', moves: 2 },
    ],
  })
  const full = Array.from({ length: 12 }, (_, i) => circuit(i + 1))
  expect(takes(full).pair.map(p => p.moves)).toEqual([null, null])
})

test('fed from below, the place beside the main is at the lower end', () => {
  expect(takes([circuit(1), circuit(3)], { panel: { feedsFrom: 'bottom' } }).pair[1]?.moves).toBe(0)
  expect(takes([circuit(9), circuit(10)], { panel: { feedsFrom: 'bottom' } }).pair[1]?.moves).toBe(1)
})

test('load: 125 % of the highest demand against the main; feed-in: 120 % of the bus less the main', () => {
  const known = takes([circuit(2, { poles: 2, breakerA: 20, purpose: 'solar' })], {
    panel: { busA: 125, demandW: { value: 9600, from: 'utility data' } },
  })
  // 1.25 × 9,600 ÷ 240 = 50 A of 100 A; 1.2 × 125 − 100 − 20 = 30 A
  expect(known.demand?.spareA).toBeCloseTo(50, 9)
  expect(known.feedInA).toBeCloseTo(30, 9)
  expect(takes([])).toMatchObject({ demand: null, feedInA: null })
})
