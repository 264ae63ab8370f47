// Adds up what the runners wrote: one closing line for whoever reads only the end.
import { existsSync, readFileSync } from 'node:fs'

const read = name => {
  const file = `${process.argv[2]}/${name}.json`
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null
}
const jest = read('jest')
const journeys = read('playwright')
const passed = (jest?.numPassedTests ?? 0) + (journeys?.stats.expected ?? 0)
const failed = (jest?.numFailedTests ?? 0) + (journeys?.stats.unexpected ?? 0)
process.stdout.write(`\n${passed} passed, ${failed} failed\n`)
