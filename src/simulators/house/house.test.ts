import fc from 'fast-check'
import { testList } from '@/core/commission'
import { judgeTest } from '@/core/commission/judge'
import { type Proof, proofOf } from '@/core/commission/scene'
import type { TestList } from '@/core/commission/tests'
import { methodIds } from '@/core/hookup/method'
import { liveIn } from '@/core/isolation/live'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import { braid12 } from '@/server/seeds/catalogue'
import { demoJobs } from '@/server/seeds/jobs'
import { instrumentsOf, questionOf } from './instruments'
import { type Branch, solve } from './net'
import { truthOf } from './truth'

/** A burner that proves its flame through ground gets its plug: without it the design itself is wrong, and the tests say so. */
const sound = (job: Job): Job =>
  proofOf(job).wantsBond ? applied(job, { op: 'setHookup', facts: { bondingPlug: true } }) : job
const houses = demoJobs.map(({ job }) => sound(job))

/** Tests that do not pass in a house of this seed with these faults. */
function notPassed(p: Proof, list: TestList, seed: number, faults: readonly string[] = []): string[] {
  const instruments = instrumentsOf(p, truthOf(p, seed, faults))
  return list.tests.flatMap(test => {
    const readings = test.asks.map(a => ({ key: a.key, value: instruments.read(questionOf(test, a)) }))
    const { state, text } = judgeTest(test, readings)
    return state === 'passed' ? [] : [`${test.id}: ${text}`]
  })
}

describe('the network', () => {
  const source = (volts: number): Branch => ({ a: 'L1', b: 'N', ohms: 0.1, emf: { volts, by: 0 } })
  const net = (...branches: Branch[]) => solve(branches, 'G', [0])

  test('volts fall over ohms, and a clamp reads what flows', () => {
    const { volts, amps, given } = net(
      source(120),
      { a: 'N', b: 'G', ohms: 0 },
      { a: 'L1', b: 'far', ohms: 0.9 },
      { a: 'far', b: 'N', ohms: 11, name: 'load' },
    )
    expect(amps('load')).toBeCloseTo(10, 4)
    expect(volts('far', 'N')).toBeCloseTo(110, 3)
    expect(given(0)).toBeCloseTo(1190, 1)
  })

  test('a lost neutral shares 240 V out between the legs by their loads', () => {
    const { volts } = net(
      { a: 'L1', b: 'X', ohms: 0.01, emf: { volts: 120, by: 0 } },
      { a: 'L2', b: 'X', ohms: 0.01, emf: { volts: -120, by: 0 } },
      { a: 'X', b: 'G', ohms: 0 },
      { a: 'X', b: 'N', ohms: 1e9 },
      { a: 'L1', b: 'N', ohms: 10 },
      { a: 'L2', b: 'N', ohms: 30 },
    )
    expect(volts('L1', 'N')).toBeCloseTo(60, 0)
    expect(volts('L2', 'N')).toBeCloseTo(180, 0)
  })

  test('sources of two phases add as phasors', () => {
    const two = solve(
      [
        { a: 'L1', b: 'G', ohms: 0.1, emf: { volts: 120, by: 0 } },
        { a: 'L2', b: 'G', ohms: 0.1, emf: { volts: 120, by: 1 } },
      ],
      'G',
      [0, (2 * Math.PI) / 3],
    )
    expect(two.volts('L1', 'L2')).toBeCloseTo(120 * Math.sqrt(3), 1)
  })
})

test('a sound house passes every test: no false alarm in 200 of them', () => {
  const made = houses.map(job => ({ p: proofOf(job), list: testList(job) }))
  for (let seed = 0; seed < 200; seed++) {
    const { p, list } = made[seed % made.length] ?? {}
    if (p && list) expect([seed, ...notPassed(p, list, seed)]).toEqual([seed])
  }
})

test('every demo job by every method: none gives a false alarm, and every cause is found by a test that names it', () => {
  let found = 0
  for (const { job: base } of demoJobs)
    for (const method of methodIds) {
      const job = sound(applied(base, { op: 'setHookup', facts: { method } }))
      const p = proofOf(job)
      const list = testList(job)
      expect([job.title, method, ...notPassed(p, list, 7)]).toEqual([job.title, method])
      // one instance of each kind: c5 and c7 are wired alike
      const kinds = new Map(list.tests.flatMap(t => t.causes.map(c => [c.id.split(':')[0], c.id] as const)))
      for (const cause of kinds.values()) {
        const naming = { ...list, tests: list.tests.filter(t => t.causes.some(c => c.id === cause)) }
        expect([job.title, method, cause, notPassed(p, naming, 7, [cause]).length > 0]).toEqual([
          job.title,
          method,
          cause,
          true,
        ])
        found++
      }
    }
  expect(found).toBeGreaterThan(400)
})

/** The faults that practice seeds, on the jobs that show them, and a test that finds each. */
test.each([
  ['a swapped neutral', 2, 'critical-subpanel', 'neutral-crossed', 'crossed'],
  ['an open ground', 0, 'multi-circuit-switch', 'ground-open', 'ground'],
  ['a reversed current transformer', 0, 'managed-panel', 'ct-reversed', 'ct'],
  ['a breaker left off between battery and panel', 2, 'critical-subpanel', 'left-off:way', 'auto:closed'],
  ['a weak cell', 0, 'multi-circuit-switch', 'cell-weak', 'capacity'],
  ['a loose neutral at an outlet', 0, 'multi-circuit-switch', 'neutral-loose:c', 'far'],
  ['a loose neutral on the way in', 1, 'interlocked-inlet', 'neutral-loose:way', 'neutral:spread'],
  ['a second bond', 0, 'multi-circuit-switch', 'bond-second:inlet', 'ground:current'],
  ['a dead leg', 1, 'interlocked-inlet', 'hot-open:L2', 'legs'],
  ['an interlock that does not hold', 1, 'interlocked-inlet', 'interlock-idle', 'apart:tried'],
] as const)('%s is found', (_, n, method, cause, by) => {
  const given = houses[n]
  if (!given) throw new Error('no such job')
  const job =
    method === 'managed-panel'
      ? applied(given, { op: 'setHookup', facts: { method, managed: braid12 } })
      : given
  const p = proofOf(job)
  const list = testList(job)
  const id = list.tests.flatMap(t => t.causes.map(c => c.id)).find(c => c.startsWith(cause))
  if (!id) throw new Error(`nothing names ${cause}`)
  expect(notPassed(p, list, 3, [id]).some(t => t.startsWith(by))).toBe(true)
})

test('the network and the reasoning on what is live agree, however the handles stand', () => {
  const made = houses.map(job => ({ job, p: proofOf(job) }))
  fc.assert(
    fc.property(fc.nat(made.length - 1), fc.infiniteStream(fc.nat(5)), (n, dice) => {
      const { job, p } = made[n] ?? {}
      if (!job || !p) return
      const state = Object.fromEntries(
        p.house.handles.map(h => [h.id, h.settings[(dice.next().value ?? 0) % h.settings.length] ?? h.open]),
      )
      // an interlock’s plate does not let this be, and two supplies at once are no reading of anything
      fc.pre(!p.house.nevers.some(never => never.both.every(([id, at]) => state[id] === at)))
      const live = liveIn(p.house, state)
      const { liveAt } = instrumentsOf(p, truthOf(p, 11))
      for (const panel of p.job.panels) {
        const bus = (['L1', 'L2'] as const).some(leg => liveAt(`bus ${panel.id}`, [leg, 'N'], state))
        expect([job.title, panel.id, bus]).toEqual([job.title, panel.id, live.has(`bus ${panel.id}`)])
      }
    }),
    { numRuns: 300 },
  )
})
