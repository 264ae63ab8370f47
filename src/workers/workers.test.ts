/** Each worker's side of its conversation with the page: what it answers, in which order it may be asked, and what it refuses. */
import { join } from 'node:path'
import { circuitNeeds } from '@/core/assess/needs'
import { positionProblem } from '@/core/assess/positions'
import type { Job } from '@/core/job/schema'
import { answerOf } from '@/core/outage/answer'
import { deskFor, simulate } from '@/core/outage/chance'
import { planOf } from '@/core/outage/plan'
import { traceOf } from '@/core/outage/trace'
import { asItIs } from '@/core/outage/what-if'
import type { Task } from '@/core/search/tasks'
import { wishesSchema } from '@/core/search/wishes'
import { catalogue, freshet18 } from '@/server/seeds/catalogue'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { fernbrook } from '@/server/seeds/jobs/fernbrook'
import { type MeterReadings, meterReadings } from './desks/meter-readings'
import { positions } from './desks/positions'
import { type Searching, searching } from './desks/searching'
import { simulation } from './desks/simulation'
import { weatherFile } from './desks/weather-file'

jest.mock('comlink', () => ({ transfer: <T>(value: T) => value }))

describe('the outage', () => {
  test('draws made in parts and summed in any number of steps say what one call says', async () => {
    const at = simulation()
    const taken = at.take(1, fernbrook, asItIs)
    const plan = planOf(fernbrook)
    if (!taken.ok || !plan.ok) throw new Error('no plan')
    const { chance } = simulate(plan.value, { seed: 4, exactly: 60 })
    const parts = [at.draws(1, 4, 0, 20), at.draws(1, 4, 20, 15), at.draws(1, 4, 35, 25)]
    at.sum(1, 4, parts.slice(0, 1))
    const summed = at.sum(1, 4, parts.slice(1))
    expect(summed.chance.lasts).toEqual(chance.lasts)
    const mean = traceOf(plan.value, deskFor(plan.value), 0)
    expect(summed.answer.headline).toBe(answerOf(plan.value, chance, mean).headline)
  })

  test('a question about a design that is gone is an error, not another design’s answer', async () => {
    const at = simulation()
    at.take(1, fernbrook, asItIs)
    at.take(2, alderHollow, asItIs)
    expect(() => at.draws(1, 1, 0, 1)).toThrow('design 1 is not the one at hand')
    expect(() => at.trace(3, 1, 0)).toThrow('design 3 is not the one at hand')
    expect(at.draws(2, 1, 0, 2)).toBeDefined()
  })

  test('a design that cannot be simulated says why, and leaves none at hand', async () => {
    const at = simulation()
    at.take(1, fernbrook, asItIs)
    const { source: _, ...none } = fernbrook
    expect(at.begin(2, none as Job, asItIs)).toMatchObject({
      ok: false,
      faults: [{ path: 'source' }],
    })
    expect(() => at.draws(1, 1, 0, 1)).toThrow('not the one at hand')
  })

  test('what is begun shows a coarse course at once, near the one that is drawn later', async () => {
    const at = simulation()
    const begin = at.begin(7, fernbrook, asItIs)
    if (!begin.ok || !begin.value.quick) throw new Error('no course')
    const fine = at.sum(7, 1, [at.draws(7, 1, 0, 5)]).mean
    const end = (t: typeof fine) => t.points.levelWh.at(-1) ?? 0
    expect(Math.abs(end(begin.value.quick) - end(fine))).toBeLessThan(30)
  })
})

describe('the search', () => {
  const wishes = wishesSchema.parse({})
  const few = [...catalogue.slice(0, 5), freshet18]

  test('asked before it knows a job it says so', async () => {
    const at = searching()
    expect(() => at.perform({ kind: 'checks', kins: [0] })).toThrow('has no job to work on')
  })

  test('led with another worker as its crew it finds what it finds by itself', async () => {
    const lead = searching()
    lead.know(fernbrook, few, wishes, {})
    const hand = searching()
    hand.know(fernbrook, few, wishes, {})
    const told: number[] = []
    const asked: Task[] = []
    const crewOf = (w: Searching) =>
      (async (tasks: Task[]) => {
        asked.push(...tasks)
        return tasks.map(t => w.perform(t))
      }) as never
    const progress = ((done: number) => told.push(done)) as never
    const by = async (w: Searching) =>
      (await lead.lead(1, 10, crewOf(w), progress)).result.front.map(f => f.name)
    const [others, own] = [await by(hand), await by(lead)]
    expect(others).toEqual(own)
    expect(others.length).toBeGreaterThan(0)
    expect(new Set(asked.map(t => t.kind))).toEqual(new Set(['checks', 'bounds', 'race']))
    expect(told[0]).toBe(0)
    expect(told.at(-1)).toBe(1)
    expect(told.every(t => t >= 0 && t <= 1)).toBe(true)
  })
})

describe('a meter’s series', () => {
  const format = {
    delimiter: ',',
    decimal: '.' as const,
    headerRows: 1,
    columns: ['elapsed s' as const, 'W' as const],
    dateOrder: 'mdy' as const,
    volts: 120,
    powerFactor: 1,
  }
  const rows = ['s,W', ...Array.from({ length: 600 }, (_, i) => `${i * 60},${i % 40 < 10 ? 120 : 2}`)]
  const quiet = (() => {}) as never

  test('a file and the same lines as they come are told apart alike', async () => {
    const text = `${rows.join('\n')}\n`
    const fromFile = meterReadings()
    const file = { size: text.length, stream: () => new Blob([text]).stream() } as unknown as Blob
    expect(await fromFile.read(file, format, quiet)).toMatchObject({ ok: true, value: { rows: 600 } })
    const live = meterReadings()
    live.begin(format)
    for (let at = 0; at < text.length; at += 37) live.more(text.slice(at, at + 37))
    expect(live.end()).toMatchObject({ ok: true, value: { rows: 600, lastS: 599 * 60, warnings: [] } })
    const told = (w: MeterReadings) => w.segment({}, quiet)?.segmentation
    expect(told(live)).toEqual(told(fromFile))
    expect(live.look(0, 3600, 4)).toHaveLength(4)
  })

  test('asked out of turn it says what is missing, and a log that ended is not gone on with', async () => {
    const at = meterReadings()
    expect(at.segment({}, quiet)).toBeNull()
    expect(at.look(0, 1, 1)).toEqual([])
    expect(at.end()).toMatchObject({ ok: false, faults: [{ message: 'no log was begun' }] })
    at.begin(format)
    at.more(`${rows.slice(0, 9).join('\n')}\n`)
    expect(at.end().ok).toBe(true)
    expect(at.more('1,2\n')).toMatchObject({ ok: false })
  })

  test('a file of another kind is refused in words', async () => {
    const at = meterReadings()
    const text = 'no\nfigures\nhere\n'
    const file = { size: text.length, stream: () => new Blob([text]).stream() } as unknown as Blob
    expect(await at.read(file, format, quiet)).toMatchObject({
      ok: false,
      faults: [{ message: expect.stringMatching(/holds no two readings/) }],
    })
  })
})

test('positions: the solver is loaded once for many problems; one that cannot be loaded is tried again', async () => {
  const at = positions()
  const problem = positionProblem({ job: alderHollow, needs: circuitNeeds(alderHollow) })
  if (!problem) throw new Error('no positions')
  await expect(at.solve(problem, '/no/such.wasm')).rejects.toBeDefined()
  const wasm = join(process.cwd(), 'node_modules/highs/build/highs.wasm')
  const [one, two] = [await at.solve(problem, wasm), await at.solve(problem, wasm)]
  expect(one.plan).toEqual(two.plan)
})

test('a weather file: what it says comes back, what is none says so', async () => {
  const at = weatherFile()
  const file = (text: string, name: string) => ({ name, text: async () => text }) as File
  expect(await at.read(file('a picture', 'x.png'))).toMatchObject({ ok: false })
})
