import type { Hookup } from '../hookup/design'
import type { Source } from '../source/design'
import { withHookupChanges } from './hookup-changes'
import { type NewJob, newJob } from './new'
import type { Job } from './schema'

/** What a template gives to a new job. */
type Ways = Pick<Job, 'edition' | 'outage' | 'source' | 'hookup'>

/**
 * The firm's way of doing it as a job shows it, without its house: the edition, the outage reckoned with, what delivers and how
 * it is connected. What was found in a house, at its people or in its weather stays there: a new house is surveyed anew.
 */
export function waysOf({ edition, outage, source, hookup }: Job): Ways {
  const { weather: _, latitudeDeg: __, outdoorC: ___, cloudFraction: ____, ...asked } = outage
  return { edition, outage: asked, ...(source && { source: sourceOf(source) }), hookup: hookupOf(hookup) }
}

/** An empty job with the ways of a template. */
export const newJobWith = (facts: NewJob, template: Job | null): Job =>
  withHookupChanges({ ...newJob(facts), ...(template && waysOf(template)) })

/** A template of a job's ways: it is edited like a job, on an empty panel of the same size. */
export function templateOf(job: Job): Job {
  const [panel] = job.panels
  const facts = {
    title: `Template: ${job.title}`.slice(0, 80),
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
