import { gone, handle } from '@/server/http/handle'
import { listPacks } from '@/server/packs/repository'
import { currentActor } from '@/server/people/actor'
import { startPack } from '@/server/search/queue'
import { type JobParams, jobOf } from '../../params'

/** The packs of a job, with how far the one that is being made is. */
export const GET = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  return { packs: await listPacks(await currentActor(), (await params).id) }
})

/** Has a pack made of the job as it stands. */
export const POST = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  if ((await startPack(actor, id, new Date())) === null) return gone()
  return { packs: await listPacks(actor, id) }
})
