import sharp from 'sharp'
import { circuitNeeds } from '@/core/assess/needs'
import { cardOf } from '@/core/card/card'
import { testList } from '@/core/commission'
import { readingText } from '@/core/commission/judge'
import { standOfTests } from '@/core/commission/stand'
import { groupKeys, groups } from '@/core/commission/tests'
import type { Acceptance } from '@/core/estimate/acceptance'
import type { EstimateDocument } from '@/core/estimate/document'
import { headOf } from '@/core/estimate/words'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { maintenance, type PackDocument, type SignedPack, standsAgainst } from '@/core/handover/pack'
import { asPlanned } from '@/core/job/as-planned'
import type { Job } from '@/core/job/schema'
import { languageKeys } from '@/core/languages'
import { quantity } from '@/core/units/format'
import { noticesOf } from '@/core/work/notices'
import { wiringPlan } from '@/core/work/wiring'
import { scheduleOf } from '@/core/work/wiring/schedule'
import { drawCard } from './card'
import { oneOption, signed } from './estimate'
import { drawnName, Paper, printable } from './paper'
import { drawSvg } from './svg'

/** What goes into a pack beside what is computed. */
export interface PackParts {
  /** of the firm, PNG */
  logo?: Buffer | null
  estimates: readonly { document: EstimateDocument; acceptance: Acceptance }[]
  /** a photograph’s bytes; null where they are missing */
  photo: (id: string) => Promise<Uint8Array | null>
  /** told as it goes on, 0 to 1 */
  progress: (fraction: number) => Promise<void>
}

/** 250 dots to the inch as wide as one is printed; half of what is kept, so that it is read at half its size. */
const photoPx = 900
const acrossPt = 262
const tallPt = 300

/** Everything that stays with the house, in one document: computed of one revision, and the job as an open file inside. */
export async function packPdf(job: Job, pack: PackDocument, parts: PackParts): Promise<Buffer> {
  // a worker stays small: one picture at a time, none kept
  sharp.cache(false)
  sharp.concurrency(1)
  const { firm, on, revision } = pack
  const paper = new Paper(`${pack.title}: hand-over`, { firm, revision, on, logo: parts.logo })
  const steps: (() => void | Promise<void>)[] = [
    () => cover(paper, pack),
    () => estimates(paper, parts),
    () => directory(paper, job),
    () => oneLine(paper, job, { firm, revision, on }),
    () => wiring(paper, job),
    () => acceptedFindings(paper, pack),
    () => tests(paper, job),
    () => cards(paper, job, pack),
    () => labels(paper, job),
    () => years(paper, pack),
    () => photographs(paper, job, parts),
  ]
  for (const [n, step] of steps.entries()) {
    await step()
    await parts.progress((n + 1) / (steps.length + 1))
  }
  paper.doc.file(Buffer.from(JSON.stringify(job, null, 2)), {
    name: 'job.json',
    type: 'application/json',
    description: 'The job as an open file',
    creationDate: new Date(`${on}T12:00:00Z`),
    modifiedDate: new Date(`${on}T12:00:00Z`),
  })
  return paper.end()
}

function cover(paper: Paper, pack: PackDocument) {
  const against = standsAgainst(pack)
  if (against.length) {
    paper.heading('Not as it should be on this day')
    for (const l of against) paper.paragraph(`• ${l}`)
  }
  paper.heading('What this is')
  paper.paragraph(
    `${pack.title}${pack.place ? `, ${pack.place}` : ''}. ${pack.handedOverOn ? `Handed over on ${pack.handedOverOn}. ` : ''}Pack ${pack.n}, of revision ${pack.revision}, ${pack.on}, by ${pack.firm}.`,
  )
  paper.paragraph(`Tests: ${pack.tests}`)
  paper.paragraph(
    'Inside: the estimate and change orders that were accepted, the directory, the one-line diagram, the wiring schedule, findings that somebody accepted, the record of tests, the card for the door, labels, what to look after, warranties, photographs; and the job as an open file (job.json), attached to this document.',
  )
  paper.paragraph(`Checksum of the job file (SHA-256): ${pack.jobSha256}`)
}

function estimates(paper: Paper, { estimates: accepted }: PackParts) {
  paper.heading('Accepted estimate and change orders')
  if (!accepted.length) return paper.paragraph('None was accepted by this record.')
  for (const { document, acceptance } of accepted) {
    paper.heading(headOf(document))
    const option = document.options.find(o => o.id === acceptance.option.id)
    if (option) oneOption(paper, option, document.language)
    signed(paper, acceptance, document.language)
  }
}

function directory(paper: Paper, found: Job) {
  const { job } = asPlanned(found)
  const needs = circuitNeeds(job)
  for (const panel of job.panels) {
    paper.heading(`Directory: ${panel.name}`)
    paper.table(
      [
        { head: 'No.', share: 12, cell: n => n.position },
        { head: 'Circuit', share: 52, cell: n => n.circuit.label || 'unlabelled' },
        { head: 'Rating', share: 12, cell: n => `${n.circuit.breakerA} A`, figure: true },
        { head: 'Leg', share: 10, cell: n => (n.leg === 'both' ? 'L1, L2' : n.leg) },
        { head: 'In an outage', share: 18, cell: n => (n.served ? 'lives on the source' : '') },
      ],
      needs.filter(n => n.panel.id === panel.id),
    )
  }
}

async function oneLine(paper: Paper, job: Job, sheet: { firm: string; revision: number; on: string }) {
  paper.next()
  paper.heading('One-line diagram')
  await drawSvg(paper, oneLineSvg(job, sheet))
  paper.next()
}

function wiring(paper: Paper, job: Job) {
  paper.heading('Wiring schedule')
  const rows = scheduleOf(wiringPlan(job))
  if (!rows.length) return paper.paragraph('Nothing is wired by this job.')
  paper.table(
    [
      { head: 'Mark', share: 8, cell: r => r.mark },
      { head: 'Is', share: 14, cell: r => r.function },
      { head: 'From', share: 26, cell: r => r.from },
      { head: 'To', share: 26, cell: r => r.to },
      { head: 'Size', share: 9, cell: r => `${r.sizeAwg} ${r.metal}` },
      { head: 'Colour', share: 9, cell: r => r.colour },
      { head: 'Cut', share: 8, cell: r => quantity(r.cutFt, 'ft'), figure: true },
    ],
    rows,
  )
}

function acceptedFindings(paper: Paper, { accepted }: PackDocument) {
  paper.heading('Findings that somebody accepted')
  if (!accepted.length) return paper.paragraph('None.')
  paper.table(
    [
      { head: 'Finding', share: 50, cell: a => a.sentence },
      { head: 'By, on', share: 18, cell: a => `${a.by}, ${a.on}` },
      { head: 'Because', share: 32, cell: a => a.reason },
    ],
    accepted,
  )
}

function tests(paper: Paper, job: Job) {
  const list = testList(job)
  const stand = standOfTests(job, list)
  for (const group of groupKeys) {
    const here = list.tests.filter(t => t.group === group)
    if (!here.length) continue
    paper.heading(`Tests: ${groups[group].name}`)
    paper.table(
      [
        { head: 'Test', share: 36, cell: t => t.text },
        {
          head: 'Read',
          share: 34,
          cell: t => {
            const read = stand.tests.get(t.id)?.read
            return (
              read?.readings
                .map(r => {
                  const asked = t.asks.find(a => a.key === r.key)
                  return `${asked?.name ?? r.key} ${readingText(r.value, asked?.unit ?? null)}`
                })
                .join(', ') ?? ''
            )
          },
        },
        {
          head: 'Is',
          share: 14,
          cell: t => {
            const s = stand.tests.get(t.id)
            return `${s?.state ?? 'open'}${s?.read?.simulated ? ', simulated' : ''}`
          },
        },
        {
          head: 'By, on',
          share: 16,
          cell: t => {
            const read = stand.tests.get(t.id)?.read
            return read ? `${read.by}, ${read.on}` : ''
          },
        },
      ],
      here,
    )
  }
  const { result, remarks } = stand.inspection
  paper.heading('Inspection by the authority')
  paper.paragraph(
    result
      ? `${result.result}, ${result.on}, written down by ${result.by}.`
      : 'Nothing is written down of it.',
  )
  for (const r of remarks) paper.paragraph(`Remark: ${r.text}${r.corrected ? ' (corrected)' : ''}`)
}

function cards(paper: Paper, job: Job, pack: PackDocument) {
  const card = cardOf(job)
  if (!card.ok) return
  for (const language of languageKeys) {
    paper.next()
    paper.bare()
    const { bottom } = paper.doc.page.margins
    drawCard(paper.doc, card.value, language, { firm: pack.firm, revision: pack.revision, day: pack.on })
    paper.doc.page.margins.bottom = bottom
    paper.doc.fillColor('#111111')
  }
  paper.next()
}

function labels(paper: Paper, job: Job) {
  paper.heading('Labels and notices')
  paper.table(
    [
      { head: 'Where', share: 30, cell: n => n.where },
      { head: 'Reads', share: 54, cell: n => [n.head, ...n.lines].join(' · ') },
      { head: 'Article', share: 16, cell: n => n.article ?? '' },
    ],
    noticesOf(job).notices,
  )
}

function years(paper: Paper, { warranties }: PackDocument) {
  paper.heading('To look after')
  for (const m of maintenance) paper.paragraph(`• ${m}`)
  paper.heading('Warranties')
  if (!warranties.length) return paper.paragraph('None is written down.')
  paper.table(
    [
      { head: 'Unit', share: 40, cell: w => w.unit },
      { head: 'Serial number', share: 24, cell: w => w.serial },
      { head: 'From', share: 18, cell: w => w.from },
      { head: 'Until', share: 18, cell: w => w.until },
    ],
    warranties,
  )
}

async function photographs(paper: Paper, job: Job, { photo }: PackParts) {
  if (!job.photos.length) return
  paper.next()
  paper.heading('Photographs')
  const { doc } = paper
  let slot = 0
  let top = doc.y + 4
  for (const p of job.photos) {
    if (slot === 4) {
      paper.next()
      slot = 0
      top = 40
    }
    const x = 36 + (slot % 2) * (acrossPt + 16)
    const y = top + Math.floor(slot / 2) * (tallPt + 26)
    const bytes = await photo(p.id)
    let tall = 14
    const caption = [p.name, p.on, p.by].filter(Boolean).join(', ')
    if (bytes) {
      // one after the other, so that sixty of them need no more room than one
      const { data, info } = await sharp(bytes, { sequentialRead: true })
        .rotate(p.turns * 90)
        .resize(photoPx, photoPx, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 68 })
        .toBuffer({ resolveWithObject: true })
      doc.image(data, x, y, { fit: [acrossPt, tallPt] })
      tall = Math.min(tallPt, (acrossPt * info.height) / info.width)
    } else doc.font('body').fontSize(9).text('This photograph is missing.', x, y, { width: acrossPt })
    doc
      .font('body')
      .fontSize(7.5)
      .fillColor('#111111')
      .text(printable(caption), x, y + tall + 2, { width: acrossPt, height: 18, ellipsis: true })
    slot++
  }
}

/** Who signed a pack, on a page of its own: the pack stays byte for byte as it was frozen. */
export function signaturesPdf(
  pack: PackDocument,
  sums: { document: string; pdf: string },
  signatures: readonly SignedPack[],
): Promise<Buffer> {
  const paper = new Paper(`${pack.title}: signatures`, {
    firm: pack.firm,
    revision: pack.revision,
    on: pack.on,
  })
  paper.paragraph(
    `Of pack ${pack.n}, revision ${pack.revision}, ${pack.on}. Checksum of what it says: ${sums.document}. Checksum of its paper: ${sums.pdf}.`,
  )
  for (const as of ['installer', 'customer'] as const) {
    paper.heading(as === 'installer' ? 'For the firm' : 'For the house')
    const one = signatures.find(s => s.as === as)
    if (!one) paper.paragraph('Not signed.')
    else {
      paper.paragraph(`${one.name}, ${one.at.slice(0, 16).replace('T', ' ')} UTC.`)
      drawnName(paper, one)
    }
  }
  return paper.end()
}
