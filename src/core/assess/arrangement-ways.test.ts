import { tailrace5k, weirgateCombiner } from '../equipment/fixtures/parts'
import type { Bank } from '../equipment/source-kinds'
import { applied, job, splitStation, station } from '../job/fixtures/jobs'
import { arrangementWays, bankFor } from './arrangement-ways'

const ways = (source: object, catalogue: Parameters<typeof arrangementWays>[1] = []) => {
  const { source: of } = job([], { source })
  if (!of) throw new Error('no source')
  return Object.fromEntries(arrangementWays(of, catalogue).map(w => [w.arrangement, w]))
}

test('a 120 V unit: tied and one leg at once; a pair brings a second unit, and its combiner where one is made for it', () => {
  const by = ways({}, [weirgateCombiner])
  expect(by.tied?.operation).toMatchObject({ op: 'setArrangement', arrangement: 'tied' })
  expect(by['one-leg']?.hinders).toBeNull()
  expect(by.combined?.brings).toEqual(['a second Test station', 'the combiner'])
  expect(by.independent?.brings).toEqual(['a second Test station'])
  expect(by['split-phase']?.operation).toBeNull()
})

test('what the catalogue does not have is told, and nothing half is planned', () => {
  const by = ways({})
  expect(by.combined).toMatchObject({
    operation: null,
    hinders: 'no combiner of the catalogue is made for a Test station',
  })
  const other = ways({}, [{ ...weirgateCombiner, pairs: ['another'] }])
  expect(other.combined?.operation).toBeNull()
  expect(by.autotransformer?.operation).toBeNull()
  expect(ways({}, [tailrace5k]).autotransformer?.brings).toEqual(['the transformer-5k'])
})

test('a unit that makes both legs needs no pair', () => {
  const by = ways({ station: splitStation() }, [weirgateCombiner])
  expect(by['split-phase']?.operation).not.toBeNull()
  expect(by.combined?.hinders).toBe('a Test station makes both legs by itself')
})

test('every way that is offered can be taken, and back to one unit says that the second goes', () => {
  const start = job([])
  for (const way of Object.values(ways({}, [weirgateCombiner, tailrace5k]))) {
    if (!way.operation) continue
    const after = applied(start, way.operation)
    expect(after.source?.arrangement).toBe(way.arrangement)
    if (way.arrangement !== 'combined' || !after.source) continue
    const back = arrangementWays(after.source, [weirgateCombiner]).find(w => w.arrangement === 'tied')
    expect(back?.brings).toEqual(['the second Test station goes'])
    expect(back?.operation && applied(after, back.operation).source?.units).toHaveLength(1)
  }
})

test('the twin does not take the id of the unit it stands beside', () => {
  const { source } = job([], { source: { station: station() } })
  if (!source?.units[0]) throw new Error('no unit')
  const second = { ...source, units: [{ ...source.units[0], id: 'u2' }] }
  const [way] = arrangementWays(second, []).filter(w => w.arrangement === 'independent')
  expect(way?.operation?.second?.id).toBe('u1')
})

describe('the bank for an inverter', () => {
  const bank = (unitV: number, facts: Partial<Bank> = {}): Bank =>
    ({
      kind: 'bank',
      id: `bank-${unitV}`,
      name: `Bank ${unitV} V`,
      version: 1,
      chemistry: 'LiFePO4',
      unitV,
      unitAh: 100,
      mostParallel: 4,
      ...facts,
    }) as Bank
  test.each([
    [48, 51.2, 1],
    [48, 12.8, 4],
    [24, 12, 2],
    [12, 12.8, 1],
  ])('%d V from units of %d V: %d in series', (inverterV, unitV, series) => {
    expect(bankFor(inverterV, [bank(unitV)])).toMatchObject({ series, parallel: 1 })
  })
  test('none where the volts do not come out within a fifth, or the units may not be joined so long', () => {
    expect(bankFor(48, [bank(36)])).toBeUndefined()
    expect(bankFor(48, [bank(12, { mostSeries: 2 })])).toBeUndefined()
    expect(bankFor(48, [bank(36), bank(12, { mostSeries: 4 })])).toMatchObject({ series: 4 })
  })
})
