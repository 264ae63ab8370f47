import { plateIn } from './plate-text'

test('figures are found in a nameplate’s text, whatever their order', () => {
  expect(plateIn('1/2 hp, 230 V, 4.2 A, LRA 22')).toEqual({
    horsepower: 0.5,
    volts: 230,
    amps: 4.2,
    lockedRotorA: 22,
  })
  expect(plateIn('120 V 60 Hz 1 PH, 520 W, LRA 24')).toEqual({
    volts: 120,
    watts: 520,
    lockedRotorA: 24,
    hz: 60,
    phase: 1,
  })
  expect(plateIn('208/230 VAC 1.8 kVA RLA 7.8 LRA 38 MCA 10.4 MAX FUSE 15 CODE K PF 0.92')).toEqual({
    volts: 230,
    VA: 1800,
    ratedLoadA: 7.8,
    lockedRotorA: 38,
    minCircuitA: 10.4,
    maxBreakerA: 15,
    codeLetter: 'K',
    powerFactor: 0.92,
  })
  expect(plateIn('34 LRA 6.8 A 230V')).toEqual({ volts: 230, amps: 6.8, lockedRotorA: 34 })
  expect(plateIn('120 V, 1,700 W')).toEqual({ volts: 120, watts: 1700 })
  expect(plateIn('natural gas')).toEqual({})
})
