import { columnOf, rowOf } from './positions'

/** The pre-wired leads of a transfer switch: their length inside the panel, and where they come in. */
export interface Whip {
  leadIn: number
  entersAt: 'top left' | 'top right' | 'bottom left' | 'bottom right'
}

/** From the knockout to the middle of the first row, in. */
const gutterIn = 4
/** One row of full-size breakers, in. */
const rowIn = 1
/** Around the end of the bus to the other side, in. */
const acrossIn = 9

/**
 * Lead needed from where the whip enters to a space, in: along the gutter, row by row, and around to the other side.
 * Our own geometry of a common panel, said so wherever it is shown: measure on the wall.
 */
export function leadNeededIn({ entersAt }: Whip, spaces: number, space: number): number {
  const rows = spaces / 2
  const row = rowOf(space)
  const along = entersAt.startsWith('top') ? row - 1 : rows - row
  return gutterIn + rowIn * along + (entersAt.endsWith(columnOf(space)) ? 0 : acrossIn)
}

export const reaches = (whip: Whip, spaces: number, space: number): boolean =>
  leadNeededIn(whip, spaces, space) <= whip.leadIn
