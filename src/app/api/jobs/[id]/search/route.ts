import * as z from 'zod'
import { wishesSchema } from '@/core/search/wishes'
import { readLabour } from '@/server/catalogue/labour'
import { listEquipment, listStock } from '@/server/catalogue/repository'
import { bodyAs, handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { startSearch } from '@/server/search/queue'
import { cancelSearches, latestSearch } from '@/server/search/repository'
import { type JobParams, jobOf } from '../../params'

const asked = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('start'), wishes: wishesSchema }),
  z.strictObject({ act: z.literal('cancel') }),
])

/** How far the latest search of the job is, and what it found. */
export const GET = handle<JobParams>(async (_, { params }) => {
  await jobOf(params)
  return { search: await latestSearch(await currentActor(), (await params).id) }
})

/** Starts a search in the background, or cancels the one that runs. */
export const POST = handle<JobParams>(async (request, { params }) => {
  const body = await bodyAs(request, asked)
  const { job } = await jobOf(params)
  const actor = await currentActor()
  const { id } = await params
  if (body.act === 'cancel') await cancelSearches(actor, id)
  else
    await startSearch(
      actor,
      id,
      job,
      { catalogue: await listEquipment(actor), stock: await listStock(actor) },
      { ...body.wishes, labour: (await readLabour(actor)).labour },
      new Date(),
    )
  return { search: await latestSearch(actor, id) }
})
