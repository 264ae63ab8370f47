import type { Habits } from '../../hookup/wiring-choices'
import { type ConductorSize, conductorSizes, type Material } from '../../units/tables/conductors'

/** A way to join wires: what sizes it takes and how many. The marking on the connector decides. */
interface Connector {
  key: string
  name: string
  school: Habits['connectors'] | 'any'
  thinnest: ConductorSize
  thickest: ConductorSize
  /** how many of the thickest wire that is in it */
  most: Partial<Record<ConductorSize, number>>
  /** listed to join copper to aluminum */
  bothMetals: boolean
  /** across, where it lies among wires: what is usual */
  areaIn2: number
}

/** Usual ranges, from the smallest up: a row for each. */
const connectors: readonly Connector[] = [
  {
    key: 'twist-small',
    name: 'twist-on connector, small',
    school: 'twist-on',
    thinnest: '14',
    thickest: '12',
    most: { '14': 4, '12': 3 },
    bothMetals: false,
    areaIn2: 0.25,
  },
  {
    key: 'twist-large',
    name: 'twist-on connector, large',
    school: 'twist-on',
    thinnest: '14',
    thickest: '8',
    most: { '14': 6, '12': 5, '10': 4, '8': 2 },
    bothMetals: false,
    areaIn2: 0.45,
  },
  {
    key: 'lever-2',
    name: 'lever connector, 2 wires',
    school: 'lever',
    thinnest: '14',
    thickest: '12',
    most: { '14': 2, '12': 2 },
    bothMetals: false,
    areaIn2: 0.2,
  },
  {
    key: 'lever-3',
    name: 'lever connector, 3 wires',
    school: 'lever',
    thinnest: '14',
    thickest: '12',
    most: { '14': 3, '12': 3 },
    bothMetals: false,
    areaIn2: 0.28,
  },
  {
    key: 'lever-3-large',
    name: 'lever connector, 3 wires up to 10 AWG',
    school: 'lever',
    thinnest: '14',
    thickest: '10',
    most: { '14': 3, '12': 3, '10': 3 },
    bothMetals: false,
    areaIn2: 0.4,
  },
  {
    key: 'tap-insulated',
    name: 'insulated set-screw connector, copper and aluminum',
    school: 'any',
    thinnest: '14',
    thickest: '1/0',
    most: {},
    bothMetals: true,
    areaIn2: 1.1,
  },
]
const anyMost = 3

export interface Joined {
  size: ConductorSize
  material: Material
}

const rank = (size: ConductorSize) => conductorSizes.indexOf(size)

/** The smallest connector of a school that takes these wires; one for both metals where they differ. Null: none does. */
export function connectorFor(wires: readonly Joined[], school: Habits['connectors']): Connector | null {
  return connectors.find(c => (c.school === school || c.school === 'any') && takes(c, wires)) ?? null
}

const takes = (c: Connector, wires: readonly Joined[]): boolean => {
  const mixed = new Set(wires.map(w => w.material)).size > 1 || wires.some(w => w.material === 'al')
  const thickest = wires.reduce<ConductorSize>((t, w) => (rank(w.size) > rank(t) ? w.size : t), '14')
  return (
    (!mixed || c.bothMetals) &&
    wires.every(w => rank(w.size) >= rank(c.thinnest) && rank(w.size) <= rank(c.thickest)) &&
    wires.length <= (c.most[thickest] ?? anyMost)
  )
}

/** A connector that a person names, and whether it takes these wires; null for a name of none. */
export function connectorNamed(
  key: string,
  wires: readonly Joined[],
): { name: string; takes: boolean } | null {
  const found = connectors.find(c => c.key === key)
  return found ? { name: found.name, takes: takes(found, wires) } : null
}

/** All of them, to choose from. */
export const connectorsOffered = connectors.map(({ key, name }) => ({ key, name }))

/** What a connector takes up across, in²; nothing for one that is still to be chosen. */
export const areaOf = (key: string | null): number => connectors.find(c => c.key === key)?.areaIn2 ?? 0
