import { tried } from '../accounts/limits'

const link = /^\/(?:api\/)?(?:for|offer|house)\/([^/]{1,200})/

/**
 * Who asks by a link is counted by the link and by the address: a secret is not guessed at leisure, and one link does not keep the
 * house busy. The seconds to wait, or null.
 */
export async function waitByLink(path: string, address: string): Promise<number | null> {
  const token = link.exec(path)?.[1]
  if (token === undefined) return null
  const each = [await tried('link', token), await tried('linkAddress', address)]
  const waits = each.filter(s => s !== null)
  return waits.length ? Math.max(...waits) : null
}
