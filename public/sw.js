/**
 * Keeps the tracing screen of each job that was opened, so that it opens again in a cellar without a connection. The
 * network always comes first; nothing but that screen and the program's own files is kept.
 */
const kept = 'spillway-trace'
const tracing = /^\/jobs\/[0-9a-f-]{36}\/trace$/
const most = 200

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', event => event.waitUntil(self.clients.claim()))

self.addEventListener('fetch', event => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  if (request.mode === 'navigate' && tracing.test(url.pathname)) event.respondWith(networkFirst(request, url))
  else if (url.pathname.startsWith('/_next/static/')) event.respondWith(cacheFirst(request))
})

async function networkFirst(request, url) {
  const cache = await caches.open(kept)
  try {
    const answer = await fetch(request)
    if (answer.ok) await cache.put(url.pathname, answer.clone())
    return answer
  } catch (error) {
    const before = await cache.match(url.pathname)
    if (before) return before
    throw error
  }
}

/** Their names change with their content, so what is kept is never out of date. */
async function cacheFirst(request) {
  const cache = await caches.open(kept)
  const before = await cache.match(request)
  if (before) return before
  const answer = await fetch(request)
  if (answer.ok) {
    await cache.put(request, answer.clone())
    const all = await cache.keys()
    if (all.length > most) await cache.delete(all[0])
  }
  return answer
}
