import type { Edition } from '../../editions'
import type { ConductorSize } from '../../units/tables/conductors'
import { boxFill } from '../../wiring/box-fill'

/** Usual boxes by their marked volume, in³ (314.16(A)). */
const boxes = [
  { key: 'box-4x1-1/2', name: 'box 4 × 1½ in square', volumeIn3: 21 },
  { key: 'box-4x2-1/8', name: 'box 4 × 2⅛ in square', volumeIn3: 30.3 },
  { key: 'box-4-11/16x2-1/8', name: 'box 4 11⁄16 × 2⅛ in square', volumeIn3: 42 },
  { key: 'box-6x6x4', name: 'pull box 6 × 6 × 4 in', volumeIn3: 144 },
  { key: 'box-8x8x4', name: 'pull box 8 × 8 × 4 in', volumeIn3: 256 },
  { key: 'box-12x12x4', name: 'pull box 12 × 12 × 4 in', volumeIn3: 576 },
] as const

/** What enters a box. */
export interface Entering {
  conductors: { size: ConductorSize; count: number }[]
  grounds: { size: ConductorSize; count: number } | null
  device: ConductorSize | null
}

export interface BoxChoice {
  key: string
  name: string
  volumeIn3: number
  requiredIn3: number
  /** wires in it that are not counted by volume: 314.28 sizes it */
  pull: boolean
  /** a pull box of the list */
  large: boolean
}

/** All of them, to choose from. */
export const boxesOffered = boxes.map(({ key, name, volumeIn3 }) => ({ key, name, volumeIn3 }))

const leastPullIn3 = 100
const counted: readonly string[] = ['14', '12', '10', '8', '6']

/**
 * The smallest usual box that holds them (314.16(B)); wires of 4 AWG and more are not counted by volume: they ask for a pull box
 * by 314.28, the largest of the list is taken. Null where none holds them.
 */
export function boxFor(
  { conductors, grounds, device }: Entering,
  edition: Edition,
  chosen?: string,
): BoxChoice | null {
  const large = conductors.some(c => !counted.includes(c.size))
  const { requiredIn3 } = boxFill.solve({
    boxIn3: 1,
    conductors: conductors.filter(c => counted.includes(c.size)),
    ...(grounds && counted.includes(grounds.size) && { grounds }),
    devices: device ? [{ size: device, count: 1 }] : [],
    clamps: false,
    edition,
  })
  const box =
    boxes.find(b => b.key === chosen) ?? (large ? boxes.at(-1) : boxes.find(b => b.volumeIn3 >= requiredIn3))
  return box ? { ...box, requiredIn3, pull: large, large: box.volumeIn3 >= leastPullIn3 } : null
}
