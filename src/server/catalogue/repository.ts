import { type Equipment, equipmentSchema } from '@/core/equipment'
import type { Stock } from '@/core/search/stock'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

/** The newest version of everything in the firm's catalogue, by kind and name. */
export async function listEquipment({ firmId }: Pick<Actor, 'firmId'>): Promise<Equipment[]> {
  const rows: { facts: unknown }[] = await db()('equipment')
    .distinctOn('id')
    .where({ firm_id: firmId })
    .orderBy(['id', { column: 'version', order: 'desc' }])
    .limit(2000)
    .select('id', 'version', 'facts', 'retired')
    .then(found => found.filter(r => !r.retired))
  return rows
    .map(r => equipmentSchema.parse(r.facts))
    .sort((a, b) => a.kind.localeCompare(b.kind) || a.name.localeCompare(b.name, 'en', { numeric: true }))
}

/** How many of each item the firm has; what was never counted is not named. */
export async function listStock({ firmId }: Pick<Actor, 'firmId'>): Promise<Stock> {
  const rows = await db()('equipment_stock').where({ firm_id: firmId }).select('key', 'count')
  return Object.fromEntries(rows.map(r => [r.key, r.count]))
}

/** Sets counts of the firm's stock; null takes one out. */
export async function setStock(
  { firmId }: Pick<Actor, 'firmId'>,
  counts: Record<string, number | null>,
): Promise<void> {
  await db().transaction(async trx => {
    for (const [key, count] of Object.entries(counts))
      if (count === null) await trx('equipment_stock').where({ firm_id: firmId, key }).delete()
      else
        await trx('equipment_stock')
          .insert({ firm_id: firmId, key, count })
          .onConflict(['firm_id', 'key'])
          .merge()
  })
}

/** Adds equipment to the firm's catalogue; a version that is already there is left as it is. */
export async function addEquipment(
  actor: Pick<Actor, 'firmId'>,
  equipment: readonly Equipment[],
): Promise<void> {
  const rows = equipment.map(item => row(actor, equipmentSchema.parse(item)))
  await db()('equipment').insert(rows).onConflict().ignore()
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
 * The name of the first that somebody else changed meanwhile, or null when all were written. Jobs keep theirs.
 */
export async function putEquipment(
  actor: Actor,
  items: readonly { item: Equipment; from: number }[],
  retired = false,
): Promise<string | null> {
  return db()
    .transaction(async trx => {
      for (const { item, from } of items) {
        const newest = await trx('equipment')
          .where({ firm_id: actor.firmId, id: item.id })
          .max('version as version')
          .first()
        if ((newest?.version ?? 0) !== from) throw new Meanwhile(item.name)
        // the key of firm, id and version lets only one of two writers through
        const written = await trx('equipment')
          .insert(row(actor, { ...item, version: from + 1 }, retired))
          .onConflict()
          .ignore()
          .returning('id')
        if (!written.length) throw new Meanwhile(item.name)
      }
      return null
    })
    .catch(error => {
      if (error instanceof Meanwhile) return error.message
      throw error
    })
}

/** Somebody else changed the item whose name is the message. */
class Meanwhile extends Error {}
