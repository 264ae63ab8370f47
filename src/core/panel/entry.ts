import { breakerRatings, type Circuit, type Job } from '../job/schema'
import { conductorSizes } from '../units/tables/conductors'
import { occupancy, positionText, spacesOf } from './positions'

/** A breaker as it is read aloud from a panel: what was said of it, and nothing else. */
export interface Entry {
  position: number
  poles: 1 | 2
  breakerA: number
  label: string
  protection?: Circuit['protection']
  wire?: NonNullable<Circuit['wire']>
  /** the position of the other hot of a shared neutral */
  sharesWith?: number
}

/** How a line is written, for the help beside the field. */
export const entryExamples: readonly [line: string, means: string][] = [
  ['7 20 kitchen counter', 'space 7, 20 A, its label'],
  ['8-10 30 clothes dryer', 'a two-pole on 8 and 10'],
  ['5 20 refrigerator n7', 'shares its neutral with 7'],
  ['9 15 bedrooms afci #14', 'arc-fault; 14 AWG copper, #12al is aluminum'],
]

const protections: Record<string, Circuit['protection']> = {
  afci: 'arc-fault',
  gfci: 'ground-fault',
  'afci/gfci': 'dual',
}

/** What was read, or which piece could not be and what to write instead; `text` is the line as it came. */
export type Read = { text: string } & ({ entry: Entry } | { problem: string })

/**
 * One line of the survey: `POSITION RATING LABEL`, with marks anywhere after the rating: `8-10` or `2p` two-pole,
 * `afci`, `gfci`, `afci/gfci`, `#12` or `#12al` wire, `n7` shared neutral.
 */
export function readEntry(text: string): Read {
  const no = (problem: string): Read => ({ text, problem })
  const [place = '', rating = '', ...rest] = text.trim().split(/\s+/)
  const placed = /^(\d{1,3})(?:[-/,·+](\d{1,3}))?$/.exec(place)
  if (!placed) return no(`“${place}” is no space: begin with its number, such as 7 20 kitchen counter`)
  const rated = /^(\d{1,3})a?$/i.exec(rating)
  if (!rated) return no(`the rating is missing after ${place}: write ${place} 20 and the label`)
  const position = Number(placed[1])
  const second = placed[2] === undefined ? null : Number(placed[2])
  const marks: Partial<Entry> = {}
  const words = rest.filter(word => !takeMark(marks, word.toLowerCase()))
  return checked(text, {
    position,
    second,
    poles: second === null ? 1 : 2,
    breakerA: Number(rated[1]),
    label: words.join(' '),
    ...marks,
  })
}

/** What holds of an entry by itself, however it was written. */
export function checked(text: string, { second, ...entry }: Entry & { second: number | null }): Read {
  const { position, breakerA } = entry
  if (second !== null && second !== position + 2)
    return {
      text,
      problem: `a two-pole at ${position} takes ${position} and ${position + 2}: write ${position}-${position + 2}`,
    }
  if (!breakerRatings.some(a => a === breakerA))
    return { text, problem: `${breakerA} A is no standard breaker: ${breakerRatings.join(', ')} A` }
  if (entry.sharesWith !== undefined && spacesOf(entry).includes(entry.sharesWith))
    return {
      text,
      problem: `a breaker at ${position} cannot share a neutral with itself: n and the other hot’s space`,
    }
  if (entry.label.length > 80)
    return { text, problem: `the label has ${entry.label.length} characters: at most 80` }
  return { text, entry }
}

export const wireOf = (text: string): Entry['wire'] => {
  const wire = /^#?(\d{1,2}|[1-4]\/0) ?(cu|al)?$/.exec(text)
  const size = conductorSizes.find(s => s === wire?.[1])
  return size && { material: wire?.[2] === 'al' ? 'al' : 'cu', size }
}

/** Takes a word as a mark of the entry; false when it belongs to the label. */
function takeMark(marks: Partial<Entry>, word: string): boolean {
  const protection = protections[word]
  const wire = word.startsWith('#') ? wireOf(word) : undefined
  const shared = /^n(\d{1,3})$/.exec(word)
  if (word === '2p') marks.poles = 2
  else if (protection) marks.protection = protection
  else if (wire) marks.wire = wire
  else if (shared) marks.sharesWith = Number(shared[1])
  else return false
  return true
}

type EntryOperation =
  | { op: 'addCircuit'; circuit: Circuit }
  | {
      op: 'editCircuit'
      circuitId: string
      facts: Partial<Pick<Circuit, 'breakerA' | 'label' | 'protection' | 'wire' | 'neutral'>>
    }

export interface Entered {
  /** what puts the entries in, in order */
  operations: EntryOperation[]
  /** what was done, a line each */
  done: string[]
  /** what was refused, as it came, each with why */
  refused: { text: string; why: string }[]
  /** shared neutrals whose other hot is not entered yet */
  waiting: Waiting[]
  /** the circuit that was entered last */
  lastId: string | null
}

/** A circuit that will share its neutral with the breaker at a space, once one stands there. */
export interface Waiting {
  circuitId: string
  sharesWith: number
}

/**
 * What entries do to the panel of a job. A space that already holds a breaker of the same poles is changed to what the
 * line says; what another breaker is in the way of is refused. `newId` makes the ids of new circuits; `before` are the
 * neutrals that earlier lines left waiting.
 */
export function enter(
  job: Job,
  reads: readonly Read[],
  newId: () => string,
  before: readonly Waiting[] = [],
): Entered {
  const out: Entered = { operations: [], done: [], refused: [], waiting: [], lastId: null }
  const circuits: Circuit[] = [...job.panel.circuits]
  const pairs: Waiting[] = [...before]
  for (const read of reads) {
    const placed = 'entry' in read ? place(job, circuits, read.entry, newId) : read
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
    if ('entry' in read && read.entry.sharesWith !== undefined)
      pairs.push({ circuitId: circuit.id, sharesWith: read.entry.sharesWith })
  }
  // the other hot may stand on a later line: neutrals are paired when all breakers are in
  for (const pair of pairs) {
    const circuit = circuits.find(c => c.id === pair.circuitId)
    const partner = circuits.find(c => spacesOf(c).includes(pair.sharesWith))
    if (!circuit) continue
    if (!partner) out.waiting.push(pair)
    else if (partner !== circuit)
      out.operations.push({
        op: 'editCircuit',
        circuitId: circuit.id,
        facts: { neutral: { kind: 'shared', with: partner.id } },
      })
  }
  return out
}

type Placed = { circuit: Circuit; operation: EntryOperation; done: string } | { problem: string }

const nameOf = (c: Circuit) => `${positionText(c)} ${c.label || 'unlabelled'}`

function place(job: Job, circuits: readonly Circuit[], entry: Entry, newId: () => string): Placed {
  const { position, poles, breakerA, label, protection, wire } = entry
  const spaces = spacesOf(entry)
  const beyond = spaces.find(space => space < 1 || space > job.panel.spaces)
  if (beyond !== undefined)
    return { problem: `there is no space ${beyond}: this panel has ${job.panel.spaces}` }
  const at = occupancy(circuits)
  const there = circuits.find(c => c.position === position && c.poles === poles)
  const inTheWay = spaces.map(space => at.get(space)).find(c => c && c !== there)
  if (inTheWay) return { problem: `${nameOf(inTheWay)} is in the way` }
  const facts = { breakerA, label, ...(protection && { protection }), ...(wire && { wire }) }
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
    neutral: { kind: 'unknown' },
    protection: 'none',
    tier: 3,
    picked: false,
    loads: [],
    ...facts,
  }
  return { circuit, operation: { op: 'addCircuit', circuit }, done: `${nameOf(circuit)}, ${breakerA} A` }
}
