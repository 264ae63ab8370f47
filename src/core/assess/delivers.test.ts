import { freshet18, ripple410, tailrace5k } from '../equipment/fixtures/parts'
import { circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { evaluate } from './evaluate'

const delivers = (j: Job) => {
  const { delivers } = evaluate(j)
  if (!delivers) throw new Error('delivers nothing')
  return delivers
}
const lineOf = (
  lines: readonly { label: string; value: string; note?: string }[],
  label: string | RegExp,
) => {
  const found = lines.find(l => (typeof label === 'string' ? l.label === label : label.test(l.label)))
  if (!found) throw new Error(`no ${label} in ${lines.map(l => l.label).join(', ')}`)
  return found
}
const house = [circuit(1, { loads: [load(110)] })]

test('no source delivers nothing', () => {
  const { source: _, ...none } = job([])
  expect(evaluate(none as Job).delivers).toBeNull()
})

test('energy by hand: capacity with its expansion, what cold leaves, what is usable down to the reserve', () => {
  const j = job(house, {
    source: { expansionUnits: 1 },
    outage: { hours: 24, startFraction: 1, reserveFraction: 0.1, deratingFraction: 0.8 },
  })
  const { energy } = delivers(j)
  expect(energy[0]).toMatchObject({
    value: '4,000 Wh',
    note: expect.stringContaining('with 1 expansion unit'),
  })
  expect(lineOf(energy, 'Left by cold and age').value).toBe('80 %')
  // 4,000 × 0.8 × (1 − 0.1)
  expect(lineOf(energy, /^Usable/)).toMatchObject({ value: '2,880 Wh', note: 'reserve 10 %' })
})

test('power: whole, for hours, surge; an outlet at 80 % for hours on end', () => {
  const { power } = delivers(job(house))
  expect(lineOf(power, 'Whole, less than three hours').value).toBe('2,000 W')
  expect(lineOf(power, 'Surge, whole').value).toBe('4,000 W')
  // 0.8 × 30 A × 120 V = 2,880 W, but the unit gives 2,000
  expect(lineOf(power, 'Outlet TT-30')).toMatchObject({
    value: '2,000 W',
    note: '30 A, at 80 % for hours on end',
  })
  const small = delivers(
    job(house, { source: { station: station({ outlets: [{ type: '5-15', count: 2 }] }) } }),
  )
  expect(lineOf(small.power, 'Outlet 5-15 × 2').value).toBe('1,440 W')
})

test('split phase tells each leg; what is tied tells none', () => {
  const { power } = delivers(job(house, { source: { station: splitStation(), arrangement: 'split-phase' } }))
  expect(lineOf(power, 'L1').value).toBe('3,000 W')
  expect(lineOf(power, 'Surge, one leg').value).toBe('5,000 W')
  expect(delivers(job(house)).power.map(l => l.label)).not.toContain('L1')
})

test('inputs: from AC a tenth is lost; a string by its volts in the record cold, cut by what the port takes', () => {
  const able = station({ acInputW: 1000, solar: { count: 1, minV: 12, maxV: 60, maxA: 15, maxW: 300 } })
  const array = { id: 'a', unitId: 'u1', module: ripple410, series: 1, parallel: 1, owned: false }
  const { inputs } = delivers(
    job(house, { source: { station: able, arrays: [array] }, brief: { wants: [], recordLowC: -20 } }),
  )
  // 2,000 Wh ÷ (1,000 W × 0.9)
  expect(lineOf(inputs, /^From AC/).value).toBe('2.22 h')
  expect(lineOf(inputs, /^Solar input/)).toMatchObject({ value: '12 V to 60 V', note: '15 A at most, 300 W' })
  // 37 V × (1 + 0.3 % × 45) = 42 V; 410 W, of which the port takes 300: 2,000 Wh in 6.67 h
  expect(lineOf(inputs, /module-410/)).toMatchObject({
    value: '300 W',
    note: expect.stringMatching(/^4[12](\.\d+)? V open at -20 °C .*.*full in 6\.67 h of full sun$/),
  })
})

test('a generator tells the hours from reserve to full while it carries the house, and its gallons', () => {
  const generator = { equipment: freshet18, gallons: 5, owned: true, where: 'outdoors' as const }
  const { inputs } = delivers(
    job(house, { source: { station: station({ acInputW: 1000 }), generator } as never }),
  )
  expect(lineOf(inputs, /^From the generator-18/)).toMatchObject({
    value: expect.stringMatching(/ h$/),
    note: expect.stringMatching(/gal; 5 gal kept$/),
  })
})

test('what a sheet is silent about is said, and what one leg means', () => {
  const { mind } = delivers(job(house, { source: { arrangement: 'one-leg' } }))
  expect(mind.join(' | ')).toMatch(/what its AC input takes is not stated/)
  expect(mind.join(' | ')).toMatch(/120 V on L1 alone/)
  const stated = station({ startsLockedRotorA: 'not stated' } as never)
  expect(delivers(job(house, { source: { station: stated } })).mind.join(' | ')).toMatch(
    /which motors it starts is not stated/,
  )
})

test('a transformer’s own draw is in the workings of what is left', () => {
  const j = job(house, { source: { arrangement: 'autotransformer', autotransformer: tailrace5k } })
  const usable = delivers(j).energy.find(l => l.label.startsWith('Usable'))
  expect(usable?.value).toBe('1,800 Wh')
})
