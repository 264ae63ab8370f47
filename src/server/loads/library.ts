import { library } from '@/core/loads/library'
import { merged, type Typical, typicalSchema } from '@/core/loads/typical'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

/** A typical load as the firm changed or added it. `version` counts its changes. */
export interface FirmTypical {
  typical: Typical
  version: number
  by: string
}

/** The firm's own typical loads. */
export async function listTypical({ firmId }: Pick<Actor, 'firmId'>): Promise<FirmTypical[]> {
  const rows: { facts: unknown; version: number; by: string }[] = await db({ firmId })('typical_load')
    .where({ firm_id: firmId })
    .orderBy('id')
    .limit(500)
    .select('facts', 'version', 'by')
  return rows.map(({ facts, version, by }) => ({ typical: typicalSchema.parse(facts), version, by }))
}

/** Our library with what the firm changed or added in it. */
export const firmLibrary = async (actor: Pick<Actor, 'firmId'>): Promise<Typical[]> =>
  merged(
    library,
    (await listTypical(actor)).map(f => f.typical),
  ).map(e => e.typical)

/** Puts a typical load; `version` is the one that was changed, 0 for a new one. Null when somebody else changed it meanwhile. */
export async function putTypical(
  actor: Actor,
  typical: Typical,
  version: number,
  at: Date,
): Promise<number | null> {
  const key = { firm_id: actor.firmId, id: typical.id }
  const facts = { facts: JSON.stringify(typical), by: actor.label, at }
  if (version === 0) {
    const put = await db(actor)('typical_load')
      .insert({ ...key, ...facts, version: 1 })
      .onConflict(['firm_id', 'id'])
      .ignore()
      .returning('version')
    return put.length ? 1 : null
  }
  const changed = await db(actor)('typical_load')
    .where({ ...key, version })
    .update({ ...facts, version: version + 1 })
  return changed ? version + 1 : null
}

/** Takes the firm's own away: ours stands again, or it is gone. Null when somebody else changed it meanwhile. */
export async function dropTypical(
  { firmId }: Pick<Actor, 'firmId'>,
  id: string,
  version: number,
): Promise<true | null> {
  const gone = await db({ firmId })('typical_load').where({ firm_id: firmId, id, version }).delete()
  return gone ? true : null
}
