import { inEdition } from '../../articles'
import type { Job } from '../../job/schema'
import { wiringPlan } from '../wiring'
import { type PartLine, summed } from './line'
import { partsOfChanges } from './of-changes'
import { partsOfPlan, partsOfSource } from './of-plan'
import { sundriesOf } from './sundries'

const known = new WeakMap<Job, PartLine[]>()

/**
 * Every part that a job takes: of its source, its planned changes and its wiring plan, each once, with how much and why. Nothing is
 * entered here: what changes in the job changes here. Lengths in ft; money is for the price book to say.
 */
export function partsOfJob(job: Job): PartLine[] {
  const was = known.get(job)
  if (was) return was
  const asked = [...partsOfSource(job), ...partsOfChanges(job), ...partsOfPlan(wiringPlan(job))]
  const say = (text: string) => inEdition(text, job.edition)
  const parts = summed(
    [...asked, ...sundriesOf(job, asked)].map(a => ({ ...a, name: say(a.name), why: say(a.why) })),
  )
  known.set(job, parts)
  return parts
}
