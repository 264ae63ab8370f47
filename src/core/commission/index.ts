import { changeText } from '../job/change-text'
import type { Job } from '../job/schema'
import { automaticTests } from './automatic'
import { capacityTests } from './capacity'
import { deadTests } from './dead'
import { drillTests } from './drill'
import { farTests } from './far'
import { generatorTests } from './generator'
import { legTests } from './legs'
import { manualTests } from './manual'
import { matrixOf } from './matrix'
import { neutralTests } from './neutral'
import { type Proof, proofOf } from './scene'
import { startTests } from './start'
import { groups, type Test, type TestList } from './tests'

/** The test that the inspection’s entries belong to. */
export const inspection = 'inspection'

/**
 * What has to be proven of a job, from what is planned: each test with what is expected and why, in the order in which a house is usually proven. Nothing of it is stored:
 * what was read is judged against today’s list.
 */
export function testList(job: Job): TestList {
  const parts = [job.panels, job.planned, job.hookup, job.source, job.brief, job.outage, job.work?.log]
  if (known?.parts.every((part, n) => part === parts[n])) return known.list
  const list = listOf(proofOf(job))
  known = { parts, list }
  return list
}

let known: { parts: unknown[]; list: TestList } | null = null

function listOf(p: Proof): TestList {
  const matrix = matrixOf(p)
  const starts = startTests(p)
  const tests = [
    ...deadTests(p),
    ...legTests(p),
    ...neutralTests(p),
    ...manualTests(p),
    ...matrix.tests,
    ...farTests(p),
    ...starts.tests,
    ...automaticTests(p),
    ...capacityTests(p),
    ...generatorTests(p),
    ...drillTests(p),
  ]
  const ids = new Set(tests.map(t => t.id))
  return {
    tests: inTurn(tests).map(t => ({ ...t, restsOn: t.restsOn.filter(id => ids.has(id)) })),
    matrix: matrix.rows,
    sourceW: p.output?.totalW ?? null,
    open: [
      ...(p.job.source ? [] : ['No source is chosen yet: only what needs none is listed.']),
      ...p.open,
      ...starts.open,
    ],
  }
}

const turns = Object.keys(groups)
const inTurn = (tests: readonly Test[]): Test[] =>
  [...tests].sort((a, b) => turns.indexOf(a.group) - turns.indexOf(b.group))

/** What of the plan is not built yet: what is read meanwhile is of a house that is not finished. */
export const notBuilt = (job: Job): string[] => job.planned.filter(c => !c.built).map(c => changeText(job, c))
