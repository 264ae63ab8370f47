/** @jest-environment jest-fixed-jsdom */
import { act, renderHook, waitFor } from '@testing-library/react'
import type { Job } from '@/core/job/schema'
import { asItIs } from '@/core/outage/what-if'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { simulation } from '@/workers/desks/simulation'
import { fakeWorkers } from '../test/workers'
import { useOutage } from './useOutage'

let { made: workers, behaviour } = fakeWorkers()
beforeEach(() => {
  ;({ made: workers, behaviour } = fakeWorkers(simulation))
})
const crewOf = (hands: number) => jest.spyOn(navigator, 'hardwareConcurrency', 'get').mockReturnValue(hands)
const longer: Job = { ...alderHollow, outage: { ...alderHollow.outage, hours: 40 } }
const whatIf = asItIs

/** The job simulated to its end by so many hands. */
async function simulated(hands: number, job = alderHollow) {
  crewOf(hands)
  const { result, unmount } = renderHook(() => useOutage(job, whatIf))
  await waitFor(() => expect(result.current.busy).toBe(false))
  const { chance, answer, mean } = result.current
  unmount()
  return JSON.stringify({ chance, answer, mean })
}

test('any crew, of any speed, finds the same to the bit', async () => {
  const alone = await simulated(1)
  expect(alone).toMatch(/"draws":\d{2,}/)
  behaviour.takes = worker => [0, 9, 1, 4][worker % 4] ?? 0
  expect(await simulated(3)).toBe(alone)
  behaviour.takes = worker => [0, 0, 25][worker % 3] ?? 0
  expect(await simulated(2)).toBe(alone)
}, 60_000)

test('a new design drops the one before, whatever is still on its way', async () => {
  crewOf(2)
  const wanted = await simulated(2, longer)
  behaviour.takes = worker => (worker % 3 === 2 ? 12 : 0)
  const { result, rerender, unmount } = renderHook(({ job }) => useOutage(job, whatIf), {
    initialProps: { job: alderHollow },
  })
  await waitFor(() => expect(result.current.chance).not.toBeNull())
  rerender({ job: longer })
  expect(result.current.busy).toBe(true)
  await waitFor(() => expect(result.current.busy).toBe(false))
  const { chance, answer, mean } = result.current
  expect(JSON.stringify({ chance, answer, mean })).toBe(wanted)
  unmount()
  expect(workers.every(w => w.ended)).toBe(true)
}, 60_000)

test('what stops it stays as it is', async () => {
  crewOf(2)
  behaviour.takes = worker => (worker ? 5 : 0)
  const { result } = renderHook(() => useOutage(alderHollow, whatIf))
  await waitFor(() => expect(result.current.mean).not.toBeNull())
  act(() => result.current.stop())
  expect(result.current.busy).toBe(false)
})

test('a hand or the lead that dies is replaced, and the same comes out; where the next dies too, it says what to do', async () => {
  const wanted = await simulated(2)
  crewOf(2)
  behaviour.takes = worker => (worker ? 4 : 1)
  const { result, unmount } = renderHook(() => useOutage(alderHollow, whatIf))
  await waitFor(() => expect(result.current.chance).not.toBeNull())
  act(() => {
    for (const worker of workers.filter(w => !w.ended).slice(-3, -1)) worker.die()
  })
  await waitFor(() => expect(result.current.busy).toBe(false))
  const { chance, answer, mean, trouble } = result.current
  expect(trouble).toBeNull()
  expect(JSON.stringify({ chance, answer, mean })).toBe(wanted)
  unmount()

  const lame = fakeWorkers()
  const dead = renderHook(() => useOutage(alderHollow, whatIf))
  await waitFor(() => expect(lame.made).toHaveLength(1))
  act(() => lame.made[0]?.die())
  await waitFor(() => expect(lame.made).toHaveLength(2))
  act(() => lame.made[1]?.die())
  await waitFor(() => expect(dead.result.current.trouble).toMatch(/could not be loaded.*again/))
}, 60_000)

test('a job that cannot be simulated says why, and is not busy', async () => {
  crewOf(1)
  const { source: _, ...bare } = alderHollow
  const { result } = renderHook(() => useOutage(bare, whatIf))
  await waitFor(() => expect(result.current.busy).toBe(false))
  expect(result.current.faults).not.toEqual([])
  expect(result.current.chance).toBeNull()
})
