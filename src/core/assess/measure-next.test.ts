import fc from 'fast-check'
import { applied, circuit, job, load, station } from '../job/fixtures/jobs'
import { drawn } from '../loads/draw'
import { type Range, rangeOf, unsure } from '../loads/uncertainty'
import { balanceOf } from './balance'
import { changeTold, loadsOverview } from './loads-overview'
import { learn, needsBySchool, needsByTier } from './measure-next'
import { circuitNeeds, countedLoads } from './needs'

const figuresOf = (j: ReturnType<typeof job>) => balanceOf(j, circuitNeeds(j), countedLoads(j)).figures

/** A triangular draw by its inverse distribution. */
function triangular({ low, value, high }: Range, u: number) {
  if (high === low) return value
  const cut = (value - low) / (high - low)
  return u < cut
    ? low + Math.sqrt(u * (high - low) * (value - low))
    : high - Math.sqrt((1 - u) * (high - low) * (high - value))
}

test('the standard deviation of a load’s mean is that of drawing its figures at random', () => {
  const unit = fc.double({ min: 0.05, max: 0.95, noNaN: true })
  fc.assert(
    fc.property(unit, unit, (duty, spread) => {
      const one = load(500, {
        runningW: { value: 500, from: 'nameplate', low: 500 * (1 - spread / 2), high: 500 * (1 + spread) },
        dutyFraction: { value: duty, from: 'typical value', low: duty * 0.5, high: Math.min(1, duty * 1.4) },
        idleW: { value: 20, from: 'assumed', low: 5, high: 40 },
      })
      let seed = 12_345
      const random = () => {
        seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
        return seed / 2_147_483_648
      }
      const ranges = [
        rangeOf(one.dutyFraction, 'share'),
        rangeOf(one.runningW, 'watts'),
        rangeOf(one.idleW, 'watts'),
      ] as const
      const n = 8000
      let sum = 0
      let squares = 0
      for (let i = 0; i < n; i++) {
        const [d = 0, r = 0, idle = 0] = ranges.map(range => triangular(range, random()))
        const W = d * r + (1 - d) * idle
        sum += W
        squares += W * W
      }
      const sd = Math.sqrt(squares / n - (sum / n) ** 2)
      expect(unsure(one, {}).sdW / sd).toBeGreaterThan(0.94)
      expect(unsure(one, {}).sdW / sd).toBeLessThan(1.06)
    }),
    { numRuns: 12 },
  )
})

const fridge = load(140, {
  id: 'fridge',
  name: 'Fridge',
  runningW: { value: 140, from: 'typical value' },
  dutyFraction: { value: 0.35, from: 'typical value' },
})
const lamp = load(20, { id: 'lamp', name: 'Lamp' })

test('the load that makes the doubt comes first, and metering it takes the doubt away', () => {
  const before = job([circuit(1, { tier: 1, loads: [fridge] }), circuit(3, { loads: [lamp] })])
  const first = learn(before, figuresOf(before))
  expect(first.next.map(n => n.load.load.name)).toEqual(['Fridge', 'Lamp'])
  expect(first.next.reduce((sum, n) => sum + n.share, 0)).toBeCloseTo(1, 9)
  const after = applied(before, {
    op: 'takeLog',
    circuitId: 'c1',
    loadId: 'fridge',
    log: {
      id: 'l',
      name: '48 h',
      kind: 'plug-in meter',
      on: '2026-02-10',
      spans: [{ hours: 48, energyWh: 2000 }],
      runningW: 118,
      idleW: 2,
    },
  })
  const then = learn(after, figuresOf(after))
  expect(then.dailyWh.high - then.dailyWh.low).toBeLessThan((first.dailyWh.high - first.dailyWh.low) / 2)
  expect(
    then.hours && first.hours && then.hours.high - then.hours.low < first.hours.high - first.hours.low,
  ).toBe(true)
  expect(changeTold(before, after, 'fridge')).toMatch(
    /^Fridge: 1,176 Wh → 1,000 Wh a day \(typical value → metered\); run time .* h → .* h\.$/,
  )
})

test('a start whose range decides goes before all energy', () => {
  const pump = load(500, { id: 'pump', name: 'Pump', nature: 'motor' })
  const j = job([circuit(1, { loads: [fridge] }), circuit(3, { loads: [pump] })], {
    source: { station: station({ surgeW: 2500 }) },
  })
  expect(learn(j, figuresOf(j)).next[0]).toMatchObject({ moves: 'start', load: { load: { name: 'Pump' } } })
})

test('schools side by side: each sums its own figures, and says what makes the difference', () => {
  const known = {
    ...fridge,
    runningW: { value: 100, from: 'metered' as const, others: [{ value: 300, from: 'nameplate' as const }] },
  }
  const j = job([circuit(1, { loads: [known] }), circuit(3, { loads: [lamp] })])
  const [plate, metered, blended] = needsBySchool(j, figuresOf(j))
  expect(plate?.dailyWh).toBeCloseTo(24 * (300 * 0.35 + 20), 6)
  expect(plate?.reasons[0]).toMatch(/^Fridge \+1,680 Wh: 300 W \(nameplate\), not 100 W \(metered\)$/)
  expect(plate?.without).toEqual(['20 W load'].map(() => 'Lamp'))
  expect(metered?.without).toEqual(['Fridge'])
  expect(blended?.meanW).toBeCloseTo(figuresOf(j).meanLoadW, 9)
})

test('tiers and circuits add up to the day; a load’s own importance counts before its circuit’s', () => {
  const j = job([
    circuit(1, { tier: 1, loads: [fridge, { ...lamp, tier: 3 }] }),
    circuit(3, { tier: 2, loads: [{ ...lamp, id: 'second' }] }),
  ])
  const tiers = needsByTier(countedLoads(j))
  expect(tiers.map(t => t.tier)).toEqual([1, 2, 3])
  expect(tiers.reduce((sum, t) => sum + t.dailyWh, 0)).toBeCloseTo(loadsOverview(j).dailyWh, 9)
  expect(tiers[0]?.dailyWh).toBeCloseTo(drawn(fridge).dailyWh, 9)
})
