/** Ways of connecting a source to the loads, what they do to the neutral, and what prevents paralleling. */
export const methods = {
  undecided: { name: 'not decided yet', neutral: 'unknown', transfer: 'unknown' },
  'cord-and-plug': {
    name: 'plug the appliance in (cord-and-plug conversion)',
    neutral: 'stand-alone',
    transfer: 'unplugging',
  },
  'single-circuit-switch': {
    name: 'single-circuit transfer switch (switches the neutral)',
    neutral: 'switched',
    transfer: 'switch',
  },
  'multi-circuit-switch': {
    name: 'multi-circuit manual transfer switch',
    neutral: 'hots-only',
    transfer: 'switch',
  },
  'interlocked-inlet': {
    name: 'interlocked backfeed breaker and inlet',
    neutral: 'hots-only',
    transfer: 'interlock',
    spaces: 2,
    besideMain: true,
  },
  'sub-panel-interlock': {
    name: 'new sub-panel with its own interlock',
    neutral: 'hots-only',
    transfer: 'interlock',
    spaces: 2,
  },
  'extension-cords': {
    name: 'extension cords to appliances',
    neutral: 'stand-alone',
    transfer: 'unplugging',
  },
  'backfeed-unprotected': {
    name: 'backfed breaker or inlet with no interlock (as found)',
    neutral: 'hots-only',
    transfer: 'none',
  },
} as const satisfies Record<string, Method>

interface Method {
  name: string
  /** what the hook-up does to the neutral: leaves it tied to the house, switches it too, or never meets the house */
  neutral: 'unknown' | 'hots-only' | 'switched' | 'stand-alone'
  transfer: 'unknown' | 'unplugging' | 'switch' | 'interlock' | 'none'
  /** spaces that its breaker takes in the panel, one above the other */
  spaces?: 1 | 2
  /** at the end of the panel where the interlock acts on the main */
  besideMain?: boolean
}

export type MethodId = keyof typeof methods
export const methodIds = Object.keys(methods) as [MethodId, ...MethodId[]]
export const methodOf = (id: MethodId): Method => methods[id]
