import type { ConductorSize } from '../../units/tables/conductors'
import type { Terminal } from './parts'

/** What breakers of a rating usually take, AWG, and how far the wire is stripped. The label on the breaker decides. */
const breakerTakes: readonly { upToA: number; thinnest: ConductorSize; thickest: ConductorSize }[] = [
  { upToA: 30, thinnest: '14', thickest: '8' },
  { upToA: 60, thinnest: '10', thickest: '4' },
  { upToA: 125, thinnest: '8', thickest: '1/0' },
  { upToA: Infinity, thinnest: '4', thickest: '4/0' },
]

type Facts = Omit<Terminal, 'id' | 'name'>

/** What a breaker, or lugs of that rating, take of a conductor: one each. */
export function breakerFacts(ratedA: number): Facts {
  const row = breakerTakes.find(r => ratedA <= r.upToA)
  return {
    thinnest: row?.thinnest ?? '14',
    thickest: row?.thickest ?? '4/0',
    most: 1,
    stripIn: ratedA <= 60 ? 0.5 : 0.75,
  }
}

/** Terminals of other kinds: a row each. Bars: one neutral to a hole (408.41), two grounds of one size where the bar says so. */
export const terminalFacts = {
  'neutral hole': { thinnest: '14', thickest: '1/0', most: 1, stripIn: 0.5 },
  'ground hole': { thinnest: '14', thickest: '4', most: 2, stripIn: 0.5 },
  lead: { thinnest: '14', thickest: '4', most: 1, stripIn: 0.5 },
  screw: { thinnest: '14', thickest: '10', most: 1, stripIn: 0.625 },
  splice: { thinnest: '14', thickest: '1/0', most: 3, stripIn: 0.75 },
  post: { thinnest: '8', thickest: '4/0', most: 2, stripIn: 0.75 },
  /** the wires of a branch circuit as they come out of the wall */
  wall: { thinnest: '14', thickest: '4/0', most: 4, stripIn: 0.75 },
} as const satisfies Record<string, Facts>
export type TerminalKind = keyof typeof terminalFacts

export const terminal = (id: string, name: string, kind: TerminalKind): Terminal => ({
  id,
  name,
  ...terminalFacts[kind],
})

/** A terminal of a device that is rated for so many amps. */
export const ratedTerminal = (id: string, ratedA: number): Terminal => ({
  id,
  name: id,
  ...breakerFacts(ratedA),
})
