import { type Habits, habitsSchema } from '@/core/hookup/wiring-choices'
import type { Stock } from '@/core/search/stock'
import { mostPrices, type Price } from '@/core/work/parts/prices'
import { type Minutes, minutesSchema } from '@/core/work/parts/tasks'
import { db } from '../db/connection'
import { always, transaction } from '../db/transaction'
import type { Actor } from '../people/types'

type Firm = Pick<Actor, 'firmId'>
const someHabits = habitsSchema.partial()

interface PriceRow {
  part: string
  quantity: number
  supplier: string
  name: string
  price_usd: number | null
  substitutes: string[]
  priced_on: string
}

const priceOf = (r: PriceRow): Price => ({
  part: r.part,
  name: r.name,
  quantity: r.quantity,
  priceUsd: r.price_usd,
  supplier: r.supplier,
  substitutes: r.substitutes,
  on: r.priced_on,
})
const rowOf = (firmId: string, p: Price) => ({
  firm_id: firmId,
  part: p.part,
  quantity: p.quantity,
  supplier: p.supplier,
  name: p.name,
  price_usd: p.priceUsd,
  substitutes: p.substitutes,
  priced_on: p.on,
})
const columns = ['part', 'quantity', 'supplier', 'name', 'price_usd', 'substitutes', 'priced_on'] as const
const key = ['firm_id', 'part', 'quantity', 'supplier'] as const

/** The firm's prices of these parts. */
export async function pricesOf({ firmId }: Firm, parts: readonly string[]): Promise<Price[]> {
  const rows: PriceRow[] = await db({ firmId })('part_price')
    .where({ firm_id: firmId })
    .whereIn('part', [...parts])
    .orderBy(['part', 'quantity', 'supplier'])
    .select(...columns)
  return rows.map(priceOf)
}

/** The whole book, in the order of the parts. */
export async function priceBook({ firmId }: Firm): Promise<Price[]> {
  const rows: PriceRow[] = await db({ firmId })('part_price')
    .where({ firm_id: firmId })
    .orderBy(['part', 'quantity', 'supplier'])
    .limit(mostPrices)
    .select(...columns)
  return rows.map(priceOf)
}

const atOnce = 1000

/** Takes prices over, all or none: a put-up that is there gets the newer price. The number that were taken. */
export async function takePrices(
  { firmId }: Firm,
  prices: readonly Price[],
): Promise<{ taken: number } | { tooMany: number }> {
  return transaction<{ taken: number } | { tooMany: number }>(
    { firmId },
    async trx => {
      let taken = 0
      for (let n = 0; n < prices.length; n += atOnce) {
        const rows = prices.slice(n, n + atOnce).map(p => rowOf(firmId, p))
        const written = await trx('part_price')
          .insert(rows)
          .onConflict([...key])
          .merge(['name', 'price_usd', 'substitutes', 'priced_on'])
          .where('part_price.priced_on', '<=', trx.raw('excluded.priced_on'))
          .returning('part')
        taken += written.length
      }
      const [count] = await trx('part_price')
        .where({ firm_id: firmId })
        .count<{ count: string }[]>('* as count')
      const all = Number(count?.count ?? 0)
      return all > mostPrices ? { tooMany: all } : { taken }
    },
    done => 'taken' in done,
  )
}

/** Counts of the stock by key, and what of it is kept for this job and for others. */
export async function stockFor(
  { firmId }: Firm,
  jobId: string,
  keys: readonly string[],
): Promise<{ stock: Stock; own: Stock; others: Stock }> {
  const [stock, reserved] = await Promise.all([
    db({ firmId })('equipment_stock')
      .where({ firm_id: firmId })
      .whereIn('key', [...keys])
      .select('key', 'count'),
    db({ firmId })('part_reserved')
      .where({ firm_id: firmId })
      .whereIn('key', [...keys])
      .select('job_id', 'key', 'count'),
  ])
  const sum = (rows: { key: string; count: number }[]) => {
    const sums: Record<string, number> = {}
    for (const r of rows) sums[r.key] = (sums[r.key] ?? 0) + r.count
    return sums
  }
  return {
    stock: sum(stock),
    own: sum(reserved.filter(r => r.job_id === jobId)),
    others: sum(reserved.filter(r => r.job_id !== jobId)),
  }
}

/**
 * Keeps so many of the stock for a job, in place of what was kept for it; nothing more than there is beside what others keep. What
 * could be kept of each.
 */
export async function reserve({ firmId }: Firm, jobId: string, wanted: Stock): Promise<Stock> {
  return transaction(
    { firmId },
    async trx => {
      // two jobs that take of the same stock come one after the other
      await trx.raw('select pg_advisory_xact_lock(hashtext(?))', [`reserve ${firmId}`])
      await trx('part_reserved').where({ firm_id: firmId, job_id: jobId }).delete()
      const keys = Object.keys(wanted)
      const there = await trx('equipment_stock')
        .where({ firm_id: firmId })
        .whereIn('key', keys)
        .select('key', 'count')
      const others = await trx('part_reserved')
        .where({ firm_id: firmId })
        .whereIn('key', keys)
        .groupBy('key')
        .select('key')
        .sum('count as count')
      const taken = new Map<string, number>(others.map(o => [o.key, Number(o.count)]))
      const kept: Record<string, number> = {}
      for (const { key: part, count } of there) {
        const free = Math.min(wanted[part] ?? 0, count - (taken.get(part) ?? 0))
        if (free > 0) kept[part] = free
      }
      const rows = Object.entries(kept).map(([part, count]) => ({
        firm_id: firmId,
        job_id: jobId,
        key: part,
        count,
      }))
      if (rows.length) await trx('part_reserved').insert(rows)
      return kept
    },
    always,
  )
}

/** The firm's minutes by kind of work and its habits, none while it gave none; and the version that a change must name. */
export async function readWays({
  firmId,
}: Firm): Promise<{ minutes: Minutes; habits: Partial<Habits>; version: number }> {
  const row = await db({ firmId })('firm').where({ id: firmId }).first('minutes', 'habits', 'minutes_version')
  const own = minutesSchema.safeParse(row?.minutes ?? [])
  const habits = someHabits.safeParse(row?.habits ?? {})
  return {
    minutes: own.success ? own.data : [],
    habits: habits.success ? habits.data : {},
    version: row?.minutes_version ?? 0,
  }
}

/** Writes them; false where somebody else did meanwhile. */
export async function putWays(
  { firmId }: Firm,
  ways: { minutes: Minutes } | { habits: Partial<Habits> },
  version: number,
): Promise<boolean> {
  const written = await db({ firmId })('firm')
    .where({ id: firmId, minutes_version: version })
    .update({
      ...('minutes' in ways
        ? { minutes: JSON.stringify(minutesSchema.parse(ways.minutes)) }
        : { habits: JSON.stringify(someHabits.parse(ways.habits)) }),
      minutes_version: version + 1,
    })
  return written === 1
}
