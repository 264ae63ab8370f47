import { type Equipment, equipmentSchema, type Station, stationSchema } from '@/core/source/equipment'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

/** The newest version of every station of the firm's catalogue, smallest first. */
export async function listStations(actor: Actor): Promise<Station[]> {
  const rows: { facts: unknown }[] = await db()('equipment')
    .distinctOn('id')
    .where({ firm_id: actor.firmId, kind: 'station' })
    .orderBy(['id', { column: 'version', order: 'desc' }])
    .select('id', 'version', 'facts')
  return rows
    .map(r => stationSchema.parse(r.facts))
    .sort((a, b) => a.continuousW - b.continuousW || a.name.localeCompare(b.name))
}

/** Adds equipment to the firm's catalogue; a version that is already there is left as it is. */
export async function addEquipment(
  actor: Pick<Actor, 'firmId'>,
  equipment: readonly Equipment[],
): Promise<void> {
  const rows = equipment.map(item => {
    const facts = equipmentSchema.parse(item)
    return {
      firm_id: actor.firmId,
      id: facts.id,
      version: facts.version,
      kind: facts.kind,
      name: facts.name,
      facts: JSON.stringify(facts),
    }
  })
  await db()('equipment').insert(rows).onConflict().ignore()
}
