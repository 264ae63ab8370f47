/** @jest-environment jest-fixed-jsdom */
import { act, renderHook, screen, waitFor } from '@testing-library/react'
import { loadsOverview } from '@/core/assess/loads-overview'
import { guessMeterFormat } from '@/core/formats/meter-guess'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { meterReadings } from '@/workers/desks/meter-readings'
import { inWorkspace } from '../test/render'
import { fakeWorkers } from '../test/workers'
import { ClampForm } from './ClampForm'
import { ColumnsForm } from './ColumnsForm'
import { PlugInForm } from './PlugInForm'
import { useMeterSeries } from './useMeterSeries'

const rowOf = (name: string) => {
  const row = loadsOverview(alderHollow).rows.find(r => r.load.name === name)
  if (!row) throw new Error(`no load ${name}`)
  return row
}
const lights = rowOf('Playroom lights (LED)')
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string) => screen.getByRole('button', { name })
beforeEach(() => sessionStorage.clear())

test('a counter that ran back is told at its reading; right, the log is taken with what it says', async () => {
  const onTake = jest.fn((_: unknown) => [])
  const { user } = inWorkspace(<PlugInForm row={lights} onTake={onTake} />)
  await user.type(field('Elapsed time'), '24')
  await user.type(field('Counter'), '0.3')
  await user.click(press('A later reading'))
  await user.type(field('Elapsed time, reading 2'), '48')
  await user.type(field('Counter, reading 2'), '0.2')
  await user.click(press('Take the readings'))
  expect(await screen.findByText(/^Counter, reading 2 must be a number, not below the 0.3 kWh/)).toBeTruthy()
  expect(onTake).not.toHaveBeenCalled()
  await user.clear(field('Counter, reading 2'))
  await user.type(field('Counter, reading 2'), '0.7')
  await user.type(field('While it runs'), '30')
  await user.type(field('Volt-amps'), '40')
  expect(await screen.findByText(/a day/, { selector: '[role=note] *, [role=note]' })).toBeTruthy()
  await user.click(press('Take the readings'))
  await waitFor(() => expect(onTake).toHaveBeenCalled())
  expect(onTake.mock.calls[0]?.[0]).toMatchObject({
    kind: 'plug-in meter',
    spans: [
      { hours: 24, energyWh: 300 },
      { hours: 24, energyWh: 400 },
    ],
    runningW: 30,
    powerFactor: 0.75,
  })
})

test('the clamp’s inrush says what it means before it is taken, and comes into force', async () => {
  const fridge = rowOf('Kitchen refrigerator')
  const told = jest.fn()
  const { user, job } = inWorkspace(<ClampForm row={fridge} onTold={told} />)
  await user.click(press('Take the inrush'))
  expect(await screen.findByText(/^Highest inrush/, { selector: 'p' })).toBeTruthy()
  await user.type(field('Highest inrush'), '14.5')
  expect(screen.getByRole('note').textContent).toMatch(/14\.5 A/)
  await user.click(press('Take the inrush'))
  await waitFor(() => expect(told).toHaveBeenCalled())
  const load = job()
    .panels.flatMap(p => p.circuits.flatMap(c => c.loads))
    .find(l => l.id === fridge.load.id)
  expect(load?.start).toMatchObject({ method: 'inrush', inrushA: { value: 14.5, from: 'metered' } })
})

test('columns that say too little are asked for in words; amps alone ask for volts', async () => {
  const guess = guessMeterFormat('when;a\n2026-01-01 00:00;1,5\n2026-01-01 00:01;1,4\n', 120)
  if (!guess.ok) throw new Error(guess.faults[0]?.message)
  const onRead = jest.fn()
  const { user } = inWorkspace(<ColumnsForm name="log.csv" guess={guess.value} onRead={onRead} />)
  const column = async (n: number, kind: string) => {
    await user.click(screen.getByRole('combobox', { name: `Column ${n}` }))
    await user.click(screen.getByRole('option', { name: kind }))
  }
  await column(2, 'not needed')
  await user.click(press('Read the file'))
  expect((await screen.findByRole('alert')).textContent).toMatch(/Say which column is watts, amps or energy/)
  await column(2, 'current, A')
  await user.clear(field('Volts'))
  await user.type(field('Volts'), '0')
  await user.click(press('Read the file'))
  expect(await screen.findByText(/^Volts must be a number above 0/)).toBeTruthy()
  await user.clear(field('Volts'))
  await user.type(field('Volts'), '118')
  await user.click(press('Read the file'))
  await waitFor(() => expect(onRead).toHaveBeenCalled())
  expect(onRead.mock.calls[0]?.[0]).toMatchObject({ volts: 118, powerFactor: 1, columns: ['time', 'A'] })
})

describe('the reader in its worker', () => {
  const csv = [
    'time,W',
    ...Array.from({ length: 600 }, (_, i) => `2026-01-01 ${clock(i)},${i % 20 < 8 ? 90 : 2}`),
  ]
  function clock(minute: number) {
    return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
  }
  const format = () => {
    const guess = guessMeterFormat(csv.join('\n'), 120)
    if (!guess.ok) throw new Error(guess.faults[0]?.message)
    return guess.value.format
  }
  const reading = () => renderHook(() => useMeterSeries())

  test('what comes piece by piece is the same as the file at once', async () => {
    fakeWorkers(meterReadings)
    const { result } = reading()
    act(() => result.current.begin(format()))
    for (let at = 0; at < csv.length; at += 97)
      await act(() => result.current.more(`${csv.slice(at, at + 97).join('\n')}\n`))
    expect(result.current.busy?.what).toMatch(/readings/)
    await act(() => result.current.end())
    await waitFor(() => expect(result.current.seen).not.toBeNull())
    const { segmentation, about } = result.current
    expect(about?.rows).toBe(600)
    expect(segmentation?.dutyFraction).toBeCloseTo(0.4, 2)
    act(() => result.current.stop())
    expect(result.current.about).toBeNull()
  })

  test('a file that cannot be read says where; a reader that dies twice says what to do', async () => {
    fakeWorkers(meterReadings)
    const { result } = reading()
    act(() => result.current.begin(format()))
    await act(() => result.current.more('time,W\n2026-01-01 00:00,nothing of the kind\n'))
    await act(() => result.current.end())
    expect(result.current.faults[0]?.message).toBeTruthy()

    const lame = fakeWorkers()
    const dead = reading()
    act(() => dead.result.current.begin(format()))
    act(() => lame.made[0]?.die())
    await waitFor(() => expect(lame.made).toHaveLength(2))
    act(() => lame.made[1]?.die())
    await waitFor(() => expect(dead.result.current.faults[0]?.message).toMatch(/could not be loaded/))
  })

  test('one that is silent too long is put aside', async () => {
    jest.useFakeTimers()
    fakeWorkers()
    const { result } = reading()
    act(() => result.current.begin(format()))
    act(() => jest.advanceTimersByTime(31_000))
    jest.useRealTimers()
    expect(result.current.faults[0]?.message).toMatch(/takes longer to read/)
  })
})
