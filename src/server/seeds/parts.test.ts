import { compareMethods } from '@/core/assess/compare-methods'
import { hookupDevices } from '@/core/hookup/design'
import { applied } from '@/core/job/fixtures/jobs'
import { changeId } from '@/core/plan/change'
import { partsOfJob } from '@/core/work/parts'
import { choicesOf } from '@/core/work/parts/alternatives'
import { isKnownPart } from '@/core/work/parts/keys'
import { orderOf } from '@/core/work/parts/order'
import { keyOfPrice, pricesCsv, readPrices } from '@/core/work/parts/prices'
import { workOfJob } from '@/core/work/parts/tasks'
import { wiringPlan } from '@/core/work/wiring'
import { catalogue } from './catalogue'
import { demoJobs } from './jobs'
import { pricesFor } from './prices'

/** Parts and hours of the demo jobs: what the plan asks is there, once; of job 1 piece by piece. */

const jobs = demoJobs.map(({ job }) => [job.title, job] as const)
const devices = new Set(catalogue.map(e => e.id))
const leaving = [...hookupDevices, 'backfed', 'path', 'positions', 'intercepts'] as const
/** What takes no part: it is there and is moved, its wire is counted in the wiring plan, or it is on the source’s own list. */
const partless = new Set(['move', 'remove', 'lead', 'run', 'bond', 'mount'])

test.each(jobs)(
  '%s: for every method each planned change has its part, each bought wire its feet, each splice its connector',
  (_, job) => {
    for (const here of compareMethods(job, catalogue)) {
      const chosen = applied(job, {
        op: 'setHookup',
        facts: here.facts,
        clear: here.chosen ? [] : leaving.filter(key => !(key in here.facts)),
      })
      const parts = partsOfJob(chosen)
      const plan = wiringPlan(chosen)
      const told = new Set(parts.flatMap(p => p.why.map(w => w.at.of)))
      const forgotten = chosen.planned.filter(c => !partless.has(c.kind) && !told.has(changeId(c)))
      expect([here.method, forgotten]).toEqual([here.method, []])
      expect(new Set(parts.map(p => p.key)).size).toBe(parts.length)
      expect(parts.filter(p => p.key.length > 60 || !isKnownPart(p.key, devices))).toEqual([])
      const sum = (kind: string) =>
        parts.filter(p => p.kind === kind).reduce((total, p) => total + p.quantity, 0)
      const bought = plan.conductors.filter(c => c.comes === 'bought' && c.size)
      expect(sum('wire')).toBeCloseTo(
        bought.reduce((total, c) => total + c.cutFt, 0),
        9,
      )
      expect(sum('connector')).toBe(plan.splices.length)
      for (const { quantity, needed, why } of parts) {
        expect(quantity).toBeCloseTo(
          why.reduce((total, w) => total + w.quantity, 0),
          9,
        )
        expect(needed).toBeGreaterThanOrEqual(quantity - 1e-9)
      }
      const { tasks } = workOfJob(chosen)
      const worked = new Set(tasks.flatMap(t => t.why.map(w => w.at.of)))
      expect(chosen.planned.filter(c => c.kind !== 'run' && !worked.has(changeId(c)))).toEqual([])
    }
  },
)

test('nothing is forgotten or left over when a change is taken back', () => {
  for (const [, job] of jobs)
    for (const change of job.planned.filter(c => c.origin !== 'hook-up')) {
      const without = applied(job, { op: 'dropChanges', ids: [changeId(change)] })
      const keys = partsOfJob(without).flatMap(p => p.why.map(w => w.at.of))
      expect(keys).not.toContain(changeId(change))
    }
})

test('job 1 piece by piece: what is bought is what the plan puts in, and nothing that is there', () => {
  const job = demoJobs[0]?.job
  if (!job) throw new Error('no demo job')
  const { lines } = orderOf([partsOfJob(job)])
  expect(lines.map(l => `${l.toOrder} ${l.name}`)).toEqual([
    '1 expansion unit of the Sluice 22',
    '1 Riffle 6',
    '1 Sluice 22',
    '1 15 A breaker for a position of the switch',
    // two with a 10 AWG lead, four of 12 AWG and thinner, and a tenth of each for what is dropped
    '3 twist-on connector, large',
    '5 twist-on connector, small',
    '1 adapter TT-30 to L14-30, 30 A',
    '1 cord L14-30 to L14-30, 25 ft (7.62 m), 30 A',
    '1 circuit directory, printed',
    '1 engraved or weatherproof notice',
    '1 sheet of labels',
    '1 mounting screws with anchors for the wall, set of four',
    '1 vinyl electrical tape, roll',
  ])
})

test('each demo job on a day: tasks and hours of one pair of hands, and what two lift', () => {
  expect(demoJobs.map(({ job }) => Math.round(workOfJob(job).hours * 10) / 10)).toEqual([
    5, 5.5, 14.3, 4.7, 2.9, 5.8,
  ])
  const studio = demoJobs[2]?.job
  expect(studio && workOfJob(studio).lifts).toEqual([
    { name: 'Millrace 8', weightLb: 92, people: 2 },
    { name: 'Cascade 48-280', weightLb: 268, people: 6 },
  ])
})

test('the demo’s price book has a price, or asks, for every part of the demo jobs, whichever way they are wired', () => {
  const book = pricesFor(demoJobs.map(({ job }) => job))
  expect(new Set(book.map(keyOfPrice)).size).toBe(book.length)
  expect(readPrices(pricesCsv(book), '2026-11-29')).toEqual({ prices: book, faults: [], doubled: 0 })
  for (const { job } of demoJobs) {
    const order = orderOf([partsOfJob(job)], book)
    expect(order.lines.filter(l => l.priceUsd === null && !book.some(p => p.part === l.key))).toEqual([])
    // what is chosen otherwise has its price too
    expect(choicesOf(job, book).flatMap(c => c.alternatives.filter(a => a.moreUsd === null))).toEqual([])
  }
})
