import { PassThrough } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { greenButtonReader } from '@/core/formats/green-button'
import { intervalCsvReader } from '@/core/formats/interval-csv'
import type { Intervals } from '@/core/loads/intervals'
import { fail, fault, type Outcome, ok } from '@/core/outcome'
import { kindOfFile } from '../files/file-kind'

/** The largest file of interval data that is read, in bytes. */
export const largestIntervalFile = 250_000_000
export const tooLargeIntervals = `The file is larger than ${largestIntervalFile / 1e6} MB: ask for one year at a time.`

export interface TakenIn {
  intervals: Intervals
  kind: 'xml' | 'csv'
  /** the file as it came, packed */
  packed: Buffer
}

/**
 * Reads a utility's file as it streams in, whatever its size: only the figures are held, and the file as it came, packed.
 * Faults: another kind of file, too large, cut short, no readings; in words for the person who sent it.
 */
export async function takeIntervals(
  parts: AsyncIterable<Uint8Array>,
  zone: string,
): Promise<Outcome<TakenIn>> {
  const decoder = new TextDecoder('utf-8')
  const gzip = createGzip()
  const packed: Buffer[] = []
  const kept = new PassThrough()
  kept.on('data', (part: Buffer) => packed.push(part))
  const packing = pipeline(gzip, kept)
  // a failure of packing is told where it is awaited
  packing.catch(() => {})
  let reader: ReturnType<typeof greenButtonReader> | ReturnType<typeof intervalCsvReader> | null = null
  let kind: 'xml' | 'csv' = 'xml'
  let size = 0
  const stop = async (outcome: Outcome<TakenIn>) => {
    gzip.destroy()
    await packing.catch(() => {})
    return outcome
  }
  for await (const part of parts) {
    size += part.length
    if (size > largestIntervalFile) return stop(fail(fault('$', tooLargeIntervals)))
    if (!reader) {
      const sniffed = kindOfFile(part)
      if (!sniffed.ok) return stop(sniffed)
      kind = sniffed.value
      reader = kind === 'xml' ? greenButtonReader() : intervalCsvReader(zone)
    }
    const taken = reader.write(decoder.decode(part, { stream: true }))
    if (!taken.ok) return stop(named(taken.faults[0]?.message))
    if (!gzip.write(part)) await new Promise(resolve => gzip.once('drain', resolve))
  }
  if (!reader) return stop(kindOfEmpty())
  const read = reader.end()
  if (!read.ok) return stop(named(read.faults[0]?.message))
  gzip.end()
  await packing
  return ok({ intervals: read.value, kind, packed: Buffer.concat(packed) })
}

const named = (message: string | undefined) => fail(fault('$', `The file ${message ?? 'cannot be read'}.`))
const kindOfEmpty = () => {
  const outcome = kindOfFile(new Uint8Array())
  return outcome.ok ? fail(fault('$', 'The file is empty.')) : outcome
}
