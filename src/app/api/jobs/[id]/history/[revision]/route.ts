import * as z from 'zod'
import { bodyAs, gone, handle, refuse } from '@/server/http/handle'
import { restoreJob } from '@/server/jobs/history'
import { currentActor } from '@/server/people/actor'
import { jobOf } from '../../../params'

interface Params {
  params: Promise<{ id: string; revision: string }>
}

/** Makes the job what it was at a revision, as one change more. */
export const POST = handle(async (request, { params }: Params) => {
  const { baseRevision } = await bodyAs(request, z.strictObject({ baseRevision: z.int().min(1) }))
  await jobOf(params)
  const { id, revision } = await params
  const wanted = z.coerce.number().int().min(1).safeParse(revision)
  const outcome = wanted.success
    ? await restoreJob(await currentActor(), id, wanted.data, baseRevision, new Date())
    : { state: 'packed' as const }
  switch (outcome.state) {
    case 'written':
      return { record: outcome.record }
    case 'stale':
      return refuse(409, 'Somebody changed this job meanwhile: look at what they did, then go back.')
    case 'packed':
      return refuse(404, 'This revision is not kept any more, or never was: it cannot be gone back to.')
    case 'gone':
      return gone()
  }
})
