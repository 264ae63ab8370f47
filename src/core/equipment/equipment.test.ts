import { equipmentCsv, readEquipmentCsv, readEquipmentJson } from '../formats/equipment-csv'
import { station } from '../job/fixtures/jobs'
import { freshet18, riffle6, ripple410, tailrace5k, weirgateCombiner } from './fixtures/parts'
import { type Equipment, equipmentSchema, kindIds } from './index'
import { compareEquipment, equipmentFields, factText, findEquipment, headlineOf } from './sheet'

const unit = station({
  name: 'A | b; c=d',
  startsLockedRotorA: 'not stated',
  solar: { count: 1, minV: 12, maxV: 60, maxW: 400 },
  chargeModes: [{ name: 'Fast, 100 %', acW: 900, solarW: 200 }],
  notes: '=HYPERLINK("x")',
  sources: [{ fact: 'Surge', from: 'measured', document: 'bench, 2026-01-20' }],
})
const items: Equipment[] = [unit, riffle6, ripple410, tailrace5k, weirgateCombiner, freshet18]

test('a catalogue goes out as a table and comes back the same, formulas disarmed', () => {
  const csv = equipmentCsv(items)
  expect(csv).toContain(`"'=HYPERLINK`)
  const read = readEquipmentCsv(csv)
  expect(read.ok ? read.value : read.faults).toEqual(JSON.parse(JSON.stringify(items)))
  expect(readEquipmentJson(JSON.stringify(items))).toMatchObject({ ok: true })
})

const refused: [string, Record<string, unknown>, RegExp][] = [
  ['a station with zero watts', { ...unit, continuousW: 0 }, /continuousW: must be from 1 to/],
  [
    'an efficiency over 1',
    { ...unit, efficiencyFraction: 1.2 },
    /efficiencyFraction: must be from 0.3 to 1 /,
  ],
  [
    'a module that gains volts in the heat',
    { ...ripple410, vocPctPerC: 0.3 },
    /vocPctPerC: must be negative/,
  ],
  [
    'a switch with too few limits',
    { ...riffle6, positionLimitsA: [30] },
    /positionLimitsA: must name a limit for each of the 6/,
  ],
  ['an unknown kind', { kind: 'kettle' }, /kind: must be one of station/],
  ['a fact that does not belong', { ...freshet18, whipIn: 3 }, /whipIn: is not a key/],
]

test.each(refused)('%s is refused at its field', (_, item, why) => {
  const read = readEquipmentJson(JSON.stringify([item]))
  expect(read.ok ? '' : read.faults.map(f => `${f.path}: ${f.message}`).join('\n')).toMatch(why)
})

test('files that are none say so: no columns, no list, nothing in it, an id twice, a fact in the wrong row', () => {
  const why = (read: ReturnType<typeof readEquipmentCsv>) => (read.ok ? '' : (read.faults[0]?.message ?? ''))
  expect(why(readEquipmentCsv('a,b\n1,2'))).toMatch(/no column “kind”/)
  expect(why(readEquipmentCsv('kind,name\n'))).toMatch(/holds no equipment/)
  expect(why(readEquipmentJson('{}'))).toMatch(/must be a list/)
  expect(why(readEquipmentJson('[{'))).toMatch(/not whole JSON/)
  expect(why(readEquipmentCsv(equipmentCsv([unit, unit])))).toMatch(/twice/)
  expect(why(readEquipmentCsv('kind,id,name,whipIn\ngenerator,g,G,3'))).toMatch(/is no fact of a generator/)
})

test('every kind has a form, in the order of a datasheet: name first, price and weight last', () => {
  for (const kind of kindIds) {
    const keys = equipmentFields(kind).map(f => f.key)
    expect(keys.slice(0, 2)).toEqual(['id', 'name'])
    expect(keys.slice(-4)).toEqual(['weightLb', 'price', 'notes', 'sources'])
  }
})

test('“not stated” is a value of its own, told apart from a gap', () => {
  const field = equipmentFields('station').find(f => f.key === 'startsLockedRotorA')
  expect(field && [factText(unit, field), factText(station(), field)]).toEqual(['not stated', ''])
  expect(equipmentSchema.safeParse({ ...unit, acInputW: 'no idea' }).success).toBe(false)
})

test('up to four side by side: facts that differ are marked, and found by any word', () => {
  const rows = compareEquipment([unit, station({ name: 'B', continuousW: 3000 })])
  expect(rows.find(r => r.title === 'Continuous')).toEqual({
    title: 'Continuous',
    values: ['2,000 W', '3,000 W'],
    differs: true,
  })
  expect(rows.find(r => r.title === 'Battery to outlet')?.differs).toBe(false)
  expect(findEquipment(items, 'six positions').length).toBe(0)
  expect(findEquipment(items, '6 positions').map(i => i.id)).toEqual(['switch-6'])
})

test('the headline of an item is figures with their units', () => {
  expect(headlineOf(unit)).toBe('2,000 W continuous · 120 V · 2,000 Wh energy')
})
