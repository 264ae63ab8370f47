import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import Piscina from 'piscina'
import { fail, fault } from '@/core/outcome'
import { Busy } from '../db/connection'
import { setting } from '../env'
import { type Lane, lane } from '../web/lanes'
import type { Foreign, ReadAs } from './reader'

/** Foreign files are read in threads: a deadline and a limit of memory for each, and a place in the line. */
interface Desk {
  pool: Piscina
  line: Lane
}
const atOnce = { quick: 2, long: 1 } as const
const deadlineS: Record<Foreign['kind'], number> = { job: 10, catalogue: 15, photograph: 20, utility: 90 }

type Desks = Partial<Record<keyof typeof atOnce, Desk>>
const shared = globalThis as { spillwayReaders?: Desks }
shared.spillwayReaders ??= {}
const desks: Desks = shared.spillwayReaders

function desk(which: keyof typeof atOnce): Desk {
  desks[which] ??= {
    pool: new Piscina({
      filename: join(process.cwd(), 'dist/cli/reader.js'),
      minThreads: 0,
      maxThreads: atOnce[which],
      idleTimeout: 20_000,
      resourceLimits: { maxOldGenerationSizeMb: 600, maxYoungGenerationSizeMb: 64 },
    }),
    line: lane(atOnce[which], 24, 60_000),
  }
  return desks[which]
}

/** Reads a foreign file in a thread. Faults on `$` in words, also where it takes too long or too much memory. Throws `Busy`. */
async function readAside<K extends Foreign['kind']>(
  file: Foreign & { kind: K },
  own?: AbortSignal,
): Promise<ReadAs[K]> {
  const { pool, line } = desk(file.kind === 'utility' ? 'long' : 'quick')
  const leave = await line.enter()
  if (!leave) throw new Busy('too many files are being read')
  // it begins when the reading does
  const deadline = own ?? AbortSignal.timeout(deadlineS[file.kind] * 1000)
  try {
    return await pool.run(file, { signal: deadline })
  } catch (error) {
    const no = (message: string) => fail(fault('$', message)) as ReadAs[K]
    if (deadline.aborted)
      return no(
        `This file takes longer than ${deadlineS[file.kind]} s to read, which no such file should: it was put aside.`,
      )
    if (error instanceof Error && /memory|ERR_WORKER_OUT_OF_MEMORY/i.test(`${error.message}`))
      return no('This file takes more memory to read than any such file should: it was put aside.')
    throw error
  } finally {
    leave()
  }
}

export const readJobAside = (text: string) => readAside<'job'>({ kind: 'job', text })
export const readCatalogueAside = (format: 'csv' | 'json', text: string) =>
  readAside<'catalogue'>({ kind: 'catalogue', format, text })
export const readPhotographAside = (bytes: Uint8Array, deadline?: AbortSignal) =>
  readAside<'photograph'>({ kind: 'photograph', bytes }, deadline)

/** Reads a utility's file: laid down first as it comes, so that a slow line keeps no reader waiting. */
export async function readUtilityAside(
  parts: AsyncIterable<Uint8Array>,
  zone: string,
): Promise<ReadAs['utility']> {
  const folder = await mkdtemp(join(setting('SPILLWAY_UPLOADS') ?? tmpdir(), 'spillway-upload-'))
  try {
    const path = join(folder, 'file')
    await pipeline(Readable.from(parts), createWriteStream(path, { mode: 0o600 }))
    return await readAside<'utility'>({ kind: 'utility', path, zone })
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Lets go of the threads. */
export async function closeReaders(): Promise<void> {
  for (const which of ['quick', 'long'] as const) {
    await desks[which]?.pool.destroy()
    delete desks[which]
  }
}
