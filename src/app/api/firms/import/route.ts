import { createWriteStream } from 'node:fs'
import { mkdir, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { workIn } from '@/server/accounts/sessions'
import { takeArchive } from '@/server/archive/read'
import { setting } from '@/server/env'
import { bodyParts, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'

const mostBytes = 2_000_000_000
const tooLarge = 'This archive has more than 2 GB: have it brought in by whoever keeps the server.'

/** Brings a firm in from its archive. */
export const POST = handle(async request => {
  const signed = theSignedIn()
  const folder = setting('SPILLWAY_UPLOADS') ?? tmpdir()
  await mkdir(folder, { recursive: true })
  const path = join(folder, `${crypto.randomUUID()}.zip`)
  try {
    await pipeline(Readable.from(bodyParts(request, mostBytes, tooLarge)), createWriteStream(path))
    const taken = await takeArchive(path, signed.user)
    if (!taken.ok) return refuse(400, 'The archive was not taken in.', taken.faults)
    await workIn(signed, taken.value.firmId)
    return taken.value
  } finally {
    await rm(path, { force: true })
  }
})
