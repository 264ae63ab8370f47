/** How a motor takes a soft starter: it eases the start, it does not suit, or nobody knows. */
interface MotorFacts {
  softStart: 'suits' | 'does not suit' | 'not known'
}

/**
 * A row for each kind of motor. A soft starter eases a compressor, and three wires with a start winding of their own; elsewhere the
 * start winding needs its volts, or there is nothing to soften.
 */
export const motorFacts = {
  compressor: { softStart: 'suits' },
  'three-wire submersible': { softStart: 'suits' },
  'two-wire submersible': { softStart: 'does not suit' },
  'capacitor-start': { softStart: 'does not suit' },
  'split-phase': { softStart: 'does not suit' },
  universal: { softStart: 'does not suit' },
  'variable speed': { softStart: 'does not suit' },
  unknown: { softStart: 'not known' },
} as const satisfies Record<string, MotorFacts>

export type MotorType = keyof typeof motorFacts
export const motorTypes = Object.keys(motorFacts) as [MotorType, ...MotorType[]]
