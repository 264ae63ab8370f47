/** Connectors a station may offer: volts, amps and conductors. Source: NEMA WD 6 configurations. */
export const receptacles = {
  '5-15': { volts: 120, amps: 15, hots: 1 },
  '5-20': { volts: 120, amps: 20, hots: 1 },
  'L5-20': { volts: 120, amps: 20, hots: 1 },
  'L5-30': { volts: 120, amps: 30, hots: 1 },
  'TT-30': { volts: 120, amps: 30, hots: 1 },
  '14-30': { volts: 240, amps: 30, hots: 2 },
  '14-50': { volts: 240, amps: 50, hots: 2 },
  'L14-20': { volts: 240, amps: 20, hots: 2 },
  'L14-30': { volts: 240, amps: 30, hots: 2 },
} as const

export type ReceptacleType = keyof typeof receptacles
export const receptacleTypes = Object.keys(receptacles) as [ReceptacleType, ...ReceptacleType[]]
