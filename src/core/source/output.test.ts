import { evaluate } from '../assess/evaluate'
import { circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Arrangement } from './arrangement'
import { hindersArrangement, type Source } from './design'
import { outputOf } from './output'
import { storeOverTime } from './store'

const source = (equipment: Source['units'][0]['equipment'], arrangement: Arrangement): Source => ({
  units: [{ id: 'u1', equipment, expansionUnits: 0, owned: false }],
  arrangement,
  liveLeg: 'L1',
})

test('a 120 V unit: its rating, which holds for hours; or its outlet, four fifths of it for hours', () => {
  // TT-30: 0.8 × 30 A × 120 V = 2,880 W, above the unit's 2,000 W
  expect(outputOf(source(station(), 'tied'))).toEqual({
    outlet: { type: 'TT-30', amps: 30 },
    totalW: 2000,
    legW: { L1: 2000, L2: 2000 },
    lasting: { totalW: 2000, legW: { L1: 2000, L2: 2000 }, limitedBy: 'unit' },
    surgeW: 4000,
    legSurgeW: 4000,
    startsA: null,
    limitedBy: 'unit',
    way: null,
  })
  const limited = station({ outlets: [{ type: '5-20', count: 4, limitA: 12 }] })
  expect(outputOf(source(limited, 'one-leg'))).toMatchObject({
    totalW: 12 * 120,
    lasting: { totalW: 0.8 * 12 * 120, limitedBy: 'outlet' },
    limitedBy: 'outlet',
  })
})

test('a 120/240 V unit gives both legs under split phase and one of them otherwise', () => {
  expect(outputOf(source(splitStation(), 'split-phase'))).toMatchObject({
    totalW: 6000,
    legW: { L1: 3000, L2: 3000 },
    surgeW: 10_000,
    legSurgeW: 5000,
  })
  expect(outputOf(source(splitStation(), 'tied'))).toMatchObject({ totalW: 3000, surgeW: 5000 })
  // L14-30: 3,600 W a leg is above the unit's 3,000; for hours 2,880 W are left
  const small = splitStation({ outlets: [{ type: 'L14-30', count: 1 }] })
  expect(outputOf(source(small, 'split-phase'))).toMatchObject({
    totalW: 6000,
    legW: { L1: 3000, L2: 3000 },
    limitedBy: 'unit',
    lasting: { totalW: 5760, legW: { L1: 2880, L2: 2880 }, limitedBy: 'outlet' },
  })
})

test('split phase uses a two-hot outlet even where a 120 V one carries more amps', () => {
  const both = splitStation({
    outlets: [
      { type: 'TT-30', count: 1 },
      { type: 'L14-20', count: 1 },
    ],
  })
  expect(outputOf(source(both, 'split-phase')).outlet?.type).toBe('L14-20')
  expect(outputOf(source(both, 'tied')).outlet?.type).toBe('TT-30')
  expect(hindersArrangement(source(station(), 'tied'), 'split-phase')).toMatch(/120 V only/)
})

describe('the store over time', () => {
  const outage = { hours: 10, startFraction: 0.9, reserveFraction: 0.2, deratingFraction: 0.5 }
  const j = job([circuit(1, { loads: [load(90)] })], { outage, source: { expansionUnits: 1 } })

  test('falls at the drawn watts from the charge at the start to the reserve, and stays there', () => {
    // 4,000 Wh × 0.5 = 2,000; start 1,800, reserve 400; 10 + 90 ÷ 0.9 = 110 W; 1,400 ÷ 110 = 12.7 h
    const { store } = evaluate(j)
    expect(store).toMatchObject({ capacityWh: 2000, reserveWh: 400 })
    expect(store?.points[0]).toEqual({ hour: 0, levelWh: 1800 })
    expect(store?.points.at(-1)?.hour).toBeCloseTo(1400 / 110, 9)
    expect(store?.points.at(-1)?.levelWh).toBeCloseTo(400, 9)
  })

  test('ends at the hours asked when those come later', () => {
    const { points } = storeOverTime(
      { ...j, outage: { ...outage, hours: 30 } },
      { hours: 1400 / 110, batteryW: 110 },
    )
    expect(points.map(p => p.hour)).toEqual([0, 1400 / 110, 30])
    expect(points.at(-1)?.levelWh).toBe(400)
  })
})
