import { freeMegabytes, hasRoom } from './health'
import { isOwnHost } from './hosts'
import { lane, laneOf } from './lanes'
import { contentSecurityPolicy } from './policy'

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
