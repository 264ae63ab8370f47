import * as z from 'zod'
import { briefSchema } from '../ask/brief'
import { mostPhotos, photoSchema, requestRecordSchema } from '../ask/evidence'
import { outageSchema } from '../ask/outage-asked'
import { editionSchema } from '../editions'
import { checkHookup, hookupSchema } from '../hookup/design'
import { wiringChoicesSchema } from '../hookup/wiring-choices'
import { utilitySchema } from '../loads/utility'
import { checkPanels } from '../panel/panels'
import { circuitSchema, panelSchema } from '../panel/schema'
import { changeId, changeSchema } from '../plan/change'
import { line } from '../quantity'
import { checkSource, sourceSchema } from '../source/design'
import { acceptanceSchema } from './acceptance'
import { mostTestEntries, testEntrySchema, testsSchema } from './test-log'
import { handOverSchema, mostVisits, visitSchema } from './visits'
import { entrySchema, mostEntries, workSchema } from './work-log'

export const formatVersion = 13

export const steps = [
  'ask',
  'survey',
  'loads',
  'source',
  'hook-up',
  'prove',
  'wiring',
  'install',
  'commission',
  'hand-over',
] as const

const longestInput = 20_000
/** A calculation of the bench that belongs to the job: its input is kept, and its answer worked out anew. */
export const calculationSchema = z.strictObject({
  id: line(40, 1),
  calculator: line(40, 1),
  note: line(120),
  input: z
    .record(z.string(), z.unknown())
    .refine(
      input => JSON.stringify(input).length <= longestInput,
      `is too long to keep with a job: at most ${longestInput.toLocaleString('en-US')} characters`,
    ),
})
export type Calculation = z.infer<typeof calculationSchema>

const shape = z.strictObject({
  formatVersion: z.literal(formatVersion),
  title: line(80, 1),
  place: line(120),
  edition: editionSchema,
  step: z.enum(steps),
  brief: briefSchema,
  requests: z.array(requestRecordSchema).max(200, 'must hold at most 200 requests'),
  photos: z.array(photoSchema).max(mostPhotos, `must hold at most ${mostPhotos} photographs`),
  /** the first is the one a source is tied to, unless the hook-up names another */
  panels: z.array(panelSchema).min(1, 'must hold a panel').max(8, 'must hold at most 8 panels'),
  source: sourceSchema.optional(),
  hookup: hookupSchema,
  /** what somebody will do to the house: as planned is as found with these done */
  planned: z.array(changeSchema).max(300, 'must hold at most 300 changes'),
  /** what is decided of the wiring by hand: the plan of it is computed */
  wiring: wiringChoicesSchema.optional(),
  outage: outageSchema,
  /** what the utility's interval data say of the house */
  utility: utilitySchema.optional(),
  calculations: z.array(calculationSchema).max(60, 'must hold at most 60 calculations'),
  /** the order of work as it was put, and what the field wrote down: the order itself is computed */
  work: workSchema.optional(),
  /** what was proven when it was commissioned: the list of tests is computed */
  tests: testsSchema.optional(),
  /** the firm’s own data of what was handed over: the card and the pack are computed */
  handOver: handOverSchema.optional(),
  /** who came back, why, and against what stood then */
  visits: z.array(visitSchema).max(mostVisits, `must hold at most ${mostVisits} visits`).optional(),
  accepted: z.array(acceptanceSchema).max(200, 'must hold at most 200 acceptances').optional(),
})

type Say = (path: PropertyKey[], message: string) => void

/** What no single key can tell: overlaps, pairs, what the station can do. */
function checkAcross(job: z.infer<typeof shape>, say: Say) {
  checkPanels(job.panels, say)
  if (job.hookup.panelId !== undefined && !job.panels.some(p => p.id === job.hookup.panelId))
    say(['hookup', 'panelId'], 'must name a panel of this job')
  for (const [key, list] of [
    ['photos', job.photos.map(p => p.id)],
    ['requests', job.requests.map(r => r.key)],
  ] as const)
    if (new Set(list).size < list.length) say([key], 'repeats an entry')
  if (new Set(job.calculations.map(c => c.id)).size < job.calculations.length)
    say(['calculations'], 'repeats a calculation id')
  if (job.outage.reserveFraction >= job.outage.startFraction)
    say(
      ['outage', 'reserveFraction'],
      'must leave something to use: the reserve has to be below the charge when the outage begins',
    )
  const circuitIds = [
    ...job.panels.flatMap(p => p.circuits.map(c => c.id)),
    ...job.planned.flatMap(c => (c.kind === 'add' ? [c.circuit.id] : [])),
  ]
  checkHookup(job.hookup, new Set(circuitIds), (path, message) => say(['hookup', ...path], message))
  const changes = job.planned.map(changeId)
  const again = changes.findIndex((id, n) => changes.indexOf(id) < n)
  if (again >= 0) say(['planned', again], `repeats the change ${changes[again]}`)
  const carried = job.brief.wants.findIndex(w => w.loads?.length && w.circuitIds.length)
  if (carried >= 0)
    say(
      ['brief', 'wants', carried, 'loads'],
      'must be empty: the circuits that carry it have taken them over',
    )
  if (job.source) checkSource(job.source, (path, message) => say(['source', ...path], message))
}

export const jobSchema = shape.check(context => {
  const job = context.value
  checkAcross(job, (path, message) => context.issues.push({ code: 'custom', path, message, input: job }))
})

export type Job = z.infer<typeof jobSchema>

/**
 * Whether a job that came of a valid one is valid, by looking at what is another object in it than before, and across keys. What it
 * cannot tell, it says no to: the whole schema then has the word, and the words.
 */
export function isStillValid(before: Job, next: Job): boolean {
  const parts = shape.shape
  for (const key of Object.keys(next)) {
    if (!(key in parts)) return false
  }
  const known = new Set<unknown>(before.panels.flatMap(p => [p, ...p.circuits]))
  for (const panel of next.panels) {
    if (known.has(panel)) continue
    const was = before.panels.find(p => p.id === panel.id)
    if (!was || panel.circuits.length > was.circuits.length) return false
    const { circuits, ...facts } = panel
    if (!panelFacts.safeParse(facts).success) return false
    if (!circuits.every(c => known.has(c) || circuitSchema.safeParse(c).success)) return false
  }
  if (next.panels.length > before.panels.length) return false
  const { panels: _, ...others } = parts
  const same = (key: keyof typeof others) =>
    before[key] === next[key] ||
    (key === 'work'
      ? isStillWork(before.work, next.work)
      : key === 'tests'
        ? isStillTested(before.tests, next.tests)
        : others[key].safeParse(next[key]).success)
  const keys = Object.keys(others) as (keyof typeof others)[]
  if (!keys.every(same)) return false
  let said = false
  checkAcross(next, () => {
    said = true
  })
  return !said
}

/** Of a log that grew, the new entries are looked at: it may be long. */
function isStillWork(before: Job['work'], next: Job['work']): boolean {
  if (!next) return true
  const known = new Set(before?.log)
  const { log, ...facts } = next
  return (
    log.length <= mostEntries &&
    log.every(e => known.has(e) || entrySchema.safeParse(e).success) &&
    workSchema.safeParse({ ...facts, log: [] }).success
  )
}

function isStillTested(before: Job['tests'], next: Job['tests']): boolean {
  if (!next) return true
  const known = new Set(before?.log)
  const { log, ...facts } = next
  return (
    log.length <= mostTestEntries &&
    log.every(e => known.has(e) || testEntrySchema.safeParse(e).success) &&
    testsSchema.safeParse({ ...facts, log: [] }).success
  )
}

const panelFacts = panelSchema.omit({ circuits: true })
