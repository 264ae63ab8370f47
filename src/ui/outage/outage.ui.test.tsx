/** @jest-environment jest-fixed-jsdom */
import { act, renderHook, waitFor } from '@testing-library/react'
import type { Job } from '@/core/job/schema'
import { asItIs } from '@/core/outage/what-if'
import { alderHollow } from '@/server/seeds/jobs'
import type { OutageAsk, OutageSay } from '@/workers/outage'
import { useOutage } from './useOutage'

/** How long the worker of a number takes to answer, ms; every one has the worker's own code to itself. */
let takes: (worker: number) => number
let workers: Fake[]

class Fake {
  onmessage: (event: { data: OutageSay }) => void = () => {}
  onerror: () => void = () => {}
  ended = false
  private hear: (event: { data: OutageAsk }) => void = () => {}
  private readonly number = workers.push(this) - 1
  constructor() {
    const given = jest.spyOn(globalThis, 'addEventListener')
    given.mockImplementation((_: string, hear: unknown) => {
      this.hear = hear as typeof this.hear
    })
    jest.isolateModules(() => require('@/workers/outage'))
    given.mockRestore()
  }
  postMessage(ask: OutageAsk) {
    const data = structuredClone(ask)
    setTimeout(() => {
      if (this.ended) return
      const answers: OutageSay[] = []
      const post = jest.spyOn(globalThis, 'postMessage').mockImplementation(said => {
        answers.push(structuredClone(said))
      })
      this.hear({ data })
      post.mockRestore()
      act(() => {
        for (const data of answers) this.onmessage({ data })
      })
    }, takes(this.number))
  }
  terminate() {
    this.ended = true
  }
}

beforeEach(() => {
  workers = []
  takes = () => 0
  global.Worker = Fake as never
})
const crewOf = (hands: number) => jest.spyOn(navigator, 'hardwareConcurrency', 'get').mockReturnValue(hands)
const longer: Job = { ...alderHollow, outage: { ...alderHollow.outage, hours: 40 } }
const whatIf = asItIs

/** The job simulated to its end by so many hands. */
async function simulated(hands: number, job = alderHollow) {
  crewOf(hands)
  const { result, unmount } = renderHook(() => useOutage(job, whatIf))
  await waitFor(() => expect(result.current.busy).toBe(false), { timeout: 20_000 })
  const { chance, answer, mean } = result.current
  unmount()
  return JSON.stringify({ chance, answer, mean })
}

test('any crew, of any speed, finds the same to the bit', async () => {
  const alone = await simulated(1)
  expect(alone).toMatch(/"draws":\d{2,}/)
  takes = worker => [0, 9, 1, 4][worker % 4] ?? 0
  expect(await simulated(3)).toBe(alone)
  takes = worker => [0, 0, 25][worker % 3] ?? 0
  expect(await simulated(2)).toBe(alone)
}, 60_000)

test('a new design drops the one before, whatever is still on its way', async () => {
  crewOf(2)
  const wanted = await simulated(2, longer)
  takes = worker => (worker % 3 === 2 ? 12 : 0)
  const { result, rerender, unmount } = renderHook(({ job }) => useOutage(job, whatIf), {
    initialProps: { job: alderHollow },
  })
  await waitFor(() => expect(result.current.chance).not.toBeNull(), { timeout: 20_000 })
  rerender({ job: longer })
  expect(result.current.busy).toBe(true)
  await waitFor(() => expect(result.current.busy).toBe(false), { timeout: 20_000 })
  const { chance, answer, mean } = result.current
  expect(JSON.stringify({ chance, answer, mean })).toBe(wanted)
  unmount()
  expect(workers.every(w => w.ended)).toBe(true)
}, 60_000)

test('what stops it stays as it is; a worker that is lost says what to do', async () => {
  crewOf(2)
  takes = worker => (worker ? 5 : 0)
  const { result } = renderHook(() => useOutage(alderHollow, whatIf))
  await waitFor(() => expect(result.current.mean).not.toBeNull())
  act(() => result.current.stop())
  expect(result.current.busy).toBe(false)
  act(() => workers[1]?.onerror())
  expect(result.current.trouble).toMatch(/could not be loaded.*again/)
})

test('a job that cannot be simulated says why, and is not busy', async () => {
  crewOf(1)
  const { source: _, ...bare } = alderHollow
  const { result } = renderHook(() => useOutage(bare, whatIf))
  await waitFor(() => expect(result.current.busy).toBe(false))
  expect(result.current.faults).not.toEqual([])
  expect(result.current.chance).toBeNull()
})
