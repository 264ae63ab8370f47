import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { deletedJobs } from '@/server/people/erasing'

/** The jobs that are deleted, and come back within the grace. */
export const GET = handle(async () => ({ jobs: await deletedJobs(await currentActor()) }))
