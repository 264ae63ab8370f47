/// <reference lib="webworker" />
import {
  ExpirationPlugin,
  NetworkFirst,
  type PrecacheEntry,
  Route,
  Serwist,
  type SerwistPlugin,
} from 'serwist'
import { keptPages } from '@/core/agreed'

/**
 * Keeps the field screens for a cellar without a connection: the program's own files before any of them is needed, and of each
 * job the field screens that were opened: tracing, the first answer, the work, the tests. The network always comes first; a server's error never replaces what is kept.
 */
declare const self: ServiceWorkerGlobalScope & { __FILES: PrecacheEntry[] }

const isField = (url: URL) =>
  url.origin === self.location.origin &&
  /^\/jobs\/[0-9a-f-]{36}\/(trace|first|field|prove)$/.test(url.pathname)

const kinds: Readonly<Record<string, string>> = {
  first: 'First answer',
  trace: 'Trace the breakers',
  field: 'The work, step by step',
  prove: 'The tests, one by one',
}

/** The page alone: the same however it was asked for. */
const pageKey = (address: string) => new URL(new URL(address).pathname, self.location.origin).href

/** An error of the server counts as no connection where something is kept; where nothing is, it is shown. */
const errorsAreNoAnswer: SerwistPlugin = {
  cacheKeyWillBeUsed: async ({ request }) => pageKey(request.url),
  cacheWillUpdate: async ({ response }) =>
    response.status === 200 && !response.redirected ? response : null,
  fetchDidSucceed: async ({ response, state }) => {
    // who is sent elsewhere is signed out: what is kept is shown to nobody until they come in again
    if (response.type === 'opaqueredirect' || response.redirected) await caches.delete(keptPages)
    if (response.status < 500) return response
    if (state) state.refused = response
    throw new Error(`the server answered ${response.status}`)
  },
  handlerDidError: async ({ state }) => (state?.refused instanceof Response ? state.refused : away()),
}

const pages = new NetworkFirst({
  cacheName: keptPages,
  networkTimeoutSeconds: 6,
  plugins: [errorsAreNoAnswer, new ExpirationPlugin({ maxEntries: 60 })],
})

/** What is shown of a screen that is not kept: those that are. */
async function away(): Promise<Response> {
  const cache = await caches.open(keptPages)
  const links = await Promise.all(
    (await cache.keys()).map(async key => {
      const text = (await (await cache.match(key))?.text()) ?? ''
      // as the page's own writer escaped it
      const title = /<title>([^<]{1,120})<\/title>/.exec(text)?.[1]?.replace(/ · Spillway$/, '') ?? 'A job'
      const path = new URL(key.url).pathname
      const what = kinds[path.split('/').at(-1) ?? ''] ?? 'A screen'
      return `<li><a href="${path}">${what}: ${title}</a></li>`
    }),
  )
  const list = links.length ? `<p>Kept on this device:</p><ul>${links.join('')}</ul>` : ''
  return new Response(
    `<!doctype html><html lang="en-US"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light dark"><title>No connection</title><style>body{font:1.05rem/1.5 system-ui;margin:10vh auto;max-width:30em;padding:0 1em;background:light-dark(#efece3,#12191c);color:light-dark(#15242a,#e6ecec)}h1{font-size:1.4em}ul{list-style:none;padding:0}a{display:block;padding:.7em 1em;margin:.5em 0;border:1px solid currentColor;border-radius:6px;color:light-dark(#0b5566,#8fd0de);font-weight:600;text-decoration:none}</style><h1>No connection</h1><p>This screen is not kept on this device. What you wrote down is, and it is sent when the connection is back.</p>${list}<a href="">Try again</a>`,
    { status: 503, headers: { 'content-type': 'text/html; charset=utf-8' } },
  )
}

const serwist = new Serwist({
  precacheEntries: self.__FILES,
  precacheOptions: { cleanupOutdatedCaches: true, concurrency: 12 },
  skipWaiting: true,
  clientsClaim: true,
})
serwist.registerRoute(new Route(({ url, request }) => request.mode === 'navigate' && isField(url), pages))
// another screen without a connection says so instead of taking the way back away
serwist.registerRoute(
  new Route(
    ({ url, request }) => request.mode === 'navigate' && /^\/jobs\/[0-9a-f-]{36}\//.test(url.pathname),
    ({ request }) => fetch(request).catch(away),
  ),
)
// a worker's script comes from the network: what is kept has no fragment, and the worker reads from it what it is to load
self.addEventListener('fetch', event => {
  if (event.request.destination === 'worker') event.stopImmediatePropagation()
})
serwist.addEventListeners()

/** The screen that is open is kept as it is, without a second visit; the answer tells that it will open again. */
self.addEventListener('message', event => {
  const path: unknown = event.data?.keep
  if (typeof path !== 'string' || !isField(new URL(path, self.location.origin))) return
  event.waitUntil(
    keep(path).then(
      kept => event.source?.postMessage({ kept: kept ? path : null }),
      () => event.source?.postMessage({ kept: null }),
    ),
  )
})

async function keep(path: string): Promise<boolean> {
  const cache = await caches.open(keptPages)
  const answer = await fetch(path, { headers: { accept: 'text/html' }, cache: 'no-store' }).catch(() => null)
  if (answer?.redirected) await caches.delete(keptPages)
  else if (answer?.status === 200) await cache.put(pageKey(answer.url), answer)
  return (await cache.match(pageKey(new URL(path, self.location.origin).href))) !== undefined
}

// what an earlier version kept
self.addEventListener('activate', event => event.waitUntil(caches.delete('spillway-trace')))
