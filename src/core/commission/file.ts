import Papa from 'papaparse'
import type { Read } from '../job/test-log'
import { type Fault, fail, fault, type Outcome, ok } from '../outcome'
import type { Test } from './tests'
import { typedRead } from './typed'

/** Readings of one test out of a file. */
export interface FileReading {
  test: Test
  readings: Read[]
  ran?: string[]
}

const columns = ['test', 'key', 'value'] as const

/**
 * A table of readings, a figure a line: `test`, `key`, `value`, as the list of tests names them; `value` as it is typed anywhere. Further columns are let be, but `ran`: ids of the
 * loads that ran, apart by blanks. Faults name the line: no such test, no such figure, a value that cannot be.
 */
export function readingsIn(text: string, tests: readonly Test[]): Outcome<FileReading[]> {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, '').trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
  })
  const missing = columns.filter(c => !meta.fields?.includes(c))
  if (missing.length)
    return fail(
      fault(
        '$',
        `is no table of readings: its first line must name ${columns.join(', ')}; ${missing.join(', ')} ${missing.length > 1 ? 'are' : 'is'} not there. A meter’s own series goes with the capacity test`,
      ),
    )
  const faults: Fault[] = []
  const found = new Map<string, FileReading>()
  for (const [n, row] of data.entries()) {
    const say = (problem: string) => faults.push(fault(`line ${n + 2}`, problem))
    const test = tests.find(t => t.id === row.test?.trim())
    const asked = test?.asks.find(a => a.key === row.key?.trim())
    if (!test || !asked) {
      say(
        test
          ? `${row.key || 'an empty key'} is not asked by ${test.id}: ${test.asks.map(a => a.key).join(', ')}`
          : `${row.test || 'an empty test'} is no test of this job`,
      )
      continue
    }
    const got = typedRead(row.value ?? '', asked)
    if ('problem' in got) {
      say(`${test.id}, ${asked.key}: ${got.problem}`)
      continue
    }
    const was = found.get(test.id) ?? { test, readings: [] }
    const ran = row.ran?.trim() ? row.ran.trim().split(/\s+/) : was.ran
    found.set(test.id, {
      test,
      readings: [...was.readings.filter(r => r.key !== asked.key), { key: asked.key, value: got.value }],
      ...(ran && { ran }),
    })
  }
  return faults.length ? fail(...faults) : ok([...found.values()])
}
