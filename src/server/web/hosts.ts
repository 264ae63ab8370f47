/** The names by which this server may be asked; more of them, apart by commas, in SPILLWAY_HOSTS. */
const ownHosts = ['localhost', '127.0.0.1', '[::1]']

/**
 * Whether a request’s `Host` is a name of this server. Any other is refused: a page elsewhere could have had its own name
 * resolve to this machine, and would then count as the same origin.
 */
export function isOwnHost(host: string | undefined, more: string | undefined): boolean {
  if (!host || host.length > 255) return false
  const named = /^(\[[0-9a-f:.]+\]|[^:[\]@/\s]+)(?::\d{1,5})?$/i.exec(host)?.[1]?.toLowerCase()
  const extra = (more ?? '').split(',').map(h => h.trim().toLowerCase())
  return named !== undefined && (ownHosts.includes(named) || extra.includes(named))
}
