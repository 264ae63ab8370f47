import type { Knex } from 'knex'
import { type Equipment, equipmentSchema } from '@/core/equipment'
import type { Stock } from '@/core/search/stock'
import { db } from '../db/connection'
import { always, transaction } from '../db/transaction'
import type { Actor } from '../people/types'

/** Items of a catalogue that are in use at once: more are refused in words, never cut in silence. */
export const mostItems = 2000

const newest = (at: Knex, firmId: string) =>
  at('equipment')
    .distinctOn('id')
    .where({ firm_id: firmId })
    .orderBy(['id', { column: 'version', order: 'desc' }])
    .select('id', 'version', 'facts', 'retired')
    .as('newest')

const names = new Intl.Collator('en', { numeric: true })

/** The newest version of everything that is in use in the firm's catalogue, by kind and name. */
export async function listEquipment({ firmId }: Pick<Actor, 'firmId'>): Promise<Equipment[]> {
  const rows: { facts: unknown }[] = await db({ firmId })
    .from(newest(db({ firmId }), firmId))
    .where({ retired: false })
    .select('facts')
  return rows
    .map(r => equipmentSchema.parse(r.facts))
    .sort((a, b) => names.compare(a.kind, b.kind) || names.compare(a.name, b.name))
}

/** The newest version of each of these ids, in use or not; what was never there is not named. */
export async function newestVersions(
  { firmId }: Pick<Actor, 'firmId'>,
  ids: readonly string[],
): Promise<Map<string, number>> {
  const rows: { id: string; version: number }[] = await db({ firmId })('equipment')
    .where({ firm_id: firmId })
    .whereIn('id', [...ids])
    .groupBy('id')
    .select('id')
    .max('version as version')
  return new Map(rows.map(r => [r.id, r.version]))
}

/** How many of each item the firm has; what was never counted is not named. */
export async function listStock({ firmId }: Pick<Actor, 'firmId'>): Promise<Stock> {
  const rows = await db({ firmId })('equipment_stock').where({ firm_id: firmId }).select('key', 'count')
  return Object.fromEntries(rows.map(r => [r.key, r.count]))
}

/** Writes one count; null takes it out. */
async function putCount(trx: Knex, firmId: string, key: string, count: number | null): Promise<void> {
  if (count === null) await trx('equipment_stock').where({ firm_id: firmId, key }).delete()
  else
    await trx('equipment_stock')
      .insert({ firm_id: firmId, key, count })
      .onConflict(['firm_id', 'key'])
      .merge()
}

/** Sets counts of the firm's stock; null takes one out. */
export async function setStock(
  { firmId }: Pick<Actor, 'firmId'>,
  counts: Record<string, number | null>,
): Promise<void> {
  await transaction(
    { firmId },
    async trx => {
      for (const [key, count] of Object.entries(counts)) await putCount(trx, firmId, key, count)
    },
    always,
  )
}

/** Sets one count, if what was seen still stands there; else what stands there now (null: nothing). */
export async function countStock(
  { firmId }: Pick<Actor, 'firmId'>,
  key: string,
  was: number | null,
  count: number | null,
): Promise<'counted' | number | null> {
  return transaction<'counted' | number | null>(
    { firmId },
    async trx => {
      // two that count the same thing come one after the other
      await trx.raw('select pg_advisory_xact_lock(hashtext(?))', [`stock ${firmId} ${key}`])
      const there = await trx('equipment_stock').where({ firm_id: firmId, key }).first('count')
      const now: number | null = there?.count ?? null
      if (now !== was) return now
      await putCount(trx, firmId, key, count)
      return 'counted'
    },
    done => done === 'counted',
  )
}

/** Adds equipment to the firm's catalogue; a version that is already there is left as it is. */
export async function addEquipment(
  actor: Pick<Actor, 'firmId'>,
  equipment: readonly Equipment[],
): Promise<void> {
  const rows = equipment.map(item => row(actor, equipmentSchema.parse(item)))
  await db(actor)('equipment').insert(rows).onConflict().ignore()
}

const row = ({ firmId }: Pick<Actor, 'firmId'>, facts: Equipment, retired = false) => ({
  firm_id: firmId,
  id: facts.id,
  version: facts.version,
  kind: facts.kind,
  name: facts.name,
  facts: JSON.stringify(facts),
  retired,
})

/**
 * Writes the next version of items, all or none. Each names in `version` the one it was made from, 0 for a new item.
 * Null when all were written; else the first that somebody changed meanwhile, or that there would be too many. Jobs keep theirs.
 */
export async function putEquipment(
  actor: Actor,
  items: readonly { item: Equipment; from: number }[],
  retired = false,
): Promise<{ meanwhile: string } | { tooMany: number } | null> {
  return transaction<{ meanwhile: string } | { tooMany: number } | null>(
    actor,
    async trx => {
      for (const { item, from } of items) {
        const there = await trx('equipment')
          .where({ firm_id: actor.firmId, id: item.id })
          .max('version as version')
          .first()
        if ((there?.version ?? 0) !== from) return { meanwhile: item.name }
        // the key of firm, id and version lets only one of two writers through
        const written = await trx('equipment')
          .insert(row(actor, { ...item, version: from + 1 }, retired))
          .onConflict()
          .ignore()
          .returning('id')
        if (!written.length) return { meanwhile: item.name }
      }
      const [used] = await trx.from(newest(trx, actor.firmId)).where({ retired: false }).count({ count: '*' })
      const count = Number(used?.count ?? 0)
      return count > mostItems && !retired ? { tooMany: count } : null
    },
    outcome => outcome === null,
  )
}
