import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { labelled } from '../field'
import { celsius, counted, notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const coefficient = z.number().lt(0, 'must be negative: volts fall as the cell warms')

const input = z.strictObject({
  module: labelled(
    z.strictObject({
      stcW: labelled(positive, 'Rated', 'W'),
      vocV: labelled(positive, 'Voc', 'V'),
      vmpV: labelled(positive, 'Vmp', 'V'),
      iscA: labelled(positive, 'Isc', 'A'),
      vocPctPerC: labelled(coefficient, 'Voc changes by', '%/°C'),
      vmpPctPerC: labelled(coefficient.optional(), 'Vmp changes by', '%/°C', {
        description: '1.35 times that of Voc if left out',
      }),
    }),
    'Module',
  ),
  series: labelled(counted, 'Modules in series', 'count'),
  parallel: labelled(counted, 'Strings in parallel', 'count'),
  recordLowC: labelled(celsius, 'Record low', 'C'),
  hotCellC: labelled(celsius.default(65), 'Hot cell', 'C'),
  input: labelled(
    z.strictObject({
      minV: labelled(positive, 'Lowest', 'V'),
      maxV: labelled(positive, 'Highest', 'V'),
      maxA: labelled(positive, 'Takes at most', 'A'),
      maxW: labelled(notNegative, 'Takes at most', 'W'),
    }),
    'Input',
  ),
})

const output = z.strictObject({
  coldVocV: labelled(z.number(), 'Open volts at record cold', 'V'),
  hotVmpV: labelled(z.number(), 'Working volts, cell hot', 'V'),
  iscA: labelled(z.number(), 'Short-circuit current', 'A'),
  arrayW: labelled(z.number(), 'Array', 'W'),
  inputW: labelled(z.number(), 'Input takes', 'W'),
  clippedFraction: labelled(z.number(), 'Clipped', 'fraction'),
  faults: labelled(z.array(z.string()), 'Findings'),
})

type Input = z.infer<typeof input>

const vmpPctPerC = (i: Input) => i.module.vmpPctPerC ?? 1.35 * i.module.vocPctPerC
const vocAt = (i: Input, cellC: number) =>
  i.series * i.module.vocV * (1 + (i.module.vocPctPerC / 100) * (cellC - 25))
const vmpAt = (i: Input, cellC: number) =>
  i.series * i.module.vmpV * (1 + (vmpPctPerC(i) / 100) * (cellC - 25))

function solve(i: Input) {
  const { module: m, input: port } = i
  const coldVocV = vocAt(i, i.recordLowC)
  const hotVmpV = vmpAt(i, i.hotCellC)
  const iscA = i.parallel * m.iscA
  const arrayW = i.series * i.parallel * m.stcW
  const inputW = Math.min(arrayW, port.maxW, port.maxA * i.series * m.vmpV)
  const faults = [
    ...(coldVocV > port.maxV ? ['over-voltage'] : []),
    ...(hotVmpV < port.minV ? ['under-voltage'] : []),
    ...(iscA > port.maxA ? ['over-current'] : []),
  ]
  return { coldVocV, hotVmpV, iscA, arrayW, inputW, clippedFraction: 1 - inputW / arrayW, faults }
}

/** How many modules fit in series: cold enough for the input's highest volts, hot enough for its lowest. */
function seriesWindow(i: Input): { least: number; most: number } {
  const one = { ...i, series: 1 }
  return {
    least: Math.max(1, Math.ceil(i.input.minV / vmpAt(one, i.hotCellC))),
    most: Math.floor(i.input.maxV / vocAt(one, i.recordLowC)),
  }
}

/**
 * Whether a string of modules suits a solar input: volts at record cold and with hot cells, amps, watts, clipping.
 * Volts in V, temperatures in °C, coefficients in % per °C (negative); `faults` in words.
 * Source: NEC 690.7(A) (module's coefficient at the lowest expected temperature); `solar-string` of the contract.
 */
export const solarString = calculator({
  name: 'solar-string',
  topic: 'source',
  question: 'How many solar panels in series?',
  asked: ['solar string', 'PV', 'Voc in the cold', 'over-voltage', 'MPPT window', 'folding panels'],
  input,
  output,
  example: {
    module: { stcW: 410, vocV: 37.4, vmpV: 31.2, iscA: 13.9, vocPctPerC: -0.27 },
    series: 3,
    parallel: 1,
    recordLowC: -26,
    input: { minV: 60, maxV: 150, maxA: 15, maxW: 1200 },
  },
  solve,
  explain: (i, r) => {
    const f = figure
    const { module: m, input: port } = i
    const fits = seriesWindow(i)
    const window =
      fits.least > fits.most
        ? 'No number of these modules in series suits this input.'
        : fits.least === fits.most
          ? `Only ${fits.least} in series fits.`
          : `${fits.least} to ${fits.most} in series fit.`
    const said = [
      ...(r.faults.includes('over-voltage')
        ? [
            `${quantity(r.coldVocV, 'V')} in record cold is above the input’s ${quantity(port.maxV, 'V')}: it can be destroyed.`,
          ]
        : []),
      ...(r.faults.includes('under-voltage')
        ? [
            `${quantity(r.hotVmpV, 'V')} on a hot day is below the input’s ${quantity(port.minV, 'V')}: it stops charging.`,
          ]
        : []),
    ]
    return {
      answer: `${quantity(r.coldVocV, 'V')} at most, ${quantity(r.inputW, 'W')} taken of ${quantity(r.arrayW, 'W')}. ${window}`,
      findings: said,
      working: {
        title: 'Solar string',
        formula: [
          'open volts in the cold = modules × Voc × (1 + coefficient × (record low − 25 °C))',
          'working volts, hot = modules × Vmp × (1 + coefficient × (hot cell − 25 °C))',
          'input takes the smallest of array, its watts, its amps × working volts',
        ],
        steps: [
          step(
            'Open volts at record cold',
            r.coldVocV,
            'V',
            `${i.series} × ${f(m.vocV)} × (1 + ${f(m.vocPctPerC)} ÷ 100 × (${f(i.recordLowC)} − 25))`,
          ),
          step(
            'Working volts, cell hot',
            r.hotVmpV,
            'V',
            `${i.series} × ${f(m.vmpV)} × (1 + ${f(vmpPctPerC(i))} ÷ 100 × (${f(i.hotCellC)} − 25))`,
          ),
          step('Short-circuit current', r.iscA, 'A', `${i.parallel} × ${f(m.iscA)}`),
          step('Array', r.arrayW, 'W', `${i.series} × ${i.parallel} × ${f(m.stcW)}`),
          step(
            'Input takes',
            r.inputW,
            'W',
            `min(${f(r.arrayW)}, ${f(port.maxW)}, ${f(port.maxA)} × ${i.series} × ${f(m.vmpV)})`,
          ),
          step('Clipped', r.clippedFraction, 'fraction'),
        ],
        references: [
          'NEC 690.7(A) (volts at the lowest expected temperature)',
          'NEC 690.8 (125 % of short-circuit current for the conductors)',
        ],
        notes: r.faults.includes('over-current')
          ? ['The string could give more amps than the input takes: the input limits it. A note, no danger.']
          : [],
        notCovered: ['Shade, tilt, dirt, and strings of unlike modules.'],
      },
    }
  },
  curves: (i, r) => {
    const cells = spread(Math.min(i.recordLowC, 0) - 10, Math.max(i.hotCellC, 25) + 10)
    return [
      {
        title: 'String volts against cell temperature',
        kind: 'line',
        x: { label: 'Cell temperature', unit: 'C' },
        y: { label: 'String volts', unit: 'V' },
        series: [
          { name: 'Open (Voc)', points: along(cells, c => vocAt(i, c)) },
          { name: 'Working (Vmp)', points: along(cells, c => vmpAt(i, c)) },
        ],
        limits: [
          { label: 'Input’s highest', y: i.input.maxV },
          { label: 'Input’s lowest', y: i.input.minV },
        ],
        here: { x: i.recordLowC, y: r.coldVocV },
      },
    ]
  },
})
