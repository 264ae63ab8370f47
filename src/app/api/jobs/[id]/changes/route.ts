import { NextResponse } from 'next/server'
import * as z from 'zod'
import { operationSchema } from '@/core/job/operations'
import { bodyAs, gone, handle } from '@/server/http/handle'
import { changeJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../../params'

const changesSchema = z.strictObject({
  baseRevision: z.int().min(1),
  changes: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({ id: z.uuid(), kind: z.literal('do'), operation: operationSchema }),
        z.strictObject({ id: z.uuid(), kind: z.literal('undo') }),
        z.strictObject({ id: z.uuid(), kind: z.literal('redo') }),
      ]),
    )
    .min(1)
    .max(100),
})

/** Writes changes on top of the revision they were made on; 409 with what others did when that is no longer the newest. */
export const POST = handle(async (request, { params }: JobParams) => {
  const { id } = await params
  const { baseRevision, changes } = await bodyAs(request, changesSchema)
  if (!z.uuid().safeParse(id).success) return gone()
  const outcome = await changeJob(await currentActor(), id, baseRevision, changes, new Date())
  switch (outcome.state) {
    case 'written':
      return { record: outcome.record }
    case 'stale':
      return NextResponse.json(
        { ...outcome, message: 'Someone else changed this job meanwhile.' },
        { status: 409 },
      )
    case 'refused':
      return NextResponse.json(
        { message: 'The change cannot be made.', faults: outcome.faults, changeId: outcome.changeId },
        { status: 400 },
      )
    case 'gone':
      return gone()
  }
})
