import { circuit, job, load } from '../fixtures/jobs'
import { faultsLeft, figureOf, lastRead, type TestEntry } from '../test-log'
import { applyOperation, describeOperation, type Operation } from './index'

const house = job([circuit(1, { loads: [load(400, { stages: [{ W: 200, shareFraction: 0.5 }] })] })])
const common = { by: 'Ann', at: '2026-03-01T09:00:00Z', on: '2026-03-01' }
const read = (id: string, facts: object = {}): TestEntry => ({
  kind: 'read',
  id,
  test: 'watts:c1',
  ...common,
  readings: [{ key: 'W', value: 640 }],
  basis: 'b',
  judged: 'doubtful',
  ...facts,
})
const done = (operation: Operation, before = house) => {
  const outcome = applyOperation(before, operation)
  if (!outcome.ok) throw new Error(outcome.faults.map(f => `${f.path}: ${f.message}`).join('; '))
  return outcome.value
}
const refused = (operation: object) => {
  const outcome = applyOperation(house, operation as Operation)
  return outcome.ok ? [] : outcome.faults.map(f => f.path)
}

test('a log is only added to, by the ids of its entries; the last reading of a test counts', () => {
  const one = done({ op: 'recordTests', about: 'a test', entries: [read('a'), read('a')] })
  expect(one.tests?.log).toHaveLength(1)
  const two = done(
    {
      op: 'recordTests',
      about: 'a test',
      entries: [read('a'), read('b', { readings: [{ key: 'W', value: 500 }] })],
    },
    one,
  )
  expect(two.tests?.log.map(e => e.id)).toEqual(['a', 'b'])
  const last = lastRead(two.tests?.log ?? []).get('watts:c1')
  expect(last && figureOf(last, 'W')).toBe(500)
  expect(last && figureOf(last, 'V')).toBeUndefined()
  expect(one.tests?.log).toHaveLength(1)
})

test.each([
  ['a verdict that is none', { judged: 'fine' }],
  ['a day that is none', { on: 'yesterday' }],
  ['a figure without bounds', { readings: [{ key: 'W', value: 1e12 }] }],
  ['a key too many', { colour: 'red' }],
])('%s is refused by the schema', (_, facts) => {
  expect(
    refused({ op: 'recordTests', about: 'a test', entries: [{ ...read('a'), ...facts }] }).length,
  ).toBeGreaterThan(0)
})

test('the made-up house is put there and taken away by a step that can be undone; what was mended in it is wrong no more', () => {
  const made = done({
    op: 'standInHouse',
    house: { seed: 3, faults: ['neutral-loose:c1', 'ground-open:c1'] },
  })
  expect(made.tests && faultsLeft(made.tests)).toEqual(['neutral-loose:c1', 'ground-open:c1'])
  const mended = (simulated: boolean): TestEntry => ({
    kind: 'mended',
    id: `m${simulated}`,
    test: 'far:c1',
    ...common,
    what: 'a splice',
    cause: 'neutral-loose:c1',
    ...(simulated && { simulated: true }),
  })
  // mended in a real house: the made-up one stays as it is
  const real = done({ op: 'recordTests', about: 'far', entries: [mended(false)] }, made)
  expect(real.tests && faultsLeft(real.tests)).toHaveLength(2)
  const there = done({ op: 'recordTests', about: 'far', entries: [mended(true)] }, made)
  expect(there.tests && faultsLeft(there.tests)).toEqual(['ground-open:c1'])
  expect(done({ op: 'standInHouse', house: null }, there).tests).toEqual({ log: there.tests?.log })
})

test('what is taken over stands where it counts, above the metered; lower levels come down to it', () => {
  const on = '2026-03-01'
  const lower = done({
    op: 'takeCommissioned',
    circuitId: 'c1',
    loadId: 'load',
    W: 150,
    on,
    document: 'Tests, Ann',
  })
  const [taken] = lower.panels[0]?.circuits[0]?.loads ?? []
  expect(taken).toMatchObject({
    runningW: {
      value: 150,
      from: 'commissioned',
      document: 'Tests, Ann',
      others: [{ value: 400, from: 'metered' }],
    },
    stages: [{ W: 150, shareFraction: 0.5 }],
  })
  const loop = done({ op: 'takeLoop', circuitId: 'c1', loopOhms: { value: 0.4, from: 'commissioned', on } })
  expect(loop.panels[0]?.circuits[0]?.loopOhms?.value).toBe(0.4)
  const timed = done({ op: 'timeTransfer', transferS: { value: 0.1, from: 'commissioned', on } })
  expect(timed.source?.transferS?.value).toBe(0.1)
  expect(
    refused({ op: 'takeLoop', circuitId: 'gone', loopOhms: { value: 1, from: 'commissioned' } }),
  ).not.toEqual([])
})

test.each<[Operation, RegExp]>([
  [{ op: 'recordTests', about: 'Legs', entries: [read('a')] }, /^tested Legs$/],
  [
    { op: 'recordTests', about: 'Legs', entries: [read('a'), read('b')] },
    /^wrote down 2 test entries: Legs$/,
  ],
  [
    {
      op: 'recordTests',
      about: 'Inspection',
      entries: [{ kind: 'remark', id: 'r', test: 'inspection', ...common, text: 'x' }],
    },
    /^wrote down a remark at Inspection$/,
  ],
  [{ op: 'standInHouse', house: { seed: 1, faults: [] } }, /made-up house behind/],
  [{ op: 'standInHouse', house: null }, /took the made-up house away/],
  [
    { op: 'takeCommissioned', circuitId: 'c1', loadId: 'load', W: 640, on: '2026-03-01', document: 'x' },
    /took 640 W over, as commissioned, for 400 W load/,
  ],
  [
    { op: 'takeLoop', circuitId: 'c1', loopOhms: { value: 1, from: 'commissioned' } },
    /ohms of the way to .*circuit 1/,
  ],
  [{ op: 'timeTransfer', transferS: { value: 2, from: 'commissioned' } }, /timed the transfer: 2 s/],
])('%j is told in the history', (operation, said) => {
  expect(describeOperation(house, operation)).toMatch(said)
})
