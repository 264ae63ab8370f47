import * as z from 'zod'
import { gone, handle } from '@/server/http/handle'
import { readJobRecord, revisionsAfter } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../params'

const sinceSchema = z.coerce.number().int().min(0).max(2_000_000_000).catch(2_000_000_000)

export const GET = handle(async (request, { params }: JobParams) => {
  const { id } = await params
  const actor = await currentActor()
  const record = z.uuid().safeParse(id).success ? await readJobRecord(actor, id) : null
  if (!record) return gone()
  const since = sinceSchema.parse(new URL(request.url).searchParams.get('since') ?? undefined)
  return { record, since: await revisionsAfter(actor, id, since) }
})
