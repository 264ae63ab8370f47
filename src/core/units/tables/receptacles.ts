export interface Connector {
  volts: '120' | '240' | '120/240'
  amps: number
  hots: 1 | 2
  neutral: boolean
  locking: boolean
}

/** Connectors with ground and the plugs each takes. Source: NEMA WD 6 configurations; SS2-50 is the 50 A inlet of the CS kind. */
export const receptacles = {
  '5-15': { volts: '120', amps: 15, hots: 1, neutral: true, locking: false, accepts: ['5-15'] },
  '5-20': { volts: '120', amps: 20, hots: 1, neutral: true, locking: false, accepts: ['5-15', '5-20'] },
  'L5-15': { volts: '120', amps: 15, hots: 1, neutral: true, locking: true, accepts: ['L5-15'] },
  'L5-20': { volts: '120', amps: 20, hots: 1, neutral: true, locking: true, accepts: ['L5-20'] },
  'L5-30': { volts: '120', amps: 30, hots: 1, neutral: true, locking: true, accepts: ['L5-30'] },
  'TT-30': { volts: '120', amps: 30, hots: 1, neutral: true, locking: false, accepts: ['TT-30'] },
  '6-20': { volts: '240', amps: 20, hots: 2, neutral: false, locking: false, accepts: ['6-15', '6-20'] },
  'L6-30': { volts: '240', amps: 30, hots: 2, neutral: false, locking: true, accepts: ['L6-30'] },
  '14-30': { volts: '120/240', amps: 30, hots: 2, neutral: true, locking: false, accepts: ['14-30'] },
  '14-50': { volts: '120/240', amps: 50, hots: 2, neutral: true, locking: false, accepts: ['14-50'] },
  'L14-20': { volts: '120/240', amps: 20, hots: 2, neutral: true, locking: true, accepts: ['L14-20'] },
  'L14-30': { volts: '120/240', amps: 30, hots: 2, neutral: true, locking: true, accepts: ['L14-30'] },
  'SS2-50': { volts: '120/240', amps: 50, hots: 2, neutral: true, locking: true, accepts: ['SS2-50'] },
} as const satisfies Record<string, Connector & { accepts: readonly string[] }>

export type ReceptacleType = keyof typeof receptacles
export const receptacleTypes = Object.keys(receptacles) as [ReceptacleType, ...ReceptacleType[]]

/** A plug that a receptacle of the table takes, and that has no row of its own. */
const plugOnly: Record<string, Connector> = {
  '6-15': { volts: '240', amps: 15, hots: 2, neutral: false, locking: false },
}

const connectors = new Map<string, Connector>([...Object.entries(receptacles), ...Object.entries(plugOnly)])
export const plugTypes = [...connectors.keys()]

/** What a type of plug or receptacle carries; null for a type nobody here knows. */
export const connectorOf = (type: string): Connector | null => connectors.get(type) ?? null

export const isReceptacle = (type: string): type is ReceptacleType => type in receptacles

/** Whether a plug goes into a receptacle. */
export const mates = (receptacle: ReceptacleType, plug: string): boolean =>
  (receptacles[receptacle].accepts as readonly string[]).includes(plug)
