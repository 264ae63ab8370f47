import { current, type Draft, produce } from 'immer'
import * as z from 'zod'
import { type Brief, briefSchema } from '../ask/brief'
import { markSchema, type Photo, photoSchema, plateSchema, requestRecordSchema } from '../ask/evidence'
import { acceptanceSchema } from '../checks/acceptance'
import { type UnitEquipment, unitEquipmentSchema } from '../equipment/source-kinds'
import { hookupSchema, positionSchema, runSchema } from '../hookup/design'
import { withChosen, withLog, withoutChoice, withoutLog, withStart } from '../loads/evidence'
import { figureKeys, type Load, loadSchema, startSchema } from '../loads/load'
import { logSchema } from '../loads/log'
import { loadFromPlate } from '../loads/plate'
import { utilitySchema } from '../loads/utility'
import { outageSchema } from '../outage/asked'
import { type Fault, fail, fault, type Outcome, parseWith } from '../outcome'
import { bodyOf } from '../panel/body'
import { moved } from '../panel/move'
import { feedOf } from '../panel/positions'
import { type Circuit, circuitSchema, type Panel, panelSchema, tracedSchema } from '../panel/schema'
import { line, within } from '../quantity'
import { arrangementNames, jobArrangements } from '../source/arrangement'
import {
  arraySchema,
  hindersArrangement,
  rangeExtenderSchema,
  type Source,
  sourceSchema,
  type Unit,
  unitSchema,
  voltsOf,
} from '../source/design'
import { legSchema } from '../source/legs'
import { quantity } from '../units/format'
import { originSchema } from '../working'
import { circuitOf, placeText } from './panels'
import { type Calculation, calculationSchema, type Job, jobSchema, steps } from './schema'

const id = line(40, 1)
const jobFacts = z.strictObject({
  title: line(80, 1),
  place: line(120),
  edition: z.union([z.literal(2017), z.literal(2020), z.literal(2023)]),
  step: z.enum(steps),
})

const simpleSchema = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('setJobFacts'), facts: jobFacts.partial() }),
  z.strictObject({
    op: z.literal('setPanel'),
    /** the first panel when left out, as in addCircuit */
    panelId: id.optional(),
    facts: panelSchema.omit({ id: true, circuits: true }).partial(),
    clear: z
      .array(
        z.enum(['mainA', 'busA', 'feederId', 'neutralBonded', 'clearDepthIn', 'tandemSpaces', 'demandW']),
      )
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('addPanel'), panel: panelSchema }),
  z.strictObject({ op: z.literal('removePanel'), panelId: id }),
  z.strictObject({ op: z.literal('addCircuit'), panelId: id.optional(), circuit: circuitSchema }),
  z.strictObject({
    op: z.literal('editCircuit'),
    circuitId: id,
    facts: circuitSchema.omit({ id: true, position: true, loads: true, picked: true, tie: true }).partial(),
    /** facts to leave out again */
    clear: z
      .array(z.enum(['wire', 'traced', 'half', 'type', 'lockedOff']))
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('removeCircuit'), circuitId: id }),
  z.strictObject({
    op: z.literal('tieBreakers'),
    circuitId: id,
    tie: z.strictObject({ with: id, kind: z.enum(['handle', 'common trip']) }).nullable(),
  }),
  z.strictObject({ op: z.literal('traceCircuit'), circuitId: id, traced: tracedSchema }),
  z.strictObject({
    op: z.literal('moveBreaker'),
    circuitId: id,
    toPosition: z.int(),
    /** to another panel: with its wire, and whatever comes out with it */
    toPanelId: id.optional(),
  }),
  z.strictObject({ op: z.literal('selectCircuit'), circuitId: id, picked: z.boolean() }),
  z.strictObject({ op: z.literal('putLoad'), circuitId: id, load: loadSchema }),
  z.strictObject({ op: z.literal('removeLoad'), circuitId: id, loadId: id }),
  /** one unit as the whole source; null takes the source away */
  z.strictObject({
    op: z.literal('chooseUnit'),
    equipment: unitEquipmentSchema.nullable(),
    bank: unitSchema.shape.bank,
    owned: z.boolean().optional(),
  }),
  /** a design that was searched: source and hook-up at once */
  z.strictObject({
    op: z.literal('adoptDesign'),
    name: line(200, 1),
    source: sourceSchema,
    hookup: hookupSchema,
    /** circuits that are to be locked off, or guarded at their first outlet, with it */
    circuits: z
      .array(
        z.strictObject({
          circuitId: id,
          facts: circuitSchema.pick({ lockedOff: true, outletProtection: true }),
        }),
      )
      .max(200)
      .optional(),
  }),
  z.strictObject({ op: z.literal('addUnit'), unit: unitSchema }),
  z.strictObject({
    op: z.literal('editUnit'),
    unitId: id,
    facts: unitSchema.omit({ id: true }).partial(),
  }),
  z.strictObject({ op: z.literal('removeUnit'), unitId: id }),
  z.strictObject({ op: z.literal('setExpansionUnits'), count: z.int('must be a whole number') }),
  z.strictObject({
    op: z.literal('setArrangement'),
    arrangement: z.enum(jobArrangements),
    liveLeg: legSchema.optional(),
    /** what the arrangement cannot be without */
    combiner: sourceSchema.shape.combiner,
    autotransformer: sourceSchema.shape.autotransformer,
    second: unitSchema.optional(),
  }),
  z.strictObject({
    op: z.literal('setSource'),
    facts: sourceSchema.pick({ charging: true, stands: true }).partial(),
    clear: z
      .array(z.enum(['combiner', 'autotransformer', 'generator', 'charging', 'stands']))
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('putGenerator'), generator: rangeExtenderSchema }),
  z.strictObject({ op: z.literal('putArray'), array: arraySchema }),
  z.strictObject({ op: z.literal('removeArray'), arrayId: id }),
  z.strictObject({
    op: z.literal('setHookup'),
    facts: hookupSchema.partial(),
    clear: z
      .array(
        z.enum([
          'panelId',
          'whip',
          'switch',
          'managed',
          'interlock',
          'inlet',
          'backfed',
          'ground',
          'neutrals',
          'sourceNeutral',
          'exists',
          'secondSwitch',
          'intercepts',
          'movedPlaces',
          'path',
          'positions',
        ]),
      )
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('setPositions'), positions: z.array(positionSchema).max(84) }),
  z.strictObject({ op: z.literal('putRun'), run: runSchema }),
  z.strictObject({ op: z.literal('removeRun'), runId: id }),
  z.strictObject({ op: z.literal('acceptFinding'), acceptance: acceptanceSchema }),
  z.strictObject({ op: z.literal('withdrawAcceptance'), key: acceptanceSchema.shape.key }),
  z.strictObject({
    op: z.literal('setOutage'),
    facts: outageSchema.partial(),
    clear: z
      .array(
        z.enum([
          'beginsH',
          'season',
          'outdoorC',
          'latitudeDeg',
          'cloudFraction',
          'shedding',
          'heedFraction',
          'restartMinutes',
          'weather',
        ]),
      )
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('putCalculation'), calculation: calculationSchema }),
  z.strictObject({ op: z.literal('removeCalculation'), calculationId: id }),
  z.strictObject({
    op: z.literal('answerBrief'),
    answers: briefSchema.partial(),
    clear: z
      .array(z.enum(Object.keys(briefSchema.omit({ wants: true }).shape)))
      .max(40)
      .optional(),
  }),
  z.strictObject({ op: z.literal('putRequest'), request: requestRecordSchema }),
  z.strictObject({ op: z.literal('removeRequest'), key: line(90, 1) }),
  z.strictObject({ op: z.literal('addPhoto'), photo: photoSchema }),
  z.strictObject({
    op: z.literal('editPhoto'),
    photoId: z.uuid(),
    facts: photoSchema.pick({ name: true, turns: true, about: true }).partial(),
  }),
  z.strictObject({ op: z.literal('removePhoto'), photoId: z.uuid() }),
  z.strictObject({ op: z.literal('putMark'), photoId: z.uuid(), mark: markSchema }),
  z.strictObject({ op: z.literal('removeMark'), photoId: z.uuid(), markId: id }),
  z.strictObject({
    op: z.literal('takePlate'),
    circuitId: id,
    loadId: id.nullable(),
    newLoadId: id,
    name: line(60, 1),
    plate: plateSchema,
    on: z.iso.date(),
  }),
  z.strictObject({ op: z.literal('takeLog'), circuitId: id, loadId: id, log: logSchema }),
  z.strictObject({ op: z.literal('removeLog'), circuitId: id, loadId: id, logId: id }),
  z.strictObject({ op: z.literal('takeStart'), circuitId: id, loadId: id, start: startSchema }),
  /** which source of a figure counts; null: the best again */
  z.strictObject({
    op: z.literal('chooseFigure'),
    circuitId: id,
    loadId: id,
    figure: z.enum(figureKeys),
    from: originSchema.nullable(),
  }),
  /** what the utility's data say of the house, and the highest demand of a panel from them */
  z.strictObject({
    op: z.literal('takeUtility'),
    utility: utilitySchema,
    panelId: id.optional(),
    peakFactor: within(1, 3, '×'),
  }),
  z.strictObject({ op: z.literal('dropUtility') }),
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
      return onPanel(operation.panelId, panel => {
        assign<Panel>(panel, operation.facts)
        for (const key of operation.clear ?? []) delete panel[key]
      })
    case 'addPanel':
      return job => {
        if (job.panels.some(p => p.id === operation.panel.id))
          return [fault('panels', `already holds a panel ${operation.panel.id}`)]
        job.panels.push(operation.panel)
      }
    case 'removePanel':
      return onPanel(operation.panelId, (panel, job) => {
        if (job.panels.length === 1) return [fault('panels', 'must hold a panel: this is the only one')]
        job.panels = job.panels.filter(p => p.id !== panel.id)
        for (const other of job.panels)
          if (panel.circuits.some(c => c.id === other.feederId)) delete other.feederId
        if (job.hookup.panelId === panel.id) delete job.hookup.panelId
        leavePositions(job)
      })
    case 'addCircuit':
      return onPanel(operation.panelId, panel => {
        const { circuit } = operation
        if (panel.circuits.some(c => c.id === circuit.id))
          return [fault('panels', `already hold a circuit ${circuit.id}`)]
        panel.circuits.push(circuit)
        sort(panel)
      })
    case 'editCircuit':
      return onCircuit(operation.circuitId, (circuit, panel) => {
        const was = circuit.neutral
        assign<Circuit>(circuit, operation.facts)
        for (const key of operation.clear ?? []) delete circuit[key]
        if (operation.facts.neutral) pairNeutrals(panel, circuit, was)
      })
    case 'tieBreakers':
      return onCircuit(operation.circuitId, (circuit, panel) => {
        untie(panel, circuit)
        const { tie } = operation
        const partner = tie && panel.circuits.find(c => c.id === tie.with)
        if (!tie || !partner) return
        untie(panel, partner)
        circuit.tie = tie
        partner.tie = { with: circuit.id, kind: tie.kind }
      })
    case 'traceCircuit':
      return onCircuit(operation.circuitId, circuit => {
        circuit.traced = operation.traced
      })
    case 'removeCircuit':
      return onCircuit(operation.circuitId, (circuit, panel, job) => {
        leavePartner(panel, circuit.neutral)
        untie(panel, circuit)
        panel.circuits = panel.circuits.filter(c => c.id !== circuit.id)
        for (const other of job.panels) if (other.feederId === circuit.id) delete other.feederId
        leavePositions(job)
      })
    case 'moveBreaker':
      return onCircuit(operation.circuitId, (circuit, panel, job) => {
        const { toPanelId, toPosition } = operation
        if (toPanelId !== undefined && toPanelId !== panel.id)
          return moveAcross(job, panel, circuit, toPanelId, toPosition)
        const move = moved(panel, circuit, toPosition)
        if (!move.ok) return [fault('panels', move.why)]
        for (const c of panel.circuits) {
          const place = move.places.get(c.id)
          if (place) c.position = place.position
          if (place?.half) c.half = place.half
          else if (place) delete c.half
        }
        sort(panel)
      })
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
    case 'chooseUnit':
      return job => {
        const { equipment, bank, owned = false } = operation
        if (!equipment) {
          delete job.source
          return
        }
        const was = job.source
        const unit: Unit = {
          id: 'u1',
          equipment,
          expansionUnits: Math.min(was?.units[0]?.expansionUnits ?? 0, expansionsOf(equipment)),
          ...(bank && { bank }),
          owned,
        }
        job.source = arranged({
          ...was,
          units: [unit],
          arrangement: was?.arrangement ?? usualArrangement(equipment),
          liveLeg: was?.liveLeg ?? 'L1',
        })
      }
    case 'adoptDesign':
      return job => {
        job.source = operation.source
        job.hookup = operation.hookup
        leavePositions(job)
        for (const { circuitId, facts } of operation.circuits ?? [])
          for (const circuit of job.panels.flatMap(p => p.circuits))
            if (circuit.id === circuitId) assign<Circuit>(circuit, facts)
      }
    case 'addUnit':
      return onSource(source => {
        source.units.push(operation.unit)
        if (hindersArrangement(source, source.arrangement)) source.arrangement = 'independent'
        rearrange(source)
      })
    case 'editUnit':
      return onSource(source => {
        const unit = source.units.find(u => u.id === operation.unitId)
        if (!unit) return [fault('source.units', 'no longer hold that unit')]
        assign<Unit>(unit, operation.facts)
        if (unit.equipment.kind !== 'inverter') delete unit.bank
        unit.expansionUnits = Math.min(
          unit.expansionUnits,
          operation.facts.equipment ? expansionsOf(unit.equipment) : 99,
        )
        if (operation.facts.equipment) rearrange(source)
      })
    case 'removeUnit':
      return onSource((source, job) => {
        source.units = source.units.filter(u => u.id !== operation.unitId)
        source.arrays = source.arrays?.filter(a => a.unitId !== operation.unitId)
        if (source.units.length) rearrange(source)
        else delete job.source
      })
    case 'setExpansionUnits':
      return onSource(source => {
        // two units of a pair are kept alike
        for (const unit of source.units) unit.expansionUnits = operation.count
      })
    case 'setArrangement':
      return onSource(source => {
        const { arrangement, liveLeg, combiner, autotransformer, second } = operation
        if (second && source.units.length === 1) source.units.push(second)
        if (combiner) source.combiner = combiner
        if (autotransformer) source.autotransformer = autotransformer
        if (arrangement !== 'combined' && arrangement !== 'independent') source.units.splice(1)
        source.arrangement = arrangement
        source.liveLeg = liveLeg ?? source.liveLeg
        source.arrays = source.arrays?.filter(a => source.units.some(u => u.id === a.unitId))
      })
    case 'setSource':
      return onSource(source => {
        assign(source, operation.facts)
        for (const key of operation.clear ?? []) delete source[key]
        rearrange(source)
      })
    case 'putGenerator':
      return onSource(source => {
        source.generator = operation.generator
      })
    case 'putArray':
      return onSource(source => {
        source.arrays = put(source.arrays, operation.array)
      })
    case 'removeArray':
      return onSource(source => {
        source.arrays = source.arrays?.filter(a => a.id !== operation.arrayId)
      })
    case 'setPositions':
      return job => {
        job.hookup.positions = operation.positions
      }
    case 'putRun':
      return job => {
        job.hookup.runs = put(job.hookup.runs, operation.run)
      }
    case 'removeRun':
      return job => {
        job.hookup.runs = job.hookup.runs?.filter(r => r.id !== operation.runId)
      }
    case 'acceptFinding':
      return job => {
        job.accepted = [
          ...(job.accepted ?? []).filter(a => a.key !== operation.acceptance.key),
          operation.acceptance,
        ]
      }
    case 'withdrawAcceptance':
      return job => {
        job.accepted = job.accepted?.filter(a => a.key !== operation.key)
      }
    case 'setHookup':
      return job => {
        assign(job.hookup, operation.facts)
        for (const key of operation.clear ?? []) delete job.hookup[key]
      }
    case 'setOutage':
      return job => {
        assign(job.outage, operation.facts)
        for (const key of operation.clear ?? []) delete job.outage[key]
      }
    case 'takeLog':
      return onLoad(operation, load => withLog(load, operation.log))
    case 'removeLog':
      return onLoad(operation, load => withoutLog(load, operation.logId))
    case 'takeStart':
      return onLoad(operation, load => withStart(load, operation.start))
    case 'chooseFigure':
      return onLoad(operation, load => {
        const was = load[operation.figure]
        const now = operation.from === null ? withoutChoice(was) : withChosen(was, operation.from)
        return now
          ? { ...load, [operation.figure]: now }
          : [fault(operation.figure, `has no figure from ${operation.from} to choose`)]
      })
    case 'takeUtility':
      return job => {
        const { utility, panelId, peakFactor } = operation
        job.utility = utility
        const panel = panelId === undefined ? undefined : job.panels.find(p => p.id === panelId)
        if (panelId !== undefined && !panel) return [fault('panels', `no longer hold the panel ${panelId}`)]
        if (panel)
          panel.demandW = {
            value: utility.demand.peakW,
            from: 'utility data',
            on: utility.on,
            document: utility.document,
            ...(peakFactor > 1 && { peakFactor }),
          }
      }
    case 'dropUtility':
      return job => {
        const { utility } = job
        if (!utility) return
        for (const panel of job.panels) if (panel.demandW?.document === utility.document) delete panel.demandW
        delete job.utility
      }
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
    case 'answerBrief':
      return job => {
        assign<Brief>(job.brief, operation.answers)
        for (const key of operation.clear ?? []) Reflect.deleteProperty(job.brief, key)
      }
    case 'putRequest':
      return job => {
        const at = job.requests.findIndex(r => r.key === operation.request.key)
        if (at < 0) job.requests.push(operation.request)
        else job.requests[at] = operation.request
      }
    case 'removeRequest':
      return job => {
        job.requests = job.requests.filter(r => r.key !== operation.key)
      }
    case 'addPhoto':
      return job => {
        if (job.photos.some(p => p.id === operation.photo.id)) return
        job.photos.push(operation.photo)
      }
    case 'editPhoto':
      return onPhoto(operation.photoId, photo => assign(photo, operation.facts))
    case 'removePhoto':
      return job => {
        job.photos = job.photos.filter(p => p.id !== operation.photoId)
      }
    case 'putMark':
      return onPhoto(operation.photoId, photo => {
        const at = photo.marks.findIndex(m => m.id === operation.mark.id)
        if (at < 0) photo.marks.push(operation.mark)
        else photo.marks[at] = operation.mark
      })
    case 'removeMark':
      return onPhoto(operation.photoId, photo => {
        photo.marks = photo.marks.filter(m => m.id !== operation.markId)
      })
    case 'takePlate':
      return onCircuit(operation.circuitId, (circuit, panel) => {
        const { plate, loadId, newLoadId, name, on } = operation
        const was = circuit.loads.find(l => l.id === loadId)
        const load = loadFromPlate(plate, {
          id: was?.id ?? newLoadId,
          name,
          on,
          volts: feedOf(panel, circuit) === 'both' ? 240 : 120,
          was,
        })
        if (was) circuit.loads[circuit.loads.indexOf(was)] = load
        else circuit.loads.push(load)
      })
  }
}

const usualArrangement = (unit: UnitEquipment) => (voltsOf(unit) === '120/240' ? 'split-phase' : 'tied')
const expansionsOf = (unit: UnitEquipment) => (unit.kind === 'station' ? (unit.expansion?.most ?? 0) : 0)

const put = <T extends { id: string }>(list: readonly T[] | undefined, item: T): T[] =>
  list?.some(l => l.id === item.id) ? list.map(l => (l.id === item.id ? item : l)) : [...(list ?? []), item]

/** The source with what no longer fits its units gone: arrays of units that left, an arrangement that cannot be. */
function rearrange(source: Draft<Source>) {
  Object.assign(source, arranged(current(source)))
}

function arranged(source: Source): Source {
  const [first] = source.units
  if (!first || !hindersArrangement(source, source.arrangement)) return source
  const fitting = source.units.length > 1 ? 'independent' : usualArrangement(first.equipment)
  return { ...source, arrangement: fitting, arrays: source.arrays?.filter(a => a.unitId === first.id) }
}

function onCircuit(
  circuitId: string,
  act: (circuit: Draft<Circuit>, panel: Draft<Panel>, job: Draft<Job>) => Fault[] | void,
): Change {
  return job => {
    for (const panel of job.panels) {
      const circuit = panel.circuits.find(c => c.id === circuitId)
      if (circuit) return act(circuit, panel, job)
    }
    return [fault('panels', `no longer hold the circuit ${circuitId}`)]
  }
}

function onLoad(
  { circuitId, loadId }: { circuitId: string; loadId: string },
  act: (load: Load) => Load | Fault[],
): Change {
  return onCircuit(circuitId, circuit => {
    const at = circuit.loads.findIndex(l => l.id === loadId)
    const load = circuit.loads[at]
    if (!load) return [fault('panels', 'no longer hold this load')]
    const now = act(current(load))
    if (Array.isArray(now)) return now
    circuit.loads[at] = now
  })
}

function onPanel(
  panelId: string | undefined,
  act: (panel: Draft<Panel>, job: Draft<Job>) => Fault[] | void,
): Change {
  return job => {
    const panel = panelId === undefined ? job.panels[0] : job.panels.find(p => p.id === panelId)
    return panel ? act(panel, job) : [fault('panels', `no longer hold the panel ${panelId}`)]
  }
}

function onPhoto(photoId: string, act: (photo: Draft<Photo>) => void): Change {
  return job => {
    const photo = job.photos.find(p => p.id === photoId)
    return photo ? act(photo) : [fault('photos', 'no longer hold this photograph')]
  }
}

const sort = (panel: Draft<Panel>) => {
  panel.circuits.sort((a, b) => a.position - b.position || (a.half ?? '').localeCompare(b.half ?? ''))
}

function onSource(act: (source: Draft<Source>, job: Draft<Job>) => Fault[] | void): Change {
  return job =>
    job.source ? act(job.source, job) : [fault('source', 'is not chosen yet: choose a unit first')]
}

/** Positions of circuits that are gone go with them. */
function leavePositions(job: Draft<Job>) {
  const left = new Set(job.panels.flatMap(p => p.circuits.map(c => c.id)))
  const { positions } = job.hookup
  if (positions?.some(p => !left.has(p.circuitId)))
    job.hookup.positions = positions.filter(p => left.has(p.circuitId))
}

/** Both hots of a shared neutral name each other; whoever was paired before goes back to a neutral of its own. */
function pairNeutrals(panel: Draft<Panel>, circuit: Draft<Circuit>, was: Circuit['neutral']) {
  leavePartner(panel, was)
  const now = circuit.neutral
  if (now.kind !== 'shared') return
  const partner = panel.circuits.find(c => c.id === now.with)
  if (!partner) return
  leavePartner(panel, partner.neutral)
  partner.neutral = { kind: 'shared', with: circuit.id }
  circuit.neutral = now
}

function leavePartner(panel: Draft<Panel>, neutral: Circuit['neutral']) {
  if (neutral.kind !== 'shared') return
  const partner = panel.circuits.find(c => c.id === neutral.with)
  if (partner) partner.neutral = { kind: 'own' }
}

function untie(panel: Draft<Panel>, circuit: Draft<Circuit>) {
  const partner = panel.circuits.find(c => c.id === circuit.tie?.with)
  delete circuit.tie
  if (partner) delete partner.tie
}

/** Takes a breaker's circuits, and what comes out with them, to free spaces of another panel. */
function moveAcross(
  job: Draft<Job>,
  from: Draft<Panel>,
  circuit: Draft<Circuit>,
  toPanelId: string,
  toPosition: number,
): Fault[] | void {
  const to = job.panels.find(p => p.id === toPanelId)
  if (!to) return [fault('panels', `no longer hold the panel ${toPanelId}`)]
  if (to.feederId === circuit.id)
    return [fault('panels', 'cannot take the breaker that feeds this very panel')]
  const body = bodyOf(from.circuits, circuit)
  const left = body.find(c => c.neutral.kind === 'shared' && !body.some(o => isPartner(c, o)))
  if (left)
    return [
      fault(
        'panels',
        `cannot part ${left.label || 'the circuit'} from the circuit that shares its neutral: tie the two, and they move together`,
      ),
    ]
  const shift = toPosition - circuit.position
  for (const c of body) c.position += shift
  from.circuits = from.circuits.filter(c => !body.includes(c))
  to.circuits.push(...body)
  sort(to)
}

const isPartner = (a: Circuit, b: Circuit) => a.neutral.kind === 'shared' && a.neutral.with === b.id

/** What an operation did, as one line of the job's history. `before` is the job it was applied to. */
export function describeOperation(before: Job, operation: Operation): string {
  const name = (circuitId: string) => {
    const found = circuitOf(before, circuitId)
    return found
      ? `${placeText(before, found.panel, found.circuit)} ${found.circuit.label || 'unlabelled'}`
      : circuitId
  }
  const panelAt = (panelId: string | undefined) =>
    panelId === undefined ? before.panels[0] : before.panels.find(p => p.id === panelId)
  const panelName = (panelId: string | undefined) => panelAt(panelId)?.name ?? ''
  switch (operation.op) {
    case 'setJobFacts':
      return `changed the job’s ${Object.keys(operation.facts).join(', ')}`
    case 'setPanel':
      return `changed ${panelName(operation.panelId)}: ${[...Object.keys(operation.facts), ...(operation.clear ?? [])].map(panelWord).join(', ')}`
    case 'addPanel':
      return `added the panel ${operation.panel.name}`
    case 'removePanel':
      return `removed the panel ${panelName(operation.panelId)}`
    case 'addCircuit': {
      const panel = panelAt(operation.panelId)
      const { circuit } = operation
      return `added ${panel ? placeText(before, panel, circuit) : circuit.position} ${circuit.label || 'unlabelled'}`
    }
    case 'tieBreakers':
      return operation.tie
        ? `tied ${name(operation.circuitId)} to ${name(operation.tie.with)}`
        : `untied ${name(operation.circuitId)}`
    case 'traceCircuit':
      return `traced ${name(operation.circuitId)}: ${foundWords[operation.traced.found]}`
    case 'editCircuit':
      return `edited ${name(operation.circuitId)} (${[...Object.keys(operation.facts), ...(operation.clear ?? [])].map(circuitWord).join(', ')})`
    case 'removeCircuit':
      return `removed ${name(operation.circuitId)}`
    case 'moveBreaker':
      return `moved ${name(operation.circuitId)} to ${movedTo(before, operation)}`
    case 'selectCircuit':
      return `${operation.picked ? 'picked' : 'dropped'} ${name(operation.circuitId)}`
    case 'putLoad':
      return `set the load ${operation.load.name} on ${name(operation.circuitId)}`
    case 'removeLoad':
      return `removed a load from ${name(operation.circuitId)}`
    case 'chooseUnit':
      return operation.equipment ? `chose the ${operation.equipment.name} as source` : 'took the source away'
    case 'adoptDesign':
      return `took up the design ${operation.name}`
    case 'addUnit':
      return `added a ${operation.unit.equipment.name}`
    case 'editUnit':
      return `changed ${unitName(before, operation.unitId)}`
    case 'removeUnit':
      return `took ${unitName(before, operation.unitId)} away`
    case 'setSource':
      return 'changed where or how the source is kept and charged'
    case 'putGenerator':
      return `set the generator ${operation.generator.equipment.name}`
    case 'putArray':
      return `set ${operation.array.series * operation.array.parallel} ${operation.array.module.name}`
    case 'removeArray':
      return 'took solar modules away'
    case 'setPositions':
      return 'set the switch positions'
    case 'putRun':
      return `set the run ${operation.run.name}`
    case 'removeRun':
      return `removed the run ${before.hookup.runs?.find(r => r.id === operation.runId)?.name ?? ''}`.trim()
    case 'acceptFinding':
      return `accepted ${operation.acceptance.key.split('|')[0]}: ${operation.acceptance.reason}`
    case 'withdrawAcceptance':
      return `took back the acceptance of ${operation.key.split('|')[0]}`
    case 'setExpansionUnits':
      return `set the expansion units to ${operation.count}`
    case 'setArrangement':
      return `arranged as ${arrangementNames[operation.arrangement]}${operation.liveLeg && operation.arrangement === 'one-leg' ? ` (${operation.liveLeg})` : ''}`
    case 'setHookup':
      return 'changed the hook-up'
    case 'putCalculation':
      return `kept the calculation ${calculationName(operation.calculation)}`
    case 'removeCalculation': {
      const calculation = before.calculations.find(c => c.id === operation.calculationId)
      return `removed the calculation ${calculation ? calculationName(calculation) : ''}`.trim()
    }
    case 'answerBrief':
      return 'answered questions of the brief'
    case 'putRequest':
      return `set a request to ${operation.request.state}`
    case 'removeRequest':
      return 'took a request away'
    case 'addPhoto':
      return `added the photograph ${operation.photo.name}`
    case 'editPhoto':
      return 'changed a photograph’s name, turn or place'
    case 'removePhoto':
      return `removed the photograph ${before.photos.find(p => p.id === operation.photoId)?.name ?? ''}`.trim()
    case 'putMark':
      return 'marked a photograph'
    case 'removeMark':
      return 'took a mark off a photograph'
    case 'takePlate':
      return `took the nameplate of ${operation.name} for ${name(operation.circuitId)}`
    case 'takeLog':
      return `took the log ${operation.log.name} for ${loadName(before, operation)}`
    case 'removeLog':
      return `removed a log of ${loadName(before, operation)}`
    case 'takeStart':
      return `took the start of ${loadName(before, operation)}`
    case 'chooseFigure':
      return operation.from
        ? `chose the ${operation.from} figure (${words(operation.figure).trim()}) for ${loadName(before, operation)}`
        : `left the figure (${words(operation.figure).trim()}) of ${loadName(before, operation)} to the best source`
    case 'takeUtility':
      return `took the utility data ${operation.utility.document}`
    case 'dropUtility':
      return 'took the utility data away'
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

const unitName = (job: Job, unitId: string) =>
  job.source?.units.find(u => u.id === unitId)?.equipment.name ?? 'a unit'
const loadName = (job: Job, { circuitId, loadId }: { circuitId: string; loadId: string }) =>
  circuitOf(job, circuitId)?.circuit.loads.find(l => l.id === loadId)?.name ?? 'a load'
const calculationName = ({ calculator, note }: Calculation) => (note ? `${calculator} (${note})` : calculator)
const foundWords = { known: 'known', doubtful: 'doubtful', nothing: 'nothing died' } as const
const movedTo = (
  job: Job,
  { circuitId, toPosition, toPanelId }: Extract<Operation, { op: 'moveBreaker' }>,
) => {
  const found = circuitOf(job, circuitId)
  const panel = job.panels.find(p => p.id === toPanelId) ?? found?.panel
  return panel && found ? placeText(job, panel, { ...found.circuit, position: toPosition }) : toPosition
}

/** A key of the document as words. */
const words = (key: string) =>
  key.replace(/(A|In|W|Id)$/, '').replace(/[A-Z]/g, capital => ` ${capital.toLowerCase()}`)
const panelWord = (key: string) => ({ mainA: 'main', busA: 'bus rating' })[key] ?? words(key)
const circuitWord = (key: string) => ({ breakerA: 'rating', traced: 'tracing' })[key] ?? words(key)
