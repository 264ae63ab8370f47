import { type Habits, usualHabits } from '@/core/hookup/wiring-choices'
import type { Job } from '@/core/job/schema'
import { partsOfJob } from '@/core/work/parts'
import { otherWays } from '@/core/work/parts/alternatives'
import type { PartLine } from '@/core/work/parts/line'
import type { Price } from '@/core/work/parts/prices'
import type { Minutes } from '@/core/work/parts/tasks'

/** The demo firm’s price book: every part that the demo jobs take, wired any way, at made-up prices. */

const on = '2026-10-05'
const near = 'Yard counter'
const far = 'Ridge wholesale'

/** $ a foot of copper, by size */
const wireUsd: Record<string, number> = {
  '14': 0.17,
  '12': 0.25,
  '10': 0.41,
  '8': 0.74,
  '6': 1.12,
  '4': 1.74,
  '3': 2.15,
  '2': 2.66,
  '1': 3.4,
  '1-0': 4.2,
  '2-0': 5.3,
  '3-0': 6.6,
  '4-0': 8.2,
}
const racewayUsd: Record<string, number> = { EMT: 0.95, RMC: 3.6, PVC40: 0.8, 'LFNC-B': 1.9, FMC: 1.05 }
const tradeFactor: Record<string, number> = {
  '1-2': 1,
  '3-4': 1.5,
  '1': 2.4,
  '1-1-4': 3.6,
  '1-1-2': 4.4,
  '2': 6,
}
const fittingUsd: Record<string, number> = {
  connector: 0.9,
  'connector-raintight': 2.1,
  coupling: 0.8,
  strap: 0.35,
  elbow: 2.2,
  body: 6.5,
}
/** $ and how many in a put-up, by the beginning of the key */
const others: readonly [RegExp, number, number][] = [
  [/^breaker-2p-/, 24, 1],
  [/^breaker-1p-\d+$/, 9, 1],
  [/^breaker-1p-/, 52, 1],
  [/^position-breaker-/, 14, 1],
  [/^panel-/, 118, 1],
  [/^ground-bar$/, 11, 1],
  [/^hold-down$/, 12, 1],
  [/^handle-tie$/, 6, 1],
  [/^breaker-lock$/, 9, 1],
  [/^filler$/, 2.5, 1],
  [/^bonding-jumper$/, 8, 1],
  [/^twist-small$/, 14, 100],
  [/^twist-large$/, 16, 50],
  [/^lever-2$/, 22, 50],
  [/^lever-3$/, 26, 50],
  [/^lever-3-large$/, 33, 30],
  [/^tap-insulated$/, 11, 1],
  [/^lug-/, 4.5, 1],
  [/^bushing-/, 1.1, 1],
  [/^disconnect-/, 310, 1],
  [/^inlet-50$/, 96, 1],
  [/^box-4x/, 4.2, 1],
  [/^box-/, 36, 1],
  [/^receptacle-\d+-/, 34, 1],
  [/^receptacle-/, 4, 1],
  [/^cover-plate$/, 1.5, 1],
  [/^cord-plug-/, 16, 1],
  [/^cord-/, 74, 1],
  [/^adapter-/, 38, 1],
  [/^label-sheet$/, 11, 25],
  [/^directory-card$/, 1, 1],
  [/^notice$/, 9, 1],
  [/^wire-markers$/, 7, 1],
  [/^tape-/, 5, 1],
  [/^anti-oxidant$/, 8, 1],
  [/^fire-stop$/, 22, 1],
  [/^mounting-screws$/, 6, 1],
]

const cents = (usd: number) => Math.round(usd * 100) / 100

function pricesOf({ key, name, kind, catalogueUsd }: PartLine): Price[] {
  const price = (quantity: number, priceUsd: number | null, supplier: string): Price => ({
    part: key,
    name,
    quantity,
    priceUsd,
    supplier,
    substitutes: key.startsWith('twist-') ? ['lever-3-large'] : [],
    on,
  })
  const wire = /^(wire|cable)-(cu|al)-(\d+(?:-0)?)-/.exec(key)
  if (wire) {
    const [, of, metal, size = ''] = wire
    const ft = (wireUsd[size] ?? 9) * (metal === 'al' ? 0.45 : 1) * (of === 'cable' ? 1.6 : 1)
    const rolls = ['14', '12', '10'].includes(size) ? [price(500, cents(ft * 500), far)] : []
    return [price(1, cents(ft * 1.4), near), ...rolls]
  }
  const raceway = /^raceway-([A-Z0-9-]+?)-(\d(?:-\d){0,2})$/.exec(key)
  if (raceway) {
    const [, of = '', size = ''] = raceway
    const ft = (racewayUsd[of] ?? 2) * (tradeFactor[size] ?? 3)
    return [price(10, cents(ft * 10), near)]
  }
  if (kind === 'fitting' && !/^(lug|bushing)-/.test(key)) {
    const [, what = '', size = ''] = /^([a-z-]+)-[A-Z].*?-(\d(?:-\d){0,2})$/.exec(key) ?? []
    return [price(1, cents((fittingUsd[what] ?? 3) * (tradeFactor[size] ?? 1)), near)]
  }
  const other = others.find(([of]) => of.test(key))
  if (other) return [price(other[2], other[1], near)]
  // what the catalogue prices needs no row; the rest is asked for
  return catalogueUsd === null ? [price(1, null, far)] : []
}

export function pricesFor(jobs: readonly Job[]): Price[] {
  const lines = new Map<string, PartLine>()
  const ways: Partial<Habits>[] = [usualHabits, ...otherWays]
  for (const job of jobs)
    for (const habits of ways)
      for (const line of partsOfJob({ ...job, wiring: { ...job.wiring, habits } })) lines.set(line.key, line)
  return [...lines.values()].sort((a, b) => a.key.localeCompare(b.key)).flatMap(pricesOf)
}

/** The demo firm’s own minutes, where they are not the usual ones. */
export const firmMinutes: Minutes = [
  { work: 'lead', firstMin: 25, eachMin: 12 },
  { work: 'raceway', firstMin: 20, eachMin: 2.5 },
  { work: 'test', firstMin: 40, eachMin: 5 },
]

/** What of it lies in the demo firm’s van. */
export const vanStock: Record<string, number> = {
  'wire-cu-10-black': 140,
  'wire-cu-10-green': 90,
  'twist-small': 60,
  'twist-large': 8,
  'strap-EMT-1-2': 22,
  'connector-EMT-1-2': 9,
  'tape-vinyl': 4,
  'directory-card': 30,
}
