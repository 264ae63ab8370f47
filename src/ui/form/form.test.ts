import * as z from 'zod'
import { calculate } from '@/core/calculator'
import { fieldsOf } from '@/core/field'
import { cordChain } from '@/core/hookup/cord-chain'
import { intervalDemand } from '@/core/loads/interval-demand'
import { loadLog } from '@/core/loads/load-log'
import { boxFill } from '@/core/wiring/box-fill'
import { voltageDrop } from '@/core/wiring/voltage-drop'
import { emptied, pruned, sorted } from './draft'
import { pastedRows } from './paste'

describe('the form as typed', () => {
  test('what is empty is left out, with the group that this empties; a text that may be empty is one', () => {
    const fields = fieldsOf(boxFill.input)
    expect(
      pruned(fields, { boxIn3: 18, grounds: { size: '' }, conductors: [{ size: '', count: 2 }] }),
    ).toEqual({
      boxIn3: 18,
      conductors: [{ count: 2 }],
    })
    expect(pruned(fields, { boxIn3: '', id: 'kept' })).toEqual({ id: 'kept' })
    expect(pruned(fieldsOf(z.object({ label: z.string() })), { label: '' })).toEqual({ label: '' })
  })

  test('emptied keeps choices, loses figures, and leaves one blank row of a list', () => {
    const fields = fieldsOf(cordChain.input)
    const blank = emptied(fields, { ...cordChain.example, loadA: 3 })
    expect(blank).toMatchObject({ links: [{}], sourceV: 240, loadA: '' })
    expect(pruned(fields, blank)).toEqual({ links: [{}], sourceV: 240 })
    const drop = fieldsOf(voltageDrop.input)
    expect(pruned(drop, emptied(drop, { ...voltageDrop.example }))).toEqual({
      material: 'cu',
      path: 'two-wire',
    })
  })

  test('faults are told in the words of the screen: what is missing waits, what is wrong says what to do', () => {
    const told = (
      calculator: typeof voltageDrop | typeof loadLog | typeof boxFill,
      draft: Record<string, unknown>,
    ) => {
      const outcome = calculate(calculator as typeof voltageDrop, draft)
      return sorted(outcome.ok ? [] : outcome.faults, fieldsOf(calculator.input), draft)
    }
    const drop = told(voltageDrop, {
      material: 'cu',
      path: 'two-wire',
      oneWayFt: '6o',
      currentA: -1,
      sourceV: 120,
    })
    expect(drop.waiting).toEqual(['Size'])
    expect(drop.wrong).toEqual([
      'Length, one way must be a number, such as 36 or 2.5.',
      'Current must not be negative.',
    ])
    const log = told(loadLog, { readings: [{ hours: 1, energyWh: 2 }], runningW: 5, idleW: 9 })
    expect(log.wrong[0]).toMatch(/^While it runs must be above “While it idles”/)
    const box = told(boxFill, {
      boxIn3: 9,
      conductors: [
        { size: '12', count: 1 },
        { size: '2', count: 1 },
      ],
    })
    expect(box.wrong[0]).toMatch(/^Size \(2\) has no box volume/)
    expect(box.problems.has('conductors[1].size')).toBe(true)
  })
})

describe('rows pasted from a spreadsheet', () => {
  const intervals = fieldsOf(intervalDemand.input)[0]?.of ?? []

  test('tabs, a heading and choices', () => {
    expect(pastedRows('start\tminutes\tWh\r\n2026-01-15T17:00:00-05:00\t60\t840\r\n', intervals)).toEqual([
      { start: '2026-01-15T17:00:00-05:00', minutes: 60, Wh: 840 },
    ])
  })

  test('semicolons; what is no number stays to be mended; one plain line is text, not a table', () => {
    const readings = fieldsOf(loadLog.input)[0]?.of ?? []
    expect(pastedRows('24;1200\n12;9oo', readings)).toEqual([
      { hours: 24, energyWh: 1200 },
      { hours: 12, energyWh: '9oo' },
    ])
    expect(pastedRows('1,200', readings)).toEqual([])
  })
})
