import { type Habits, usualHabits } from '../../hookup/wiring-choices'
import type { Job } from '../../job/schema'
import { type ConduitKind, conduitKinds } from '../../units/tables/conduit'
import { partsOfJob } from '.'
import { partKinds } from './line'
import { orderOf } from './order'
import type { Price } from './prices'

/** One other way to wire the same, and what it costs more or less. */
export interface Alternative {
  /** what would be set */
  facts: Partial<Habits>
  label: string
  chosen: boolean
  /** $ more than as chosen, of the parts with a price; null where a part that differs has none */
  moreUsd: number | null
  /** $ of doing it later, by itself, where that may be put off; null where it is not known */
  laterUsd?: number | null
}

export interface Choice {
  habit: keyof Habits
  title: string
  why: string
  alternatives: Alternative[]
}

const racewayWhy: Record<ConduitKind, string> = {
  EMT: 'cheap, rigid, bent on site; its metal guards the wires',
  RMC: 'for where it may be struck',
  PVC40: 'does not rust; expands with heat and needs more straps',
  'LFNC-B': 'flexible, for wet places and short ways',
  FMC: 'flexible, for dry places and short ways',
}

const choices: {
  habit: keyof Habits
  title: string
  why: string
  values: { value: unknown; label: string }[]
}[] = [
  {
    habit: 'feederMetal',
    title: 'Feeders of 60 A and more',
    why: 'Aluminum is thicker and cheaper; its ends take anti-oxidant and terminals marked for it (NEC 110.14).',
    values: [
      { value: 'cu', label: 'copper' },
      { value: 'al', label: 'aluminum' },
    ],
  },
  {
    habit: 'raceway',
    title: 'Raceway',
    why: 'Where the job names no other and the place is dry.',
    values: conduitKinds.map(kind => ({ value: kind, label: `${kind}: ${racewayWhy[kind]}` })),
  },
  {
    habit: 'connectors',
    title: 'Splices',
    why: 'Where the wires are in its range; thicker ones, and aluminum to copper, take a set-screw connector listed for them.',
    values: [
      { value: 'twist-on', label: 'twist-on' },
      { value: 'lever', label: 'lever' },
    ],
  },
  {
    habit: 'oneSizeUp',
    title: 'Thickness',
    why: 'One size thicker loses fewer volts on a long way; its ground grows with it (NEC 250.122(B)).',
    values: [
      { value: false, label: 'as asked' },
      { value: true, label: 'one size up' },
    ],
  },
  {
    habit: 'growth',
    title: 'A second unit later',
    why: 'Inlet, its wire and raceway for 50 A now; the breaker stays as it is until then.',
    values: [
      { value: false, label: 'as designed' },
      { value: true, label: 'ready for 50 A' },
    ],
  },
]

/** The job with one habit otherwise. */
const wiredAs = (job: Job, facts: Partial<Habits>): Job => ({
  ...job,
  wiring: { ...job.wiring, habits: { ...job.wiring?.habits, ...facts } },
})

/** What the firm’s habits decide on this job, with the price of each other way. */
export function choicesOf(job: Job, book: readonly Price[]): Choice[] {
  const now = { ...usualHabits, ...job.wiring?.habits }
  const chosen = orderOf([partsOfJob(job)], book)
  return choices.map(({ habit, title, why, values }) => ({
    habit,
    title,
    why,
    alternatives: values.map(({ value, label }) => {
      const facts = { [habit]: value } as Partial<Habits>
      if (now[habit] === value) return { facts, label, chosen: true, moreUsd: 0 }
      const other = orderOf([partsOfJob(wiredAs(job, facts))], book)
      const more = { facts, label, chosen: false, moreUsd: difference(chosen, other) }
      return habit === 'growth' && value === true ? { ...more, laterUsd: ofInlet(other) } : more
    }),
  }))
}

/** Every other way that a firm may choose, one habit at a time. */
export const otherWays: readonly Partial<Habits>[] = choices.flatMap(({ habit, values }) =>
  values.map(({ value }) => ({ [habit]: value })),
)

type Lines = ReturnType<typeof orderOf>

/** $ of the inlet and its run by themselves: what it would cost to do them anew. */
function ofInlet({ lines }: Lines): number | null {
  let usd = 0
  for (const { why, kind, needed, priceUsd } of lines) {
    const share = why.reduce(
      (sum, w) => sum + (w.at.of === 'inlet' || w.at.of === 'mount:inlet' ? w.quantity : 0),
      0,
    )
    if (!share) continue
    if (priceUsd === null) return null
    usd += (priceUsd * Math.min(needed, share * (1 + partKinds[kind].wasteFraction))) / needed
  }
  return usd
}

function difference(a: Lines, b: Lines): number | null {
  const open = (order: Lines, without: Lines) =>
    order.lines.some(
      l =>
        l.priceUsd === null &&
        Math.abs((without.lines.find(o => o.key === l.key)?.needed ?? 0) - l.needed) > 1e-9,
    )
  return open(a, b) || open(b, a) ? null : b.knownUsd - a.knownUsd
}

/** Keys of every part that the job takes, wired this way or any other of the choices: what a price is wanted of. */
export function partsConsidered(job: Job): string[] {
  const ways = otherWays.map(facts => wiredAs(job, facts))
  return [...new Set([job, ...ways].flatMap(j => partsOfJob(j).map(p => p.key)))]
}
