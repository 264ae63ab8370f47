import { cell, published } from '../../fixtures/published'
import { adjustmentFactorOf } from './adjustment'
import { ambientFactorOf } from './ambient'
import { standardBreakersA } from './breakers'
import { conductors } from './conductors'
import { conduitKinds, conduits } from './conduit'
import { cords } from './cords'
import { equipmentGrounds } from './equipment-ground'
import { mates, receptacles, receptacleTypes } from './receptacles'

/** Every figure of the typed tables against the published ones, read apart. */

test('conductors: ampacity, resistance, area, circular mils, small-conductor limit, box volume', () => {
  const rows = published('conductors')
  expect(conductors.map(c => c.size)).toEqual(rows.map(r => r.size))
  conductors.forEach((c, n) => {
    const at = (key: string) => cell(rows[n], key)
    for (const metal of ['cu', 'al'] as const) {
      for (const column of [60, 75, 90] as const)
        expect(c.ampacityA[metal]?.[column] ?? null).toBe(at(`${metal}_${column}C_A`))
      expect(c.ohmPerKft[metal]).toBe(at(`${metal}_ohm_per_kft_75C`))
      expect(c.smallConductorA[metal]).toBe(at(`small_conductor_${metal}_A`))
    }
    expect([c.circularMils, c.areaIn2, c.boxIn3]).toEqual([
      at('circular_mils'),
      at('thhn_area_in2'),
      at('box_volume_in3'),
    ])
  })
})

test('ambient correction and adjustment, at both ends of every band', () => {
  for (const row of published('ambient'))
    for (const column of [60, 75, 90] as const)
      for (const end of ['ambient_C_from', 'ambient_C_to']) {
        const ambientC = cell(row, end)
        if (ambientC !== null) expect(ambientFactorOf(ambientC, column)).toBe(cell(row, `factor_${column}C`))
      }
  expect(ambientFactorOf(86, 90)).toBeNull()
  for (const row of published('adjustment'))
    for (const end of ['current_carrying_from', 'current_carrying_to']) {
      const count = cell(row, end)
      if (count !== null) expect(adjustmentFactorOf(count)).toBe(cell(row, 'factor'))
    }
})

test('conduit, cords, breakers, equipment grounds', () => {
  const areas = published('conduit')
  expect(conduits.map(c => c.tradeSize)).toEqual(areas.map(r => r.trade_size))
  for (const kind of conduitKinds)
    expect(conduits.map(c => c.areaIn2[kind])).toEqual(areas.map(r => cell(r, `${kind}_in2`)))
  expect(cords.map(c => [c.size, c.twoA, c.threeA])).toEqual(
    published('cords').map(r => [
      r.size,
      cell(r, 'two_current_carrying_A'),
      cell(r, 'three_current_carrying_A'),
    ]),
  )
  expect([...standardBreakersA]).toEqual(published('breakers').map(r => cell(r, 'standard_A')))
  expect(equipmentGrounds.map(g => [g.upToA, g.cu, g.al])).toEqual(
    published('equipment_ground').map(r => [cell(r, 'breaker_A_up_to'), r.cu_size, r.al_size]),
  )
})

test('receptacles: what they carry, and which plugs go in', () => {
  const rows = published('receptacles')
  expect(receptacleTypes).toEqual(rows.map(r => r.type))
  receptacleTypes.forEach((type, n) => {
    const row = rows[n]
    const { volts, amps, hots, neutral, locking } = receptacles[type]
    expect([volts, amps, hots, neutral, locking]).toEqual([
      row?.volts,
      cell(row, 'amps'),
      cell(row, 'hots'),
      row?.neutral === 'yes',
      row?.locking === 'yes',
    ])
    const plugs = row?.accepts_plugs?.split(';') ?? []
    for (const plug of [...receptacleTypes, '6-15']) expect(mates(type, plug)).toBe(plugs.includes(plug))
  })
})
