import { applyPatches } from 'immer'
import { yearHours } from '@/core/ask/weather-year'
import { applyOperation, type Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { differences } from './differences'

const hours = 'A'.repeat(yearHours * 4)
const withYear = {
  ...alderHollow,
  outage: {
    ...alderHollow.outage,
    weather: { ...{ name: 'x', latitudeDeg: 40, longitudeDeg: -80, zoneH: -5 }, hours },
  },
} as Job
const operations: Operation[] = [
  { op: 'setOutage', facts: { hours: 48 } },
  { op: 'setOutage', facts: {}, clear: ['beginsH'] },
  { op: 'selectCircuit', circuitId: 'c7', picked: false },
  { op: 'moveBreaker', circuitId: 'c2', toPosition: 28 },
  { op: 'removeCircuit', circuitId: 'c5' },
  { op: 'setJobFacts', facts: { title: 'Another' } },
]

test.each(operations)('forth and back again are exact: $op', operation => {
  const next = applyOperation(alderHollow, operation)
  if (!next.ok) throw new Error(JSON.stringify(next.faults))
  const { forward, backward } = differences(alderHollow, next.value)
  expect(applyPatches(alderHollow, forward)).toEqual(next.value)
  expect(applyPatches(next.value, backward)).toEqual(alderHollow)
})

test('a change of the outage does not keep its year of weather again', () => {
  const { forward, backward } = differences(withYear, {
    ...withYear,
    outage: { ...withYear.outage, hours: 99 },
  })
  expect(JSON.stringify([forward, backward]).length).toBeLessThan(300)
})
