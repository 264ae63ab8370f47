import { writeFileSync } from 'node:fs'
import { evaluate } from '@/core/assess/evaluate'
import { daysAfter } from '@/core/day'
import { costsOf } from '@/core/estimate/costs'
import { type EstimateDocument, optionOf } from '@/core/estimate/document'
import { priced } from '@/core/estimate/priced'
import { promiseOf } from '@/core/estimate/promise'
import { termsSchema, usualTerms } from '@/core/estimate/terms'
import { parseWith } from '@/core/outcome'
import { readPrices } from '@/core/work/parts/prices'
import { estimatePdf } from '@/server/pdf/estimate'
import { complain, complainOf, print, readText } from './io'
import { readJobFile } from './job'

const largestBytes = 4_000_000

interface Asked {
  book: string | undefined
  /** a file of terms; the usual ones where left out */
  terms: string | undefined
  pdf: string | undefined
}

/**
 * The estimate of a job as it stands, by a price book where one is given: as JSON with the costs behind it, and on paper into a file. Parts without
 * a price are told, and stand in as a range.
 */
export async function estimateOfFile(file: string, { book, terms: termsFile, pdf }: Asked): Promise<number> {
  const job = await readJobFile('estimate', file)
  if (!job) return 2
  const text = book === undefined ? null : await readText(book, largestBytes)
  if (text && 'problem' in text) return complain(`estimate: ${book}: ${text.problem}`)
  const on = new Date().toISOString().slice(0, 10)
  const read = text && readPrices(text.text, on)
  for (const f of read?.faults ?? []) complain(`estimate: ${book}: row ${f.row}, ${f.column}: ${f.message}`)
  if (read && !read.prices.length) return 2
  const terms = await termsOf(termsFile)
  if (typeof terms === 'number') return terms
  const costs = costsOf(job, { prices: read?.prices ?? [], minutes: [], rates: terms })
  for (const name of costs.unpriced)
    complain(`estimate: no price of ${name}: it stands in at its usual range`)
  const stops = evaluate(job, { withCourse: false }).findings.filter(f => f.severity === 'stop').length
  const price = priced(costs.costs, terms, terms.taxes[0]?.place ?? '')
  if (!price.lines.length)
    return complain('estimate: nothing is to be built: choose a source and a way of connecting')
  const document: EstimateDocument = {
    format: 1,
    number: 'draft',
    version: 1,
    firm: 'Estimate',
    title: job.title,
    place: job.place,
    on,
    validUntil: daysAfter(on, terms.validDays),
    intro: terms.intro,
    exclusions: terms.exclusions,
    payment: terms.payment,
    closing: terms.closing,
    options: [optionOf({ id: 'design', name: 'The design at hand' }, costs, price, promiseOf(job), stops)],
  }
  if (pdf !== undefined) writeFileSync(pdf, await estimatePdf(document))
  print({ ...document, costs: costs.costs, lines: price.lines })
  return 0
}

async function termsOf(file: string | undefined) {
  if (file === undefined) return usualTerms
  const text = await readText(file, 100_000)
  if ('problem' in text) return complain(`estimate: ${file}: ${text.problem}`)
  let raw: unknown
  try {
    raw = JSON.parse(text.text)
  } catch {
    return complain(`estimate: ${file}: $: is no JSON`)
  }
  const parsed = parseWith(termsSchema, { ...usualTerms, ...(typeof raw === 'object' ? raw : {}) })
  return parsed.ok ? parsed.value : complainOf(`estimate: ${file}`, parsed.faults)
}
