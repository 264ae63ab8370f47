import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fraction, notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const methods = {
  inrush: 'clamp meter’s inrush hold',
  'locked-rotor': 'locked-rotor amps of the nameplate',
  multiple: 'multiple of running',
} as const
const method = <M extends keyof typeof methods>(name: M) =>
  labelled(z.literal(name), 'Known from', 'text', { names: methods })
const volts = labelled(positive, 'Volts', 'V')

const input = z.discriminatedUnion('method', [
  z.strictObject({
    method: method('inrush'),
    inrushA: labelled(positive, 'Measured inrush', 'A'),
    volts,
  }),
  z.strictObject({
    method: method('locked-rotor'),
    lockedRotorA: labelled(positive, 'Locked-rotor amps', 'A'),
    volts,
    softStartFraction: labelled(fraction.default(1), 'Soft starter lets through', 'fraction'),
  }),
  z.strictObject({
    method: method('multiple'),
    runningVA: labelled(notNegative, 'Running', 'VA'),
    multiple: labelled(z.number().min(1, 'must be at least 1'), 'Start multiple', 'count'),
    volts,
  }),
])

const output = z.strictObject({
  startA: labelled(z.number(), 'Start current', 'A'),
  startVA: labelled(z.number(), 'Start', 'VA'),
})

type Input = z.infer<typeof input>

function solve(i: Input) {
  if (i.method === 'multiple') {
    const startVA = i.runningVA * i.multiple
    return { startA: startVA / i.volts, startVA }
  }
  const startA = i.method === 'inrush' ? i.inrushA : i.lockedRotorA * i.softStartFraction
  return { startA, startVA: startA * i.volts }
}

/**
 * What a load asks for at the instant it starts.
 * By measured inrush (A), by locked-rotor amps of the nameplate (A, reduced by a soft starter's fraction),
 * or by a multiple of its running volt-amps. `volts` in V; amps and volt-amps out.
 * Source: apparent power S = V × I; `start` of the calculators' contract.
 */
export const start = calculator({
  name: 'start',
  topic: 'loads',
  question: 'Will it start?',
  asked: [
    'starting current',
    'surge',
    'inrush',
    'locked-rotor amps',
    'LRA',
    'soft starter',
    'motor',
    'pump',
    'compressor',
  ],
  input,
  output,
  example: { method: 'locked-rotor', lockedRotorA: 42, volts: 240, softStartFraction: 1 },
  solve,
  explain: (i, r) => ({
    answer: `Asks for ${quantity(r.startA, 'A')} (${quantity(r.startVA, 'VA')}) at ${quantity(i.volts, 'V')} as it starts. The source’s surge rating has to cover it on top of what already runs.`,
    working: {
      title: 'Start',
      formula: [
        i.method === 'inrush'
          ? 'start = measured inrush × volts'
          : i.method === 'locked-rotor'
            ? 'start = locked-rotor amps × what a soft starter lets through × volts'
            : 'start = running volt-amps × multiple',
      ],
      steps: [
        step('Start current', r.startA, 'A', amps(i)),
        step('Start', r.startVA, 'VA', voltAmps(i, r.startA)),
      ],
      references: ['Locked-rotor amps: nameplate, or its code letter by NEC table 430.7(B)'],
      ruleOfThumb: 'A motor starts at two to seven times its running current',
      notCovered: ['How long the start lasts, and how far the source’s voltage sags meanwhile.'],
    },
  }),
  curves: i =>
    i.method === 'multiple'
      ? [
          {
            title: 'Start by the rule’s range of multiples',
            kind: 'bars',
            x: { label: 'Multiple of running', unit: 'count' },
            y: { label: 'Start', unit: 'VA' },
            series: [
              {
                name: 'Start',
                points: [2, 3, 4, 5, 6, 7].map(n => ({ x: `× ${n}`, y: i.runningVA * n })),
              },
            ],
            limits: [{ label: `× ${figure(i.multiple)}, as entered`, y: i.runningVA * i.multiple }],
          },
        ]
      : [],
})

function amps(i: Input): string | undefined {
  if (i.method === 'locked-rotor') return `${figure(i.lockedRotorA)} × ${figure(i.softStartFraction)}`
  if (i.method === 'multiple') return `${figure(i.runningVA)} × ${figure(i.multiple)} ÷ ${figure(i.volts)}`
  return undefined
}

const voltAmps = (i: Input, startA: number) =>
  i.method === 'multiple'
    ? `${figure(i.runningVA)} × ${figure(i.multiple)}`
    : `${figure(startA)} × ${figure(i.volts)}`
