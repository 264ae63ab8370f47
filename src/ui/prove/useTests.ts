import { useEffect, useMemo, useState } from 'react'
import { inspection, testList } from '@/core/commission'
import { standOfTests, type TestsStand } from '@/core/commission/stand'
import type { Test, TestList } from '@/core/commission/tests'
import { instantOf, type TestEntry } from '@/core/job/test-log'
import type { Fault } from '@/core/outcome'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'

export interface Tests {
  list: TestList
  stand: TestsStand
}

/** What has to be proven of the job at hand, and how it stands. */
export function useTests(): Tests {
  const job = useWorkspace(s => s.job)
  const list = useMemo(() => testList(job), [job])
  const stand = useMemo(() => standOfTests(job, list), [job, list])
  return useMemo(() => ({ list, stand }), [list, stand])
}

/** The test on the screen: the one that was chosen, else the first that is not done. */
export function useChosen({ list, stand }: Tests) {
  const [chosen, choose] = useState<string | null>(null)
  const at = list.tests.findIndex(t => t.id === chosen)
  const number =
    at >= 0
      ? at
      : Math.max(
          0,
          list.tests.findIndex(t => t.id === stand.next),
        )
  const test = list.tests[number]
  // what is on the screen stays there when it is read, or when others go on
  useEffect(() => {
    if (chosen === null && test) choose(test.id)
  }, [chosen, test])
  return { test, number, choose }
}

type Facts<E = TestEntry> = E extends TestEntry ? Omit<E, 'id' | 'test' | 'by' | 'at' | 'on'> : never
type About = Pick<Test, 'id' | 'text'>
export const theInspection: About = { id: inspection, text: 'Inspection' }

/** Writes down what happened at a test, by who acts here, on the firm’s day; the faults, where it is refused. */
export function useRecordTest(): (test: About, ...facts: Facts[]) => Fault[] {
  const record = useRecordTests()
  return (test, ...facts) => record(facts.map(f => ({ test, facts: f })))
}

/** The same of several tests at once: one entry of the history. */
export function useRecordTests(): (
  what: readonly { test: About; facts: Facts }[],
  about?: string,
) => Fault[] {
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  const log = useWorkspace(s => s.job.tests?.log)
  return (what, about) => {
    const [first] = what
    if (!first) return []
    return act({
      op: 'recordTests',
      about: (about ?? first.test.text).slice(0, 160),
      entries: what.map(({ test, facts }) => ({
        ...facts,
        id: crypto.randomUUID(),
        test: test.id,
        by: person,
        at: instantOf(log ?? [], test.id, new Date()),
        on: today(),
      })),
    })
  }
}
