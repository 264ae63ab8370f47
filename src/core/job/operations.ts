import { type Draft, produce } from 'immer'
import * as z from 'zod'
import { methodIds } from '../hookup/method'
import { loadSchema } from '../loads/load'
import { type Fault, fail, fault, type Outcome, parseWith } from '../outcome'
import { occupancy, positionText, spacesOf } from '../panel/positions'
import { line } from '../quantity'
import { stationSchema } from '../source/equipment'
import { arrangementName, legSchema } from '../source/legs'
import { canArrange } from '../source/output'
import { quantity } from '../units/format'
import {
  type Calculation,
  type Circuit,
  calculationSchema,
  circuitSchema,
  type Job,
  jobArrangements,
  jobSchema,
  outageSchema,
  panelSchema,
  steps,
} from './schema'

const id = line(40, 1)
const jobFacts = z.strictObject({
  title: line(80, 1),
  place: line(120),
  edition: z.union([z.literal(2017), z.literal(2020), z.literal(2023)]),
  step: z.enum(steps),
})

const simpleSchema = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('setJobFacts'), facts: jobFacts.partial() }),
  z.strictObject({ op: z.literal('setPanel'), facts: panelSchema.omit({ circuits: true }).partial() }),
  z.strictObject({ op: z.literal('addCircuit'), circuit: circuitSchema }),
  z.strictObject({
    op: z.literal('editCircuit'),
    circuitId: id,
    facts: circuitSchema.omit({ id: true, position: true, loads: true, picked: true }).partial(),
    /** facts to leave out again */
    clear: z.array(z.enum(['wire', 'traced'])).optional(),
  }),
  z.strictObject({ op: z.literal('removeCircuit'), circuitId: id }),
  z.strictObject({ op: z.literal('moveBreaker'), circuitId: id, toPosition: z.int() }),
  z.strictObject({ op: z.literal('selectCircuit'), circuitId: id, picked: z.boolean() }),
  z.strictObject({ op: z.literal('putLoad'), circuitId: id, load: loadSchema }),
  z.strictObject({ op: z.literal('removeLoad'), circuitId: id, loadId: id }),
  z.strictObject({ op: z.literal('chooseStation'), station: stationSchema.nullable() }),
  z.strictObject({ op: z.literal('setExpansionUnits'), count: z.int('must be a whole number') }),
  z.strictObject({
    op: z.literal('setArrangement'),
    arrangement: z.enum(jobArrangements),
    liveLeg: legSchema.optional(),
  }),
  z.strictObject({
    op: z.literal('setHookup'),
    facts: z.strictObject({ method: z.enum(methodIds), bondingPlug: z.boolean() }).partial(),
  }),
  z.strictObject({ op: z.literal('setOutage'), facts: outageSchema.partial() }),
  z.strictObject({ op: z.literal('putCalculation'), calculation: calculationSchema }),
  z.strictObject({ op: z.literal('removeCalculation'), calculationId: id }),
])

export type SimpleOperation = z.infer<typeof simpleSchema>

const several = { label: line(160, 1), operations: z.array(simpleSchema).min(1).max(200) }

/** Every way a job changes, by name. Each is pure, logged with its revision, and undoable. */
export const operationSchema = z.discriminatedUnion('op', [
  ...simpleSchema.options,
  /** the fix of a finding, taken back as one */
  z.strictObject({ op: z.literal('applyFix'), ...several }),
  /** a directory entered, taken back as one */
  z.strictObject({ op: z.literal('enterBreakers'), ...several }),
])

export type Operation = z.infer<typeof operationSchema>

type Change = (job: Draft<Job>) => Fault[] | void

/**
 * The job after the operation; the job given is left as it was.
 * Faults: the thing named is gone, a space is taken, the result breaks the schema. Paths are those of the job.
 */
export function applyOperation(job: Job, operation: Operation): Outcome<Job> {
  if (operation.op !== 'applyFix' && operation.op !== 'enterBreakers') return applySimple(job, operation)
  let outcome: Outcome<Job> = { ok: true, value: job }
  for (const part of operation.operations) if (outcome.ok) outcome = applySimple(outcome.value, part)
  return outcome
}

function applySimple(job: Job, operation: SimpleOperation): Outcome<Job> {
  let faults: Fault[] = []
  const next = produce(job, draft => {
    faults = change(operation)(draft) ?? []
  })
  if (faults.length) return fail(...faults)
  const checked = parseWith(jobSchema, next)
  return checked.ok ? { ok: true, value: next } : checked
}

const assign = <T extends object>(target: T, facts: Partial<T>) => {
  for (const [key, value] of Object.entries(facts)) if (value !== undefined) Reflect.set(target, key, value)
}

function change(operation: SimpleOperation): Change {
  switch (operation.op) {
    case 'setJobFacts':
      return job => assign(job, operation.facts)
    case 'setPanel':
      return job => assign(job.panel, operation.facts)
    case 'addCircuit':
      return job => {
        const { circuit } = operation
        if (job.panel.circuits.some(c => c.id === circuit.id))
          return [fault('panel.circuits', `already holds a circuit ${circuit.id}`)]
        job.panel.circuits.push(circuit)
        job.panel.circuits.sort((a, b) => a.position - b.position)
      }
    case 'editCircuit':
      return onCircuit(operation.circuitId, (circuit, job) => {
        const was = circuit.neutral
        assign<Circuit>(circuit, operation.facts)
        for (const key of operation.clear ?? []) delete circuit[key]
        if (operation.facts.neutral) pairNeutrals(job, circuit, was)
      })
    case 'removeCircuit':
      return onCircuit(operation.circuitId, (circuit, job) => {
        leavePartner(job, circuit.neutral)
        job.panel.circuits = job.panel.circuits.filter(c => c.id !== circuit.id)
      })
    case 'moveBreaker':
      return onCircuit(operation.circuitId, (circuit, job) => moveTo(job, circuit, operation.toPosition))
    case 'selectCircuit':
      return onCircuit(operation.circuitId, circuit => {
        circuit.picked = operation.picked
      })
    case 'putLoad':
      return onCircuit(operation.circuitId, circuit => {
        const at = circuit.loads.findIndex(l => l.id === operation.load.id)
        if (at < 0) circuit.loads.push(operation.load)
        else circuit.loads[at] = operation.load
      })
    case 'removeLoad':
      return onCircuit(operation.circuitId, circuit => {
        circuit.loads = circuit.loads.filter(l => l.id !== operation.loadId)
      })
    case 'chooseStation':
      return job => {
        const { station } = operation
        if (!station) {
          delete job.source
          return
        }
        const was = job.source
        job.source = {
          station,
          expansionUnits: Math.min(was?.expansionUnits ?? 0, station.expansion?.most ?? 0),
          arrangement:
            was && canArrange(station, was.arrangement) ? was.arrangement : usualArrangement(station.voltage),
          liveLeg: was?.liveLeg ?? 'L1',
        }
      }
    case 'setExpansionUnits':
      return onSource(source => {
        source.expansionUnits = operation.count
      })
    case 'setArrangement':
      return onSource(source => {
        source.arrangement = operation.arrangement
        source.liveLeg = operation.liveLeg ?? source.liveLeg
      })
    case 'setHookup':
      return job => assign(job.hookup, operation.facts)
    case 'setOutage':
      return job => assign(job.outage, operation.facts)
    case 'putCalculation':
      return job => {
        const at = job.calculations.findIndex(c => c.id === operation.calculation.id)
        if (at < 0) job.calculations.push(operation.calculation)
        else job.calculations[at] = operation.calculation
      }
    case 'removeCalculation':
      return job => {
        job.calculations = job.calculations.filter(c => c.id !== operation.calculationId)
      }
  }
}

const usualArrangement = (voltage: '120' | '120/240') => (voltage === '120/240' ? 'split-phase' : 'tied')

function onCircuit(
  circuitId: string,
  act: (circuit: Draft<Circuit>, job: Draft<Job>) => Fault[] | void,
): Change {
  return job => {
    const circuit = job.panel.circuits.find(c => c.id === circuitId)
    return circuit ? act(circuit, job) : [fault('panel.circuits', `no longer holds the circuit ${circuitId}`)]
  }
}

function onSource(act: (source: NonNullable<Draft<Job>['source']>) => void): Change {
  return job =>
    job.source ? act(job.source) : [fault('source', 'is not chosen yet: choose a station first')]
}

/** Both hots of a shared neutral name each other; whoever was paired before goes back to a neutral of its own. */
function pairNeutrals(job: Draft<Job>, circuit: Draft<Circuit>, was: Circuit['neutral']) {
  leavePartner(job, was)
  const now = circuit.neutral
  if (now.kind !== 'shared') return
  const partner = job.panel.circuits.find(c => c.id === now.with)
  if (!partner) return
  leavePartner(job, partner.neutral)
  partner.neutral = { kind: 'shared', with: circuit.id }
  circuit.neutral = now
}

function leavePartner(job: Draft<Job>, neutral: Circuit['neutral']) {
  if (neutral.kind !== 'shared') return
  const partner = job.panel.circuits.find(c => c.id === neutral.with)
  if (partner) partner.neutral = { kind: 'own' }
}

/** Moves to a free space, or trades places with a breaker of the same poles. */
function moveTo(job: Draft<Job>, circuit: Draft<Circuit>, toPosition: number): Fault[] | void {
  const at = occupancy(job.panel.circuits)
  const wanted = spacesOf({ position: toPosition, poles: circuit.poles })
  if (wanted.some(space => space < 1 || space > job.panel.spaces))
    return [fault('panel.circuits', `has no space ${wanted.join(' and ')} in a panel of ${job.panel.spaces}`)]
  const others = [...new Set(wanted.map(space => at.get(space)).filter(c => c && c !== circuit))]
  const [other] = others
  if (other && (others.length > 1 || other.poles !== circuit.poles || other.position !== toPosition))
    return [
      fault(
        'panel.circuits',
        `cannot move to ${wanted.join('·')}: ${other.label || `breaker ${other.position}`} is in the way`,
      ),
    ]
  if (other) other.position = circuit.position
  circuit.position = toPosition
  job.panel.circuits.sort((a, b) => a.position - b.position)
}

/** What an operation did, as one line of the job's history. `before` is the job it was applied to. */
export function describeOperation(before: Job, operation: Operation): string {
  const name = (circuitId: string) => {
    const circuit = before.panel.circuits.find(c => c.id === circuitId)
    return circuit ? `${positionText(circuit)} ${circuit.label || 'unlabelled'}` : circuitId
  }
  switch (operation.op) {
    case 'setJobFacts':
      return `changed the job’s ${Object.keys(operation.facts).join(', ')}`
    case 'setPanel':
      return `changed the panel’s ${Object.keys(operation.facts).map(panelWord).join(', ')}`
    case 'addCircuit':
      return `added ${positionText(operation.circuit)} ${operation.circuit.label || 'unlabelled'}`
    case 'editCircuit':
      return `edited ${name(operation.circuitId)} (${[...Object.keys(operation.facts), ...(operation.clear ?? [])].map(circuitWord).join(', ')})`
    case 'removeCircuit':
      return `removed ${name(operation.circuitId)}`
    case 'moveBreaker':
      return `moved ${name(operation.circuitId)} to ${operation.toPosition}`
    case 'selectCircuit':
      return `${operation.picked ? 'picked' : 'dropped'} ${name(operation.circuitId)}`
    case 'putLoad':
      return `set the load ${operation.load.name} on ${name(operation.circuitId)}`
    case 'removeLoad':
      return `removed a load from ${name(operation.circuitId)}`
    case 'chooseStation':
      return operation.station ? `chose the station ${operation.station.name}` : 'took the station away'
    case 'setExpansionUnits':
      return `set the expansion units to ${operation.count}`
    case 'setArrangement':
      return `arranged as ${arrangementName[operation.arrangement]}${operation.liveLeg && operation.arrangement === 'one-leg' ? ` (${operation.liveLeg})` : ''}`
    case 'setHookup':
      return 'changed the hook-up'
    case 'putCalculation':
      return `kept the calculation ${calculationName(operation.calculation)}`
    case 'removeCalculation': {
      const calculation = before.calculations.find(c => c.id === operation.calculationId)
      return `removed the calculation ${calculation ? calculationName(calculation) : ''}`.trim()
    }
    case 'applyFix':
      return `applied: ${operation.label}`
    case 'enterBreakers':
      return `entered ${operation.label}`
    case 'setOutage': {
      const { hours, reserveFraction } = operation.facts
      if (hours !== undefined) return `set the outage to ${quantity(hours, 'h')}`
      if (reserveFraction !== undefined) return `set the reserve to ${quantity(reserveFraction, 'fraction')}`
      return 'changed the outage'
    }
  }
}

const calculationName = ({ calculator, note }: Calculation) => (note ? `${calculator} (${note})` : calculator)
const panelWord = (key: string) =>
  ({ mainA: 'main', spaces: 'spaces', supply: 'supply', name: 'name' })[key] ?? key
const circuitWord = (key: string) => ({ breakerA: 'rating', traced: 'tracing' })[key] ?? key
