import * as z from 'zod'
import { circuitOf } from '@/core/job/panels'
import { feedOf } from '@/core/panel/positions'
import { line } from '@/core/quantity'
import { handle, refuse } from '@/server/http/handle'
import { meterHeader, play } from '@/simulators/meter'
import { seedOf } from '@/simulators/seeded'
import { type JobParams, jobOf } from '../../params'

const asked = z.object({
  circuit: line(40, 1),
  load: line(40, 1),
  hours: z.coerce
    .number()
    .min(0.01)
    .max(24 * 14),
  stepS: z.coerce.number().min(1).max(3600),
  /** seconds of the log in a second; 0: as fast as it goes */
  speed: z.coerce.number().min(0).max(100_000),
})

/** The simulated meter: plays a load of the job as a meter on its plug would log it, row by row, faster than time where asked. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job } = await jobOf(params)
  const { id } = await params
  const given = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!given.success) return refuse(400, 'Say which load, for how many hours and how fast.')
  const { hours, stepS, speed } = given.data
  const found = circuitOf(job, given.data.circuit)
  const load = found?.circuit.loads.find(l => l.id === given.data.load)
  if (!found || !load) return refuse(404, 'This load is no longer in the job.')
  const now = new Date()
  const rows = play({
    load,
    volts: feedOf(found.panel, found.circuit) === 'both' ? 240 : 120,
    startClockS: Math.floor(now.getTime() / 1000) - now.getTimezoneOffset() * 60,
    hours,
    stepS,
    seed: seedOf(id),
  })
  return new Response(streamed(rows, speed / stepS, request.signal), {
    headers: { 'content-type': 'text/csv' },
  })
})

const encoder = new TextEncoder()

/** Rows as a meter sends them: `perSecond` of them each second, or in large pieces as fast as they are taken. */
function streamed(
  rows: Generator<string>,
  perSecond: number,
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  let sentAt = 0
  let owed = 0
  return new ReadableStream({
    start: controller => {
      controller.enqueue(encoder.encode(`${meterHeader}\n`))
      sentAt = Date.now()
    },
    pull: async controller => {
      let count = 500
      if (perSecond > 0) {
        await new Promise(resolve => setTimeout(resolve, Math.max(100, 1000 / perSecond)))
        const now = Date.now()
        owed += ((now - sentAt) / 1000) * perSecond
        sentAt = now
        count = Math.max(1, Math.floor(owed))
        owed = Math.max(0, owed - count)
      }
      if (signal.aborted) return controller.close()
      const lines: string[] = []
      let ended = false
      while (lines.length < count && !ended) {
        const { done, value } = rows.next()
        if (done) ended = true
        else lines.push(value)
      }
      if (lines.length) controller.enqueue(encoder.encode(`${lines.join('\n')}\n`))
      if (ended) controller.close()
    },
  })
}
