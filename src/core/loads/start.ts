import * as z from 'zod'
import type { Calculator } from '../calculator'
import { fraction, notNegative, positive } from '../quantity'
import { figure } from '../units/format'
import { sourced, type WorkingValue } from '../working'

const input = z.discriminatedUnion('method', [
  z.strictObject({ method: z.literal('inrush'), inrushA: positive, volts: positive }),
  z.strictObject({
    method: z.literal('locked-rotor'),
    lockedRotorA: positive,
    volts: positive,
    softStartFraction: fraction.default(1),
  }),
  z.strictObject({
    method: z.literal('multiple'),
    runningVA: notNegative,
    multiple: z.number().min(1, 'must be at least 1'),
    volts: positive,
  }),
])

const output = z.strictObject({ startA: z.number(), startVA: z.number() })

type StartInput = z.infer<typeof input>

/**
 * What a load asks for at the instant it starts.
 * By measured inrush (A), by locked-rotor amps of the nameplate (A, reduced by a soft starter's fraction),
 * or by a multiple of its running volt-amps. `volts` in V; amps and volt-amps out.
 * Source: apparent power S = V × I; `start` of the calculators' contract.
 */
export const start: Calculator<StartInput, z.infer<typeof output>> = {
  name: 'start',
  question: 'Will it start?',
  input,
  output,
  compute: (i, sources = {}) => {
    const result = startOf(i)
    const inputs: WorkingValue[] = []
    const { startA, startVA } = result
    const formula =
      i.method === 'inrush'
        ? ['start = measured inrush × volts']
        : i.method === 'locked-rotor'
          ? ['start = locked-rotor amps × what a soft starter lets through × volts']
          : ['start = running volt-amps × multiple']
    if (i.method === 'inrush')
      inputs.push({
        label: 'Measured inrush',
        value: i.inrushA,
        unit: 'A',
        ...sourced(keyed(sources, 'inrushA')),
      })
    if (i.method === 'locked-rotor') {
      inputs.push(
        {
          label: 'Locked-rotor amps',
          value: i.lockedRotorA,
          unit: 'A',
          ...sourced(keyed(sources, 'lockedRotorA')),
        },
        {
          label: 'Soft starter lets through',
          value: i.softStartFraction,
          unit: 'fraction',
          ...sourced(keyed(sources, 'softStartFraction')),
        },
      )
    }
    if (i.method === 'multiple') {
      inputs.push(
        { label: 'Running', value: i.runningVA, unit: 'VA', ...sourced(keyed(sources, 'runningVA')) },
        { label: 'Start multiple', value: i.multiple, unit: 'count', ...sourced(keyed(sources, 'multiple')) },
      )
    }
    inputs.push({ label: 'Volts', value: i.volts, unit: 'V', ...sourced(sources.volts) })
    return {
      result,
      working: {
        title: 'Start',
        formula,
        inputs,
        steps: [
          { label: 'Start current', value: startA, unit: 'A', arithmetic: amps(i) },
          { label: 'Start', value: startVA, unit: 'VA', arithmetic: voltAmps(i, startA) },
        ],
        references: ['Locked-rotor amps: nameplate, or its code letter by NEC table 430.7(B)'],
        ruleOfThumb: 'A motor starts at two to seven times its running current',
        notCovered: ['How long the start lasts, and how far the source’s voltage sags meanwhile.'],
      },
    }
  },
}

function keyed(sources: object, key: string): Parameters<typeof sourced>[0] {
  return Reflect.get(sources, key)
}

function startOf(i: StartInput): z.infer<typeof output> {
  if (i.method === 'multiple') {
    const startVA = i.runningVA * i.multiple
    return { startA: startVA / i.volts, startVA }
  }
  const startA = i.method === 'inrush' ? i.inrushA : i.lockedRotorA * i.softStartFraction
  return { startA, startVA: startA * i.volts }
}

function amps(i: StartInput): string | undefined {
  if (i.method === 'locked-rotor') return `${figure(i.lockedRotorA)} × ${figure(i.softStartFraction)}`
  if (i.method === 'multiple') return `${figure(i.runningVA)} × ${figure(i.multiple)} ÷ ${figure(i.volts)}`
  return undefined
}

const voltAmps = (i: StartInput, startA: number) =>
  i.method === 'multiple'
    ? `${figure(i.runningVA)} × ${figure(i.multiple)}`
    : `${figure(startA)} × ${figure(i.volts)}`
