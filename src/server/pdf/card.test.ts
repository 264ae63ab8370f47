import QRCode from 'qrcode'
import { type Card, cardOf } from '@/core/card/card'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { packOf, type SignedPack } from '@/core/handover/pack'
import type { Job } from '@/core/job/schema'
import { languageKeys } from '@/core/languages'
import { demoJobs } from '../seeds/jobs'
import { saltmarshLane } from '../seeds/jobs/saltmarsh-lane'
import { livedIn } from '../seeds/lived-in'
import { cardPdf } from './card'
import { packPdf, signaturesPdf } from './pack'
import { Paper } from './paper'
import { drawSvg } from './svg'

const foot = { firm: 'Headwater Electric', revision: 3, day: '2026-11-29' }
const pages = (pdf: Buffer) => pdf.toString('latin1').match(/\/Type \/Page\b(?!s)/g)?.length ?? 0
const cardFor = (job: Job): Card => {
  const card = cardOf(job)
  if (!card.ok) throw new Error(card.faults[0]?.message)
  return card.value
}

/** A panel of 84 spaces, every one taken, every name as long as a name may be, many of them alive. */
function crowded(): Job {
  const [panel] = saltmarshLane.panels
  if (!panel) throw new Error('no panel')
  const plain = panel.circuits.find(c => c.poles === 1 && !c.half)
  const taken = new Set(
    panel.circuits.flatMap(c => (c.poles === 2 ? [c.position, c.position + 2] : [c.position])),
  )
  const free = Array.from({ length: 84 }, (_, n) => n + 1).filter(
    n => n > 4 && !taken.has(n) && !panel.unusable.includes(n),
  )
  if (!plain) throw new Error('no circuit')
  const more = free.map(position => {
    const { tie: _, ...circuit } = plain
    return { ...circuit, id: `x${position}`, position, picked: position > 60, loads: [], label: '' }
  })
  const circuits = [...panel.circuits, ...more].map(c => ({
    ...c,
    label:
      `${c.label || 'North-east playroom'} and the covered porch behind it, second floor, left side`.slice(
        0,
        80,
      ),
  }))
  return { ...saltmarshLane, title: 'W'.repeat(80), panels: [{ ...panel, spaces: 84, circuits }] }
}

test.each(demoJobs.map(({ job }) => [job.title, job] as const))(
  'the card of %s is one page in every language, with its code and without',
  async (_, job) => {
    const { modules } = QRCode.create('http://house.test/house/abc')
    const squares = Array.from({ length: modules.size }, (_row, r) =>
      Array.from({ length: modules.size }, (_cell, c) => modules.get(r, c) === 1),
    )
    for (const language of languageKeys) {
      const plain = await cardPdf(cardFor(job), language, foot)
      const coded = await cardPdf(cardFor(job), language, foot, squares)
      expect([pages(plain), pages(coded)]).toEqual([1, 1])
      expect(coded.length).toBeGreaterThan(plain.length)
      // the same card is the same paper
      expect((await cardPdf(cardFor(job), language, foot)).length).toBe(plain.length)
    }
  },
)

test('84 spaces, names of 80 letters and a card that goes wrong still make one page', async () => {
  const card = cardFor(crowded())
  expect(card.wrong).toEqual([])
  expect(card.to.at(-2)?.each.length).toBeGreaterThan(9)
  for (const language of languageKeys) {
    expect(pages(await cardPdf(card, language, foot))).toBe(1)
    const wrong = { ...card, wrong: [{ what: 'fed twice' as const, of: 'the bus of the panel' }] }
    expect(pages(await cardPdf(wrong, language, foot))).toBe(1)
  }
})

test('a drawing keeps its letters as letters, in our own fonts, where groups are shifted as well', async () => {
  const words: string[] = []
  const paper = new Paper('Drawing', { firm: 'Firm', revision: 1, on: '2026-01-01' })
  const put = jest.spyOn(paper.doc, 'text').mockImplementation(function (
    this: PDFKit.PDFDocument,
    text: string,
  ) {
    words.push(text)
    return paper.doc
  })
  await drawSvg(paper, oneLineSvg(saltmarshLane, { firm: 'Firm', revision: 1, on: '2026-01-01' }))
  put.mockRestore()
  expect(words).toEqual(expect.arrayContaining(['Meter', 'Utility', 'Saltmarsh Lane']))
  expect(words.every(w => !/&amp;|&lt;/.test(w))).toBe(true)
  await paper.end()
})

test('a pack holds every part, tells how far it is, and a page of signatures stands beside it', async () => {
  const kiosk = demoJobs.map(d => d.job).find(j => j.title.startsWith('Fernbrook'))
  if (!kiosk) throw new Error('no kiosk')
  const job = { ...livedIn(kiosk, 'Ann'), photos: [] }
  const made = { n: 2, firm: 'Firm', on: '2027-02-16', revision: 9, estimates: [], jobSha256: 'd'.repeat(64) }
  const document = packOf(job, made)
  const told: number[] = []
  const pdf = await packPdf(job, document, {
    estimates: [],
    photo: async () => null,
    progress: async fraction => {
      told.push(fraction)
    },
  })
  expect(pages(pdf)).toBeGreaterThan(5)
  expect(told).toEqual([...told].sort((a, b) => a - b))
  expect([told[0], told.at(-1)].every(f => f !== undefined && f > 0 && f < 1)).toBe(true)
  expect(document.warranties).toEqual([
    { unit: 'Rill 6', serial: 'R6-20418', from: '2026-02-17', until: '2031-02-16' },
  ])
  const signature: SignedPack = {
    as: 'customer',
    name: 'Kim Poe',
    signature: [
      [
        [0, 0],
        [400, 200],
      ],
    ],
    at: '2027-02-16T10:00:00Z',
  }
  const page = await signaturesPdf(document, { document: 'a', pdf: 'b' }, [signature])
  expect(pages(page)).toBe(1)
})
