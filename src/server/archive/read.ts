import type { Knex } from 'knex'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import * as z from 'zod'
import { readJob } from '@/core/job/read'
import { type Fault, fail, fault, type Outcome, ok } from '@/core/outcome'
import { transaction } from '../db/transaction'
import { knownPath, type Part, parts, type Row, rowsPath } from './layout'
import { archiveFormat } from './write'

/** What an archive may come to once it is unpacked: more is a bomb, or is brought in by whoever keeps the server. */
export const mostUnpacked = { files: 500_000, bytes: 20_000_000_000, ofOne: 200_000_000 } as const

/** A file of an archive that cannot be taken, in words. */
class NotTaken extends Error {}

const open = (path: string): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.open(
      path,
      { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true },
      (error, zip) =>
        error ? reject(new NotTaken(`This is no archive that can be read: ${error.message}.`)) : resolve(zip),
    ),
  )

/** The entries of an archive by name; refused where one climbs, is not ours, or would unpack to too much. */
async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const found = new Map<string, Entry>()
  let bytes = 0
  return new Promise((resolve, reject) => {
    const no = (why: string) => reject(new NotTaken(why))
    zip.on('error', error => no(`This is no archive that can be read: ${error.message}.`))
    zip.on('entry', (entry: Entry) => {
      bytes += entry.uncompressedSize
      if (!knownPath.test(entry.fileName))
        return no(`The archive holds “${entry.fileName.slice(0, 80)}”, which no archive of ours does.`)
      if (found.has(entry.fileName)) return no(`The archive holds ${entry.fileName} twice.`)
      if (
        entry.uncompressedSize > mostUnpacked.ofOne ||
        bytes > mostUnpacked.bytes ||
        found.size >= mostUnpacked.files
      )
        return no('The archive would unpack to more than is taken.')
      found.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', () => resolve(found))
    zip.readEntry()
  })
}

/** What one file holds; yauzl itself ends one that grows beyond what it says of itself. */
const contentOf = (zip: ZipFile, entry: Entry): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => {
      if (error) return reject(new NotTaken(`${entry.fileName} cannot be read: ${error.message}.`))
      const pieces: Buffer[] = []
      stream.on('data', piece => pieces.push(piece))
      stream.on('error', e => reject(new NotTaken(`${entry.fileName} cannot be read: ${e.message}.`)))
      stream.on('end', () => resolve(Buffer.concat(pieces)))
    }),
  )

const rowSchema = z.record(z.string(), z.unknown())
const aboutSchema = z.object({ format: z.literal(archiveFormat), firm: z.uuid() })

/**
 * Brings a firm back from its archive: all of it, or nothing. Whoever brings it is the person of the archive who has their address, as
 * owner; where there is none, one owner more. Refused where the firm is here already.
 */
export async function takeArchive(
  path: string,
  login: { id: string; name: string; email: string },
): Promise<Outcome<{ firmId: string; jobs: number }>> {
  let zip: ZipFile | null = null
  try {
    zip = await open(path)
    const archive = zip
    const entries = await entriesOf(archive)
    const read = async (name: string): Promise<Buffer | null> => {
      const entry = entries.get(name)
      return entry ? contentOf(archive, entry) : null
    }
    const about = aboutSchema.safeParse(JSON.parse((await read('spillway.json'))?.toString() ?? 'null'))
    if (!about.success)
      throw new NotTaken('The archive does not say which firm it is of, or is of a newer Spillway.')
    const firmId = about.data.firm
    return await transaction<Outcome<{ firmId: string; jobs: number }>>(
      { firmId },
      async trx => {
        let jobs = 0
        for (const part of parts) {
          const lines = (await read(rowsPath(part.table)))?.toString().split('\n').filter(Boolean) ?? []
          for (const line of lines) {
            const row = rowSchema.parse(JSON.parse(line))
            if ((part.table === 'firm' ? row.id : row.firm_id) !== firmId)
              throw new NotTaken(`A row of ${part.table} is of another firm.`)
            await putRow(trx, part, row, read)
            if (part.table === 'job') jobs++
          }
        }
        await asOwner(trx, firmId, login)
        return ok({ firmId, jobs })
      },
      outcome => outcome.ok,
    )
  } catch (error) {
    return fail(...whyNot(error))
  } finally {
    zip?.close()
  }
}

function whyNot(error: unknown): Fault[] {
  if (error instanceof NotTaken) return [fault('archive', error.message)]
  if (error instanceof SyntaxError || error instanceof z.ZodError)
    return [fault('archive', 'holds rows that are not whole JSON: it was changed, or cut off')]
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  if (code === '23505')
    return [
      fault('archive', 'is of a firm that is here already: delete it first, or take the archive elsewhere'),
    ]
  // what does not fit the tables: foreign keys, kinds, checks, a row of another firm
  if (/^(22|23|42501)/.test(code))
    return [fault('archive', 'holds rows that do not fit together: it was changed by hand')]
  throw error
}

async function putRow(
  trx: Knex,
  part: Part,
  row: Row,
  read: (name: string) => Promise<Buffer | null>,
): Promise<void> {
  for (const column of part.leave ?? []) delete row[column]
  const content: Record<string, unknown> = {}
  for (const [column, { path, kind }] of Object.entries(part.files ?? {})) {
    const bytes = await read(path(row))
    if (!bytes) continue
    if (kind === 'bytes') content[column] = bytes
    else {
      const document: unknown = JSON.parse(bytes.toString())
      const job = readJob(document)
      if (!job.ok)
        throw new NotTaken(
          `${path(row)} is no job that can be read: ${job.faults[0]?.path} ${job.faults[0]?.message}.`,
        )
      content[column] = JSON.stringify(document)
    }
  }
  const columns = Object.keys({ ...row, ...content })
  await trx.raw(
    `insert into ?? (${columns.map(() => '??').join(', ')})
     select ${columns.map(c => (c in content ? '?' : 'r.??')).join(', ')} from jsonb_populate_record(null::??, ?) r`,
    [
      part.table,
      ...columns,
      ...columns.map(c => (c in content ? content[c] : c)),
      part.table,
      JSON.stringify(row),
    ] as never,
  )
}

/** The one who brings it, as the person of the archive who has their address, or as one owner more. */
async function asOwner(
  trx: Knex,
  firmId: string,
  login: { id: string; name: string; email: string },
): Promise<void> {
  const before = await trx('person').where({ firm_id: firmId, email: login.email }).first('id', 'label')
  const personId = before?.id ?? crypto.randomUUID()
  const label = before?.label ?? `${login.name} (${personId.slice(0, 4)})`
  if (before)
    await trx('person').where({ id: personId }).update({ login_id: login.id, role: 'owner', left_at: null })
  else
    await trx('person').insert({
      id: personId,
      firm_id: firmId,
      label,
      role: 'owner',
      login_id: login.id,
      email: login.email,
    })
}
