import { circuitOf, placeText } from '../job/panels'
import type { Job } from '../job/schema'
import { ofTests, overtaking, type TestEntry } from '../job/test-log'
import { doneIn } from '../job/work-log'
import { inspection } from '.'
import { judgeTest, type Verdict } from './judge'
import { type GroupKey, groupKeys, type MatrixRow, type Test, type TestList } from './tests'

type ReadEntry = Extract<TestEntry, { kind: 'read' }>

/** How one test stands, from what was written down of it. */
export interface TestStand {
  /** `again`: it was read, and that no longer counts */
  state: 'open' | 'passed' | 'doubtful' | 'failed' | 'left out' | 'again'
  verdict: Verdict | null
  /** as it was read last */
  read: ReadEntry | null
  /** why what was read no longer counts */
  stale: string | null
  leftOut: { by: string; why: string } | null
  /** others who read it since it was mended last, before the last who did */
  alsoBy: string[]
  /** every entry of it, as they came */
  history: readonly TestEntry[]
  /** what comes first and has not passed; it may be done before all the same */
  first: Test[]
}

/** What the inspector said, and what became of it. */
export interface InspectionStand {
  appointment: { day: string; text: string; by: string } | null
  remarks: {
    id: string
    text: string
    circuitIds: string[]
    photoId: string | null
    by: string
    corrected: boolean
  }[]
  result: { result: 'passed' | 'to be corrected'; on: string; by: string; text: string } | null
  passed: boolean
}

export interface TestsStand {
  tests: ReadonlyMap<string, TestStand>
  groups: { group: GroupKey; passed: number; count: number; failed: number }[]
  passed: number
  /** tests that count: an optional one only where it was done */
  count: number
  failed: Test[]
  again: Test[]
  doubtful: Test[]
  leftOut: Test[]
  /** the first that is not done, in the order of the list */
  next: string | null
  /** what was read of tests that the list no longer has */
  gone: { test: string; text: string; by: string; on: string }[]
  /** read by simulated instruments: they prove nothing in a house */
  simulated: number
  inspection: InspectionStand
}

const settled: ReadonlySet<TestStand['state']> = new Set(['passed', 'left out'])
export const isSettled = ({ state }: Pick<TestStand, 'state'>): boolean => settled.has(state)

/** The work order’s task of a remark. */
export const remarkTask = (remarkId: string) => `remark:${remarkId}`

function overtakenText(own: readonly TestEntry[], read: ReadEntry): string | null {
  const by = overtaking(own, read)
  return (
    by &&
    `It came in late: ${by.by} ${by.kind === 'mended' ? 'put something right' : 'read it as failed'} after ${read.by} had read it. Read it again.`
  )
}

function standOfTest(test: Test, own: readonly TestEntry[]): Omit<TestStand, 'first'> {
  const reads = ofTests(own, 'read')
  const read = reads.at(-1) ?? null
  const mended = own.findLastIndex(e => e.kind === 'mended')
  const since = reads.filter(r => own.indexOf(r) > mended)
  const left = ofTests(own, 'left out').at(-1)
  const leftOut =
    left && (!read || own.indexOf(left) > own.indexOf(read)) ? { by: left.by, why: left.why } : null
  const verdict = read && judgeTest(test, read.readings, read.ran)
  const stale = !read
    ? null
    : read.basis !== test.basis
      ? 'It was read under another plan: what is tested is connected otherwise now. Read it again.'
      : own.indexOf(read) < mended
        ? 'Something was mended since: read it again.'
        : overtakenText(own, read)
  return {
    state: leftOut
      ? 'left out'
      : !verdict || verdict.state === 'open'
        ? 'open'
        : stale
          ? 'again'
          : verdict.state,
    verdict,
    read,
    stale,
    leftOut,
    alsoBy: [...new Set(since.slice(0, -1).map(e => e.by))].filter(by => by !== read?.by),
    history: own,
  }
}

/** How the tests stand: each judged against what is expected today. Entries count in the order in which they are kept. */
export function standOfTests(job: Job, { tests }: Pick<TestList, 'tests'>): TestsStand {
  const log = job.tests?.log ?? []
  const byTest = new Map<string, TestEntry[]>()
  for (const e of log) byTest.set(e.test, [...(byTest.get(e.test) ?? []), e])
  const stands = new Map<string, TestStand>()
  const passedNow = (id: string) => stands.get(id)?.state === 'passed'
  for (const test of tests) {
    const own = standOfTest(test, byTest.get(test.id) ?? [])
    stands.set(test.id, { ...own, first: tests.filter(t => test.restsOn.includes(t.id) && !passedNow(t.id)) })
  }
  const stateOf = (t: Test) => stands.get(t.id)?.state ?? 'open'
  const counts = tests.filter(t => !t.optional || stateOf(t) !== 'open')
  const ids = new Set(tests.map(t => t.id))
  return {
    tests: stands,
    groups: groupKeys.flatMap(group => {
      const here = counts.filter(t => t.group === group)
      return here.length
        ? [
            {
              group,
              count: here.length,
              passed: here.filter(t => stateOf(t) === 'passed').length,
              failed: here.filter(t => stateOf(t) === 'failed').length,
            },
          ]
        : []
    }),
    passed: counts.filter(t => stateOf(t) === 'passed').length,
    count: counts.length,
    failed: counts.filter(t => stateOf(t) === 'failed'),
    again: counts.filter(t => stateOf(t) === 'again'),
    doubtful: counts.filter(t => stateOf(t) === 'doubtful'),
    leftOut: counts.filter(t => stateOf(t) === 'left out'),
    next: counts.find(t => !settled.has(stateOf(t)))?.id ?? null,
    gone: [...byTest].flatMap(([test, own]) => {
      const last = ofTests(own, 'read').at(-1)
      return !ids.has(test) && test !== inspection && last
        ? [{ test, text: goneText(job, test), by: last.by, on: last.on }]
        : []
    }),
    simulated: counts.filter(t => stands.get(t.id)?.read?.simulated && stateOf(t) !== 'again').length,
    inspection: inspectionOf(job),
  }
}

/** What a test of one circuit was of, in words; others by their id. */
const kindsOfOne: Readonly<Record<string, string>> = {
  ground: 'its equipment ground',
  crossed: 'its neutral',
  utility: 'on the utility',
  off: 'off',
  watts: 'on the source',
  dead: 'dead on the source',
  far: 'its last outlet',
  guard: 'its protection',
}

function goneText(job: Job, test: string): string {
  const [kind = '', id = ''] = test.split(':')
  const at = circuitOf(job, id)
  const word = kindsOfOne[kind]
  return at && word
    ? `${placeText(job, at.panel, at.circuit)} ${at.circuit.label || 'unlabelled'}: ${word}`
    : test
}

/** What was said last, whenever it came in; of two at one instant the one that is kept last. */
const lastWritten = <E extends TestEntry>(entries: readonly E[]): E | undefined =>
  entries.reduce<E | undefined>(
    (last, e) => (last && Date.parse(last.at) > Date.parse(e.at) ? last : e),
    undefined,
  )

function inspectionOf(job: Job): InspectionStand {
  const own = (job.tests?.log ?? []).filter(e => e.test === inspection)
  const done = doneIn(job.work?.log ?? [])
  const appointment = lastWritten(ofTests(own, 'appointment'))
  const result = lastWritten(ofTests(own, 'inspected'))
  const remarks = ofTests(own, 'remark').map(r => ({
    id: r.id,
    text: r.text,
    circuitIds: r.circuitIds ?? [],
    photoId: r.photoId ?? null,
    by: r.by,
    corrected: done.has(remarkTask(r.id)),
  }))
  return {
    appointment: appointment
      ? { day: appointment.day, text: appointment.text ?? '', by: appointment.by }
      : null,
    remarks,
    result: result ? { result: result.result, on: result.on, by: result.by, text: result.text ?? '' } : null,
    // what was remarked and stands open stands against any word
    passed: result?.result === 'passed' && remarks.every(r => r.corrected),
  }
}

/** How it stands, in a sentence: what is not passed is never counted as if it were. */
export function standText({ passed, count, simulated, ...lists }: TestsStand): string {
  if (!count) return 'Nothing to prove yet.'
  const told = [
    [lists.failed.length, 'failed'],
    [lists.doubtful.length, 'doubtful'],
    [lists.again.length, 'to be read again'],
    [lists.leftOut.length, 'left out'],
  ] as const
  const open = count - passed - told.reduce((sum, [n]) => sum + n, 0)
  return [
    `${passed} of ${count} passed`,
    ...told.flatMap(([n, word]) => (n ? [`${n} ${word}`] : [])),
    ...(open > 0 ? [`${open} open`] : []),
    ...(simulated ? [`${simulated} by simulated instruments, which prove nothing in a house`] : []),
  ]
    .join('; ')
    .concat('.')
}

/** Watts of all circuits that came on, as they were read; and what the unit gives. */
export function runningTotal(rows: readonly MatrixRow[], stand: TestsStand): number {
  return rows.reduce((sum, row) => {
    const read = row.tests.source === null ? null : stand.tests.get(row.tests.source)?.read
    const W = read?.readings.find(r => r.key === 'W')?.value
    return sum + (typeof W === 'number' ? W : 0)
  }, 0)
}
