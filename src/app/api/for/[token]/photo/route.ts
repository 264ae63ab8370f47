import { randomUUID } from 'node:crypto'
import { askedOfCustomer, photoSent } from '@/core/assess/sent'
import { readPhotographAside } from '@/server/files/desk'
import { largestUpload, tooLargeUpload } from '@/server/files/intake'
import { savePhoto } from '@/server/files/repository'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { askedIn, type LinkParams, linkOf, requestKey, sender, take } from '../../params'

/** Takes in a photograph for one of the requests. */
export const POST = handle(async (request, { params }: LinkParams) => {
  const opened = await linkOf(params)
  const key = requestKey(request)
  const taken = await readPhotographAside(await bodyBytes(request, largestUpload, tooLargeUpload))
  if (!taken.ok) return refuse(415, taken.faults[0]?.message ?? '', taken.faults)
  const { width, height, picture, thumbnail } = taken.value
  const id = randomUUID()
  await take(opened, job => photoSent(job, key, { id, width, height }, sender(opened)), {
    bytes: picture.length + thumbnail.length,
    keep: trx => savePhoto(opened.customer, opened.jobId, taken.value, new Date(), id, trx),
  })
  return { asked: askedOfCustomer((await linkOf(params)).job, askedIn(request)) }
})
