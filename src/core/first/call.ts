import * as z from 'zod'
import { briefSchema, mostWants } from '../ask/brief'
import { outageSchema } from '../ask/outage-asked'
import { thingOf } from '../ask/things'
import { answered, ownLoad, understood, wantOf } from '../ask/want'
import { newJob } from '../job/new'
import type { Job } from '../job/schema'
import type { Typical } from '../loads/typical'
import { type Fault, fault, type Outcome, ok } from '../outcome'
import { line, within } from '../quantity'

const wantedSchema = z.union([
  line(200, 1),
  z.strictObject({
    what: line(200, 1),
    /** id of the answer to the one question about it */
    answer: line(40, 1).optional(),
    nice: z.literal(true).optional(),
    watts: within(1, 20_000, 'W').optional(),
    hoursPerDay: within(0, 24, 'h').optional(),
    volts: z.union([z.literal(120), z.literal(240)], 'must be 120 or 240').optional(),
  }),
])

/** A first call as a file: what must live, for how long, and whatever else was said. */
export const callSchema = z.strictObject({
  title: line(80).default('First call'),
  wants: z
    .array(wantedSchema)
    .min(1, 'must name what must live: one thing is enough')
    .max(mostWants, `must hold at most ${mostWants}`),
  hours: outageSchema.shape.hours,
  outdoorC: outageSchema.shape.outdoorC,
  ...briefSchema.omit({ wants: true }).shape,
})
export type FirstCall = z.infer<typeof callSchema>

/** The job that a first call comes to. Faults: an answer that its thing does not know. */
export function callJob(call: FirstCall, library: readonly Typical[]): Outcome<Job> {
  const { title, wants, hours, outdoorC, ...brief } = call
  const job = newJob({ title: title || 'First call', place: '', spaces: 30, mainA: 200 })
  let n = 0
  const making = {
    library: library.map(typical => ({ typical, firms: false })),
    season: brief.season === 'any' || brief.season === 'unknown' ? undefined : brief.season,
    newId: () => `w${++n}`,
  }
  const faults: Fault[] = []
  const made = wants.flatMap((given, at) => {
    const said = typeof given === 'string' ? { what: given } : given
    return understood(said.what, library).map(u => {
      const want = wantOf(u, making)
      const named = { ...want, ...('nice' in said && said.nice && { nice: said.nice }) }
      if ('watts' in said && said.watts !== undefined)
        return ownLoad(named, said.watts, said.hoursPerDay ?? 24, said.volts ?? 120, making.newId)
      if (!('answer' in said) || said.answer === undefined) return named
      const options = thingOf(named.thing)?.options ?? []
      if (!options.some(o => o.id === said.answer))
        faults.push(
          fault(
            `wants.${at}.answer`,
            `is no answer about ${named.name}: ${options.map(o => o.id).join(', ') || 'there is nothing to ask'}`,
          ),
        )
      return answered(named, said.answer, making)
    })
  })
  if (made.length > mostWants) faults.push(fault('wants', `are ${made.length} things: at most ${mostWants}`))
  if (faults.length) return { ok: false, faults }
  return ok({
    ...job,
    brief: { ...brief, wants: made },
    outage: { ...job.outage, hours, ...(outdoorC !== undefined && { outdoorC }) },
  })
}
