import { inspection, testList } from '@/core/commission'
import { judgedEntry } from '@/core/commission/judge'
import { proofOf } from '@/core/commission/scene'
import { remarkTask } from '@/core/commission/stand'
import type { Test } from '@/core/commission/tests'
import { applyOperation, type Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { type TestEntry, testEntrySchema } from '@/core/job/test-log'
import { instrumentsOf, questionOf } from '@/simulators/house/instruments'
import { truthOf } from '@/simulators/house/truth'

type Facts<E = TestEntry> = E extends TestEntry ? Omit<E, 'id' | 'test' | 'by' | 'at' | 'on'> : never

const applied = (job: Job, operation: Operation): Job => {
  const outcome = applyOperation(job, operation)
  if (!outcome.ok) throw new Error(outcome.faults.map(f => `${f.path}: ${f.message}`).join('; '))
  return outcome.value
}

interface Proving {
  seed: number
  /** what is wrong in the house, and waits to be found; none: no house stands in, and the readings count */
  fault?: string
  by: readonly [string, string]
  day: string
  /** tests that are done */
  done: (test: Test) => boolean
}

/** A job of which tests are done: read from the made-up house of a seed, always the same. */
export function proven(job: Job, { seed, fault, by, day, done }: Proving): Job {
  const house =
    fault === undefined ? job : applied(job, { op: 'standInHouse', house: { seed, faults: [fault] } })
  const instruments = instrumentsOf(
    proofOf(house),
    truthOf(proofOf(house), seed, fault === undefined ? [] : [fault]),
  )
  const entries = testList(house)
    .tests.filter(done)
    .map((test, n): TestEntry => {
      const readings = test.asks.map(a => ({ key: a.key, value: instruments.read(questionOf(test, a)) }))
      return testEntrySchema.parse({
        ...judgedEntry(test, readings),
        id: `seed-${n + 1}`,
        test: test.id,
        by: by[n % 2],
        at: new Date(Date.parse(`${day}T14:00:00Z`) + n * 150_000).toISOString(),
        on: day,
        instrument: 'meter 7',
        ...(fault !== undefined && { simulated: true }),
      })
    })
  return entries.length
    ? applied(house, { op: 'recordTests', about: 'the tests of the demo', entries })
    : house
}

/** An inspection with a remark that was corrected: an appointment, what was said, and that it passed. */
export function inspected(job: Job, by: string, day: string): Job {
  const entry = (id: string, facts: Facts): TestEntry =>
    testEntrySchema.parse({ ...facts, id, test: inspection, by, at: `${day}T15:00:00Z`, on: day })
  const remarked = applied(job, {
    op: 'recordTests',
    about: 'Inspection',
    entries: [
      entry('seed-appointment', { kind: 'appointment', day, text: 'in the morning' }),
      entry('seed-remark', { kind: 'remark', text: 'Label at the plug: which appliance it is of' }),
    ],
  })
  const task = remarkTask('seed-remark')
  const corrected = applied(remarked, {
    op: 'recordWork',
    about: 'Label at the plug',
    entries: [
      {
        kind: 'evidence',
        id: 'seed-r1',
        task,
        by,
        at: `${day}T15:20:00Z`,
        hold: `${task}#corrected`,
        text: 'label put on',
      },
      { kind: 'done', id: 'seed-r2', task, by, at: `${day}T15:25:00Z`, on: day },
    ],
  })
  return applied(corrected, {
    op: 'recordTests',
    about: 'Inspection',
    entries: [entry('seed-passed', { kind: 'inspected', result: 'passed' })],
  })
}

/** Capacity tests of former years, by what share of a new one’s watt-hours was delivered. */
export function testedOverYears(
  job: Job,
  by: string,
  years: readonly (readonly [day: string, share: number])[],
): Job {
  const test = testList(job).tests.find(t => t.group === 'capacity')
  const asks = test?.together.find(t => t.by === 'capacity')
  if (!test || !asks) return job
  const loadW = 500
  const newWh = (asks.ratedWh / (asks.idleW + loadW / asks.efficiencyFraction)) * loadW
  return applied(job, {
    op: 'recordTests',
    about: test.text,
    entries: years.map(([on, share], n) => ({
      kind: 'read' as const,
      id: `seed-capacity-${n + 1}`,
      test: test.id,
      by,
      at: `${on}T16:00:00Z`,
      on,
      readings: [
        { key: 'loadW', value: loadW },
        { key: 'Wh out', value: Math.round(newWh * share) },
        { key: 'from', value: 100 },
        { key: 'to', value: 0 },
        { key: 'Wh back', value: Math.round((newWh * share) / 0.79) },
      ],
      instrument: 'plug-in meter 2',
      basis: test.basis,
      judged: share >= 0.9 ? ('passed' as const) : ('doubtful' as const),
    })),
  })
}
