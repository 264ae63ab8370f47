import { testList } from '@/core/commission'
import { readingsIn } from '@/core/commission/file'
import { judgeTest, rangeText, togetherText } from '@/core/commission/judge'
import { standOfTests, standText } from '@/core/commission/stand'
import { groups, instruments } from '@/core/commission/tests'
import { complainOf, open, print } from './io'
import { readJobFile } from './job'

/** What has to be proven of a job: each test with what is expected and why, how it stands, the grid of circuits. */
export async function testsOfFile(file: string): Promise<number> {
  const job = await readJobFile('tests', file)
  if (!job) return 2
  const list = testList(job)
  const stand = standOfTests(job, list)
  print({
    stands: standText(stand),
    tests: list.tests.map(t => ({
      id: t.id,
      group: groups[t.group].name,
      test: t.text,
      set: t.setUp.says,
      lines: t.lines,
      reads: t.asks.map(a => ({
        key: a.key,
        name: a.name,
        ...(a.unit && { unit: a.unit }),
        instrument: instruments[a.instrument].name,
        at: a.probe.at,
        ...(a.when && { set: a.when.says }),
        ...(a.expected && { expected: rangeText(a.expected, a.unit), working: a.expected.working }),
        ...(a.choices && { choices: a.choices }),
        ...(a.optional && { optional: true }),
      })),
      together: t.together.map(together => ({ ...together, expected: togetherText(together) })),
      causes: t.causes.map(c => `${c.text} ${c.mend}`),
      after: t.restsOn,
      ...(t.restMin && { restMinutes: t.restMin }),
      cite: t.cite.map(c => `NEC ${c}`),
      state: stand.tests.get(t.id)?.state,
    })),
    matrix: list.matrix,
    open: list.open,
  })
  return 0
}

/** A table of readings, judged: `test,key,value` a line. Ends with 1 where one failed. */
export async function readingsOfFile(jobFile: string, file: string | undefined): Promise<number> {
  const job = await readJobFile('readings', jobFile)
  if (!job) return 2
  if (!file)
    return complainOf('readings', [
      { path: '$', message: 'give a file of readings, or - for standard input' },
    ])
  const parts: Uint8Array[] = []
  for await (const part of open(file)) parts.push(Buffer.from(part))
  const read = readingsIn(Buffer.concat(parts).toString('utf8'), testList(job).tests)
  if (!read.ok) return complainOf(`readings: ${file}`, read.faults)
  const judged = read.value.map(({ test, readings, ran }) => {
    const { state, name, text, next } = judgeTest(test, readings, ran)
    return { test: test.id, readings, ...(ran && { ran }), verdict: state, name, text, next }
  })
  print(judged)
  return judged.some(j => j.verdict === 'failed') ? 1 : 0
}
