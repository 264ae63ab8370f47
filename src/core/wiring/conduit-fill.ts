import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { counted } from '../quantity'
import { figure, quantity } from '../units/format'
import { conductorRow, noSuchSize, sizeSchema } from '../units/tables/conductors'
import { conduitKinds, conduits, fillLimitFraction } from '../units/tables/conduit'
import { step } from '../working'

export const conduitNames = {
  EMT: 'EMT (thin-wall steel)',
  RMC: 'RMC (rigid steel)',
  PVC40: 'PVC schedule 40',
  'LFNC-B': 'LFNC-B (liquid-tight)',
  FMC: 'FMC (flexible metal)',
} as const

const input = z.strictObject({
  conduit: labelled(z.enum(conduitKinds), 'Conduit', 'text', { names: conduitNames }),
  conductors: labelled(
    z
      .array(z.strictObject({ size: sizeSchema, count: labelled(counted, 'How many', 'count') }))
      .min(1, 'must not be empty'),
    'Conductors (THHN/THWN-2, grounds too)',
    'text',
    { row: 'Conductor' },
  ),
  nipple: labelled(z.boolean().default(false), 'Nipple (24 in or shorter)'),
})

const output = z.strictObject({
  usedIn2: labelled(z.number(), 'Conductors take', 'in2'),
  limitFraction: labelled(z.number(), 'May be filled', 'fraction'),
  sizes: labelled(
    z.array(
      z.strictObject({
        tradeSize: labelled(z.string(), 'Trade size'),
        areaIn2: labelled(z.number(), 'Inside area', 'in2'),
        fillFraction: labelled(z.number(), 'Fill', 'fraction'),
        fits: labelled(z.boolean(), 'Fits'),
      }),
    ),
    'Trade sizes',
    'text',
    { row: 'Trade size' },
  ),
  smallest: labelled(z.string().nullable(), 'Smallest that fits'),
})

type Input = z.infer<typeof input>

const areaOf = (size: string) => conductorRow(size)?.areaIn2 ?? 0
const countOf = (i: Input) => i.conductors.reduce((sum, c) => sum + c.count, 0)

function solve(i: Input) {
  const usedIn2 = i.conductors.reduce((sum, c) => sum + areaOf(c.size) * c.count, 0)
  const limitFraction = fillLimitFraction(countOf(i), i.nipple)
  const sizes = conduits.map(({ tradeSize, areaIn2 }) => {
    const fillFraction = usedIn2 / areaIn2[i.conduit]
    return { tradeSize, areaIn2: areaIn2[i.conduit], fillFraction, fits: fillFraction <= limitFraction }
  })
  return { usedIn2, limitFraction, sizes, smallest: sizes.find(s => s.fits)?.tradeSize ?? null }
}

/**
 * How full each trade size of a conduit gets, and the smallest that fits.
 * Sizes AWG (THHN/THWN-2), counts whole; areas in in², fractions out. Fault: a `size` the table lacks.
 * Source: NEC chapter 9, tables 1, 4 and 5.
 */
export const conduitFill = calculator({
  name: 'conduit-fill',
  topic: 'wiring',
  question: 'What size conduit?',
  asked: ['conduit fill', 'pipe size', 'EMT', 'PVC', 'whip', 'nipple', 'how many wires fit'],
  input,
  output,
  example: {
    conduit: 'EMT',
    conductors: [
      { size: '12', count: 12 },
      { size: '10', count: 1 },
    ],
  },
  faultsIn: i =>
    i.conductors.flatMap((c, n) =>
      conductorRow(c.size) ? [] : [fault(`conductors[${n}].size`, noSuchSize())],
    ),
  solve,
  explain: (i, r) => {
    const f = figure
    const count = countOf(i)
    const chosen = r.sizes.find(s => s.fits) ?? r.sizes.at(-1)
    return {
      answer: r.smallest
        ? `Trade size ${r.smallest}: ${quantity(chosen?.fillFraction ?? 0, 'fraction')} full, ${quantity(r.limitFraction, 'fraction')} allowed.`
        : `None of these trade sizes fits: even ${chosen?.tradeSize} would be ${quantity(chosen?.fillFraction ?? 0, 'fraction')} full. Split the conductors over two conduits.`,
      working: {
        title: 'Conduit fill',
        formula: [
          'area taken = Σ area of each conductor × how many',
          'fill = area taken ÷ inside area of the trade size',
          i.nipple
            ? 'a nipple of 24 in or less may be filled to 60 %'
            : 'one conductor may fill 53 %, two 31 %, three and more 40 %',
        ],
        steps: [
          step(
            'Area taken',
            r.usedIn2,
            'in2',
            i.conductors.map(c => `${f(areaOf(c.size))} × ${c.count}`).join(' + '),
          ),
          step('Conductors in all', count, 'count'),
          step('May be filled', r.limitFraction, 'fraction'),
          ...r.sizes.map(s =>
            step(
              `Trade size ${s.tradeSize}${s.fits ? ', fits' : ''}`,
              s.fillFraction,
              'fraction',
              `${f(r.usedIn2)} ÷ ${f(s.areaIn2)}`,
            ),
          ),
        ],
        rows: [
          ...i.conductors.map(c => ({
            table: 'NEC chapter 9, table 5',
            row: `${c.size} AWG THHN`,
            value: quantity(areaOf(c.size), 'in2'),
          })),
          {
            table: 'NEC chapter 9, table 1',
            row: i.nipple ? 'nipple' : count > 2 ? 'three or more' : String(count),
            value: quantity(r.limitFraction, 'fraction'),
          },
        ],
        references: ['NEC chapter 9, tables 1, 4 and 5'],
        notes: [
          'More than three current-carrying conductors together are derated as well: see ampacity.',
          'Three conductors of nearly a third of the bore can jam in the pull; go one size up (chapter 9, table 1, informational note).',
        ],
        notCovered: [
          'Bends between pull points (360° at most), and cables or insulation other than THHN/THWN-2.',
        ],
      },
    }
  },
  curves: (_, r) => [
    {
      title: 'Fill by trade size',
      kind: 'bars',
      x: { label: 'Trade size', unit: 'text' },
      y: { label: 'Fill', unit: 'fraction' },
      series: [{ name: 'Fill', points: r.sizes.map(s => ({ x: s.tradeSize, y: s.fillFraction })) }],
      limits: [{ label: 'May be filled', y: r.limitFraction }],
    },
  ],
})
