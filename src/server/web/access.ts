import { randomUUID } from 'node:crypto'

/** The id of a request: the proxy’s, where one of ours stands before us, else one of our own. */
export const requestIdOf = (given: string | undefined, behindProxy: boolean): string =>
  behindProxy && given !== undefined && /^[\w-]{8,64}$/.test(given) ? given : randomUUID()

/** A path as the log may hold it: without what was asked, and without the secrets of links. */
export const loggedPath = (url: string): string =>
  (url.split('?', 1)[0] ?? '').replace(/^(\/(?:api\/)?(?:for|offer|house|join)\/)[^/]+/, '$1…').slice(0, 200)
