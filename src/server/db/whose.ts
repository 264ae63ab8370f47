import { type OfFirm, unbound } from './connection'

/**
 * Which firm something belongs to, for the few who come before anybody knows: who holds a link’s secret (by its hash), a
 * worker that was given an id, and whoever knows the short name of a firm. It is all that the database tells without a firm (docs/decisions/0024).
 */
export async function firmBehind(
  what: 'customer_link' | 'estimate_version' | 'invitation' | 'design_search' | 'pack' | 'slug',
  key: string,
): Promise<OfFirm | null> {
  const found = await unbound().raw('select spillway_firm_behind(?, ?) as firm', [what, key])
  const firmId: string | null = found.rows[0]?.firm ?? null
  return firmId === null ? null : { firmId }
}

/** Every firm, for work that goes over all of them, one at a time. */
export async function allFirms(): Promise<OfFirm[]> {
  const found: { rows: { firm: string }[] } = await unbound().raw('select firm from spillway_firms() as firm')
  return found.rows.map(r => ({ firmId: r.firm }))
}
