import fc from 'fast-check'
import { figureKeys, type Load, startFigure } from '../../loads/load'
import type { Log } from '../../loads/log'
import { origins } from '../../working'
import { applied, circuit, job, load, utilityYear } from '../fixtures/jobs'
import { circuitsOf } from '../panels'
import type { Job } from '../schema'
import { applyOperation, describeOperation, type Operation, operationSchema } from '.'

/** How a job's loads and its utility data change, by name. */

const fridge: Load = load(140, {
  id: 'fridge',
  name: 'Fridge',
  runningW: { value: 140, from: 'typical value' },
  dutyFraction: { value: 0.35, from: 'assumed' },
  nature: 'compressor',
})
const start = job([circuit(1, { label: 'Kitchen', loads: [fridge] })])
const on = { circuitId: 'c1', loadId: 'fridge' }
const log: Log = {
  id: 'log',
  name: '48 h',
  kind: 'plug-in meter',
  on: '2026-02-10',
  spans: [{ hours: 48, energyWh: 2000 }],
  runningW: 118,
  idleW: 2,
}
const utility = utilityYear()
const fridgeOf = (j: Job) => circuitsOf(j)[0]?.loads[0]
const faultsOf = (j: Job, operation: Operation) => {
  const outcome = applyOperation(j, operation)
  return outcome.ok ? [] : outcome.faults.map(f => `${f.path} ${f.message}`)
}

test('a log is taken, and taken away again; each is told in the history', () => {
  const take: Operation = { op: 'takeLog', ...on, log }
  const taken = applied(start, take)
  expect(fridgeOf(taken)).toMatchObject({ runningW: { value: 118, from: 'metered' }, logs: [{ id: 'log' }] })
  expect(describeOperation(start, take)).toBe('took the log 48 h for Fridge')
  const away: Operation = { op: 'removeLog', ...on, logId: 'log' }
  expect(fridgeOf(applied(taken, away))).toMatchObject({
    runningW: fridge.runningW,
    dutyFraction: fridge.dutyFraction,
  })
  expect(describeOperation(taken, away)).toBe('removed a log of Fridge')
  // the same log again replaces itself, and a log that is gone changes nothing
  expect(fridgeOf(applied(taken, take))?.logs).toHaveLength(1)
  expect(applied(start, away)).toEqual(start)
})

test('what a log cannot be is refused by its place, and nothing changes', () => {
  const wrong = { ...log, spans: [{ hours: 0, energyWh: -1 }] }
  const parsed = operationSchema.safeParse({ op: 'takeLog', ...on, log: wrong })
  expect(parsed.error?.issues.map(i => i.path.join('.'))).toEqual([
    'log.spans.0.hours',
    'log.spans.0.energyWh',
  ])
  const idle = operationSchema.safeParse({ op: 'takeLog', ...on, log: { ...log, runningW: 2 } })
  expect(idle.error?.issues[0]?.message).toBe(
    'must be above the idle watts (2 W): what it draws while it runs',
  )
  expect(faultsOf(start, { op: 'takeLog', circuitId: 'c1', loadId: 'gone', log })[0]).toMatch(
    /no longer hold this load/,
  )
  expect(faultsOf(start, { op: 'takeLog', circuitId: 'c9', loadId: 'fridge', log })[0]).toMatch(
    /no longer hold the circuit c9/,
  )
})

test('a start is taken, a source chosen and left to the best again', () => {
  const inrush: Operation = {
    op: 'takeStart',
    ...on,
    start: { method: 'inrush', inrushA: { value: 11, from: 'metered' } },
  }
  const started = fridgeOf(applied(start, inrush))?.start
  expect(started && startFigure(started).value).toBe(11)
  const taken = applied(start, { op: 'takeLog', ...on, log })
  const choose: Operation = { op: 'chooseFigure', ...on, figure: 'runningW', from: 'typical value' }
  const chosen = applied(taken, choose)
  expect(fridgeOf(chosen)?.runningW).toMatchObject({ value: 140, chosen: true })
  expect(describeOperation(taken, choose)).toBe('chose the typical value figure (running) for Fridge')
  expect(fridgeOf(applied(chosen, { ...choose, from: null }))?.runningW).toMatchObject({ value: 118 })
  expect(faultsOf(start, { ...choose, from: 'catalogue' })).toEqual([
    'runningW has no figure from catalogue to choose',
  ])
})

test('the utility’s data bring the panel its highest demand with the allowance, and take it away with them', () => {
  const take: Operation = { op: 'takeUtility', utility, panelId: 'main', peakFactor: 1.25 }
  const taken = applied(start, take)
  expect(taken.panels[0]?.demandW).toEqual({
    value: 6000,
    from: 'utility data',
    on: '2026-02-01',
    document: 'year.xml',
    peakFactor: 1.25,
  })
  expect(describeOperation(start, take)).toBe('took the utility data year.xml')
  expect(applied(taken, { op: 'dropUtility' })).toEqual(start)
  expect(faultsOf(start, { ...take, panelId: 'gone' })[0]).toMatch(/no longer hold the panel gone/)
  // a demand that somebody entered by hand stays when the data go, or were never there
  const entered = applied(start, {
    op: 'setPanel',
    facts: { demandW: { value: 9000, from: 'utility data' } },
  })
  expect(applied(entered, { op: 'dropUtility' })).toEqual(entered)
  const byHand = applied(taken, {
    op: 'setPanel',
    facts: { demandW: { value: 9000, from: 'utility data', document: 'a letter' } },
  })
  expect(applied(byHand, { op: 'dropUtility' }).panels[0]?.demandW?.value).toBe(9000)
})

test('season, weather and hour of the outage are set and left out again', () => {
  const cold = applied(start, { op: 'setOutage', facts: { season: 'winter', outdoorC: -12, beginsH: 17.5 } })
  expect(cold.outage).toMatchObject({ season: 'winter', outdoorC: -12, beginsH: 17.5 })
  expect(applied(cold, { op: 'setOutage', facts: {}, clear: ['season', 'outdoorC', 'beginsH'] })).toEqual(
    start,
  )
})

test('levels above the running watts, ranges the wrong way round and shares above the whole are refused', () => {
  const put = (facts: Partial<Load>) =>
    faultsOf(start, { op: 'putLoad', circuitId: 'c1', load: { ...fridge, ...facts } })
  expect(put({ stages: [{ W: 200, shareFraction: 0.5 }] })[0]).toMatch(
    /stages\[0\]\.W must not be above the running watts/,
  )
  expect(
    put({
      stages: [
        { W: 20, shareFraction: 0.7 },
        { W: 30, shareFraction: 0.7 },
      ],
    })[0],
  ).toMatch(/whole running time/)
  expect(put({ runningW: { value: 140, from: 'assumed', low: 150 } })[0]).toMatch(
    /runningW\.low must not be above the likely/,
  )
  expect(put({ idleW: { value: 5, from: 'assumed', high: 4 } })[0]).toMatch(
    /idleW\.high must not be below the likely/,
  )
})

test('whatever comes in whatever order, the job stays whole and the source in force is best or chosen', () => {
  const amount = fc.integer({ min: 5, max: 900 })
  const step = fc.oneof(
    amount.map(
      (W): Operation => ({
        op: 'takeLog',
        ...on,
        log: {
          ...log,
          id: `log ${W}`,
          name: `log ${W}`,
          runningW: W,
          spans: [{ hours: 24, energyWh: W * 8 }],
        },
      }),
    ),
    amount.map(
      (W): Operation => ({
        op: 'takePlate',
        circuitId: 'c1',
        loadId: 'fridge',
        newLoadId: 'x',
        name: 'Fridge',
        plate: { watts: W },
        on: '2026-02-02',
      }),
    ),
    fc
      .constantFrom(...figureKeys)
      .chain(figure =>
        fc
          .constantFrom(...origins, null)
          .map((from): Operation => ({ op: 'chooseFigure', ...on, figure, from })),
      ),
    amount.map((W): Operation => ({ op: 'removeLog', ...on, logId: `log ${W}` })),
  )
  fc.assert(
    fc.property(fc.array(step, { maxLength: 14 }), steps => {
      let now = start
      for (const operation of steps) {
        const outcome = applyOperation(now, operation)
        // the only thing that may be refused is a source that is not there
        if (outcome.ok) now = outcome.value
        else expect(operation.op).toBe('chooseFigure')
      }
      const figure = fridgeOf(now)?.runningW
      const rank = (from: (typeof origins)[number]) => ['metered', 'nameplate', 'typical value'].indexOf(from)
      for (const other of figure?.others ?? [])
        expect(figure?.chosen || rank(figure?.from ?? 'assumed') <= rank(other.from)).toBe(true)
    }),
    { numRuns: 60 },
  )
})
