import type { Draft, DraftOption } from '@/core/estimate/draft'
import type { Signature } from '@/core/estimate/signature'
import { type Terms, usualTerms } from '@/core/estimate/terms'
import type { Job } from '@/core/job/schema'
import { ownerDb } from '../db/connection'
import { frozenOf } from '../estimates/freeze'
import { optionsMade } from '../estimates/made'
import {
  acceptOffer,
  askAbout,
  openOffer,
  putDraft,
  readEstimate,
  sendEstimate,
} from '../estimates/repository'
import { estimatePdf } from '../pdf/estimate'
import type { Person } from '../people/types'
import { demoJobs } from './jobs'

/** How the demo firm prices its work. */
export const demoTerms: Terms = {
  ...usualTerms,
  labourUsdPerHour: 98,
  helperUsdPerHour: 52,
  taxes: [
    { place: 'Alder county', fraction: 0.0625, equipment: true, material: true, labour: false },
    { place: 'Coast county', fraction: 0.0725, equipment: true, material: true, labour: true },
  ],
  numberPrefix: 'HW-',
  intro: 'Thank you for showing us your house. Each option below was worked out on your own circuits.',
}

const day = 86_400_000
const name: Signature = [
  [
    [80, 240],
    [150, 120],
    [210, 260],
    [280, 130],
    [340, 250],
  ],
  [
    [380, 200],
    [470, 180],
    [560, 230],
    [700, 190],
  ],
]

const design = (id: string, called: string): DraftOption => ({ id, name: called, from: { kind: 'design' } })
/** The design of a job with so many more expansion units, as a search would have found it. */
const withMore = (job: Job, more: number, called: string): DraftOption[] => {
  const [unit, ...rest] = job.source?.units ?? []
  if (!unit || !job.source) return []
  const source = { ...job.source, units: [{ ...unit, expansionUnits: unit.expansionUnits + more }, ...rest] }
  const take = { op: 'adoptDesign' as const, name: called, source, hookup: job.hookup }
  return [{ id: `more-${more}`, name: called, from: { kind: 'found', take } }]
}

/**
 * The demo jobs’ estimates: of the first one accepted, with a change order that waits; the second sent and asked about; the third a draft; the
 * fourth out of date. What was sent is dated from today, so that what is open stays open.
 */
export async function seedEstimates(actor: Person & { firm: string }, now: Date): Promise<void> {
  const at = (days: number) => new Date(now.getTime() - days * day)
  const [one, two, three, four] = demoJobs
  if (!one || !two || !three || !four) return
  if ((await readEstimate(actor, one.id, now)).draftVersion) return
  await ownerDb()('firm')
    .where({ id: actor.firmId })
    .update({ terms: JSON.stringify(demoTerms) })
  const drafted = async (id: string, draft: Partial<Draft>) => {
    const { draftVersion } = await readEstimate(actor, id, now)
    const whole = { taxPlace: '', intro: '', options: [], ...draft }
    await putDraft(actor, id, whole, draftVersion)
    return { draft: whole, version: draftVersion + 1 }
  }
  const sent = async ({ id, job }: { id: string; job: Job }, draft: Partial<Draft>, when: Date) => {
    const { draft: whole, version } = await drafted(id, draft)
    const { options } = await optionsMade(actor, id, job, 1, whole, demoTerms)
    const done = await sendEstimate(actor, id, version, demoTerms.numberPrefix, when, async facts => {
      const made = frozenOf(
        job,
        { firm: actor.firm, zone: actor.zone, at: when },
        whole,
        options,
        demoTerms,
        facts,
      )
      if (!made.ok) throw new Error(made.faults.map(f => f.message).join('; '))
      return { document: made.value, pdf: await estimatePdf(made.value) }
    })
    if (typeof done === 'string' || !('token' in done)) throw new Error('a demo estimate was not sent')
    return done.token
  }

  const place = { taxPlace: 'Alder county' }
  const first = await sent(
    one,
    {
      ...place,
      options: [design('a', 'As small as it may be'), ...withMore(one.job, 2, 'With three batteries')],
    },
    at(20),
  )
  await openOffer(first, at(19))
  await acceptOffer(first, { option: 'more-2', name: 'The day-care', signature: name }, at(18))
  await sent(one, { ...place, options: withMore(one.job, 1, 'With two batteries') }, at(2))

  const second = await sent(
    two,
    { taxPlace: 'Coast county', options: [design('a', 'Two stations and folding panels')] },
    at(3),
  )
  await openOffer(second, at(2))
  await askAbout(second, 'Can the stations stand in the garage over the summer?', at(2))

  await drafted(three.id, { options: [design('a', 'Critical-load panel for ten circuits')] })

  const old = await sent(four, { ...place, options: [design('a', 'The car carries the flat')] }, at(60))
  await openOffer(old, at(58))
}
