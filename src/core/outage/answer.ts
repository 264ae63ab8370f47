import { duration, figure, quantity } from '../units/format'
import type { Working } from '../working'
import type { Chance } from './chance'
import type { Plan } from './plan'
import type { CourseTrace } from './trace'
import { assumptions, generatorSentence, headline, largestTakers, sureness, tripSentence } from './words'

/** What a simulation answers, in words and tables: the screen, the command line and the report say the same. */
export interface OutageAnswer {
  headline: string
  sureness: string
  trips: string
  generator: string
  /** `dark`: circuits of the tier that are not fed at all */
  tiers: { tier: 1 | 2 | 3; name: string; fraction: number; low: number; high: number; dark: string[] }[]
  hours: string
  left: string
  assumptions: string[]
  working: Working
}

const tierNames = { 1: 'Must run', 2: 'Should run', 3: 'May go' } as const

export function answerOf(plan: Plan, chance: Chance, mean: CourseTrace): OutageAnswer {
  const { hours, endFraction } = chance
  const capped = (h: number) => (h >= plan.hours ? `${duration(plan.hours)} or more` : duration(h))
  const left = [endFraction.low, endFraction.middle, endFraction.high].map(f => quantity(f, 'fraction'))
  return {
    headline: headline(plan, chance, mean),
    sureness: sureness(chance),
    trips: tripSentence(plan, chance),
    generator: generatorSentence(plan, chance),
    tiers: ([1, 2, 3] as const).flatMap(tier => {
      const share = chance.served[tier - 1]
      return share
        ? [
            {
              tier,
              name: tierNames[tier],
              fraction: share.fraction,
              low: share.low,
              high: share.high,
              dark: plan.unserved.filter(u => u.tier === tier).map(u => u.name),
            },
          ]
        : []
    }),
    hours:
      hours.low >= plan.hours
        ? ''
        : `Until the first must-run circuit is dark: ${capped(hours.low)} in the worst twentieth, ${capped(hours.middle)} in the middle, ${capped(hours.high)} in the best twentieth.`,
    left:
      left[0] === left[2]
        ? `Left at the end: ${left[1]} of the store.`
        : `Left at the end: ${left[1]} of the store, from ${left[0]} to ${left[2]} in nine of ten.`,
    assumptions: assumptions(plan),
    working: workingOf(plan, chance, mean),
  }
}

function workingOf(plan: Plan, chance: Chance, mean: CourseTrace): Working {
  const { account } = mean
  const inWh = account.startWh + account.sunWh + account.generatorHouseWh + account.generatorChargeWh
  return {
    title: 'The outage, simulated',
    formula: [
      'from the battery in each step = the source’s own draw + load ÷ efficiency − sun − generator',
      'a store that reaches its reserve is off until it is a tenth above it again',
      'chance of lasting = draws in which no must-run circuit goes dark for want of energy ÷ all draws',
      'interval of a share: Wilson 1927, 95 %',
    ],
    inputs: [
      { label: 'Hours asked', value: plan.hours, unit: 'h', provenance: { from: 'job' } },
      ...plan.stores.map(s => ({
        label: `Usable, ${s.name}`,
        value: s.startWh - s.reserveWh,
        unit: 'Wh' as const,
        provenance: { from: 'catalogue' as const },
      })),
      ...largestTakers(plan, mean, 5).map(t => ({
        label: `Taken by circuit ${t.name}, mean course`,
        value: t.fraction,
        unit: 'fraction' as const,
      })),
    ],
    steps: [
      { label: 'Into the account, mean course', value: inWh, unit: 'Wh' },
      { label: 'To the loads', value: account.loadsWh, unit: 'Wh' },
      {
        label: 'Lost',
        value: account.idleWh + account.inverterWh + account.transformerWh + account.chargerWh,
        unit: 'Wh',
      },
      { label: 'Left in the stores', value: account.endWh, unit: 'Wh' },
      {
        label: 'Not accounted for',
        value: Math.abs(account.residualWh),
        unit: 'Wh',
        arithmetic: `${account.residualFraction.toExponential(1)} of all that went through`,
      },
      {
        label: 'Draws that last',
        value: chance.lasts.fraction,
        unit: 'fraction',
        arithmetic: `${Math.round(chance.lasts.fraction * chance.draws)} ÷ ${chance.draws}, seed ${chance.seed}`,
      },
    ],
    references: [],
    ruleOfThumb: thumb(plan),
    notes: assumptions(plan),
    notCovered: [
      'What thermostats make up for after the power was gone.',
      'Motors that start together as the panel is switched over: close their breakers one by one.',
      'How the battery’s voltage sags; how long the source really holds an overload (taken as 10 s).',
      'Habits that change when the power is out, beyond letting a large load wait.',
    ],
  }
}

/** Energy ÷ average load, less a tenth. */
export function thumb(plan: Plan): string {
  const Wh = plan.stores.reduce((sum, s) => sum + s.startWh - s.reserveWh, 0)
  const W = plan.tierMeanW.reduce((a, b) => a + b, 0)
  return W > 0 && Wh > 0
    ? `Energy ÷ average load, less a tenth for losses: ${figure((Wh * 0.9) / W)} h`
    : 'Energy ÷ average load: nothing draws, or nothing is stored'
}
