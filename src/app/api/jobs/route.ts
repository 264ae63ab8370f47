import { randomUUID } from 'node:crypto'
import * as z from 'zod'
import { longestDirectory, startJob } from '@/core/formats/start-job'
import { houseIds } from '@/core/job/house-names'
import { houseJob } from '@/core/job/houses'
import { fault } from '@/core/outcome'
import { panelSchema } from '@/core/panel/schema'
import { line } from '@/core/quantity'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { listJobs, listQuerySchema } from '@/server/jobs/list'
import { createJob, readTemplate } from '@/server/jobs/repository'
import { firmLibrary } from '@/server/loads/library'
import { readWays } from '@/server/parts/repository'
import { currentActor } from '@/server/people/actor'
import { settingsOf } from '@/server/people/settings'

const newJobSchema = z.strictObject({
  title: line(80, 1),
  place: line(120),
  /** missing while nobody has seen the panel: that of the template, else a usual one */
  spaces: panelSchema.shape.spaces.optional(),
  mainA: panelSchema.shape.mainA.unwrap().optional(),
  /** its breakers, a line each or a table */
  directory: z
    .string()
    .max(longestDirectory, `must be at most ${longestDirectory.toLocaleString('en-US')} characters`)
    .default(''),
  /** what it starts with: a template of the firm, or one of our kinds of house */
  template: z
    .union([z.uuid(), z.enum(houseIds)], 'must be one of the firm’s templates, or a kind of house')
    .optional(),
})

/** One page of the firm's jobs, as the list is asked for in the address. */
export const GET = handle(async request =>
  listJobs(
    await currentActor(),
    listQuerySchema.parse(Object.fromEntries(new URL(request.url).searchParams)),
  ),
)

export const POST = handle(async request => {
  const { directory, template: templateId, ...facts } = await bodyAs(request, newJobSchema)
  const actor = await currentActor()
  const template =
    templateId === undefined
      ? null
      : (houseJob(templateId, await firmLibrary(actor)) ?? (await readTemplate(actor, templateId)))
  if (templateId !== undefined && !template)
    return refuse(400, 'No job was opened.', [
      fault('template', 'is no template of the firm any more: start from another'),
    ])
  const [panel] = template?.panels ?? []
  const { spaces = panel?.spaces ?? 30, mainA = panel?.mainA ?? 200 } = facts
  const job = startJob({ ...facts, spaces, mainA }, directory, randomUUID, template)
  if (!job.ok) return refuse(400, 'The breakers cannot all be read; no job was opened.', job.faults)
  const [{ habits }, { settings }] = await Promise.all([readWays(actor), settingsOf(actor)])
  const { wiring, handOver } = job.value
  const own = {
    ...job.value,
    // what a template says goes before
    ...(!template && { edition: settings.edition }),
    ...(!wiring && Object.keys(habits).length > 0 && { wiring: { habits } }),
    ...(!handOver && settings.telephone && { handOver: { phone: settings.telephone, warranties: [] } }),
  }
  return { id: await createJob(actor, own, 'opened the job', new Date()) }
})
