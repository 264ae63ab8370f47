/// <reference lib="webworker" />
import { ExpirationPlugin, NetworkFirst, Route, Serwist } from 'serwist'

/** Keeps the page of a house, and its one script, for a night without a connection. The network comes first: a link that was withdrawn opens nothing. */
declare const self: ServiceWorkerGlobalScope

const kept = 'spillway-house'
const pages = new NetworkFirst({
  cacheName: kept,
  networkTimeoutSeconds: 6,
  plugins: [
    new ExpirationPlugin({ maxEntries: 12 }),
    {
      // the same house whatever was ticked: what is kept is the page as it is opened
      cacheKeyWillBeUsed: async ({ request }) => {
        const { origin, pathname, searchParams } = new URL(request.url)
        const language = searchParams.get('language')
        return `${origin}${pathname}${language ? `?language=${language}` : ''}`
      },
      cacheWillUpdate: async ({ response }) => (response.status === 200 ? response : null),
    },
  ],
})

const serwist = new Serwist({ precacheEntries: [], skipWaiting: true, clientsClaim: true })
serwist.registerRoute(
  new Route(
    ({ url, request }) =>
      url.origin === self.location.origin &&
      (url.pathname === '/house.js' ||
        (request.mode === 'navigate' && /^\/house\/[\w-]{43}$/.test(url.pathname))),
    pages,
  ),
)
serwist.addEventListeners()

/** The page that is open is kept without a second visit, with its script; a link that leads nowhere is forgotten. */
self.addEventListener('message', event => {
  const path: unknown = event.data?.keep
  if (typeof path !== 'string' || !/^\/house\/[\w-]{43}$/.test(path)) return
  event.waitUntil(
    (async () => {
      const cache = await caches.open(kept)
      for (const address of [path, '/house.js']) {
        const answer = await fetch(address, { cache: 'no-store' }).catch(() => null)
        const key = new URL(address, self.location.origin).href
        if (answer?.status === 200) await cache.put(key, answer)
        else if (answer?.status === 404) await cache.delete(key)
      }
    })(),
  )
})
