export const conduitKinds = ['EMT', 'RMC', 'PVC40', 'LFNC-B', 'FMC'] as const
export const tradeSizes = ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2'] as const
export type ConduitKind = (typeof conduitKinds)[number]

/** Total inside area (in²) by trade size, NEC chapter 9, table 4. */
export const conduits: readonly { tradeSize: string; areaIn2: Record<ConduitKind, number> }[] = [
  { tradeSize: '1/2', areaIn2: { EMT: 0.304, RMC: 0.314, PVC40: 0.285, 'LFNC-B': 0.314, FMC: 0.317 } },
  { tradeSize: '3/4', areaIn2: { EMT: 0.533, RMC: 0.549, PVC40: 0.508, 'LFNC-B': 0.541, FMC: 0.533 } },
  { tradeSize: '1', areaIn2: { EMT: 0.864, RMC: 0.887, PVC40: 0.832, 'LFNC-B': 0.873, FMC: 0.817 } },
  { tradeSize: '1-1/4', areaIn2: { EMT: 1.496, RMC: 1.526, PVC40: 1.453, 'LFNC-B': 1.528, FMC: 1.277 } },
  { tradeSize: '1-1/2', areaIn2: { EMT: 2.036, RMC: 2.071, PVC40: 1.986, 'LFNC-B': 1.981, FMC: 1.858 } },
  { tradeSize: '2', areaIn2: { EMT: 3.356, RMC: 3.408, PVC40: 3.291, 'LFNC-B': 3.246, FMC: 3.269 } },
]

/** The share of a conduit that may be filled, NEC chapter 9, table 1; a nipple is 24 in long at most (note 4). */
export const fillLimitFraction = (conductors: number, nipple: boolean): number =>
  nipple ? 0.6 : conductors === 1 ? 0.53 : conductors === 2 ? 0.31 : 0.4
