import { randomUUID } from 'node:crypto'
import * as z from 'zod'
import { readPhotographAside } from '@/server/files/desk'
import { largestUpload, tooLargeUpload } from '@/server/files/intake'
import { savePhoto } from '@/server/files/repository'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

/** Takes in the bytes of a photograph; the screen then adds it to the document, as a change of its own. */
export const POST = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const taken = await readPhotographAside(await bodyBytes(request, largestUpload, tooLargeUpload))
  if (!taken.ok) return refuse(415, taken.faults[0]?.message ?? '', taken.faults)
  const { width, height } = taken.value
  // the screen names it, so that a picture sent twice over a bad connection is kept once
  const wanted = z.uuid().safeParse(new URL(request.url).searchParams.get('photo') ?? '')
  const photoId = wanted.success ? wanted.data : randomUUID()
  await savePhoto(await currentActor(), id, taken.value, new Date(), photoId)
  return { id: photoId, width, height }
})
