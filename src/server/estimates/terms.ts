import { type Terms, termsSchema, usualTerms } from '@/core/estimate/terms'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

/** How the firm prices its work, the usual way while it said nothing; and the version that a change must name. */
export async function readTerms({
  firmId,
}: Pick<Actor, 'firmId'>): Promise<{ terms: Terms; version: number }> {
  const row = await db({ firmId })('firm').where({ id: firmId }).first('terms', 'terms_version')
  const own = termsSchema.safeParse(row?.terms ?? usualTerms)
  return { terms: own.success ? own.data : usualTerms, version: row?.terms_version ?? 0 }
}

/** Writes them; false where somebody else did meanwhile. */
export async function putTerms(
  { firmId }: Pick<Actor, 'firmId'>,
  terms: Terms,
  version: number,
): Promise<boolean> {
  const written = await db({ firmId })('firm')
    .where({ id: firmId, terms_version: version })
    .update({ terms: JSON.stringify(terms), terms_version: version + 1 })
  return written === 1
}
