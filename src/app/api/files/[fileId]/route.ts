import { NextResponse } from 'next/server'
import * as z from 'zod'
import { readFile } from '@/server/files/repository'
import { handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'

interface Params {
  params: Promise<{ fileId: string }>
}

/** A file that came in for a job, as it came: to be saved, never shown by the browser. */
export const GET = handle(async (_request, { params }: Params) => {
  const { fileId } = await params
  const file = z.uuid().safeParse(fileId).success ? await readFile(await currentActor(), fileId) : null
  if (!file) return refuse(404, 'This file is not kept here.')
  const name = file.name.replace(/[^\w. -]+/g, '_')
  return new NextResponse(new Uint8Array(file.content), {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename="${name}"`,
    },
  })
})
