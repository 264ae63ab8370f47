import * as z from 'zod'
import { type House, houseOf, houses } from '@/core/job/as-planned'
import type { Job } from '@/core/job/schema'
import type { Panel } from '@/core/panel/schema'
import { gone, refuse } from '@/server/http/handle'
import { readJobRecord } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'

export interface JobParams {
  params: Promise<{ id: string }>
}

/** The job of the address, and the name its files begin with; refused when this firm has none. */
export async function jobOf(
  params: JobParams['params'],
): Promise<{ job: Job; fileName: string; revision: number }> {
  const { id } = await params
  const record = z.uuid().safeParse(id).success ? await readJobRecord(await currentActor(), id) : null
  if (!record) return gone()
  const { job } = record
  const fileName =
    job.title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'job'
  return { job, fileName, revision: record.revision }
}

/** The picture of the house that the address asks for. */
export const houseAsked = (request: Request, usual: House = 'planned'): House =>
  z.enum(houses).catch(usual).parse(new URL(request.url).searchParams.get('house'))

/** The panel that the address asks for, or the first. */
export function panelAsked(whole: Job, request: Request, usual?: House): Panel {
  const job = houseOf(whole, houseAsked(request, usual))
  const wanted = new URL(request.url).searchParams.get('panel')
  const panel = wanted === null ? job.panels[0] : job.panels.find(p => p.id === wanted)
  return panel ?? refuse(404, 'This job has no such panel; it may have been removed.')
}
