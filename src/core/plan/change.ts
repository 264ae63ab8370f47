import * as z from 'zod'
import { circuitSchema, panelSchema } from '../panel/schema'
import { line, within } from '../quantity'

const id = line(40, 1)

/** Where a circuit's breaker ends. */
export const placeSchema = z.strictObject({
  circuitId: id,
  panelId: id,
  /** the upper space */
  position: z.int('must be a whole number').min(1, 'must be 1 or more').max(84),
  half: z.enum(['a', 'b']).optional(),
})
export type Place = z.infer<typeof placeSchema>

/** What is put up beside the panel. */
export const mounted = [
  'switch',
  'secondSwitch',
  'managed',
  'interlock',
  'inlet',
  'inverter',
  'transformer',
  'combiner',
  'current transformers',
] as const

/** Who asked for it, what it cures, and what became of it. */
const common = {
  /** `hook-up`: it follows from the hook-up, and goes with it; `design`: it came with a design that was searched */
  origin: z.enum(['hook-up', 'design', 'finding', 'person']),
  /** key of the finding that it was planned for */
  settles: line(400, 1).optional(),
  by: line(60, 1).optional(),
  on: z.iso.date('must be a date: YYYY-MM-DD').optional(),
  /** done on site: by whom, when, and what was done otherwise than planned, with its reason */
  built: z
    .strictObject({
      by: line(60, 1),
      on: z.iso.date('must be a date: YYYY-MM-DD'),
      otherwise: line(200, 1).optional(),
    })
    .optional(),
}

const kind = <const K extends string, S extends z.ZodRawShape>(name: K, facts: S) =>
  z.strictObject({ kind: z.literal(name), ...facts, ...common })

/** A thing that somebody will do to the house. One for each thing and facet: what is planned anew replaces what was planned. */
export const changeSchema = z.discriminatedUnion('kind', [
  /** breakers, with their wires, that are moved in one go: what comes out in one piece, and what trades places with it */
  kind('move', { places: z.array(placeSchema).min(1, 'must name a breaker').max(84) }),
  /** circuits led over to another panel, each onto a new breaker there: the two hots of a neutral together, under a tie */
  kind('land', { places: z.array(placeSchema).min(1, 'must name a circuit').max(84) }),
  /** another breaker for the same wire */
  kind('exchange', {
    circuitId: id,
    breakerA: circuitSchema.shape.breakerA.optional(),
    type: circuitSchema.shape.type,
    protection: circuitSchema.shape.protection.optional(),
  }),
  /** a new breaker, and what hangs on it */
  kind('add', { panelId: id, circuit: circuitSchema }),
  kind('remove', { circuitId: id }),
  kind('tie', { circuitId: id, with: id, tie: z.enum(['handle', 'common trip']) }),
  /** a lock that keeps a breaker off while the source feeds its panel */
  kind('lock', { circuitId: id }),
  /** a device of the breaker’s kind at the first outlet */
  kind('guard', { circuitId: id }),
  /** a hard-wired appliance gets cord and plug */
  kind('cord', { circuitId: id, loadId: id }),
  /** a soft starter: what is left of locked-rotor amps */
  kind('soft-start', { circuitId: id, loadId: id, softStartFraction: within(0.1, 1, '(a fraction)') }),
  /** the bond of neutral and ground, fitted or taken out */
  kind('bond', { panelId: id, joined: z.boolean() }),
  kind('filler', { panelId: id, space: z.int('must be a whole number').min(1).max(84) }),
  /** a new panel, empty; its feeder and what moves there are changes of their own */
  kind('panel', { panel: panelSchema.omit({ circuits: true }) }),
  /** a new panel in the feeder of another: what fed that one ends in it, and a breaker of its own feeds on */
  kind('intercept', { feeds: id, panel: panelSchema.omit({ circuits: true }), feeder: circuitSchema }),
  kind('receptacle', { circuitId: id, what: line(80, 1) }),
  kind('notice', { where: line(80, 1), text: line(200, 1) }),
  kind('mount', { device: z.enum(mounted), name: line(120, 1) }),
  /** the breaker through which the source feeds a panel */
  kind('backfeed', {
    panelId: id,
    space: z.int('must be a whole number').min(1).max(84).optional(),
    breakerA: within(10, 200, 'A'),
    heldDown: z.boolean(),
  }),
  /** a circuit's hot led through a position of a switch or managed panel */
  kind('lead', {
    circuitId: id,
    position: z.int('must be a whole number').min(1).max(84),
    neutral: z.enum(['goes along', 'stays', 'not decided']),
  }),
  /** the breaker fitted at a position makes room for another */
  kind('position-breaker', {
    position: z.int('must be a whole number').min(1).max(84),
    breakerA: within(10, 100, 'A'),
  }),
  kind('run', { runId: id, name: line(60, 1) }),
])
export type PlannedChange = z.infer<typeof changeSchema>
/** A change before anybody says who wants it. */
export type Unplanned = PlannedChange extends infer C
  ? C extends PlannedChange
    ? Omit<C, 'origin'>
    : never
  : never

/** The new panel that a change puts up; undefined where it puts up none. */
export const panelPutUp = (change: PlannedChange) =>
  change.kind === 'panel' || change.kind === 'intercept' ? change.panel : undefined

/** The operation that plans a change because a person or a finding wants it; the survey stays as it is. */
export const toPlan = (change: Unplanned) => ({
  op: 'planChange' as const,
  change: { ...change, origin: 'person' as const },
})

type ChangeKind = PlannedChange['kind']

/** How a change is marked on a drawing, by sign and by word, and its turn among others: a row for each kind. */
export const changeKinds = {
  panel: { sign: '+', word: 'new panel', turn: 1 },
  intercept: { sign: '+', word: 'new panel in the feeder', turn: 1 },
  add: { sign: '+', word: 'new breaker', turn: 2 },
  remove: { sign: '−', word: 'taken out', turn: 3 },
  move: { sign: '↷', word: 'moved', turn: 4 },
  land: { sign: '↷', word: 'led to another panel', turn: 5 },
  exchange: { sign: '⟳', word: 'exchanged', turn: 6 },
  tie: { sign: '=', word: 'tied', turn: 7 },
  guard: { sign: '+', word: 'guarded at its outlet', turn: 8 },
  lock: { sign: '×', word: 'locked off', turn: 8 },
  filler: { sign: '+', word: 'filler', turn: 8 },
  bond: { sign: '⟳', word: 'bond', turn: 8 },
  cord: { sign: '⟳', word: 'cord and plug', turn: 9 },
  'soft-start': { sign: '+', word: 'soft starter', turn: 9 },
  receptacle: { sign: '+', word: 'receptacle', turn: 9 },
  mount: { sign: '+', word: 'mounted', turn: 10 },
  run: { sign: '+', word: 'run', turn: 11 },
  backfeed: { sign: '+', word: 'backfed breaker', turn: 12 },
  'position-breaker': { sign: '⟳', word: 'position’s breaker', turn: 13 },
  lead: { sign: '→', word: 'led to a position', turn: 14 },
  notice: { sign: '+', word: 'notice', turn: 15 },
} as const satisfies Record<ChangeKind, { sign: string; word: string; turn: number }>

/** What tells one change of a house from another: its kind and the thing it is done to. */
export function changeId(change: PlannedChange): string {
  switch (change.kind) {
    case 'move':
    case 'land':
      return `${change.kind}:${change.places.map(p => p.circuitId).sort()[0]}`
    case 'add':
      return `add:${change.circuit.id}`
    case 'panel':
    case 'intercept':
      return `panel:${change.panel.id}`
    case 'tie':
      return `tie:${[change.circuitId, change.with].sort()[0]}`
    case 'cord':
    case 'soft-start':
      return `${change.kind}:${change.circuitId}:${change.loadId}`
    case 'filler':
      return `filler:${change.panelId}:${change.space}`
    case 'bond':
    case 'backfeed':
      return `${change.kind}:${change.panelId}`
    case 'notice':
      return `notice:${change.where}`
    case 'mount':
      return `mount:${change.device}`
    case 'position-breaker':
      return `position-breaker:${change.position}`
    case 'run':
      return `run:${change.runId}`
    default:
      return `${change.kind}:${change.circuitId}`
  }
}

/** The circuits a change is done to. */
export function circuitsOfChange(change: PlannedChange): string[] {
  switch (change.kind) {
    case 'move':
    case 'land':
      return change.places.map(p => p.circuitId)
    case 'tie':
      return [change.circuitId, change.with]
    case 'add':
      return [change.circuit.id]
    default:
      return 'circuitId' in change ? [change.circuitId] : []
  }
}
