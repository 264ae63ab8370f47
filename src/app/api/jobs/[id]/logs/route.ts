import * as z from 'zod'
import { line } from '@/core/quantity'
import { kindOfFile } from '@/server/files/file-kind'
import { listFiles, saveFile } from '@/server/files/repository'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const largestLog = 60_000_000

/** The meters' tables that are kept with the job, newest first. */
export const GET = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  return { files: await listFiles(actor, id, 'meter log', actor.zone) }
})

/** Keeps a meter's table as it came: its trace can be opened again. */
export const POST = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const asked = z
    .object({ name: line(120, 1) })
    .safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!asked.success) return refuse(400, 'The log has no name: give it one of at most 120 characters.')
  const content = await bodyBytes(
    request,
    largestLog,
    'This log is larger than 60 MB: save fewer days, or a reading each second.',
  )
  const kind = kindOfFile(content)
  if (!kind.ok || kind.value !== 'csv')
    return refuse(
      415,
      kind.ok ? 'This is XML: wanted is a table of readings.' : (kind.faults[0]?.message ?? ''),
    )
  return {
    id: await saveFile(
      await currentActor(),
      id,
      { name: asked.data.name, kind: 'meter log', content },
      new Date(),
    ),
  }
})
