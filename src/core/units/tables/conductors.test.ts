import { conductors, ordinaryAmpacityA } from './conductors'

test('the smaller of the 60 °C column and the small-conductor limit', () => {
  // NEC 310.16 and 240.4(D): 12 AWG copper 20 A both; 10 AWG 30 A both; 8 AWG 40 A, no limit of 240.4(D)
  expect(['14', '12', '10', '8', '4/0'].map(size => ordinaryAmpacityA('cu', size))).toEqual([
    15, 20, 30, 40, 195,
  ])
  // 12 AWG aluminum: 15 A in both; 10 AWG: 25 A
  expect(['12', '10', '8'].map(size => ordinaryAmpacityA('al', size))).toEqual([15, 25, 35])
  expect(ordinaryAmpacityA('al', '14')).toBeNull()
  expect(ordinaryAmpacityA('cu', '13')).toBeNull()
})

test('heavier conductors carry more', () => {
  for (const material of ['cu', 'al'] as const) {
    const amps = conductors.map(c => ordinaryAmpacityA(material, c.size)).filter(a => a !== null)
    expect([...amps].sort((a, b) => a - b)).toEqual(amps)
  }
})
