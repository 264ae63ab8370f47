import sharp from 'sharp'
import { costsOf } from '@/core/estimate/costs'
import { optionOf } from '@/core/estimate/document'
import { priced } from '@/core/estimate/priced'
import { promiseOf } from '@/core/estimate/promise'
import { usualTerms } from '@/core/estimate/terms'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { pricesFor } from '../seeds/prices'
import { estimatePdf } from './estimate'

const costs = costsOf(alderHollow, { prices: pricesFor([alderHollow]), minutes: [], rates: usualTerms })
const option = optionOf(
  { id: 'a', name: 'A' },
  costs,
  priced(costs.costs, usualTerms, ''),
  promiseOf(alderHollow),
  1,
)
const document = {
  format: 1 as const,
  number: 'E-1',
  version: 1,
  firm: 'Firm',
  title: 'A house with a name that is as long as a name may be, and goes on to the end of it',
  place: '',
  on: '2026-11-29',
  validUntil: '2026-12-29',
  intro: 'word '.repeat(380),
  exclusions: usualTerms.exclusions,
  payment: usualTerms.payment,
  closing: '',
  options: [option, { ...option, id: 'b', name: 'B' }, { ...option, id: 'c', name: 'C' }],
}
const pages = (pdf: Buffer) => pdf.toString('latin1').match(/\/Type \/Page\b/g)?.length ?? 0

test('long texts and three options take the pages they need; the same document is the same bytes', async () => {
  const paper = await estimatePdf(document)
  expect(pages(paper)).toBeGreaterThan(1)
  expect((await estimatePdf(document)).equals(paper)).toBe(true)
})

test('an acceptance stands on it: drawn, or typed', async () => {
  const acceptance = {
    format: 1 as const,
    number: 'E-1',
    version: 1,
    documentSha256: 'a'.repeat(64),
    option: { id: 'a', name: 'A', total: option.total },
    name: 'A customer',
    at: '2026-11-30T10:00:00Z',
    signature: [
      [
        [0, 0],
        [300, 200],
      ] as [number, number][],
    ],
  }
  const plain = await estimatePdf(document)
  const signed = await estimatePdf(document, acceptance)
  const typed = await estimatePdf(document, { ...acceptance, typed: true })
  expect(new Set([plain, signed, typed].map(p => p.toString('latin1'))).size).toBe(3)
})

test('the firm’s logo stands at its head, whatever its shape; prices in other dollars say so', async () => {
  const picture = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#0b5566' } })
      .png()
      .toBuffer()
  const plain = await estimatePdf(document)
  for (const [width, height] of [
    [600, 20],
    [200, 200],
    [20, 200],
  ] as const) {
    const paper = await estimatePdf(document, null, await picture(width, height))
    expect(paper.toString('latin1')).toMatch(/\/Subtype \/Image/)
    expect(pages(paper)).toBeLessThanOrEqual(pages(plain) + 1)
  }
  expect((await estimatePdf({ ...document, currency: 'CAD' })).equals(plain)).toBe(false)
})
