import { partsOfJob } from '@/core/work/parts'
import { orderOf } from '@/core/work/parts/order'
import { demoJobs } from '../seeds/jobs'
import { orderPdf } from './order'
import { printable } from './paper'
import { wiringPdf } from './wiring'

const sheet = { firm: 'Firm', revision: 3, on: '2026-11-29' }
const pages = (pdf: Buffer) => pdf.toString('latin1').match(/\/Type \/Page\b(?!s)/g)?.length ?? 0

test.each(demoJobs.map(({ job }) => [job.title, job] as const))(
  '%s on paper: whole files of a few pages, none of them for what ran over',
  async (_, job) => {
    for (const pdf of [
      await wiringPdf(job, sheet),
      await orderPdf(job, orderOf([partsOfJob(job)]), [], true, sheet),
      await orderPdf(job, orderOf([partsOfJob(job)]), [], false, sheet),
    ]) {
      expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
      expect(pdf.subarray(-6).toString()).toMatch(/%%EOF/)
      expect(pages(pdf)).toBeGreaterThan(0)
      expect(pages(pdf)).toBeLessThan(9)
    }
  },
)

test('signs that the font lacks are said in words', () => {
  expect(printable('A → B, ≤ 24 in, 2⅛')).toBe('A to B, at most 24 in, 2 1/8')
})
