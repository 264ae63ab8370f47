/** @jest-environment node */
import { randomUUID } from 'node:crypto'
import { Readable } from 'node:stream'
import { library } from '@/core/loads/library'
import { summed } from '@/core/loads/utility-year'
import { households, yearOf } from '@/simulators/household'
import { feedOf } from '@/simulators/utility'
import { closeDb, ownerDb } from '../db/connection'
import { createJob } from '../jobs/repository'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { takeIntervals } from '../utility/intake'
import { listIntervals, readMeter, saveIntervals } from '../utility/repository'
import { storedForm } from '../utility/stored'
import { dropTypical, listTypical, putTypical } from './library'

const at = new Date('2026-02-16T15:00:00Z')
const [firm, other] = [actor(), actor()]
function actor() {
  return { firmId: randomUUID(), personId: randomUUID(), label: 'Designer', role: 'designer' as const }
}
beforeAll(async () => {
  for (const { firmId, personId, label, role } of [firm, other]) {
    await ownerDb()('firm').insert({ id: firmId, slug: firmId, name: 'Test firm' })
    await ownerDb()('person').insert({ id: personId, firm_id: firmId, label, role })
  }
})
afterAll(closeDb)

test('a firm’s own typical load: put, changed by whoever has seen it last, taken away; other firms never see it', async () => {
  const [ours] = library
  if (!ours) throw new Error('no library')
  expect(await putTypical(firm, ours, 0, at)).toBe(1)
  expect(await putTypical(firm, ours, 0, at)).toBeNull()
  expect(await putTypical(firm, { ...ours, name: 'Ours, changed' }, 1, at)).toBe(2)
  expect(await putTypical(firm, ours, 1, at)).toBeNull()
  expect((await listTypical(firm)).map(t => [t.typical.name, t.version])).toEqual([['Ours, changed', 2]])
  expect(await listTypical(other)).toEqual([])
  expect(await dropTypical(other, ours.id, 2)).toBeNull()
  expect(await dropTypical(firm, ours.id, 1)).toBeNull()
  expect(await dropTypical(firm, ours.id, 2)).toBe(true)
})

const feed = (change: (text: string) => string = t => t) =>
  Readable.from([
    Buffer.from(change([...feedOf(households['mill-street'], { prefixed: false, powerOfTen: 0 })].join(''))),
  ])

test('a utility’s file is read, kept and read again for its firm alone', async () => {
  const taken = await takeIntervals(feed(), 'America/New_York')
  if (!taken.ok) throw new Error(taken.faults[0]?.message)
  const jobId = randomUUID()
  await createJob(firm, alderHollow, 'made', at, jobId)
  const kept = await saveIntervals(firm, jobId, 'year.xml', await storedForm(taken.value.intervals), at)
  const [year] = yearOf(households['mill-street'])
  expect(kept.meters[0]?.summed).toEqual(year && summed(year))
  expect(await listIntervals(firm, jobId)).toEqual([kept])
  expect(await listIntervals(other, jobId)).toEqual([])
  const id = kept.meters[0]?.id ?? ''
  expect((await readMeter(firm, jobId, kept.id, id, 'forward'))?.Wh).toEqual(year?.Wh)
  expect(await readMeter(other, jobId, kept.id, id, 'forward')).toBeNull()
  expect(await readMeter(firm, jobId, kept.id, id, 'reverse')).toBeNull()
})

test.each([
  ['nothing', () => Readable.from([]), /empty/],
  ['a bill', () => Readable.from([Buffer.from('%PDF-1.7\n1 0 obj')]), /PDF: a bill shows months/],
  [
    'a web page',
    () => Readable.from([Buffer.from('<!doctype html><html><body>sign in</body></html>')]),
    /web page that was saved/,
  ],
  ['an archive', () => Readable.from([Buffer.from('PK\u0003\u0004aaaaaaaaaaaaaaaa')]), /unpack it first/],
  ['a cut file', () => feed(t => t.slice(0, 40_000)), /may be cut short/],
  [
    'a bomb',
    () => feed(t => t.replace('<feed', '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><feed')),
    /entities and outside references are never read/,
  ],
  [
    'another feed',
    () =>
      Readable.from([
        Buffer.from(
          '<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom"><title>News</title></feed>',
        ),
      ]),
    /holds no readings .* Green Button/,
  ],
  [
    'a table of months',
    () => Readable.from([Buffer.from('Month,kWh\nJanuary,400\nFebruary,390\n')]),
    /wanted is a table of use/,
  ],
])('%s is refused with what it is and what was wanted', async (_what, stream, message) => {
  const taken = await takeIntervals(stream(), 'America/New_York')
  expect(taken.ok || taken.faults[0]?.message).toMatch(message)
})
