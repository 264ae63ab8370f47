import { writeFileSync } from 'node:fs'
import { orderCsv } from '@/core/formats/order-csv'
import { partsOfJob } from '@/core/work/parts'
import { orderOf } from '@/core/work/parts/order'
import { readPrices } from '@/core/work/parts/prices'
import { workOfJob } from '@/core/work/parts/tasks'
import { complain, print, readText } from './io'
import { readJobFile } from './job'

const largestBookBytes = 4_000_000

/**
 * Every part that a job takes, ordered by a price book (CSV) where one is given, with tools and hours; rows of the book that cannot
 * be taken are told. As JSON, or the order as a table into a file (`-` for standard output).
 */
export async function partsOfFile(
  file: string,
  book: string | undefined,
  csv: string | undefined,
): Promise<number> {
  const job = await readJobFile('parts', file)
  if (!job) return 2
  const text = book === undefined ? null : await readText(book, largestBookBytes)
  if (text && 'problem' in text) return complain(`parts: ${book}: ${text.problem}`)
  const read = text && readPrices(text.text, new Date().toISOString().slice(0, 10))
  for (const f of read?.faults ?? []) complain(`parts: ${book}: row ${f.row}, ${f.column}: ${f.message}`)
  if (read && !read.prices.length) return 2
  const order = orderOf([partsOfJob(job)], read?.prices)
  if (csv === undefined) print({ ...order, work: workOfJob(job) })
  else if (csv === '-') process.stdout.write(orderCsv(order))
  else writeFileSync(csv, orderCsv(order))
  return 0
}
