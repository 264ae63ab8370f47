import { alderHollow, demoJobs, fernbrook, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { applied } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { instantOf, type TestEntry } from '../job/test-log'
import { voltageDrop } from '../wiring/voltage-drop'
import { ageingOf, type CapacityPoint, capacityPoints } from './ageing'
import { readingsIn } from './file'
import { testList } from './index'
import { discharged, dischargeIn } from './series'
import { isSettled, runningTotal, standOfTests, standText } from './stand'
import { groupKeys, type Test } from './tests'
import { typedRead } from './typed'

const list = testList(alderHollow)
const find = (id: string): Test => {
  const found = list.tests.find(t => t.id === id)
  if (!found) throw new Error(`no test ${id}`)
  return found
}
let count = 0
const common = (test: string) => ({
  id: `e${++count}`,
  test,
  by: 'Ann',
  at: '2026-03-01T09:00:00Z',
  on: '2026-03-01',
})
const read = (test: Test, figures: Record<string, number | string>, facts: object = {}): TestEntry => ({
  kind: 'read',
  ...common(test.id),
  readings: Object.entries(figures).map(([key, value]) => ({ key, value })),
  basis: test.basis,
  judged: 'passed',
  ...facts,
})
const withLog = (job: Job, ...entries: TestEntry[]): Job =>
  applied(job, { op: 'recordTests', about: 'a test', entries })

describe('the list', () => {
  test('follows from what is planned: what each job must prove, in the order in which a house is proven', () => {
    const ids = (job: Job) => testList(job).tests.map(t => t.id)
    expect(ids(alderHollow)).toEqual(
      expect.arrayContaining([
        'ground:c5',
        'legs',
        'ground:current',
        'bond:u1',
        'apart:tried',
        'pins',
        'watts:c7',
        'dead:c17',
        'far:c5',
        'guard:c7',
        'capacity:u1',
        'drill',
      ]),
    )
    expect(ids(saltmarshLane)).toEqual(
      expect.arrayContaining(['neutral:spread', 'generator', 'capacity:u1', 'capacity:u2']),
    )
    expect(ids(quarryRidge)).toEqual(
      expect.arrayContaining(['crossed:s1', 'apart:new-panel', 'auto:loss', 'solar:h2']),
    )
    // a plug changes nothing in a panel
    expect(ids(fernbrook).filter(id => /^(apart|pins|crossed)/.test(id))).toEqual([])
    for (const { job } of demoJobs) {
      const turns = testList(job).tests.map(t => groupKeys.indexOf(t.group))
      expect(turns).toEqual([...turns].sort((a, b) => a - b))
    }
  })

  test('every figure says what is expected, why, and whose tolerance it is', () => {
    for (const { job } of demoJobs)
      for (const t of testList(job).tests) {
        expect(new Set(t.asks.map(a => a.key)).size).toBe(t.asks.length)
        for (const a of t.asks)
          if (a.expected) {
            const { formula, references } = a.expected.working
            expect([t.id, `${formula.join(' ')} ${references.join(' ')}`]).toEqual([
              t.id,
              expect.stringMatching(/ours|ANSI|NEC|IEEE|UL/),
            ])
          }
      }
  })

  test('the ohms of a far outlet are those of the bench: way in and branch, cold', () => {
    const cold = (size: string, oneWayFt: number) =>
      voltageDrop.solve({
        material: 'cu',
        size,
        oneWayFt,
        currentA: 1,
        sourceV: 120,
        path: 'two-wire',
        conductorC: 30,
      } as Parameters<typeof voltageDrop.solve>[0]).ohms
    const way = (alderHollow.hookup.path ?? []).reduce(
      (sum, l) => sum + (l.size && l.lengthFt ? cold(l.size, l.lengthFt) : 0),
      0,
    )
    const drop = find('far:c5').together.find(t => t.by === 'drop')
    expect(drop?.ohms).toBeCloseTo(way + cold('12', 55), 6)
  })

  test('the matrix has every circuit by every supply; what belongs to nothing must stay dead', () => {
    const row = (id: string) => list.matrix.find(r => r.circuitId === id)
    expect(row('c5')).toMatchObject({
      tests: { utility: 'utility:c5', off: 'off:c5', source: 'watts:c5' },
      sourceW: 118,
      compressor: true,
    })
    expect(row('c17')).toMatchObject({
      tests: { utility: null, off: null, source: 'dead:c17' },
      sourceW: null,
    })
  })

  test('what cannot be proven is said: no hook-up, no position, an inverter that is none', () => {
    const open = (method: Job['hookup']['method'], job = alderHollow) =>
      testList(applied(job, { op: 'setHookup', facts: { method } })).open.join(' ')
    expect(open('undecided')).toMatch(/No hook-up is chosen/)
    expect(open('critical-subpanel')).toMatch(/Sluice 22 does not take over by itself/)
    expect(open('multi-circuit-switch', saltmarshLane)).toMatch(/has no position yet/)
  })
})

describe('how it stands', () => {
  const ground = find('ground:c5')
  const stand = (...entries: TestEntry[]) => {
    const job = withLog(alderHollow, ...entries)
    return standOfTests(job, testList(job))
  }
  const state = (...entries: TestEntry[]) => stand(...entries).tests.get(ground.id)?.state

  test('the last reading counts; two who read it are both kept; what was mended is read again', () => {
    const bad = read(ground, { ohms: 'OL' })
    const good = read(ground, { ohms: 0.3 }, { by: 'Ben' })
    expect(state(bad)).toBe('failed')
    expect(state(bad, good)).toBe('passed')
    expect(stand(bad, good).tests.get(ground.id)).toMatchObject({ alsoBy: ['Ann'], history: [bad, good] })
    const mended: TestEntry = { kind: 'mended', ...common(ground.id), what: 'splice made up anew' }
    expect(state(bad, mended)).toBe('again')
    expect(state(bad, mended, good)).toBe('passed')
  })

  test('what was read in a cellar, and came in after somebody had read it as failed, does not count; read again with that known, it does', () => {
    const at = (time: string, ohms: number | 'OL', by: string) =>
      read(
        ground,
        { ohms },
        { at: `2026-03-01T${time}:00Z`, judged: ohms === 'OL' ? 'failed' : 'passed', by },
      )
    const [late, noon] = [at('09:00', 0.3, 'Ann'), at('12:00', 'OL', 'Bob')]
    const one = (...entries: TestEntry[]) => stand(...entries).tests.get(ground.id)
    expect(one(noon, late)).toMatchObject({ state: 'again', stale: expect.stringMatching(/late: Bob read/) })
    const mended: TestEntry = {
      kind: 'mended',
      ...common(ground.id),
      by: 'Bob',
      at: '2026-03-01T12:30:00Z',
      what: 'splice',
    }
    expect(one(noon, mended, late)).toMatchObject({
      state: 'again',
      stale: expect.stringMatching(/late: Bob put something right/),
    })
    // a clock that is behind does not keep a house from ever passing
    const behind = new Date('2026-03-01T08:00:00Z')
    const now = instantOf([noon, mended, late], ground.id, behind)
    expect(state(noon, mended, late, read(ground, { ohms: 0.3 }, { at: now }))).toBe('passed')
    expect(instantOf([noon], 'legs', behind)).toBe(behind.toISOString())
  })
  test('left out is told with who and why, until it is done', () => {
    const left: TestEntry = { kind: 'left out', ...common(ground.id), why: 'finished ceiling' }
    const now = stand(left)
    expect(now.tests.get(ground.id)).toMatchObject({
      state: 'left out',
      leftOut: { by: 'Ann', why: 'finished ceiling' },
    })
    expect(isSettled({ state: 'left out' })).toBe(true)
    // settled, and never counted as passed
    expect(standText(now)).toMatch(/^0 of 57 passed; 1 left out/)
    expect(state(left, read(ground, { ohms: 2 }))).toBe('failed')
  })

  test('a circuit that is connected otherwise since is to be read again; what is expected otherwise is judged anew', () => {
    const watts = find('watts:c5')
    const job = withLog(alderHollow, read(watts, { V: 119, W: 640 }), read(ground, { ohms: 0.3 }))
    const stateOf = (j: Job, id: string) => standOfTests(j, testList(j)).tests.get(id)?.state
    expect(stateOf(job, 'watts:c5')).toBe('doubtful')
    const taken = applied(job, {
      op: 'takeCommissioned',
      circuitId: 'c5',
      loadId: 'kitchen-refrigerator',
      W: 640,
      on: '2026-03-01',
      document: 'Tests',
    })
    expect(stateOf(taken, 'watts:c5')).toBe('passed')
    expect(stateOf(taken, 'ground:c5')).toBe('passed')
    const elsewhere = applied(job, {
      op: 'setPositions',
      positions: (job.hookup.positions ?? []).map(p =>
        p.circuitId === 'c5' ? { ...p, position: 5 } : p.circuitId === 'c9' ? { ...p, position: 3 } : p,
      ),
    })
    expect(stateOf(elsewhere, 'watts:c5')).toBe('again')
    expect(stateOf(elsewhere, 'watts:c9')).toBe('open')
  })

  test('in a sentence; simulated readings and tests that are no longer there are told; the running total adds up', () => {
    const now = stand(
      read(ground, { ohms: 0.2 }, { simulated: true }),
      read(find('ground:c7'), { ohms: 5 }),
      read(find('watts:c5'), { V: 119, W: 120 }),
      read({ ...ground, id: 'ground:c99' }, { ohms: 0.2 }),
    )
    expect(standText(now)).toMatch(
      /^2 of 57 passed; 1 failed; 54 open; 1 by simulated instruments, which prove nothing/,
    )
    expect(now.gone).toMatchObject([{ test: 'ground:c99', by: 'Ann' }])
    expect(runningTotal(list.matrix, now)).toBe(120)
    expect(now.next).toBe('ground:c2')
  })

  test('a remark is a task of the work order; done there it is corrected, and only then the inspection has passed', () => {
    const remark: TestEntry = { kind: 'remark', ...common('inspection'), text: 'Label at the inlet' }
    const passed: TestEntry = { kind: 'inspected', ...common('inspection'), result: 'passed' }
    const job = withLog(alderHollow, remark, passed)
    const inspection = (j: Job) => standOfTests(j, testList(j)).inspection
    expect(inspection(job)).toMatchObject({
      passed: false,
      remarks: [{ text: 'Label at the inlet', corrected: false }],
    })
    const done = applied(job, {
      op: 'recordWork',
      about: 'remark',
      entries: [
        { kind: 'done', id: 'w', task: `remark:${remark.id}`, by: 'Ann', at: remark.at, on: remark.on },
      ],
    })
    expect(inspection(done)).toMatchObject({ passed: true, remarks: [{ corrected: true }] })
    const correct: TestEntry = {
      ...passed,
      id: 'i2',
      result: 'to be corrected',
      at: '2026-03-01T15:00:00Z',
    }
    // what was said in the morning and came in late does not stand over the afternoon
    expect(inspection(withLog(alderHollow, correct, passed)).result?.result).toBe('to be corrected')
    expect(inspection(withLog(alderHollow, passed, correct)).passed).toBe(false)
  })
})

test('entries are written once by their id', () => {
  const entry = read(find('ground:c5'), { ohms: 0.3 })
  expect(withLog(withLog(alderHollow, entry), entry).tests?.log).toEqual([entry])
})

describe('what is typed', () => {
  const volts = { unit: 'V' as const }
  test.each([
    ['−5', /must not be negative: AC volts have no sign/],
    ['1000', /this house has 240 V. Does the meter stand on mV/],
    ['121 mV', /the meter stands on another range. Turn it to AC volts/],
    ['OL', /no reading of V/],
    ['about 120', /must be a number/],
    ['', /must not be empty/],
  ])('%s V is refused with what to do', (text, why) => {
    expect(typedRead(text, volts)).toMatchObject({ problem: expect.stringMatching(why) })
  })
  test.each([
    ['121,4', volts, 121.4],
    ['121.4 V', volts, 121.4],
    ['OL', { unit: 'Ω' as const }, 'OL'],
    ['1.2 M', { unit: 'Ω' as const }, 1_200_000],
    ['0,3 ohm', { unit: 'Ω' as const }, 0.3],
    ['1.2 kW', { unit: 'W' as const }, 1200],
    ['60 Hz', { unit: 'Hz' as const }, 60],
    ['CLOSED', { unit: null, choices: ['closed', 'one is off'] }, 'closed'],
  ])('%s reads', (text, asked, value) => {
    expect(typedRead(text, asked)).toEqual({ value })
  })
})

test('a file of readings, a figure a line; of another meter it says what it should be, and bad lines are named', () => {
  const good = readingsIn(
    'test,key,value,by\nground:c5,ohms,"0,3",Ann\nwatts:c11,V,119,Ann\nwatts:c11,W,8,Ann\n',
    list.tests,
  )
  expect(good.ok && good.value.map(r => [r.test.id, r.readings])).toEqual([
    ['ground:c5', [{ key: 'ohms', value: 0.3 }]],
    [
      'watts:c11',
      [
        { key: 'V', value: 119 },
        { key: 'W', value: 8 },
      ],
    ],
  ])
  const faults = (text: string) => {
    const got = readingsIn(text, list.tests)
    return got.ok ? [] : got.faults.map(f => `${f.path}: ${f.message}`)
  }
  expect(faults('time,W,V,A\n2026-01-01 00:00:00,120,121,1\n')).toEqual([
    expect.stringMatching(/no table of readings.*test, key, value/),
  ])
  expect(faults('test,key,value\nground:c5,ohms,-2\nground:c99,ohms,1\nground:c5,volts,1\n')).toEqual([
    'line 2: ground:c5, ohms: must not be negative',
    'line 3: ground:c99 is no test of this job',
    'line 4: volts is not asked by ground:c5: ohms',
  ])
})

describe('capacity over the years', () => {
  const capacity = find('capacity:u1')
  const at = (on: string, out: number) =>
    read(capacity, { loadW: 900, from: 100, to: 0, 'Wh out': out }, { on })
  const point = (years: number, fraction: number): CapacityPoint => ({
    on: '',
    years,
    fraction,
    deliveredWh: 0,
    roundTripFraction: null,
    by: '',
    simulated: false,
  })

  test('tests come in the order of their days, as shares of what a new one delivers', () => {
    const points = capacityPoints(capacity, [at('2028-03-01', 3000), at('2026-03-01', 3329)])
    expect(points.map(p => [p.on, Math.round(100 * p.fraction), Math.round(10 * p.years) / 10])).toEqual([
      ['2026-03-01', 100, 0],
      ['2028-03-01', 90, 2],
    ])
  })
  test('one test alone takes what is usual; more tell their own slope, and the band narrows', () => {
    const one = ageingOf([point(0, 0.98)])
    expect(one.lostPerYear).toBeNull()
    expect(one.forecast[5]?.likely).toBeCloseTo(0.98 - 0.1, 3)
    const many = ageingOf([0, 1, 2, 3, 4].map(y => point(y, 1 - 0.04 * y)))
    expect(many.lostPerYear).toBeGreaterThan(0.033)
    expect(many.lostPerYear).toBeLessThan(0.04)
    const width = (a: ReturnType<typeof ageingOf>) => (a.forecast[5]?.high ?? 0) - (a.forecast[5]?.low ?? 0)
    expect(width(many)).toBeLessThan(width(one))
    expect(ageingOf([]).forecast).toEqual([])
  })
})

test('a meter’s series of a discharge: watt-hours while the load was on; what is too short, or no series, is told', () => {
  const tS = Float64Array.from([0, 1800, 3600, 5400])
  // half an hour of idling before, 900 W for an hour
  expect(discharged({ tS, W: Float32Array.from([4, 900, 900, 4]), backward: false })).toEqual({
    loadW: 900,
    deliveredWh: 900,
    hours: 1,
  })
  const rows = Array.from(
    { length: 61 },
    (_, n) => `2026-03-01 10:${String(n % 60).padStart(2, '0')}:00,${n < 60 ? 600 : 2}`,
  )
  const file = ['time,W', ...rows.slice(0, 60), '2026-03-01 11:00:00,2'].join('\n')
  const read = dischargeIn(file)
  expect(read.ok && Math.round(read.value.deliveredWh)).toBe(600)
  const short = dischargeIn(['time,W', ...rows.slice(0, 10)].join('\n'))
  expect(short.ok ? '' : short.faults[0]?.message).toMatch(
    /9 min of load: a capacity test runs from full to empty/,
  )
  expect(dischargeIn('<xml/>').ok).toBe(false)
})
