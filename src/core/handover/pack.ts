import * as z from 'zod'
import { evaluate } from '../assess/evaluate'
import { cardOf } from '../card/card'
import { notBuilt, testList } from '../commission'
import { unitName } from '../commission/scene'
import { standOfTests, standText } from '../commission/stand'
import { signatureFault, signed } from '../estimate/signature'
import type { Job } from '../job/schema'
import { line } from '../quantity'

const text = z.string().max(2000)
/** What a pack says of itself, frozen: who signs, signs this. */
export const packSchema = z.strictObject({
  format: z.literal(1),
  n: z.int().min(1),
  title: line(80, 1),
  place: line(120),
  firm: z.string().max(120),
  on: z.iso.date(),
  revision: z.int().min(1),
  handedOverOn: z.iso.date().nullable(),
  /** what stands against it on the day: it is made all the same, and its first page says so */
  stops: z.array(text).max(200),
  unbuilt: z.array(text).max(300),
  /** what goes wrong if the card were followed, or why there is none */
  card: z.string().max(2000).nullable(),
  tests: text,
  accepted: z
    .array(z.strictObject({ sentence: text, by: line(60), on: z.iso.date(), reason: line(300) }))
    .max(200),
  warranties: z
    .array(
      z.strictObject({
        unit: z.string().max(160),
        serial: line(60),
        from: z.iso.date(),
        until: z.iso.date(),
      }),
    )
    .max(12),
  estimates: z
    .array(
      z.strictObject({
        head: text,
        option: text,
        total: text,
        by: line(80),
        at: z.string().max(40),
        sha256: z.string().max(64),
      }),
    )
    .max(50),
  photographs: z.int().min(0),
  jobSha256: z.string().length(64),
})
export type PackDocument = z.infer<typeof packSchema>

interface Made {
  n: number
  firm: string
  on: string
  revision: number
  estimates: PackDocument['estimates']
  jobSha256: string
}

/** What stands of a job on the day of its hand-over. */
export function packOf(job: Job, made: Made): PackDocument {
  const evaluation = evaluate(job)
  const list = testList(job)
  const card = cardOf(job)
  const open = evaluation.findings.filter(f => !f.accepted)
  return {
    format: 1,
    ...made,
    title: job.title,
    place: job.place,
    handedOverOn: job.handOver?.on ?? null,
    stops: open.filter(f => f.severity === 'stop').map(f => f.sentence),
    unbuilt: notBuilt(job),
    card: !card.ok
      ? `There is no card: ${card.faults[0]?.message ?? ''}.`
      : card.value.wrong.length
        ? 'The card goes wrong when it is followed: it must not be used.'
        : null,
    tests: list.tests.length ? standText(standOfTests(job, list)) : 'Nothing was to be proven.',
    accepted: evaluation.findings.flatMap(f => {
      const by = f.accepted
      return by ? [{ sentence: f.sentence, by: by.by, on: by.on, reason: by.reason }] : []
    }),
    warranties: (job.handOver?.warranties ?? []).map(w => ({
      unit: unitName({ job }, w.unitId),
      serial: w.serial ?? '',
      from: w.from,
      until: w.until,
    })),
    photographs: job.photos.length,
  }
}

/** Why a pack is not yet as it should be, one line each, for its first page; none where it is. */
export const standsAgainst = ({ stops, unbuilt, card }: PackDocument): string[] => [
  ...stops,
  ...unbuilt.map(c => `Not built: ${c}`),
  ...(card ? [card] : []),
]

/** What is looked after over the years; the equipment’s own instructions come first. */
export const maintenance: readonly string[] = [
  'Once a year: switch over and back by the card, at a time when nothing suffers; write the minutes down.',
  'Once a year: charge the source to full, let it carry a known load, compare with the capacity test of the hand-over.',
  'Every three months: charge it as its maker says for storage; read its display for alarms.',
  'Once a year: test the carbon monoxide alarm and the outlets that protect against ground faults.',
  'Once a year: read the labels, the directory and the card by lamp; have what cannot be read printed anew.',
  'Terminals and torque are for licensed hands, panel dead and locked.',
]

/** Who signs a pack, with a drawn name. */
export const signingSchema = z
  .strictObject({ as: z.enum(['installer', 'customer']), name: line(80, 2), ...signed })
  .check(({ value, issues }) => {
    const message = signatureFault(value)
    if (message) issues.push({ code: 'custom', path: ['signature'], message, input: value })
  })
export type Signing = z.infer<typeof signingSchema>
export interface SignedPack extends Signing {
  at: string
}

/** A pack as the firm sees it. */
export interface Pack {
  id: string
  n: number
  revision: number
  state: 'making' | 'made' | 'failed'
  progress: number
  trouble: string | null
  askedAt: string
  by: string
  document: PackDocument | null
  sha256: string | null
  pdfSha256: string | null
  bytes: number | null
  signatures: SignedPack[]
}
