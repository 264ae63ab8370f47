/** @jest-environment node */
import { gunzipSync } from 'node:zlib'
import fc from 'fast-check'
import { intervalAt } from '@/core/loads/intervals'
import { takeIntervals } from './intake'
import { meterOf, storedForm } from './stored'

const csv = Buffer.from(
  `Site;Añil 7 ⚡\n\nInterval start;Delivered Wh;Received Wh\n${Array.from(
    { length: 30 },
    (_, d) => `${String(d + 1).padStart(2, '0')}.07.2026 13:00;${d * 10};${800 - d}\n`,
  ).join('')}`,
)
async function* cut(bytes: Buffer, at: readonly number[]) {
  const places = [...new Set(at)].sort((a, b) => a - b)
  for (const [n, from] of [0, ...places].entries()) yield bytes.subarray(from, places[n])
}
const taken = async (at: readonly number[], bytes = csv) => takeIntervals(cut(bytes, at), 'America/New_York')

test('a file is the same wherever the line cuts it, in the middle of a letter too, and is kept byte for byte', async () => {
  const whole = await taken([])
  await fc.assert(
    fc.asyncProperty(fc.array(fc.integer({ min: 60, max: csv.length - 1 }), { maxLength: 12 }), async at => {
      const pieces = await taken(at)
      if (!pieces.ok || !whole.ok) throw new Error('not read')
      expect(pieces.value.intervals).toEqual(whole.value.intervals)
      expect(gunzipSync(pieces.value.packed).equals(csv)).toBe(true)
    }),
    { numRuns: 30 },
  )
})

test('what is kept of it comes back figure by figure, of the meter and the way that is asked for', async () => {
  const read = await taken([100])
  if (!read.ok) throw new Error('not read')
  const { about, content } = await storedForm(read.value.intervals)
  expect(about.meters.map(m => [m.flow, m.count, m.totalWh])).toEqual([
    ['forward', 30, 4350],
    ['reverse', 30, 24_000 - 435],
  ])
  const id = about.meters[0]?.id ?? ''
  const back = await meterOf(content, id, 'reverse')
  expect(back).toEqual(read.value.intervals.meters[1])
  expect(back && intervalAt(back, 29).Wh).toBe(771)
  expect(await meterOf(content, id, 'net')).toBeNull()
  expect(await meterOf(content, 'another', 'forward')).toBeNull()
})

test.each([
  ['nothing', Buffer.alloc(0), /is empty/],
  ['an archive', Buffer.from('PK\u0003\u0004rest'), /unpack it first/],
  ['text of two bytes a letter', Buffer.from('\uFEFFStart;Wh\n1;2\n', 'utf16le'), /UTF-16/],
  ['a saved page', Buffer.from('<!DOCTYPE html><html><p>1,2\n'), /web page that was saved/],
  ['a feed that ends early', Buffer.from('<?xml version="1.0"?><feed><entry>'), /^The file /],
])('%s is refused in words', async (_, bytes, why) => {
  const read = await taken([], bytes)
  expect(read.ok ? 'read' : read.faults[0]?.message).toMatch(why)
})
