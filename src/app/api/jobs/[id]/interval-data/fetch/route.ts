import { setting } from '@/server/env'
import { handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { serviceToken } from '@/simulators/utility'
import { type JobParams, jobOf } from '../../../params'
import { keepIntervals } from '../keep'

/** Fetches the job's year from the utility's service: the simulated one, over its open interface. */
export const POST = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const port = setting('PORT') ?? 4180
  const address = `http://127.0.0.1:${port}/api/simulators/utility/espi/1_1/resource/Batch/Subscription/${id}`
  const answer = await fetch(address, {
    headers: { authorization: `Bearer ${serviceToken}`, accept: 'application/atom+xml' },
    cache: 'no-store',
  }).catch(() => null)
  if (!answer?.ok || !answer.body)
    return refuse(
      502,
      `The utility’s service ${answer ? `answered ${answer.status}` : 'cannot be reached'}: try again later, or ask for the file.`,
    )
  const actor = await currentActor()
  return keepIntervals(actor, id, 'simulated utility service', answer.body, actor.zone, true)
})
