import * as z from 'zod'
import { signingSchema } from '@/core/handover/pack'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { listPacks, packPaper, signPack } from '@/server/packs/repository'
import { signaturesPdf } from '@/server/pdf/pack'
import { currentActor } from '@/server/people/actor'
import { jobOf } from '../../../params'

interface Params {
  params: Promise<{ id: string; n: string }>
}

const none = 'There is no such pack; it may not be made yet.'
const numberOf = async (params: Params['params']): Promise<number> => {
  const n = z.coerce
    .number()
    .int()
    .min(1)
    .max(1_000_000)
    .safeParse((await params).n)
  return n.success ? n.data : refuse(404, none)
}

/** The paper of a pack, as it was frozen; `?signatures`: who signed it, on a page of its own. */
export const GET = handle(async (request, { params }: Params) => {
  const { fileName } = await jobOf(params)
  const { id } = await params
  const n = await numberOf(params)
  const actor = await currentActor()
  const wanted = new URL(request.url).searchParams.has('signatures')
  const pack = wanted ? (await listPacks(actor, id)).find(p => p.n === n) : undefined
  const pdf =
    wanted && pack?.document && pack.sha256 && pack.pdfSha256
      ? await signaturesPdf(pack.document, { document: pack.sha256, pdf: pack.pdfSha256 }, pack.signatures)
      : wanted
        ? null
        : await packPaper(actor, id, n)
  if (!pdf) return refuse(404, none)
  return new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${fileName}-hand-over-${n}${wanted ? '-signatures' : ''}.pdf"`,
    },
  })
})

/** Signs a pack, for the firm or for the house. */
export const POST = handle(async (request, { params }: Params) => {
  const signing = await bodyAs(request, signingSchema)
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  const outcome = await signPack(actor, id, await numberOf(params), signing, new Date())
  if (outcome === 'gone') return refuse(404, none)
  if (outcome === 'taken')
    return refuse(
      409,
      `It is signed already for the ${signing.as === 'installer' ? 'firm' : 'house'}: what is signed stays.`,
    )
  return { packs: await listPacks(actor, id) }
})
