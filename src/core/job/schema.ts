import * as z from 'zod'
import { briefSchema } from '../ask/brief'
import { mostPhotos, photoSchema, requestRecordSchema } from '../ask/evidence'
import { acceptanceSchema } from '../checks/acceptance'
import { checkHookup, hookupSchema } from '../hookup/design'
import { utilitySchema } from '../loads/utility'
import { outageSchema } from '../outage/asked'
import { checkPanel, type Panel, panelSchema } from '../panel/schema'
import { line } from '../quantity'
import { checkSource, sourceSchema } from '../source/design'

export const formatVersion = 7

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
  edition: z.union([z.literal(2017), z.literal(2020), z.literal(2023)], 'must be 2017, 2020 or 2023'),
  step: z.enum(steps),
  brief: briefSchema,
  requests: z.array(requestRecordSchema).max(200, 'must hold at most 200 requests'),
  photos: z.array(photoSchema).max(mostPhotos, `must hold at most ${mostPhotos} photographs`),
  /** the first is the one a source is tied to, unless the hook-up names another */
  panels: z.array(panelSchema).min(1, 'must hold a panel').max(8, 'must hold at most 8 panels'),
  source: sourceSchema.optional(),
  hookup: hookupSchema,
  outage: outageSchema,
  /** what the utility's interval data say of the house */
  utility: utilitySchema.optional(),
  calculations: z.array(calculationSchema).max(60, 'must hold at most 60 calculations'),
  accepted: z.array(acceptanceSchema).max(200, 'must hold at most 200 acceptances').optional(),
})

/** One job. What no single key can tell is checked across keys: overlaps, pairs, what the station can do. */
export const jobSchema = shape.check(context => {
  const job = context.value
  const say = (path: PropertyKey[], message: string) =>
    context.issues.push({ code: 'custom', path, message, input: job })
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
  checkHookup(job.hookup, new Set(job.panels.flatMap(p => p.circuits.map(c => c.id))), (path, message) =>
    say(['hookup', ...path], message),
  )
  if (job.source) checkSource(job.source, (path, message) => say(['source', ...path], message))
})

export type Edition = Job['edition']
export type Job = z.infer<typeof jobSchema>

type Say = (path: PropertyKey[], message: string) => void

/** Each panel by itself, then what holds between them: ids, and who feeds whom. */
function checkPanels(panels: readonly Panel[], say: Say) {
  const ids = new Set<string>()
  const unique = (id: string, path: PropertyKey[]) => {
    if (ids.has(id)) say(path, `repeats the id ${id}`)
    ids.add(id)
  }
  panels.forEach((panel, n) => {
    unique(panel.id, ['panels', n, 'id'])
    panel.circuits.forEach((circuit, i) => {
      unique(circuit.id, ['panels', n, 'circuits', i, 'id'])
    })
    checkPanel(panel, (path, message) => say(['panels', n, ...path], message))
    if (panels.some((p, o) => o < n && p.mark === panel.mark))
      say(['panels', n, 'mark'], 'must differ from the other panels’ marks')
    const { feederId } = panel
    if (feederId === undefined) return
    const at = ['panels', n, 'feederId']
    const from = panels.find(p => p.circuits.some(c => c.id === feederId))
    const feeder = from?.circuits.find(c => c.id === feederId)
    if (!from || from === panel) say(at, 'must name a circuit of another panel')
    else if (feeder?.poles !== 2) say(at, 'must name a two-pole circuit')
    else if (panels.some((p, o) => o < n && p.feederId === feederId))
      say(at, 'names a circuit that feeds another panel already')
    else if (circular(panels, panel)) say(at, 'makes the panels feed each other in a circle')
  })
}

function circular(panels: readonly Panel[], start: Panel): boolean {
  let at: Panel | undefined = start
  for (let n = 0; at && n <= panels.length; n++) {
    const { feederId }: Panel = at
    at = feederId === undefined ? undefined : panels.find(p => p.circuits.some(c => c.id === feederId))
    if (at === start) return true
  }
  return false
}
