import * as z from 'zod'
import { draftSchema } from '@/core/estimate/draft'
import type { Fault } from '@/core/outcome'
import { frozenOf } from '@/server/estimates/freeze'
import { optionsMade } from '@/server/estimates/made'
import {
  putDraft,
  readEstimate,
  relinkEstimate,
  sendEstimate,
  settleQuestion,
  withdrawEstimate,
} from '@/server/estimates/repository'
import { readTerms } from '@/server/estimates/terms'
import { bodyAs, gone, handle, refuse } from '@/server/http/handle'
import { estimatePdf } from '@/server/pdf/estimate'
import { currentActor } from '@/server/people/actor'
import { logoOf, settingsOf } from '@/server/people/settings'
import { type JobParams, jobOf } from '../../params'

const version = z.int().min(0)
const actSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('draft'), draft: draftSchema, version }),
  /** by the figures of this revision of the job, and no other */
  z.strictObject({ act: z.literal('send'), version, revision: z.int().min(1) }),
  z.strictObject({ act: z.literal('withdraw'), n: z.int().min(1) }),
  z.strictObject({ act: z.literal('relink'), n: z.int().min(1) }),
  z.strictObject({ act: z.literal('settle'), questionId: z.uuid() }),
])

/** The estimate of a job: draft with its options worked out, the firm’s terms, every version that was sent. */
async function told(params: JobParams['params']) {
  const { id } = await params
  const { job, revision } = await jobOf(params)
  const actor = await currentActor()
  const [estimate, { terms }] = await Promise.all([readEstimate(actor, id, new Date()), readTerms(actor)])
  const { options, faults } = await optionsMade(actor, id, job, revision, estimate.draft, terms)
  return { ...estimate, revision, terms, options, faults }
}

export const GET = handle(async (_request, { params }: JobParams) => told(params))

export const POST = handle(async (request, { params }: JobParams) => {
  const said = await bodyAs(request, actSchema)
  const { id } = await params
  const { job, revision } = await jobOf(params)
  const actor = await currentActor()
  const now = new Date()
  const stale = () =>
    refuse(409, 'Somebody else changed this estimate meanwhile. Look at it again before you change it.')
  if (said.act === 'draft') {
    const done = await putDraft(actor, id, said.draft, said.version)
    if (done === 'stale') return stale()
    if (done === 'gone') return gone()
  }
  if (said.act === 'withdraw' && !(await withdrawEstimate(actor, id, said.n, now)))
    return refuse(409, 'It is withdrawn or accepted already.')
  if (said.act === 'relink') {
    const token = await relinkEstimate(actor, id, said.n)
    return token ? { ...(await told(params)), token } : refuse(404, 'There is no such version to link to.')
  }
  if (said.act === 'settle' && !(await settleQuestion(actor, said.questionId, now)))
    return refuse(404, 'There is no such question.')
  if (said.act !== 'send') return told(params)
  if (said.revision !== revision)
    return refuse(409, 'The job changed meanwhile, and its price may have. Look at it again, then send it.')
  const { draft } = await readEstimate(actor, id, now)
  const { terms } = await readTerms(actor)
  const { options, faults } = await optionsMade(actor, id, job, revision, draft, terms)
  if (faults.length) return refuse(400, 'It was not sent.', faults)
  const logo = await logoOf(actor)
  const { currency } = (await settingsOf(actor)).settings
  const sent = await sendEstimate<Fault[]>(actor, id, said.version, terms.numberPrefix, now, async facts => {
    const made = frozenOf(
      job,
      { firm: actor.firm, zone: actor.zone, at: now, currency },
      draft,
      options,
      terms,
      facts,
    )
    return made.ok ? { document: made.value, pdf: await estimatePdf(made.value, null, logo) } : made.faults
  })
  if (sent === 'stale') return stale()
  if (sent === 'gone') return refuse(400, 'There is no draft to send: add an option first.')
  if ('refused' in sent) return refuse(400, 'It was not sent.', sent.refused)
  return { ...(await told(params)), token: sent.token }
})
