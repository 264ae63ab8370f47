import * as z from 'zod'
import { gone, handle } from '@/server/http/handle'
import { liveEvents } from '@/server/jobs/live'
import { readJobRecord } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import { stillAdmitted } from '@/server/people/admission'
import type { JobParams } from '../../params'

/** The job’s revisions as they come, by server-sent events; and who else looks at it. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { id } = await params
  const actor = await currentActor()
  const record = z.uuid().safeParse(id).success ? await readJobRecord(actor, id) : null
  if (!record) return gone()
  return new Response(
    await liveEvents(
      id,
      record.revision,
      { name: actor.label, personId: actor.personId },
      request.signal,
      () => stillAdmitted(request, actor),
    ),
    {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
      },
    },
  )
})
