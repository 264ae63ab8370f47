import { type Labour, labourSchema, usualLabour } from '@/core/hookup/labour'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

/** The firm's hours by task, ours while it gave none; and the version that a change must name. */
export async function readLabour({
  firmId,
}: Pick<Actor, 'firmId'>): Promise<{ labour: Labour; version: number }> {
  const row = await db({ firmId })('firm').where({ id: firmId }).first('labour', 'labour_version')
  const own = row?.labour ? labourSchema.safeParse(row.labour) : null
  return { labour: own?.success ? own.data : usualLabour, version: row?.labour_version ?? 0 }
}

/** Writes them; false where somebody else did meanwhile. */
export async function putLabour(
  { firmId }: Pick<Actor, 'firmId'>,
  labour: Labour,
  version: number,
): Promise<boolean> {
  const written = await db({ firmId })('firm')
    .where({ id: firmId, labour_version: version })
    .update({ labour: JSON.stringify(labourSchema.parse(labour)), labour_version: version + 1 })
  return written === 1
}
