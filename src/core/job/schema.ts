import * as z from 'zod'
import { methodIds } from '../hookup/method'
import { loadSchema } from '../loads/load'
import { spacesOf } from '../panel/positions'
import { line, within } from '../quantity'
import { stationSchema } from '../source/equipment'
import { legSchema } from '../source/legs'
import { canArrange } from '../source/output'
import { conductorSizeSchema, materialSchema } from '../units/tables/conductors'

export const formatVersion = 2

export const steps = [
  'ask',
  'survey',
  'loads',
  'source',
  'hook-up',
  'prove',
  'wiring',
  'install',
  'commission',
  'hand-over',
] as const

export const breakerRatings = [10, 15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125] as const
const mainRatings = [30, 40, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 400] as const
const oneOf = (values: readonly number[], what: string) =>
  z.number().refine(v => values.includes(v), `must be a standard ${what}: ${values.join(', ')} A`)

/** A breaker of the panel and the circuit behind it. A blank label is a fact: the directory says nothing. */
export const circuitSchema = z.strictObject({
  id: line(40, 1),
  /** the upper space; a two-pole also takes the one below it on the same side */
  position: z.int('must be a whole number').min(1, 'must be 1 or more'),
  poles: z.union([z.literal(1), z.literal(2)], 'must be 1 or 2'),
  breakerA: oneOf(breakerRatings, 'breaker rating'),
  label: line(80),
  wire: z.strictObject({ material: materialSchema, size: conductorSizeSchema }).optional(),
  neutral: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('own') }),
    z.strictObject({ kind: z.literal('unknown') }),
    z.strictObject({ kind: z.literal('shared'), with: line(40, 1) }),
  ]),
  protection: z.enum(['none', 'arc-fault', 'ground-fault', 'dual']),
  /** who saw the circuit die, and when; missing while nobody has */
  traced: z.strictObject({ by: line(60, 1), on: z.iso.date('must be a date: YYYY-MM-DD') }).optional(),
  /** 1 must run, 2 should, 3 may go */
  tier: z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be 1, 2 or 3'),
  picked: z.boolean(),
  loads: z.array(loadSchema).max(12, 'must hold at most 12 loads'),
})
export type Circuit = z.infer<typeof circuitSchema>

export const panelSchema = z.strictObject({
  name: line(60, 1),
  mainA: oneOf(mainRatings, 'main rating'),
  spaces: z
    .int('must be a whole number')
    .min(8, 'must be from 8 to 42')
    .max(42, 'must be from 8 to 42')
    .refine(n => n % 2 === 0, 'must be even: a row has two positions'),
  supply: z.enum(['service', 'fed from another panel']),
  circuits: z.array(circuitSchema).max(42, 'must hold at most 42 circuits'),
})

export const outageSchema = z.strictObject({
  hours: within(0.5, 720, 'h'),
  startFraction: within(0.05, 1, '(a fraction)'),
  reserveFraction: within(0, 0.9, '(a fraction)'),
  deratingFraction: within(0.3, 1, '(a fraction)'),
})

export const jobArrangements = ['one-leg', 'tied', 'split-phase'] as const
export const sourceSchema = z.strictObject({
  /** the catalogue's facts as they were when the job was designed */
  station: stationSchema,
  expansionUnits: z.int('must be a whole number').min(0, 'must not be negative'),
  arrangement: z.enum(jobArrangements),
  liveLeg: legSchema,
})

const longestInput = 20_000
/** A calculation of the bench that belongs to the job: its input is kept, and its answer worked out anew. */
export const calculationSchema = z.strictObject({
  id: line(40, 1),
  calculator: line(40, 1),
  note: line(120),
  input: z
    .record(z.string(), z.unknown())
    .refine(
      input => JSON.stringify(input).length <= longestInput,
      `is too long to keep with a job: at most ${longestInput.toLocaleString('en-US')} characters`,
    ),
})
export type Calculation = z.infer<typeof calculationSchema>

const shape = z.strictObject({
  formatVersion: z.literal(formatVersion),
  title: line(80, 1),
  place: line(120),
  edition: z.union([z.literal(2017), z.literal(2020), z.literal(2023)], 'must be 2017, 2020 or 2023'),
  step: z.enum(steps),
  panel: panelSchema,
  source: sourceSchema.optional(),
  hookup: z.strictObject({ method: z.enum(methodIds), bondingPlug: z.boolean() }),
  outage: outageSchema,
  calculations: z.array(calculationSchema).max(60, 'must hold at most 60 calculations'),
})

/** One job. What no single key can tell is checked across keys: overlaps, pairs, what the station can do. */
export const jobSchema = shape.check(context => {
  const job = context.value
  const say = (path: PropertyKey[], message: string) =>
    context.issues.push({ code: 'custom', path, message, input: job })
  const taken = new Map<number, string>()
  const ids = new Set<string>()
  job.panel.circuits.forEach((circuit, i) => {
    const at = ['panel', 'circuits', i]
    if (ids.has(circuit.id)) say([...at, 'id'], `repeats the id ${circuit.id}`)
    ids.add(circuit.id)
    for (const space of spacesOf(circuit)) {
      if (space > job.panel.spaces)
        say([...at, 'position'], `needs space ${space}, but the panel has ${job.panel.spaces}`)
      else if (taken.has(space))
        say([...at, 'position'], `needs space ${space}, which ${taken.get(space)} takes`)
      taken.set(space, circuit.label || `the breaker at ${circuit.position}`)
    }
    const loadIds = new Set(circuit.loads.map(l => l.id))
    if (loadIds.size < circuit.loads.length) say([...at, 'loads'], 'repeats a load id')
    const { neutral } = circuit
    if (neutral.kind !== 'shared') return
    const partner = job.panel.circuits.find(c => c.id === neutral.with)
    if (!partner || partner === circuit)
      say([...at, 'neutral', 'with'], 'must name another circuit of this panel')
    else if (partner.neutral.kind !== 'shared' || partner.neutral.with !== circuit.id)
      say(
        [...at, 'neutral', 'with'],
        `names ${partner.label || partner.id}, which does not name this circuit back`,
      )
  })
  if (new Set(job.calculations.map(c => c.id)).size < job.calculations.length)
    say(['calculations'], 'repeats a calculation id')
  if (job.outage.reserveFraction >= job.outage.startFraction)
    say(
      ['outage', 'reserveFraction'],
      'must leave something to use: the reserve has to be below the charge when the outage begins',
    )
  const { source } = job
  if (!source) return
  const most = source.station.expansion?.most ?? 0
  if (source.expansionUnits > most)
    say(
      ['source', 'expansionUnits'],
      most
        ? `must be at most ${most} on a ${source.station.name}`
        : `must be 0: a ${source.station.name} takes none`,
    )
  if (!canArrange(source.station, source.arrangement))
    say(
      ['source', 'arrangement'],
      `cannot be split phase: a ${source.station.name} puts out ${source.station.voltage} V only`,
    )
})

export type Job = z.infer<typeof jobSchema>
