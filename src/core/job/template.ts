import type { Brief, Want } from '../ask/brief'
import type { Hookup } from '../hookup/design'
import { methodOf } from '../hookup/method'
import type { Figure, Load, Start } from '../loads/load'
import { feedOf } from '../panel/positions'
import type { Source } from '../source/design'
import { quantity } from '../units/format'
import { withHookupChanges } from './hookup-changes'
import { type NewJob, newJob } from './new'
import { circuitOf } from './panels'
import type { Job } from './schema'

/** What a template gives to a new job. */
type Ways = Pick<Job, 'edition' | 'outage' | 'source' | 'hookup' | 'brief'>

/**
 * The firm's way of doing it, and the kind of house, as a job shows them, without its house and its people: the edition, the outage
 * reckoned with, what delivers and how it is connected, what must live and what that draws. What was found, measured or sent stays there:
 * a new house is surveyed anew.
 */
export function waysOf(job: Job): Ways {
  const { edition, outage, source, hookup } = job
  const { weather: _, latitudeDeg: __, outdoorC: ___, cloudFraction: ____, ...asked } = outage
  return {
    edition,
    outage: asked,
    ...(source && { source: sourceOf(source) }),
    hookup: hookupOf(hookup),
    brief: briefOf(job),
  }
}

/** Of what was answered, what tells of a kind of house and not of one. */
function briefOf(job: Job): Brief {
  const { season, water, wastewater, heat } = job.brief
  // a circuit that carries two things gives its loads to the first
  const given = new Set<string>()
  return {
    ...(season && { season }),
    ...(water && { water }),
    ...(wastewater && { wastewater }),
    ...(heat && { heat }),
    wants: job.brief.wants.map(want => wantOf(job, want, given)),
  }
}

/** A want with the loads that its circuits carry, as things usually are: their plates, logs and days stay with the house. */
function wantOf(job: Job, { circuitIds, takenIds: _, loads = [], ...want }: Want, given: Set<string>): Want {
  const carried = circuitIds.flatMap(id => {
    const found = circuitOf(job, id)
    if (!found || given.has(id)) return []
    given.add(id)
    const volts: 120 | 240 = feedOf(found.panel, found.circuit) === 'both' ? 240 : 120
    return found.circuit.loads.map(load => ({ volts, load }))
  })
  const all = [...loads, ...carried].slice(0, 12).map(({ volts, load }) => ({ volts, load: typicalOf(load) }))
  return { ...want, circuitIds: [], ...(all.length && { loads: all }) }
}

function typicalOf(load: Load): Load {
  const { plate: _, logs: __, otherStarts: ___, notWith: ____, ...kept } = load
  const usual = ({ value, low, high, ...known }: Figure) => ({
    value,
    from: 'typical value' as const,
    document: 'the firm’s template',
    ...(low !== undefined && { low }),
    ...(high !== undefined && { high }),
    ...(known.atC !== undefined && { atC: known.atC }),
    ...(known.season && { season: known.season }),
  })
  const { start } = kept
  return {
    ...kept,
    runningW: usual(kept.runningW),
    powerFactor: usual(kept.powerFactor),
    dutyFraction: usual(kept.dutyFraction),
    idleW: usual(kept.idleW),
    ...(start && { start: usualStart(start) }),
  }
}

const template = { from: 'typical value', document: 'the firm’s template' } as const
const usualStart = (start: Start): Start =>
  start.method === 'inrush'
    ? { ...start, inrushA: { value: start.inrushA.value, ...template } }
    : start.method === 'multiple'
      ? { ...start, multiple: { value: start.multiple.value, ...template } }
      : { ...start, lockedRotorA: { value: start.lockedRotorA.value, ...template } }

/** An empty job with the ways of a template. */
export const newJobWith = (facts: NewJob, template: Job | null): Job =>
  withHookupChanges({ ...newJob(facts), ...(template && waysOf(template)) })

/** A template of a job: edited like a job, on an empty panel of the same size. Its name tells the kind, not the customer. */
export function templateOf(job: Job): Job {
  const [panel] = job.panels
  const { hookup, outage } = job
  const kind = hookup.method === 'undecided' ? 'A house' : methodOf(hookup.method).short
  const facts = {
    title: `Template: ${kind}, ${quantity(outage.hours, 'h')}`.slice(0, 80),
    place: '',
    spaces: panel?.spaces ?? 30,
    mainA: panel?.mainA ?? 200,
  }
  return newJobWith(facts, job)
}

function sourceOf({ stands: _, generator, arrays, ...source }: Source): Source {
  return {
    ...source,
    units: source.units.map(u => ({ ...u, owned: false })),
    ...(generator && {
      generator: {
        equipment: generator.equipment,
        gallons: generator.gallons,
        chargesOnly: generator.chargesOnly,
        through: generator.through,
        where: 'unknown',
        owned: false,
      },
    }),
    ...(arrays && {
      arrays: arrays.map(({ tiltDeg: _, azimuthDeg: __, ...array }) => ({ ...array, owned: false })),
    }),
  }
}

function hookupOf(hookup: Hookup): Hookup {
  const { method, bondingPlug, interlock, inlet, managed, secondSwitch, backfed, path } = hookup
  const { switch: transferSwitch, intercepts, fixedCord } = hookup
  return {
    method,
    bondingPlug,
    ...(transferSwitch && { switch: transferSwitch }),
    ...(secondSwitch && { secondSwitch }),
    ...(managed && { managed }),
    ...(interlock && { interlock }),
    ...(inlet && { inlet }),
    ...(backfed && { backfed: { breakerA: backfed.breakerA, heldDown: backfed.heldDown } }),
    ...(intercepts && { intercepts }),
    ...(fixedCord && { fixedCord }),
    ...(path && {
      path: path.map(link => {
        const { lengthFt, terminalC: _, ...kept } = link
        // a cord comes along; how far a wire runs, the house says
        return link.kind === 'wire' ? kept : { ...kept, lengthFt }
      }),
    }),
  }
}
