import { randomBytes } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import next from 'next'
import { needed, setting } from '../env'
import { addressHeader, addressOf, pathHeader } from '../http/address'
import { answering, troubleWords } from '../http/trouble'
import { log } from '../log'
import { loggedPath, requestIdOf } from './access'
import { answerHeaders } from './headers'
import { hasRoom, health } from './health'
import { isOwnHost } from './hosts'
import { lane, laneOf } from './lanes'
import { waitByLink } from './links'
import { answered, mayReadMetrics, metrics } from './metrics'
import { contentSecurityPolicy } from './policy'
import { whileWarming } from './warming'

const port = needed('PORT')
const dev = process.argv.includes('--dev')
/** How long what is being answered may take, once this process is to end; the keeper gives 8 s. */
const longestDrainMs = 6000
const methods = new Set(['GET', 'HEAD', 'POST'])

/** What is bundled beside the application. */
const scripts: Readonly<Record<string, string>> = {
  '/sw.js': 'dist/field.js',
  '/offer.js': 'dist/offer.js',
  '/house.js': 'dist/house.js',
  '/house/keep.js': 'dist/keep-house.js',
}

const lanes = {
  pages: lane(4, 120, 8000),
  taps: lane(48, 400, 8000),
  streams: lane(12, 40, 8000),
  live: lane(400, 0, 1),
}

/** An answer in words, as a page or as JSON, whichever was asked for. */
function say(request: IncomingMessage, response: ServerResponse, status: number, sentence: string) {
  const json = request.url?.startsWith('/api/')
  response.writeHead(status, {
    'content-type': json ? 'application/json' : 'text/html; charset=utf-8',
    'cache-control': 'no-store',
    ...(status === 503 && { 'retry-after': '2' }),
    connection: 'close',
  })
  response.end(
    json
      ? JSON.stringify({ message: sentence, faults: [] })
      : `<!doctype html><html lang="en-US"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light dark"><title>Spillway</title><style>body{font:1.05rem/1.5 system-ui;margin:15vh auto;max-width:34em;padding:0 1em;background:light-dark(#efece3,#12191c);color:light-dark(#15242a,#e6ecec)}h1{font-size:1.3em}a{color:light-dark(#0b5566,#8fd0de);font-weight:600}</style><h1>${sentence}</h1><p><a href="">Try again</a></p>`,
  )
}

/** Streams that stay open for hours: cut when this process is to end, and opened again with another. */
const open = new Set<ServerResponse>()
let draining = false

const app = next({ dev, hostname: '127.0.0.1', port, ...(dev && { turbopack: true }) })

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const path = (request.url ?? '/').split('?', 1)[0] ?? '/'
  const behindProxy = setting('SPILLWAY_BEHIND_PROXY') === 'yes'
  // the scheme is a proxy’s to tell, and nobody else’s
  if (!behindProxy) delete request.headers['x-forwarded-proto']
  const isTls = request.headers['x-forwarded-proto'] === 'https'
  for (const [name, value] of Object.entries(answerHeaders(isTls))) response.setHeader(name, value)
  const address = addressOf(
    request.socket.remoteAddress,
    request.headers['x-forwarded-for']?.toString(),
    behindProxy,
  )
  request.headers[addressHeader] = address
  const requestId = requestIdOf(request.headers['x-request-id']?.toString(), behindProxy)
  response.setHeader('x-request-id', requestId)
  const lane = laneOf(path)
  const from = performance.now()
  if (!path.startsWith('/_next/'))
    response.once('close', () => {
      const ms = performance.now() - from
      answered(lane, request.method ?? '', response.statusCode, ms / 1000)
      log.info(
        {
          requestId,
          method: request.method,
          path: loggedPath(path),
          status: response.statusCode,
          ms: Math.round(ms),
        },
        'answered',
      )
    })
  if (!isOwnHost(request.headers.host, setting('SPILLWAY_HOSTS')))
    return say(request, response, 421, 'This address is none of this server’s. Open Spillway by its own.')
  if (!methods.has(request.method ?? '')) {
    response.setHeader('allow', [...methods].join(', '))
    return say(request, response, 405, 'This can be read and written, nothing else.')
  }
  if (path === '/api/health') {
    const how = await health()
    response.writeHead(how.ok ? 200 : 503, {
      'content-type': 'application/json',
      'cache-control': 'no-store',
    })
    response.end(JSON.stringify(how))
    return
  }
  if (path === '/api/ready') {
    const ready = !draining && (await health()).ok
    response.writeHead(ready ? 200 : 503, { 'content-type': 'application/json', 'cache-control': 'no-store' })
    response.end(JSON.stringify({ ready }))
    return
  }
  if (path === '/metrics') {
    if (!mayReadMetrics(request.socket.remoteAddress, request.headers['x-forwarded-for']?.toString()))
      return say(request, response, 404, 'There is nothing here.')
    const { type, text } = await metrics()
    response.writeHead(200, { 'content-type': type, 'cache-control': 'no-store' })
    response.end(text)
    return
  }
  const script = scripts[path]
  if (script && !(dev && path === '/sw.js')) {
    response.writeHead(200, { 'content-type': 'text/javascript', 'cache-control': 'no-cache' })
    response.end(await readFile(script))
    return
  }
  if (path.startsWith('/_next/')) return app.getRequestHandler()(request, response)
  if (request.method === 'POST' && !(await hasRoom()))
    return say(request, response, troubleWords.full.status, troubleWords.full.sentence)
  const seconds = await waitByLink(path, address).catch(() => null)
  if (seconds !== null) {
    response.setHeader('retry-after', String(seconds))
    return say(
      request,
      response,
      429,
      'Too much was asked by this link. Wait some minutes, then open it again.',
    )
  }
  const release = await lanes[lane].enter()
  if (!release) return say(request, response, troubleWords.busy.status, troubleWords.busy.sentence)
  response.once('close', release)
  if (lane === 'live') {
    open.add(response)
    response.once('close', () => open.delete(response))
  }
  if (response.closed || request.socket.destroyed) return release()
  const nonce = randomBytes(16).toString('base64')
  const policy = contentSecurityPolicy(nonce, dev)
  request.headers['content-security-policy'] = policy
  request.headers['x-nonce'] = nonce
  request.headers[pathHeader] = request.url ?? '/'
  response.setHeader('content-security-policy', policy)
  await answering.run({ trouble: null, requestId }, async () => {
    const mark = answering.getStore()
    const writeHead = response.writeHead.bind(response)
    // a page that could not be made for want of the database says so by its status
    const withStatus = ((status: number, ...rest: never[]) => {
      const told = mark?.trouble && status >= 500 ? troubleWords[mark.trouble].status : status
      if (told !== status) response.setHeader('retry-after', '2')
      return writeHead(told, ...rest)
    }) as typeof response.writeHead
    response.writeHead = withStatus
    await app.getRequestHandler()(request, response)
  })
}

function failed(error: unknown, request: IncomingMessage, response: ServerResponse) {
  log.error({ err: error, path: request.url?.slice(0, 200) }, 'failed')
  if (response.headersSent) response.destroy()
  else say(request, response, 500, 'Something went wrong in the server; nothing was written.')
}

const take = (request: IncomingMessage, response: ServerResponse) => {
  answer(request, response).catch(error => failed(error, request, response))
}

/** Asks itself what everybody asks for, where nobody else can: the first hundred who come do not wait for the compiler. */
async function warmed(): Promise<void> {
  const inner = createServer(take)
  await new Promise<void>(resolve => inner.listen(0, '127.0.0.1', resolve))
  const at = inner.address()
  const base = `http://127.0.0.1:${typeof at === 'object' ? at?.port : 0}`
  await whileWarming(async () => {
    for (const path of [...Array.from({ length: 10 }, () => '/warm'), '/sign-in'])
      await fetch(base + path, { signal: AbortSignal.timeout(20_000) })
        .then(said => said.text())
        .catch(error => log.warn({ error: String(error), path }, 'not warmed up'))
  })
  inner.close()
  inner.closeAllConnections()
}

await app.prepare()
if (!dev) await warmed()
const server = createServer(take)
// a large file over a slow line may take its time; a request that does not say what it wants may not
server.requestTimeout = 900_000
server.headersTimeout = 15_000
// longer than those who keep a connection, proxies among them: closed as one asks, the question is lost
server.keepAliveTimeout = 75_000
server.maxConnections = 2000
if (dev) server.on('upgrade', app.getUpgradeHandler())
server.listen(port, '127.0.0.1', () => log.info({ port }, 'web is up'))
server.on('error', error => {
  log.fatal({ err: error }, 'web cannot listen')
  process.exit(1)
})

/** Nothing new is taken; what is being answered is answered; streams are cut. */
const stop = () => {
  draining = true
  server.close(() => process.exit(0))
  for (const response of open) response.destroy()
  server.closeIdleConnections()
  // who keeps a connection hears that it is over with the next answer
  const idle = setInterval(() => server.closeIdleConnections(), 100)
  idle.unref()
  // what does not end is cut: everything that was acknowledged is written
  setTimeout(() => process.exit(0), longestDrainMs).unref()
}
process.once('SIGTERM', stop)
process.once('SIGINT', stop)
process.on('unhandledRejection', error => log.error({ err: error }, 'unhandled'))
process.on('uncaughtException', error => {
  log.fatal({ err: error }, 'web died')
  process.exit(1)
})
