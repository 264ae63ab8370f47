import { evaluate } from '@/core/assess/evaluate'
import { costsOf } from '@/core/estimate/costs'
import { type Draft, type DraftOption, variantOf } from '@/core/estimate/draft'
import { promiseIn, promiseOf } from '@/core/estimate/promise'
import type { Promised } from '@/core/estimate/promised'
import type { OptionMade } from '@/core/estimate/shown'
import type { Terms } from '@/core/estimate/terms'
import type { Job } from '@/core/job/schema'
import type { Fault } from '@/core/outcome'
import { partsOfJob } from '@/core/work/parts'
import { readLabour } from '../catalogue/labour'
import { readJobRecord } from '../jobs/repository'
import { pricesOf, readWays } from '../parts/repository'
import type { Actor } from '../people/types'

/** What was worked out of a job is worked out of the same job again: a screen asks often, and a simulation takes its time. */
const known = new WeakMap<Job, Promised>()
const promised = (job: Job): Promised => {
  const was = known.get(job)
  if (was) return was
  const made = promiseOf(job)
  known.set(job, made)
  return made
}

const jobs = new Map<string, Job>()
const mostKept = 40
/** The same object for the same revision of a job, so that what is known of it is found. */
function sameJob(key: string, job: Job): Job {
  const was = jobs.get(key)
  if (was) return was
  if (jobs.size >= mostKept) jobs.delete(jobs.keys().next().value ?? '')
  jobs.set(key, job)
  return job
}

/** Every option of a draft, worked out with the firm's prices, minutes and rates. Faults: those whose origin is gone. */
export async function optionsMade(
  actor: Actor,
  jobId: string,
  job: Job,
  revision: number,
  draft: Draft,
  terms: Terms,
): Promise<{ options: OptionMade[]; faults: Fault[] }> {
  const copies = await copiesOf(actor, draft.options)
  const faults: Fault[] = []
  const variants = draft.options.flatMap(option => {
    const key = `${actor.firmId} ${jobId} ${revision} ${option.from.kind === 'job' ? copies.get(option.from.jobId)?.key : JSON.stringify(option.from)}`
    const variant = variantOf(job, option, new Map([...copies].map(([id, c]) => [id, c.job])))
    if (!variant.ok) {
      faults.push(...variant.faults)
      return []
    }
    return [{ option, job: sameJob(key, variant.value) }]
  })
  const keys = [...new Set(variants.flatMap(v => partsOfJob(v.job).map(p => p.key)))]
  const [prices, { minutes }, { labour }] = await Promise.all([
    pricesOf(actor, keys),
    readWays(actor),
    readLabour(actor),
  ])
  const options = variants.map(
    ({ option, job: variant }): OptionMade => ({
      id: option.id,
      ...costsOf(variant, { prices, minutes, labour, rates: terms }),
      promise: promiseIn(draft.language ?? 'en', variant, promised(variant)),
      stops: evaluate(variant, { withCourse: false })
        .findings.filter(f => f.severity === 'stop')
        .map(f => f.sentence),
    }),
  )
  return { options, faults }
}

async function copiesOf(actor: Actor, options: readonly DraftOption[]) {
  const ids = options.flatMap(o => (o.from.kind === 'job' ? [o.from.jobId] : []))
  const records = await Promise.all(ids.map(id => readJobRecord(actor, id)))
  return new Map(
    records.flatMap(r => (r ? [[r.id, { job: r.job, key: `${r.id} ${r.revision}` }] as const] : [])),
  )
}
