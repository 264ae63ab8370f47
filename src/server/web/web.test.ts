import { closeDb } from '../db/connection'
import { addressOf } from '../http/address'
import { loggedPath, requestIdOf } from './access'
import { answerHeaders } from './headers'
import { freeMegabytes, hasRoom } from './health'
import { isOwnHost } from './hosts'
import { lane, laneOf } from './lanes'
import { waitByLink } from './links'
import { answered, mayReadMetrics, metrics } from './metrics'
import { contentSecurityPolicy } from './policy'
import { isWarming, whileWarming } from './warming'

test('a process may be asked to warm up only until it has, whatever comes of it', async () => {
  const seen: boolean[] = [isWarming()]
  await whileWarming(async () => {
    seen.push(isWarming())
  })
  seen.push(isWarming())
  await expect(whileWarming(() => Promise.reject(new Error('cold')))).rejects.toThrow('cold')
  expect([...seen, isWarming()]).toEqual([false, true, false, false])
})

test('only this server’s own names are taken as its host', () => {
  for (const host of ['127.0.0.1:4180', 'localhost', 'LOCALHOST:80', '[::1]:4180'])
    expect(isOwnHost(host, undefined)).toBe(true)
  for (const host of [
    undefined,
    '',
    'evil.example',
    '127.0.0.1.evil.example',
    'localhost@evil.example',
    'localhost:80:80',
    'a b',
  ])
    expect(isOwnHost(host, undefined)).toBe(false)
  expect(isOwnHost('spillway.example:443', 'other.example, spillway.example')).toBe(true)
})

test('a lane lets so many in, keeps so many waiting, and tells the rest at once', async () => {
  const { enter } = lane(1, 1, 50)
  const first = await enter()
  const second = enter()
  expect(await enter()).toBeNull()
  // who waits too long is told as well
  expect(await second).toBeNull()
  first?.()
  const third = await enter()
  expect(third).not.toBeNull()
  third?.()
})

test('streams, taps and pages have lanes of their own', () => {
  const lanes = [
    '/api/jobs/1/interval-data/fetch',
    '/api/for/t/file',
    '/api/jobs/1/changes',
    '/jobs/1/photos',
  ]
  expect(lanes.map(laneOf)).toEqual(['streams', 'streams', 'taps', 'pages'])
})

test('scripts run by the nonce of the answer alone', () => {
  const policy = contentSecurityPolicy('abc', false)
  expect(policy).toMatch(/script-src 'self' 'nonce-abc' 'wasm-unsafe-eval';/)
  expect(policy.split('; ').find(p => p.startsWith('script-src'))).not.toMatch(/unsafe-inline|unsafe-eval' /)
})

test('room is told where the data lie; below the least of it nothing is written, and it comes back by itself', async () => {
  process.env.SPILLWAY_DATA = '/tmp'
  expect(await freeMegabytes()).toBeGreaterThan(0)
  expect(await hasRoom()).toBe(true)
  process.env.SPILLWAY_LEAST_FREE_MB = '1e12'
  expect(await hasRoom()).toBe(false)
  delete process.env.SPILLWAY_LEAST_FREE_MB
  expect(await hasRoom()).toBe(true)
  delete process.env.SPILLWAY_DATA
})

test('every answer tells the browser what it may do; TLS is told where a proxy of ours speaks it', () => {
  expect(answerHeaders(false)).toMatchObject({
    'x-content-type-options': 'nosniff',
    'cross-origin-opener-policy': 'same-origin',
  })
  expect(answerHeaders(false)).not.toHaveProperty('strict-transport-security')
  expect(answerHeaders(true)['strict-transport-security']).toMatch(/^max-age=63072000/)
})

test('the address is the one who is connected, or what a proxy of ours wrote last; never what was sent along', () => {
  expect(addressOf('::ffff:192.0.2.7', '203.0.113.9', false)).toBe('192.0.2.7')
  expect(addressOf('127.0.0.1', 'spoofed, 203.0.113.9', true)).toBe('203.0.113.9')
  expect(addressOf(undefined, undefined, true)).toBe('unknown')
  expect(addressOf('x'.repeat(500), undefined, false)).toHaveLength(64)
})

test('links are counted by themselves and by who asks; other pages are not', async () => {
  const token = crypto.randomUUID()
  const asks = []
  for (let n = 0; n < 402; n++) asks.push(await waitByLink(`/api/for/${token}`, `a ${token}`))
  expect(asks.slice(0, 400).every(s => s === null)).toBe(true)
  expect(asks.at(-1)).toBeGreaterThan(0)
  expect(await waitByLink(`/house/${token}x`, `a ${token}`)).toBeNull()
  expect(await waitByLink('/jobs', `a ${token}`)).toBeNull()
  await closeDb()
})

test('the log tells a request by its id and its path, and no secret of it', () => {
  expect(loggedPath('/api/for/abcdef/file?name=x')).toBe('/api/for/…/file')
  expect(loggedPath('/join/abcdef?x=1')).toBe('/join/…')
  expect(loggedPath('/jobs/1/panel?token=secret')).toBe('/jobs/1/panel')
  expect(requestIdOf('from-the-proxy-1', true)).toBe('from-the-proxy-1')
  for (const [given, behind] of [
    ['from-outside-1', false],
    ['a\nb', true],
    [undefined, true],
  ] as const)
    expect(requestIdOf(given, behind)).toMatch(/^[0-9a-f-]{36}$/)
})

test('figures are told to this machine alone, and never through the proxy', async () => {
  expect(mayReadMetrics('127.0.0.1', undefined)).toBe(true)
  expect(mayReadMetrics('::1', undefined)).toBe(true)
  expect(mayReadMetrics('192.0.2.1', undefined)).toBe(false)
  expect(mayReadMetrics('127.0.0.1', '192.0.2.1')).toBe(false)
  answered('taps', 'POST', 200, 0.02)
  const { text } = await metrics()
  expect(text).toMatch(/spillway_request_seconds_count\{lane="taps",method="POST",status="200"\} 1/)
  expect(text).toMatch(/spillway_database_connections\{pool="firms",state="used"\}/)
  await closeDb()
})
