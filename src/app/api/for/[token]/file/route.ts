import { randomUUID } from 'node:crypto'
import { askedOfCustomer, fileSent } from '@/core/assess/sent'
import { line } from '@/core/quantity'
import { kindOfFile } from '@/server/files/file-kind'
import { largestUpload } from '@/server/files/intake'
import { packed, savePacked } from '@/server/files/repository'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { askedIn, type LinkParams, linkOf, requestKey, sender, take } from '../../params'

const tooLarge =
  'This file is larger than 20 MB. Ask the utility’s site for one year at a time, or hourly instead of quarter-hourly.'

/** Takes in the utility’s file as it comes; it is read when the loads are worked on. */
export const POST = handle(async (request, { params }: LinkParams) => {
  const opened = await linkOf(params)
  const key = requestKey(request)
  const given = line(120).safeParse(new URL(request.url).searchParams.get('name') ?? '')
  const name = (given.success && given.data) || 'utility file'
  const content = await bodyBytes(request, largestUpload, tooLarge)
  const kind = kindOfFile(content)
  if (!kind.ok) return refuse(415, kind.faults[0]?.message ?? '', kind.faults)
  const [id, small] = [randomUUID(), await packed(content)]
  await take(opened, job => fileSent(job, key, { id, name, bytes: content.length }, sender(opened)), {
    bytes: small.length,
    keep: trx =>
      savePacked(
        opened.customer,
        opened.jobId,
        { name, kind: kind.value, packed: small },
        new Date(),
        id,
        trx,
      ),
  })
  return { asked: askedOfCustomer((await linkOf(params)).job, askedIn(request)) }
})
