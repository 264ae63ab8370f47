import { askedOfCustomer, photoSent } from '@/core/ask/sent'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { largestUpload, takeIn, tooLargeUpload } from '@/server/photos/intake'
import { dropPhoto, savePhoto } from '@/server/photos/repository'
import { counted, type LinkParams, linkOf, requestKey, sender, write } from '../../params'

/** Takes in a photograph for one of the requests. */
export const POST = handle(async (request, { params }: LinkParams) => {
  const opened = await linkOf(params)
  const key = requestKey(request)
  const taken = await takeIn(await bodyBytes(request, largestUpload, tooLargeUpload))
  if (!taken.ok) return refuse(415, taken.faults[0]?.message ?? '', taken.faults)
  await counted(opened)
  const { width, height } = taken.value
  const id = await savePhoto(opened.customer, opened.jobId, taken.value, new Date())
  try {
    await write(opened, job => photoSent(job, key, { id, width, height }, sender(opened)))
  } catch (error) {
    await dropPhoto(opened.customer, id)
    throw error
  }
  return { asked: askedOfCustomer((await linkOf(params)).job) }
})
