import { Readable } from 'node:stream'
import { archiveOf } from '@/server/archive/write'
import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { note } from '@/server/people/record'

/** All of the firm as one archive of open files. */
export const GET = handle(async () => {
  const actor = await currentActor()
  await note(actor, 'exported', { what: 'all of the firm' })
  return new Response(Readable.toWeb(archiveOf(actor)) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': 'attachment; filename="firm.spillway.zip"',
    },
  })
})
