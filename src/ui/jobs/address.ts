/** What the jobs list is asked for, as it stands in the address. */
export interface ListAddress {
  q: string
  sort: string
  order: string
  page: number
  archived: boolean
  templates: boolean
}

/** The address of the list with some of it changed; usual values are left out. */
export function listAddress(now: ListAddress, change: Partial<ListAddress>): string {
  const next = { ...now, ...change }
  const query = new URLSearchParams()
  if (next.q) query.set('q', next.q)
  if (next.sort !== 'updated') query.set('sort', next.sort)
  if (next.order) query.set('order', next.order)
  if (next.page > 1) query.set('page', String(next.page))
  if (next.archived) query.set('archived', 'true')
  if (next.templates) query.set('templates', 'true')
  const text = query.toString()
  return text ? `/jobs?${text}` : '/jobs'
}
