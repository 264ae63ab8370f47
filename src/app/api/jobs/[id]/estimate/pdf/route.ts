import { frozenOf } from '@/server/estimates/freeze'
import { optionsMade } from '@/server/estimates/made'
import { paperOf, readEstimate } from '@/server/estimates/repository'
import { readTerms } from '@/server/estimates/terms'
import { handle, refuse } from '@/server/http/handle'
import { estimatePdf } from '@/server/pdf/estimate'
import { currentActor } from '@/server/people/actor'
import { logoOf, settingsOf } from '@/server/people/settings'
import { type JobParams, jobOf } from '../../../params'

/** The paper of a version as it was frozen (`?n=`), with its acceptance (`&signed`), or of the draft as it stands. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName, revision } = await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  const asked = new URL(request.url).searchParams
  const n = Number(asked.get('n') ?? 0)
  const kept =
    n > 0 ? (asked.has('signed') && (await accepted())) || (await paperOf(actor, id, n)) : await drafted()
  if (!kept) return refuse(404, 'There is no such version of this estimate.')
  return new Response(new Uint8Array(kept), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${fileName}-estimate${n > 0 ? `-${n}` : '-draft'}.pdf"`,
    },
  })

  async function accepted(): Promise<Buffer | null> {
    const version = (await readEstimate(actor, id, new Date())).versions.find(v => v.n === n)
    return version?.acceptance ? estimatePdf(version.document, version.acceptance, await logoOf(actor)) : null
  }

  async function drafted(): Promise<Buffer> {
    const now = new Date()
    const [{ draft, number, versions }, { terms }] = await Promise.all([
      readEstimate(actor, id, now),
      readTerms(actor),
    ])
    const { currency } = (await settingsOf(actor)).settings
    const { options, faults } = await optionsMade(actor, id, job, revision, draft, terms)
    if (faults.length) return refuse(400, 'It cannot be printed.', faults)
    const accepted = versions.find(v => v.acceptance)
    const made = frozenOf(
      job,
      { firm: actor.firm, zone: actor.zone, at: now, currency },
      draft,
      options,
      terms,
      {
        number: number ?? 'draft',
        version: (versions[0]?.n ?? 0) + 1,
        accepted: accepted?.acceptance
          ? { document: accepted.document, acceptance: accepted.acceptance }
          : null,
      },
    )
    return made.ok
      ? estimatePdf(made.value, null, await logoOf(actor))
      : refuse(400, 'It cannot be printed.', made.faults)
  }
})
