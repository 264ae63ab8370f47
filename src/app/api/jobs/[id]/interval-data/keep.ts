import { randomUUID } from 'node:crypto'
import { always, transaction } from '@/server/db/transaction'
import { readUtilityAside } from '@/server/files/desk'
import { savePacked } from '@/server/files/repository'
import { refuse } from '@/server/http/handle'
import type { Actor } from '@/server/people/types'
import { saveIntervals } from '@/server/utility/repository'
import type { SeriesAbout } from '@/server/utility/stored'

/** A buffer in pieces, so that it is read like a stream. */
export async function* partsOf(content: Uint8Array): AsyncGenerator<Uint8Array> {
  const size = 65_536
  for (let at = 0; at < content.length; at += size) yield content.subarray(at, at + size)
}

/** Reads the intervals and keeps them, with the file as it came where it is not kept already. */
export async function keepIntervals(
  actor: Actor,
  jobId: string,
  name: string,
  parts: AsyncIterable<Uint8Array>,
  zone: string,
  keepFile: boolean,
): Promise<SeriesAbout> {
  const taken = await readUtilityAside(parts, zone)
  if (!taken.ok) return refuse(415, taken.faults[0]?.message ?? '', taken.faults)
  const { stored, kind, packed } = taken.value
  const now = new Date()
  return transaction(
    actor,
    async trx => {
      if (keepFile) await savePacked(actor, jobId, { name, kind, packed }, now, randomUUID(), trx)
      return saveIntervals(actor, jobId, name, stored, now, randomUUID(), trx)
    },
    always,
  )
}
