import * as z from 'zod'
import { line, within } from '../quantity'

/** Why somebody comes back to a house, or tells of it. */
export const visitKinds = {
  trips: { name: 'A circuit trips', about: 'what tripped, on what, since when' },
  moved: { name: 'A circuit is moved in or out', about: 'which one, and why' },
  unit: { name: 'A unit is added', about: 'which one, and where it stands' },
  load: { name: 'A load was bought', about: 'what it is, and where it is plugged in' },
  'yearly test': { name: 'Yearly test', about: 'what was tried, and what came of it' },
  outage: { name: 'An outage was lived through', about: 'what happened' },
} as const
export type VisitKind = keyof typeof visitKinds
export const visitKindKeys = Object.keys(visitKinds) as [VisitKind, ...VisitKind[]]

const day = z.iso.date('must be a date: YYYY-MM-DD')

/** What stood when a visit was opened, as far as it is printed or weighed: the visit is told against it. */
export const standingSchema = z.strictObject({
  revision: z.int('must be a whole number').min(1),
  figures: z.array(z.strictObject({ id: line(40, 1), value: z.number().nullable() })).max(24),
  /** every breaker as the directory and the labels have it */
  directory: z.array(line(240, 1)).max(700),
  /** the card, line by line; empty where there was none */
  card: z.array(line(800)).max(300),
})
export type StandingThen = z.infer<typeof standingSchema>

export const visitSchema = z.strictObject({
  id: line(40, 1),
  kind: z.enum(visitKindKeys),
  on: day,
  by: line(60, 1),
  text: line(500),
  before: standingSchema,
  /** an outage that was lived through: how long, whether it carried, what the simulation says of it */
  lived: z
    .strictObject({
      hours: within(0.1, 720, 'h'),
      carried: z.enum(['all of it', 'some of it', 'none of it'], 'must be chosen'),
      /** what a full store was worked out to last then, h; null where nothing was stored */
      predictedH: within(0, 100_000, 'h').nullable(),
    })
    .optional(),
  /** the day on which it was closed; missing while it is open */
  closedOn: day.optional(),
  done: line(500).optional(),
})
export type Visit = z.infer<typeof visitSchema>
export const mostVisits = 120

/** What is handed over beside what is computed: the firm’s own data of the units, and from when the years count. */
export const handOverSchema = z.strictObject({
  /** the day on which the house was handed over */
  on: day.optional(),
  /** where who lives there finds things, in their words: it stands on the card */
  where: z.strictObject({ source: line(60).optional(), inlet: line(60).optional() }).optional(),
  /** whom the card says to call */
  phone: line(30).optional(),
  /** what a medical device runs on when all of this does not */
  secondWay: line(120).optional(),
  warranties: z
    .array(
      z
        .strictObject({
          unitId: line(40, 1),
          serial: line(60).optional(),
          from: day,
          until: day,
        })
        .refine(w => w.until >= w.from, { path: ['until'], message: 'must not be before it begins' }),
    )
    .max(12, 'must hold at most 12 warranties'),
})
export type HandOver = z.infer<typeof handOverSchema>
