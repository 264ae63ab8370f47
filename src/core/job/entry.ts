import {
  type Half,
  halvesOf,
  legOf,
  occupancy,
  positionText,
  spaceName,
  spaceNamed,
  spacesOf,
} from '../panel/positions'
import { protectionTyped } from '../panel/protection'
import { breakerRatings, type Circuit, type Panel } from '../panel/schema'
import { conductorSizes } from '../units/tables/conductors'
import type { Job } from './schema'

/** A place as it is printed and said: `7`, or `7A` for the upper half of a tandem. */
export interface Said {
  name: number
  half?: Half
}

/** A breaker as it is read aloud from a panel: what was said of it, and nothing else. */
export interface Entry {
  place: Said
  /** the other place of a two-pole, where it was said */
  second?: Said
  poles: 1 | 2
  breakerA: number
  label: string
  protection?: Circuit['protection']
  wire?: NonNullable<Circuit['wire']>
  type?: string
  purpose?: Circuit['purpose']
  /** the other hot of a shared neutral */
  sharesWith?: Said
  /** the one-pole beside it that it is joined to */
  tiedTo?: Said
  tie?: 'handle' | 'common trip'
}

/** How a line is written, for the help beside the field. */
export const entryExamples: readonly [line: string, means: string][] = [
  ['7 20 kitchen counter', 'space 7, 20 A, its label'],
  ['8-10 30 clothes dryer', 'a two-pole on 8 and 10'],
  ['5 20 refrigerator n7 ct7', 'shares its neutral with 7, one trip opens both (h7: handle tie)'],
  ['9 15 bedrooms afci #14', 'arc-fault; 14 AWG copper, #12al is aluminum'],
  ['11a 15 hall', 'upper half of a tandem; 11a-13b is the outer pair of a quad'],
]

/** What was read, or which piece could not be and what to write instead; `text` is the line as it came. */
export type Read = { text: string } & ({ entry: Entry } | { problem: string })

/**
 * One line of the survey: `PLACE RATING LABEL`, with marks anywhere after the rating: `8-10` or `2p` two-pole, `11a`
 * half of a tandem, `afci`, `gfci`, `afci/gfci`, `#12` or `#12al` wire, `n7` shared neutral, `h7` handle tie, `ct7`
 * common trip, `t:XX` the breaker's type, `solar`. Places are the numbers printed on the panel.
 */
export function readEntry(text: string): Read {
  const no = (problem: string): Read => ({ text, problem })
  const [place = '', rating = '', ...rest] = text.trim().split(/\s+/)
  const placed = placesOf(place)
  if (!placed) return no(`“${place}” is no space: begin with its number, such as 7 20 kitchen counter`)
  const rated = /^(\d{1,3})a?$/i.exec(rating)
  if (!rated) return no(`the rating is missing after ${place}: write ${place} 20 and the label`)
  const marks: Partial<Entry> = {}
  const words = rest.filter(word => !takeMark(marks, word))
  return checked(text, {
    ...placed,
    poles: placed.second ? 2 : 1,
    breakerA: Number(rated[1]),
    label: words.join(' '),
    ...marks,
  })
}

const saidOf = (name: string | undefined, half: string | undefined): Said => ({
  name: Number(name),
  ...(half && { half: half.toLowerCase() === 'a' ? 'a' : 'b' }),
})

/** `7`, `7a`, `8-10`, `7a-9b`; null when it is no place. */
export function placesOf(text: string): Pick<Entry, 'place' | 'second'> | null {
  const match = /^(\d{1,3})([ab])?(?:[-/,·+ ]+(\d{1,3})([ab])?)?$/i.exec(text)
  if (!match) return null
  return {
    place: saidOf(match[1], match[2]),
    ...(match[3] && { second: saidOf(match[3], match[4]) }),
  }
}

/** What holds of an entry by itself, however it was written. */
export function checked(text: string, entry: Entry): Read {
  const { breakerA, place, sharesWith, tiedTo } = entry
  const no = (problem: string): Read => ({ text, problem })
  if (!breakerRatings.some(a => a === breakerA))
    return no(`${breakerA} A is no standard breaker: ${breakerRatings.join(', ')} A`)
  if (sharesWith && said(sharesWith) === said(place))
    return no(`a breaker at ${said(place)} cannot share a neutral with itself: n and the other hot’s space`)
  if (tiedTo && said(tiedTo) === said(place))
    return no(`a breaker at ${said(place)} cannot be tied to itself: h or ct and the other’s space`)
  if (entry.label.length > 80) return no(`the label has ${entry.label.length} characters: at most 80`)
  return { text, entry }
}

const said = ({ name, half }: Said) => `${name}${half?.toUpperCase() ?? ''}`

export const wireOf = (text: string): Entry['wire'] => {
  const wire = /^#?(\d{1,2}|[1-4]\/0) ?(cu|al)?$/.exec(text)
  const size = conductorSizes.find(s => s === wire?.[1])
  return size && { material: wire?.[2] === 'al' ? 'al' : 'cu', size }
}

/** Takes a word as a mark of the entry; false when it belongs to the label. */
function takeMark(marks: Partial<Entry>, typed: string): boolean {
  const word = typed.toLowerCase()
  const protection = protectionTyped(word)
  const wire = word.startsWith('#') ? wireOf(word) : undefined
  const joined = /^(n|h|ct)(\d{1,3})([ab])?$/.exec(word)
  const type = /^t:(.{1,20})$/.exec(typed)?.[1]
  if (word === '2p') marks.poles = 2
  else if (protection) marks.protection = protection
  else if (wire) marks.wire = wire
  else if (type) marks.type = type
  else if (word === 'solar') marks.purpose = 'solar'
  else if (joined?.[1] === 'n') marks.sharesWith = saidOf(joined[2], joined[3])
  else if (joined) {
    marks.tiedTo = saidOf(joined[2], joined[3])
    marks.tie = joined[1] === 'h' ? 'handle' : 'common trip'
  } else return false
  return true
}

type EntryOperation =
  | { op: 'addCircuit'; panelId: string; circuit: Circuit }
  | {
      op: 'editCircuit'
      circuitId: string
      facts: Partial<
        Pick<Circuit, 'breakerA' | 'label' | 'protection' | 'wire' | 'neutral' | 'type' | 'purpose'>
      >
    }
  | { op: 'tieBreakers'; circuitId: string; tie: NonNullable<Circuit['tie']> }

export interface Entered {
  /** what puts the entries in, in order */
  operations: EntryOperation[]
  /** what was done, a line each */
  done: string[]
  /** what was refused, as it came, each with why */
  refused: { text: string; why: string }[]
  /** shared neutrals and ties whose other half is not entered yet */
  waiting: Waiting[]
  /** the circuit that was entered last */
  lastId: string | null
}

/** A circuit that will be paired with the breaker at a place, once one stands there. */
export interface Waiting {
  circuitId: string
  with: Said
  how: 'neutral' | 'handle' | 'common trip'
}

/**
 * What entries do to a panel of a job, the first unless named. A place that already holds a breaker of the same poles
 * is changed to what the line says; what another breaker is in the way of is refused. `newId` makes the ids of new
 * circuits; `before` are the pairs that earlier lines left waiting.
 */
export function enter(
  job: Job,
  reads: readonly Read[],
  newId: () => string,
  before: readonly Waiting[] = [],
  panelId?: string,
): Entered {
  const out: Entered = { operations: [], done: [], refused: [], waiting: [], lastId: null }
  const panel = job.panels.find(p => p.id === panelId) ?? job.panels[0]
  if (!panel) return out
  const circuits: Circuit[] = [...panel.circuits]
  const pairs: Waiting[] = [...before]
  for (const read of reads) {
    const placed = 'entry' in read ? place(panel, circuits, read.entry, newId) : read
    if ('problem' in placed) {
      out.refused.push({ text: read.text, why: placed.problem })
      continue
    }
    const { circuit, operation, done } = placed
    const at = circuits.findIndex(c => c.id === circuit.id)
    if (at < 0) circuits.push(circuit)
    else circuits[at] = circuit
    out.operations.push(operation)
    out.done.push(done)
    out.lastId = circuit.id
    const { sharesWith, tiedTo, tie } = 'entry' in read ? read.entry : {}
    if (sharesWith) pairs.push({ circuitId: circuit.id, with: sharesWith, how: 'neutral' })
    if (tiedTo) pairs.push({ circuitId: circuit.id, with: tiedTo, how: tie ?? 'handle' })
  }
  // the other half may stand on a later line: pairs are made when all breakers are in
  for (const pair of pairs) {
    const circuit = circuits.find(c => c.id === pair.circuitId)
    if (!circuit) continue
    const space = spaceNamed(panel, pair.with.name)
    const there = circuits.filter(c => spacesOf(c).includes(space) && c !== circuit)
    const partner = there.find(c => c.half === pair.with.half) ?? there[0]
    if (!partner) out.waiting.push(pair)
    else if (pair.how === 'neutral')
      out.operations.push({
        op: 'editCircuit',
        circuitId: circuit.id,
        facts: { neutral: { kind: 'shared', with: partner.id } },
      })
    else
      out.operations.push({
        op: 'tieBreakers',
        circuitId: circuit.id,
        tie: { with: partner.id, kind: pair.how },
      })
  }
  return out
}

type Placing = { circuit: Circuit; operation: EntryOperation; done: string } | { problem: string }

/** The upper space and half that an entry's places mean on this panel, or why they mean none. */
function standing(
  panel: Panel,
  { place: first, second, poles }: Entry,
): { position: number; half?: Half } | string {
  const beyond = [first, ...(second ? [second] : [])].find(s => s.name < 1 || s.name > panel.spaces)
  if (beyond) return `there is no space ${beyond.name}: this panel has ${panel.spaces}`
  const position = spaceNamed(panel, first.name)
  const half = first.half && { half: first.half }
  if (poles === 1) return { position, ...half }
  const below = position + 2
  if (below > panel.spaces)
    return `there is no space below ${first.name}: this panel has ${panel.spaces}, and a two-pole takes two`
  const [upper, lower] = [spaceName(panel, position), spaceName(panel, below)]
  if (second && second.name !== lower)
    return `a two-pole at ${upper} takes ${upper} and ${lower}: write ${upper}-${lower}`
  if (first.half && second && first.half === second.half)
    return `a two-pole of a quad takes ${upper}a-${lower}b (outer) or ${upper}b-${lower}a (inner)`
  if (legOf(panel, position) === legOf(panel, below))
    return `${upper} and ${lower} are on one leg in this panel: a two-pole there has no 240 V`
  return { position, ...half }
}

function place(panel: Panel, circuits: readonly Circuit[], entry: Entry, newId: () => string): Placing {
  const { poles, breakerA, label, protection, wire, type, purpose } = entry
  const stand = standing(panel, entry)
  if (typeof stand === 'string') return { problem: stand }
  const { position, half } = stand
  const nameOf = (c: Circuit) => `${positionText(panel, c)} ${c.label || 'unlabelled'}`
  const spaces = spacesOf({ position, poles })
  const unusable = spaces.find(space => panel.unusable.includes(space))
  if (unusable !== undefined) return { problem: `space ${spaceName(panel, unusable)} is marked as unusable` }
  const at = occupancy(circuits)
  const there = circuits.find(c => c.position === position && c.poles === poles && c.half === half)
  const wanted = halvesOf({ position, poles, half })
  const inTheWay = spaces
    .flatMap(space => at.get(space) ?? [])
    .find(c => c !== there && halvesOf(c).some(h => wanted.includes(h)))
  if (inTheWay) return { problem: `${nameOf(inTheWay)} is in the way` }
  const facts = {
    breakerA,
    label,
    ...(protection && { protection }),
    // how it is laid and how long it is, no line says: that stays
    ...(wire && { wire: { ...there?.wire, ...wire } }),
    ...(type && { type }),
    ...(purpose && { purpose }),
  }
  if (there)
    return {
      circuit: { ...there, ...facts },
      operation: { op: 'editCircuit', circuitId: there.id, facts },
      done: `${nameOf(there)} is now ${breakerA} A ${label || 'unlabelled'}`,
    }
  const circuit: Circuit = {
    id: newId(),
    position,
    poles,
    ...(half && { half }),
    purpose: 'loads',
    neutral: { kind: 'unknown' },
    protection: 'none',
    tier: 3,
    picked: false,
    loads: [],
    ...facts,
  }
  return {
    circuit,
    operation: { op: 'addCircuit', panelId: panel.id, circuit },
    done: `${nameOf(circuit)}, ${breakerA} A`,
  }
}
