import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import { db, type OfFirm } from '../db/connection'
import { readPhoto } from '../files/repository'
import { type Part, parts, type Row, rowsPath } from './layout'

/** The form of archives; what is older is read as long as it can be. */
export const archiveFormat = 1

/** Of one firm the same bytes, whenever it is taken out: no clock stands in it. */
const always = { mtime: new Date('2020-01-01T00:00:00Z'), mode: 0o100644, compress: true } as const
const pageRows = 200

/** Rows of a table as the database tells them, without what stands in files, page by page. */
async function* pages(firm: OfFirm, { table, order, leave = [], files = {} }: Part): AsyncGenerator<Row[]> {
  const own = db(firm)
  const left = [...leave, ...Object.keys(files)]
  const whose = table === 'firm' ? 'id' : 'firm_id'
  const keys = order.join(', ')
  let after: unknown[] | null = null
  for (;;) {
    const found: { rows: { row: Row; key: unknown[] }[] } = await own.raw(
      `select to_jsonb(t) - ?::text[] as row, to_jsonb(array[${order.map(k => `${k}::text`).join(', ')}]) as key
         from ?? t where ?? = ? ${after ? `and (${keys}) > (${order.map(() => '?').join(', ')})` : ''}
        order by ${keys} limit ${pageRows}`,
      [left, table, whose, firm.firmId, ...(after ?? [])] as never,
    )
    if (!found.rows.length) return
    yield found.rows.map(r => r.row)
    after = found.rows.at(-1)?.key ?? null
  }
}

async function* lines(firm: OfFirm, part: Part): AsyncGenerator<string> {
  for await (const rows of pages(firm, part)) for (const row of rows) yield `${JSON.stringify(row)}\n`
}

const contentOf = async (firm: OfFirm, part: Part, column: string, row: Row): Promise<Buffer | null> => {
  // a picture may stand in the bucket
  if (part.table === 'photo' && (column === 'picture' || column === 'thumbnail'))
    return readPhoto(firm, String(row.id), column)
  const found = await db(firm)(part.table).where({ id: row.id }).first(column)
  const value = found?.[column]
  if (value === null || value === undefined) return null
  return part.files?.[column]?.kind === 'document'
    ? Buffer.from(`${JSON.stringify(value, null, 2)}\n`)
    : value
}

/**
 * All of a firm as one archive of open files, as a stream: rows as JSON, jobs as job files, photographs, files and papers as they
 * are. Made as it is read: a large firm takes no memory.
 */
export function archiveOf(firm: OfFirm): Readable {
  const zip = new ZipFile()
  const out = zip.outputStream as unknown as Readable
  const fill = async () => {
    zip.addBuffer(
      Buffer.from(`${JSON.stringify({ format: archiveFormat, firm: firm.firmId }, null, 2)}\n`),
      'spillway.json',
      always,
    )
    for (const part of parts) {
      zip.addReadStream(Readable.from(lines(firm, part), { objectMode: false }), rowsPath(part.table), always)
      for (const [column, { path }] of Object.entries(part.files ?? {}))
        for await (const rows of pages(firm, part))
          for (const row of rows) {
            const content = await contentOf(firm, part, column, row)
            if (!content) continue
            zip.addBuffer(content, path(row), always)
            // what was added is written before more is read
            await drained(out)
          }
    }
    zip.end()
  }
  fill().catch(error => out.destroy(error))
  return out
}

/** Waits while more is buffered than a reader takes. */
async function drained(out: Readable): Promise<void> {
  while (out.readableLength > 4_000_000 && !out.destroyed)
    await new Promise(resolve => setTimeout(resolve, 5))
  if (out.destroyed) throw new Error('nobody reads the archive any more')
}
