import type { ConduitKind } from '../../units/tables/conduit'

/** How a raceway is held, joined and where it may lie. NEC 344.30, 348.30, 352.30, 356.30, 358.30. */
interface RacewayFacts {
  name: string
  /** sticks that are coupled, or a coil that is cut */
  sold: 'sticks' | 'coil'
  /** within so many feet of each box, ft */
  firstFt: number
  /** and then at least every so many, by trade size */
  everyFt: (tradeSize: string) => number
  /** as short as that it may go unsupported, ft */
  freeFt: number
  wet: boolean
  /** its metal is an equipment ground of its own where fittings are listed for it */
  metal: boolean
  article: string
}

export const stickFt = 10
const small: readonly string[] = ['1/2', '3/4', '1']

/** A row for each kind of raceway. */
export const raceways: Record<ConduitKind, RacewayFacts> = {
  EMT: {
    name: 'EMT',
    sold: 'sticks',
    firstFt: 3,
    everyFt: () => 10,
    freeFt: 1.5,
    wet: true,
    metal: true,
    article: '358.30',
  },
  RMC: {
    name: 'rigid steel conduit',
    sold: 'sticks',
    firstFt: 3,
    everyFt: () => 10,
    freeFt: 1.5,
    wet: true,
    metal: true,
    article: '344.30',
  },
  PVC40: {
    name: 'PVC conduit',
    sold: 'sticks',
    firstFt: 3,
    everyFt: size => (small.includes(size) ? 3 : 5),
    freeFt: 1.5,
    wet: true,
    metal: false,
    article: '352.30',
  },
  'LFNC-B': {
    name: 'liquid-tight flexible conduit',
    sold: 'coil',
    firstFt: 1,
    everyFt: () => 3,
    freeFt: 3,
    wet: true,
    metal: false,
    article: '356.30',
  },
  FMC: {
    name: 'flexible metal conduit',
    sold: 'coil',
    firstFt: 1,
    everyFt: () => 4.5,
    freeFt: 3,
    wet: false,
    metal: true,
    article: '348.30',
  },
}

/** Straps of a raceway: one within `firstFt` of each end, and no gap above `everyFt`. */
export function supportsFor(kind: ConduitKind, tradeSize: string, lengthFt: number): number {
  const { firstFt, everyFt, freeFt } = raceways[kind]
  if (lengthFt <= freeFt) return 0
  if (lengthFt <= 2 * firstFt) return 1
  return 1 + Math.ceil((lengthFt - 2 * firstFt) / everyFt(tradeSize) - 1e-9)
}

export const mostBendsDeg = 360

/** Pull points that bends ask for: at most 360° between two (358.26 and its like). */
export const pullPointsFor = (bendsDeg: number): number => Math.max(0, Math.ceil(bendsDeg / mostBendsDeg) - 1)
