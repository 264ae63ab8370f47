import * as z from 'zod'
import { utilityViews } from '@/core/loads/utility-year'
import { line } from '@/core/quantity'
import { zoneSchema } from '@/core/zone-clock'
import { readFile } from '@/server/files/repository'
import { bodyParts, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { largestIntervalFile, tooLargeIntervals } from '@/server/utility/intake'
import { listIntervals, readMeter } from '@/server/utility/repository'
import { type JobParams, jobOf } from '../../params'
import { keepIntervals, partsOf } from './keep'

const meterAsked = z.object({
  series: z.uuid(),
  meter: line(120, 1),
  flow: z.enum(['forward', 'reverse', 'net']),
})

/** What is kept of the utility's data; with `series`, `meter` and `flow` what is drawn of that meter. */
export const GET = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  const asked = new URL(request.url).searchParams
  if (!asked.has('series')) return { series: await listIntervals(actor, id) }
  const { data } = meterAsked.safeParse(Object.fromEntries(asked))
  const meter = data && (await readMeter(actor, id, data.series, data.meter, data.flow))
  const views = meter && utilityViews(meter)
  return views ? { views } : refuse(404, 'There is no such meter in this job, or nothing of it can be drawn.')
})

/** Takes in a file of the utility as it streams; with `file` one that the customer has sent. */
export const POST = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  const asked = new URL(request.url).searchParams
  const actor = await currentActor()
  const zone = zoneSchema.safeParse(asked.get('zone') ?? actor.zone)
  if (!zone.success)
    return refuse(400, 'No clocks of that time zone are known: give a name such as America/New_York.')
  const fileId = asked.get('file')
  if (fileId) {
    const file = z.uuid().safeParse(fileId).success ? await readFile(actor, fileId) : null
    if (!file) return refuse(404, 'This file is not kept here.')
    return keepIntervals(actor, id, file.name, partsOf(file.content), zone.data, false)
  }
  const named = line(120).safeParse(asked.get('name') ?? '')
  if (!request.body) return refuse(400, 'There is no file in it.')
  return keepIntervals(
    actor,
    id,
    (named.success && named.data) || 'utility file',
    bodyParts(request, largestIntervalFile, tooLargeIntervals),
    zone.data,
    true,
  )
})
