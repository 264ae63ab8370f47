import { duration, figure, quantity, sentenceStart, together } from '../units/format'
import type { Chance } from './chance'
import type { Cause } from './course-outcome'
import type { Plan } from './plan'
import type { CourseTrace } from './trace'

/** What a simulation says, in sentences. */

const seasonsOf: Record<string, string> = {
  winter: 'winters',
  spring: 'springs',
  summer: 'summers',
  autumn: 'autumns',
}
const times = (plan: Plan) => (plan.season ? `${seasonsOf[plan.season]} like this` : 'such outages')
/** Out of a hundred; never all or none unless every draw said so. */
export function outOf100(fraction: number): string {
  const n = Math.round(fraction * 100)
  if (n === 100 && fraction < 1) return 'more than 99'
  if (n === 0 && fraction > 0) return 'fewer than 1'
  return String(n)
}

/** `2 circulators, 41 %`: the circuits that took most of the energy, of the mean course. */
export function largestTakers(
  plan: Plan,
  trace: CourseTrace,
  most = 1,
): { name: string; fraction: number }[] {
  const all = trace.account.byCircuitWh.reduce((a, b) => a + b, 0)
  return plan.circuits
    .map((c, n) => ({ name: c.name, fraction: all > 0 ? (trace.account.byCircuitWh[n] ?? 0) / all : 0 }))
    .sort((a, b) => b.fraction - a.fraction)
    .slice(0, most)
}

const whyOf = (plan: Plan, trace: CourseTrace, chance: Chance, cause: Cause, store: number): string => {
  const [taker] = largestTakers(plan, trace)
  const mostly =
    taker && taker.fraction > 0.15
      ? `; circuit ${taker.name} takes the most, ${quantity(taker.fraction, 'fraction')}`
      : ''
  switch (cause) {
    case 'store empty':
      return plan.stores.length > 1
        ? `${plan.stores[store]?.name ?? 'one battery'} is empty first${strandedText(plan, trace, store)}${mostly}`
        : `the store is down to its reserve${mostly}`
    case 'let go':
      return 'it is let go by the shedding that is set'
    case 'cannot carry':
      return 'the picked circuits together draw more, even on average, than the source gives'
    case 'too cold':
      return 'the battery does not work in that cold'
    case 'trip':
      return `an overload ${tripsWhat(plan)}, mostly ${tripText(plan, chance)}`
    default:
      return ''
  }
}

/** What the other battery still holds when one is empty, of the mean course. */
function strandedText(plan: Plan, { points, outcome }: CourseTrace, store: number): string {
  const other = plan.stores[1 - store]
  const at = points.hour.findIndex(h => h >= outcome.emptyH)
  if (!other || at < 0 || outcome.emptyStore !== store) return ''
  const fraction = (points.storesWh[1 - store]?.[at] ?? 0) / Math.max(1, other.capacityWh)
  return fraction > 0.2 ? ` while ${other.name} still holds ${quantity(fraction, 'fraction')}` : ''
}

/** What goes dark first when the energy does not last, as the subject and verb of a sentence. */
function goesFirst(plan: Plan, chance: Chance): string {
  const [first] = chance.causes
  if (!first) return ''
  if (plan.shedding.policy !== 'none' && plan.hasTier[2]) return 'what may go is let go first'
  if (plan.stores.length > 1 && !plan.both && first.store >= 0) {
    const on = plan.circuits.filter(c => (c.share[first.store] ?? 0) > 0).map(c => c.name)
    return on.length > 3
      ? `the ${on.length} circuits of ${first.store === 0 ? 'L1' : 'L2'} go first`
      : `${circuitsText(on)} ${on.length > 1 ? 'go' : 'goes'} first`
  }
  return plan.circuits.length === 1
    ? `circuit ${plan.circuits[0]?.name} goes dark`
    : 'every circuit goes at once'
}

/** `circuit 5 Refrigerator`, `circuits 5 Refrigerator and 7 Furnace`. */
const circuitsText = (names: readonly string[], most = 3): string =>
  `${names.length > 1 ? 'circuits' : 'circuit'} ${together(names.length > most ? [...names.slice(0, most), `${names.length - most} more`] : names)}`

/** The sentence first: how long, how likely, what goes first and why. */
export function headline(plan: Plan, chance: Chance, mean: CourseTrace): string {
  const must = plan.unserved.filter(u => u.tier === 1).map(u => u.name)
  const others = plan.unserved.filter(u => u.tier !== 1).map(u => u.name)
  const lasts = lastsSentence(plan, chance, mean)
  return [
    must.length &&
      `${sentenceStart(circuitsText(must))} must run and ${must.length > 1 ? 'are' : 'is'} not fed at all.`,
    must.length && plan.circuits.length
      ? `What is fed ${lasts.charAt(0).toLowerCase()}${lasts.slice(1)}`
      : lasts,
    others.length && `${must.length ? 'Dark too' : 'Not fed at all'}: ${circuitsText(others)}.`,
  ]
    .filter(Boolean)
    .join(' ')
}

function lastsSentence(plan: Plan, chance: Chance, mean: CourseTrace): string {
  const asked = quantity(plan.hours, 'h')
  if (!plan.circuits.length) return `Nothing is picked: only the source’s own draw runs for ${asked}.`
  const [first] = chance.causes
  const all = chance.draws.toLocaleString('en-US')
  const goes = first
    ? `, ${goesFirst(plan, chance)}, because ${whyOf(plan, mean, chance, first.cause, first.store)}`
    : ''
  if (chance.lasts.fraction === 1) return `Lasts ${asked} in all of ${all} ${times(plan)}.`
  if (chance.lasts.fraction === 0)
    return `Does not last ${asked} in any of ${all} ${times(plan)}: after ${duration(chance.hours.middle)} in the middle one${goes}.`
  return `Lasts ${asked} in ${outOf100(chance.lasts.fraction)} of 100 ${times(plan)}; in the others, after about ${duration(first?.atH ?? 0)}${goes}.`
}

/** How sure the chance is. */
export const sureness = ({ lasts, draws }: Chance): string =>
  `From ${draws.toLocaleString('en-US')} draws: between ${outOf100(lasts.low)} and ${outOf100(lasts.high)} of 100 (95 % interval).`

/** What an overload opens: the source, or first the breaker on the way where that holds less. */
const tripsWhat = ({ limits: { breaker, held } }: Plan): string => {
  const heldVA = breaker?.perLeg ? Math.min(...held.legVA) : held.totalVA
  return breaker && breaker.ratedVA < heldVA
    ? `opens the ${breaker.name} or trips the source`
    : 'trips the source'
}

/** The commonest overload. */
function tripText(plan: Plan, { tripKinds: [kind] }: Chance): string {
  if (!kind) return ''
  const trigger = plan.loads[kind.trigger]
  const beside = plan.loads[kind.beside]?.name
  return `${trigger?.name ?? 'several loads at once'}${(trigger?.startVA ?? 0) > 0 ? ' starting' : ''}${beside ? ` while ${beside} runs` : ' by itself'}`
}

/** Overloads, in a sentence; empty where there is none. */
export const tripSentence = (plan: Plan, chance: Chance): string =>
  chance.tripKinds.length
    ? `In ${outOf100(chance.trips.fraction)} of 100 an overload ${tripsWhat(plan)}: mostly ${tripText(plan, chance)}.`
    : ''

/** The generator, in a sentence; empty without one. */
export function generatorSentence(plan: Plan, { generatorH, gallons, fuelGone }: Chance): string {
  if (!plan.generator) return ''
  if (plan.generator.gallons <= 0)
    return `The ${plan.generator.name} has no fuel: 0 gallons are kept. It never runs.`
  const gone =
    fuelGone.fraction > 0
      ? ` The ${quantity(plan.generator.gallons, 'gal')} kept are used up in ${outOf100(fuelGone.fraction)} of 100.`
      : ''
  return `The ${plan.generator.name} runs ${quantity(generatorH.middle, 'h')} on ${quantity(gallons.middle, 'gal')} in the middle case (${figure(generatorH.low)} to ${figure(generatorH.high)} h).${gone}`
}

/** What is lost and where, in words for the account. */
export function accountRows(
  plan: Plan,
  { account }: CourseTrace,
): { side: 'in' | 'out' | 'lost' | 'left'; name: string; Wh: number }[] {
  const rows: { side: 'in' | 'out' | 'lost' | 'left'; name: string; Wh: number }[] = [
    { side: 'in', name: 'Stored at the beginning', Wh: account.startWh },
    { side: 'in', name: 'Sun', Wh: account.sunWh },
    { side: 'in', name: 'Generator, straight to the loads', Wh: account.generatorHouseWh },
    { side: 'in', name: 'Generator, into the charger', Wh: account.generatorChargeWh },
    ...plan.circuits.map((c, n) => ({ side: 'out' as const, name: c.name, Wh: account.byCircuitWh[n] ?? 0 })),
    { side: 'lost', name: 'The source’s own draw', Wh: account.idleWh },
    { side: 'lost', name: 'Inverter', Wh: account.inverterWh },
    { side: 'lost', name: 'Autotransformer', Wh: account.transformerWh },
    { side: 'lost', name: 'Charger', Wh: account.chargerWh },
    { side: 'left', name: 'Stored at the end', Wh: account.endWh },
  ]
  return rows.filter(r => r.Wh > 0 || r.side === 'left')
}

/** What the simulation takes for granted, in words. */
export function assumptions(plan: Plan): string[] {
  const { weather } = plan
  return [
    weather.year
      ? `Weather of ${weather.year.name}.`
      : plan.arrays.length
        ? `No weather file: sun by clear sky and clouds in closed form, ${quantity(weather.cloudFraction, 'fraction')} of the sky cloudy.`
        : '',
    weather.outdoorC === null && !weather.year && plan.loads.some(l => l.weather)
      ? 'No outdoor temperature: heating and cooling stay as they were read.'
      : '',
    plan.beginsH === null
      ? 'Any hour of beginning: each draw has its own; the mean has loads of an average hour, and a sun that begins at 18:00.'
      : '',
    ...plan.assumed.map(a => `Assumed: ${a}.`),
    `People let a large load wait in ${quantity(plan.heedFraction, 'fraction')} of the times.`,
    ...(plan.generator && !plan.generator.carriesHouse
      ? [`The ${plan.generator.name} only charges: the house stays on the source meanwhile.`]
      : []),
    ...plan.arrays.flatMap(a =>
      a.works ? [] : [`${a.name} brings nothing: its volts do not suit the input.`],
    ),
  ].filter(Boolean)
}
