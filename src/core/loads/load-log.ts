import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'
import { logFigures, sums } from './log-figures'

const input = z.strictObject({
  readings: labelled(
    z
      .array(
        z.strictObject({
          hours: labelled(positive, 'Over', 'h'),
          energyWh: labelled(notNegative, 'Energy', 'Wh'),
        }),
      )
      .min(1, 'must not be empty'),
    'Readings, one span after the other',
    'text',
    { row: 'Span' },
  ),
  runningW: labelled(positive, 'While it runs', 'W'),
  idleW: labelled(notNegative.default(0), 'While it idles', 'W'),
})

const output = z.strictObject({
  meanW: labelled(z.number(), 'Average', 'W'),
  dutyFraction: labelled(z.number(), 'Share of the time it runs', 'fraction'),
  dailyWh: labelled(z.number(), 'A day', 'Wh'),
  spreadFraction: labelled(z.number(), 'Spread of the spans', 'fraction'),
})

/**
 * What a plug-in meter's log says of a load: average watts, the share of time it runs, watt-hours a day.
 * `readings` in h and Wh, `runningW` and `idleW` in W; fractions out. Fault: `runningW` not above `idleW`.
 * Source: energy ÷ time; two-level duty; `load-log` of the calculators' contract.
 */
export const loadLog = calculator({
  name: 'load-log',
  topic: 'loads',
  question: 'What does the meter’s log say?',
  asked: [
    'plug-in meter',
    'kWh reading',
    'duty cycle',
    'how much does it use a day',
    'refrigerator',
    'daily watt-hours',
  ],
  input,
  output,
  example: {
    readings: [
      { hours: 24, energyWh: 1320 },
      { hours: 26, energyWh: 1510 },
    ],
    runningW: 150,
    idleW: 4,
  },
  faultsIn: i =>
    i.runningW <= i.idleW
      ? [fault('runningW', `must be above idleW (${figure(i.idleW)} W): what it draws while it runs`)]
      : [],
  solve: logFigures,
  explain: (i, r) => {
    const f = figure
    const { Wh, h } = sums(i)
    const above = r.meanW > i.runningW
    return {
      answer: `${quantity(r.meanW, 'W')} on average, ${quantity(r.dailyWh, 'Wh')} a day; it runs ${quantity(r.dutyFraction, 'fraction')} of the time.`,
      working: {
        title: 'Load by its log',
        formula: [
          'average = all energy ÷ all hours',
          'share of the time it runs = (average − idle) ÷ (running − idle), from 0 to 1',
          'spread = (largest − smallest average of the spans) ÷ average',
        ],
        steps: [
          step('Average', r.meanW, 'W', `${f(Wh)} ÷ ${f(h)}`),
          step(
            'Share of the time it runs',
            r.dutyFraction,
            'fraction',
            `(${f(r.meanW)} − ${f(i.idleW)}) ÷ (${f(i.runningW)} − ${f(i.idleW)})`,
          ),
          step('A day', r.dailyWh, 'Wh', `24 × ${f(r.meanW)}`),
          step('Spread of the spans', r.spreadFraction, 'fraction'),
        ],
        references: [],
        ruleOfThumb: 'Log 24 to 48 h; a refrigerator runs a third to a half of the time',
        notes: [
          ...(above ? ['The average is above the running watts: one of the figures was misread.'] : []),
          ...(r.spreadFraction > 0.3
            ? ['The spans differ by more than 30 %: weather or habits changed. Log longer.']
            : []),
        ],
        notCovered: ['The weather of those days, and how often and how hard it starts.'],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Average of each span',
      kind: 'bars',
      x: { label: 'Span', unit: 'text' },
      y: { label: 'Average', unit: 'W' },
      series: [
        {
          name: 'Average',
          points: i.readings.slice(0, 40).map((s, n) => ({ x: String(n + 1), y: s.energyWh / s.hours })),
        },
      ],
      limits: [{ label: 'All spans', y: r.meanW }],
    },
  ],
})
