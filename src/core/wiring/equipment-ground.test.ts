import { faultPaths, result } from '../fixtures/calculating'
import { equipmentGround } from './equipment-ground'

const sizeOf = (given: object) => result(equipmentGround, { material: 'cu', breakerA: 50, ...given }).size

test.each([
  ['cu', 15, '14'],
  ['cu', 20, '12'],
  ['cu', 20.5, '10'],
  ['al', 60, '8'],
  ['cu', 200, '6'],
  ['al', 400, '1'],
])('%s behind %d A: %s', (material, breakerA, size) => {
  expect(result(equipmentGround, { material, breakerA })).toEqual({ baseSize: size, size })
})

test('enlarged in step with the hots, by circular mils', () => {
  // 10 AWG 10,380 × 26,240 (6 AWG) ÷ 16,510 (8 AWG) = 16,497 circular mils: 8 AWG (16,510)
  expect(sizeOf({ requiredSize: '8', installedSize: '6' })).toBe('8')
  // × 41,740 (4 AWG) ÷ 16,510 = 26,242, two circular mils above 6 AWG (26,240): 4 AWG
  expect(sizeOf({ requiredSize: '8', installedSize: '4' })).toBe('4')
  // the hots as required: nothing changes
  expect(sizeOf({ requiredSize: '8', installedSize: '8' })).toBe('10')
  // exactly a table size, since it multiplies before it divides: 10,380 × 26,240 ÷ 10,380 = 26,240
  expect(sizeOf({ requiredSize: '10', installedSize: '6' })).toBe('6')
})

test('need not be larger than the circuit’s own conductors, enlarged or not', () => {
  expect(sizeOf({ requiredSize: '8', installedSize: '4', circuitSize: '6' })).toBe('6')
  expect(sizeOf({ breakerA: 20, circuitSize: '14' })).toBe('14')
  expect(sizeOf({ breakerA: 20, circuitSize: '10' })).toBe('12')
})

test('refuses on the key at fault', () => {
  const paths = (given: object) => faultPaths(equipmentGround, { material: 'cu', breakerA: 50, ...given })
  expect(paths({ breakerA: 401 })).toEqual(['breakerA'])
  expect(paths({ requiredSize: '8' })).toEqual(['installedSize'])
  expect(paths({ installedSize: '8' })).toEqual(['requiredSize'])
  expect(paths({ requiredSize: '6', installedSize: '8' })).toEqual(['installedSize'])
  // 3 AWG 52,620 × 211,600 ÷ 4,110 is far above 4/0
  expect(paths({ breakerA: 400, requiredSize: '14', installedSize: '4/0' })).toEqual(['installedSize'])
  expect(paths({ material: 'al', circuitSize: '14' })).toEqual(['circuitSize'])
})
