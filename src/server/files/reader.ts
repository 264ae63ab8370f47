import { createReadStream } from 'node:fs'
import { readEquipmentCsv, readEquipmentJson } from '@/core/formats/equipment-csv'
import { readJobText } from '@/core/job/read'
import { ok } from '@/core/outcome'
import { takeIntervals } from '../utility/intake'
import { storedForm } from '../utility/stored'
import { takeIn } from './intake'

/** A foreign file to be read, by what it is. */
export type Foreign =
  | { kind: 'job'; text: string }
  | { kind: 'catalogue'; format: 'csv' | 'json'; text: string }
  | { kind: 'photograph'; bytes: Uint8Array }
  | { kind: 'utility'; path: string; zone: string }

const readers = {
  job: async ({ text }: Foreign & { kind: 'job' }) => readJobText(text),
  catalogue: async ({ format, text }: Foreign & { kind: 'catalogue' }) =>
    format === 'csv' ? readEquipmentCsv(text) : readEquipmentJson(text),
  photograph: async ({ bytes }: Foreign & { kind: 'photograph' }) => takeIn(bytes),
  utility: async ({ path, zone }: Foreign & { kind: 'utility' }) => {
    const taken = await takeIntervals(createReadStream(path), zone)
    if (!taken.ok) return taken
    const { intervals, kind, packed } = taken.value
    return ok({ kind, packed, stored: await storedForm(intervals) })
  },
}

export type ReadAs = { [K in keyof typeof readers]: Awaited<ReturnType<(typeof readers)[K]>> }

/** Reads one file, in a thread of its own: whatever it does there, it stops nobody. */
export default function read(file: Foreign): Promise<unknown> {
  return (readers[file.kind] as (of: Foreign) => Promise<unknown>)(file)
}
