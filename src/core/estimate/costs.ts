import { effortOf } from '../assess/compare-methods'
import { countedLoads } from '../assess/needs'
import { unseenFraction } from '../first/unseen'
import { type Labour, usualLabour } from '../hookup/labour'
import { methodOf } from '../hookup/method'
import type { Job } from '../job/schema'
import { figure, quantity, sentenceStart } from '../units/format'
import { partsOfJob } from '../work/parts'
import type { PartLine } from '../work/parts/line'
import { partsOfSourceAlone } from '../work/parts/of-plan'
import { type OrderLine, orderOf } from '../work/parts/order'
import type { Price } from '../work/parts/prices'
import { type Minutes, workOfJob } from '../work/parts/tasks'
import type { Cost, Costs } from './cost'
import { guessUsd } from './guess'
import { centsOf, exactly } from './money'

export interface Pricing {
  prices: readonly Price[]
  minutes: Minutes
  labour?: Labour
  rates: { labourUsdPerHour: number; helperUsdPerHour: number }
}

/** Whether the wiring plan can tell what a job takes: a source, a way of connecting, and circuits of a real panel that it serves. */
export const isPlanned = (job: Job): boolean =>
  job.source !== undefined &&
  job.hookup.method !== 'undecided' &&
  job.panels.some(p => p.circuits.some(c => c.picked))

/** What a job costs the firm: from its wiring plan where there is one, else from the ranges of its method. */
export function costsOf(job: Job, pricing: Pricing): Costs {
  return isPlanned(job) ? ofPlan(job, pricing) : ofRanges(job, pricing)
}

const costOf = (l: OrderLine): Cost => {
  const priced = l.priceUsd
  const guess = priced === null ? guessUsd(l.kind, l.unit, l.toOrder) : null
  return {
    key: l.key.slice(0, 160),
    kind: l.kind === 'device' ? 'equipment' : 'material',
    name: sentenceStart(l.name).slice(0, 200),
    amount: l.unit === 'ft' ? quantity(l.needed, 'ft') : figure(l.needed),
    cents: guess
      ? { low: Math.max(1, centsOf(guess.low)), high: centsOf(guess.high) }
      : exactly(centsOf(priced ?? 0)),
    from: guess ? 'range of the kind' : l.bought.length ? 'price book' : 'catalogue',
  }
}

/** What is taken from stock is sold at what it would cost anew: the order list alone knows of the stock. */
const ordered = (parts: readonly PartLine[], prices: readonly Price[]) => orderOf([parts], prices).lines

const unpricedOf = (costs: readonly Cost[]) =>
  costs.filter(c => c.from === 'range of the kind').map(c => c.name)

function ofPlan(job: Job, { prices, minutes, rates }: Pricing): Costs {
  const parts = ordered(partsOfJob(job), prices).map(costOf)
  const work = workOfJob(job, minutes)
  const costs = [
    ...parts,
    ...hoursOf(work.hours, work.hours, 'Electrician', rates.labourUsdPerHour),
    ...hoursOf(work.helperHours, work.helperHours, 'Second pair of hands', rates.helperUsdPerHour),
  ]
  return { basis: 'wiring plan', costs, unpriced: unpricedOf(costs) }
}

function hoursOf(
  least: number,
  most: number,
  name: string,
  rateUsd: number,
  from: Cost['from'] = 'firm’s rate',
): Cost[] {
  if (most <= 0) return []
  const hours = (h: number) => Math.round(h * 10) / 10
  return [
    {
      key: `labour ${name}`,
      kind: 'labour',
      name,
      amount:
        least === most
          ? quantity(hours(most), 'h')
          : `${figure(hours(least))} to ${quantity(hours(most), 'h')}`,
      cents: { low: centsOf(hours(least) * rateUsd), high: centsOf(hours(most) * rateUsd) },
      from,
    },
  ]
}

function ofRanges(job: Job, { prices, labour = usualLabour, rates }: Pricing): Costs {
  const source = ordered(partsOfSourceAlone(job), prices).map(costOf)
  const { method } = job.hookup
  const circuits = new Set(countedLoads({ ...job, source: undefined }).map(l => l.need.circuit.id)).size
  const { labourHours, price } = effortOf(job, Math.max(1, circuits), labour)
  const hookup: Cost[] =
    method === 'undecided'
      ? []
      : [
          {
            key: `hook-up ${method}`,
            kind: 'material',
            name: `${methodOf(method).short}: devices, boxes, wire, fittings`,
            amount: '',
            cents: {
              low: Math.max(1, centsOf(price?.least ?? 100)),
              high: centsOf(price?.most ?? 2500),
            },
            from: 'range of the method',
          },
          ...hoursOf(
            labourHours.least,
            labourHours.most,
            'Electrician',
            rates.labourUsdPerHour,
            'range of the method',
          ),
        ]
  const unseen = Math.floor(hookup.reduce((sum, c) => sum + c.cents.high, 0) * unseenFraction)
  const costs: Cost[] = [
    ...source,
    ...hookup,
    ...(unseen
      ? [
          {
            key: 'unseen',
            kind: 'material' as const,
            name: 'What nobody has seen of the house',
            amount: '',
            cents: { low: 0, high: unseen },
            from: 'range of the method' as const,
          },
        ]
      : []),
  ]
  return { basis: 'method’s ranges', costs, unpriced: unpricedOf(costs) }
}
