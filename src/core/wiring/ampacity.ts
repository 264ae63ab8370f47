import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { celsius, counted, notNegative } from '../quantity'
import { figure, quantity } from '../units/format'
import { adjustmentFactorOf } from '../units/tables/adjustment'
import { ambientFactorOf, highestAmbientC } from '../units/tables/ambient'
import { standardBreakersA } from '../units/tables/breakers'
import {
  conductorName,
  conductorRow,
  metal,
  noSuchSize,
  sizeSchema,
  tableAmpacityA,
} from '../units/tables/conductors'
import { step } from '../working'

const columnNames = { 60: '60 °C (NM-B, UF-B)', 75: '75 °C (THWN, XHHW)', 90: '90 °C (THHN, THWN-2)' }
const column = z.literal([60, 75, 90])

const input = z.strictObject({
  material: metal,
  size: sizeSchema,
  insulationC: labelled(column, 'Insulation', 'text', { names: columnNames }),
  terminationC: labelled(column.optional(), 'Terminations', 'text', {
    names: { 60: '60 °C', 75: '75 °C', 90: '90 °C' },
    description: 'the lowest rating of breaker, lug and device at either end; 75 °C at most if left out',
  }),
  ambientC: labelled(celsius.default(30), 'Ambient', 'C'),
  currentCarrying: labelled(counted.default(3), 'Current-carrying together', 'count', {
    description: 'hots, and neutrals that carry more than the difference',
  }),
  nipple: labelled(z.boolean().default(false), 'In a nipple (24 in or shorter)'),
  roundUp: labelled(z.boolean().default(false), 'Round up to the next standard breaker'),
  loadA: labelled(notNegative.optional(), 'Load on it', 'A'),
  continuousA: labelled(notNegative.optional(), 'of it for three hours or more', 'A', {
    description: 'counts 125 % for the conductor and its breaker',
  }),
})

const output = z.strictObject({
  tableA: labelled(z.number(), 'From the table', 'A'),
  ambientFactor: labelled(z.number(), 'Ambient correction', 'count'),
  adjustmentFactor: labelled(z.number(), 'Adjustment for several together', 'count'),
  deratedA: labelled(z.number(), 'Derated', 'A'),
  terminationA: labelled(z.number(), 'At the terminations', 'A'),
  usableA: labelled(z.number(), 'Usable ampacity', 'A'),
  maxBreakerA: labelled(z.number().nullable(), 'Largest breaker', 'A'),
  neededA: labelled(z.number().nullable(), 'Asked of it, with 125 % of what lasts', 'A'),
  leastBreakerA: labelled(z.number().nullable(), 'Smallest breaker for the load', 'A'),
  carries: labelled(z.boolean().nullable(), 'It carries the load'),
})

type Input = z.infer<typeof input>

const terminationOf = (i: Input) => i.terminationC ?? (i.insulationC === 60 ? 60 : 75)

function solve(i: Input) {
  const tableA = tableAmpacityA(i.material, i.size, i.insulationC) ?? 0
  const ambientFactor = ambientFactorOf(i.ambientC, i.insulationC) ?? 0
  const adjustmentFactor = i.nipple ? 1 : adjustmentFactorOf(i.currentCarrying)
  const deratedA = tableA * ambientFactor * adjustmentFactor
  const terminationA = tableAmpacityA(i.material, i.size, terminationOf(i)) ?? 0
  const usableA = Math.min(deratedA, terminationA)
  // derated to nothing it carries nothing: there is no rating to round up to
  const standardA =
    usableA <= 0
      ? undefined
      : i.roundUp
        ? standardBreakersA.find(a => a >= usableA)
        : standardBreakersA.findLast(a => a <= usableA)
  const limitA = conductorRow(i.size, i.material)?.smallConductorA[i.material] ?? Infinity
  const maxBreakerA = standardA === undefined ? null : Math.min(standardA, limitA)
  return {
    tableA,
    ambientFactor,
    adjustmentFactor,
    deratedA,
    terminationA,
    usableA,
    maxBreakerA,
    ...loadOn(i, usableA, maxBreakerA),
  }
}

/**
 * What the load asks: what is not continuous and 125 % of what is, of the breaker and of the conductor before it is derated;
 * derated it must still carry all of the load itself, and the breaker that the load asks must be one that may protect it
 * (NEC 210.19(A)(1), 210.20(A), 215.2, 215.3, 230.42, 240.4).
 */
function loadOn(i: Input, usableA: number, maxBreakerA: number | null) {
  const { loadA, continuousA = 0 } = i
  if (loadA === undefined) return { neededA: null, leastBreakerA: null, carries: null }
  const neededA = loadA + 0.25 * continuousA
  const leastBreakerA = standardBreakersA.find(a => a >= neededA) ?? null
  const protectable = leastBreakerA !== null && maxBreakerA !== null && leastBreakerA <= maxBreakerA
  return {
    neededA,
    leastBreakerA,
    carries: neededA <= tableAtTerminals(i) && loadA <= usableA && protectable,
  }
}

const tableAtTerminals = (i: Input) => tableAmpacityA(i.material, i.size, terminationOf(i)) ?? 0

/**
 * Ampacity of a conductor derated for ambient and company, and the largest breaker on it.
 * `size` AWG, temperatures in °C, `currentCarrying` a count; amps and factors out.
 * Faults: a `size` the metal lacks; `terminationC` above `insulationC`; an `ambientC` beyond the insulation's column.
 * Source: NEC 310.16, 310.15(B)(1), 310.15(C)(1), 110.14(C), 240.4(B) and (D), 240.6(A).
 */
export const ampacity = calculator({
  name: 'ampacity',
  topic: 'wiring',
  question: 'What may this wire carry?',
  asked: [
    'what breaker fits this wire',
    'what size wire',
    'wire size',
    'derating',
    'six circuits in one conduit',
    'ambient',
    'attic',
    'breaker size',
    'THHN',
    'NM cable',
  ],
  input,
  output,
  example: { material: 'cu', size: '10', insulationC: 90, ambientC: 40, currentCarrying: 12 },
  faultsIn: i => [
    ...(i.continuousA !== undefined && i.loadA === undefined
      ? [fault('loadA', 'is missing: give the whole load, of which a part is continuous')]
      : []),
    ...((i.continuousA ?? 0) > (i.loadA ?? Infinity)
      ? [fault('continuousA', `must be at most the whole load, ${i.loadA} A`)]
      : []),
    ...(conductorRow(i.size, i.material) ? [] : [fault('size', noSuchSize(i.material))]),
    ...(terminationOf(i) > i.insulationC
      ? [fault('terminationC', `must not be above insulationC (${i.insulationC})`)]
      : []),
    ...(ambientFactorOf(i.ambientC, i.insulationC) === null
      ? [
          fault(
            'ambientC',
            `is too hot for ${i.insulationC} °C insulation: its column ends at ${highestAmbientC(i.insulationC)} °C`,
          ),
        ]
      : []),
  ],
  solve,
  explain: (i, r) => {
    const f = figure
    const wire = conductorName(i.size, i.material)
    const termination = terminationOf(i)
    const limitA = conductorRow(i.size, i.material)?.smallConductorA[i.material]
    const breaker =
      r.maxBreakerA === null
        ? 'no standard breaker is that small'
        : `largest breaker ${quantity(r.maxBreakerA, 'A')}`
    return {
      answer: `${wire} carries ${quantity(r.usableA, 'A')} here; ${breaker}.${
        r.neededA === null
          ? ''
          : ` The load asks for ${quantity(r.neededA, 'A')}${i.continuousA ? ', what lasts at 125 %' : ''}: ${r.carries ? `it carries that, on a breaker of ${quantity(r.leastBreakerA ?? 0, 'A')} or more` : 'that is more than it, or a breaker that may protect it, carries'}.`
      }`,
      working: {
        title: 'Ampacity',
        formula: [
          'derated = ampacity of the insulation’s column × ambient correction × adjustment for several together',
          'usable = the smaller of derated and what the terminations allow',
          `largest breaker = ${i.roundUp ? 'the next standard rating from usable up' : 'the largest standard rating within usable'}, within the small-conductor limit`,
        ],
        steps: [
          step('Table ampacity', r.tableA, 'A'),
          step(
            'Derated',
            r.deratedA,
            'A',
            `${f(r.tableA)} × ${f(r.ambientFactor)} × ${f(r.adjustmentFactor)}`,
          ),
          step('At the terminations', r.terminationA, 'A'),
          step('Usable', r.usableA, 'A', `min(${f(r.deratedA)}, ${f(r.terminationA)})`),
          step('Largest breaker', r.maxBreakerA ?? 'none', 'A'),
          ...(r.neededA === null
            ? []
            : [
                step(
                  'Asked by the load',
                  r.neededA,
                  'A',
                  `${f((i.loadA ?? 0) - (i.continuousA ?? 0))} + 1.25 × ${f(i.continuousA ?? 0)}`,
                ),
                step('Smallest breaker for it', r.leastBreakerA ?? 'none', 'A'),
              ]),
        ],
        rows: [
          { table: 'NEC 310.16', row: wire, column: `${i.insulationC} °C`, value: quantity(r.tableA, 'A') },
          {
            table: 'NEC 310.16',
            row: wire,
            column: `${termination} °C`,
            value: quantity(r.terminationA, 'A'),
          },
          {
            table: 'NEC 310.15(B)(1)',
            row: quantity(i.ambientC, 'C'),
            column: `${i.insulationC} °C`,
            value: f(r.ambientFactor),
          },
          {
            table: 'NEC 310.15(C)(1)',
            row: i.nipple ? 'nipple: none' : `${i.currentCarrying} together`,
            value: f(r.adjustmentFactor),
          },
          ...(limitA == null ? [] : [{ table: 'NEC 240.4(D)', row: wire, value: quantity(limitA, 'A') }]),
        ],
        references: [
          'NEC 310.16',
          'NEC 310.15(B)(1)',
          'NEC 310.15(C)(1)',
          'NEC 110.14(C)',
          'NEC 240.4(D)',
          'NEC 240.6(A)',
          ...(r.neededA === null
            ? []
            : ['NEC 210.19(A)(1), 210.20(A), 215.2, 215.3, 230.42 (continuous loads at 125 %)']),
        ],
        ruleOfThumb:
          '14 AWG copper on 15 A, 12 on 20 A, 10 on 30 A; the 80 % rule for continuous load comes on top',
        notes: [
          'Rounding up is allowed by 240.4(B) where the ampacity meets no standard rating, the circuit does not supply several receptacles for cord-and-plug loads, and the rating stays within 800 A.',
          '10 A breakers are a standard rating from the 2023 edition on; none is proposed here.',
        ],
        notCovered: ['Sunlit raceways on roofs, cables bundled without spacing.'],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Derating, step by step',
      kind: 'bars',
      x: { label: 'Step', unit: 'text' },
      y: { label: 'Ampacity', unit: 'A' },
      series: [
        {
          name: 'Ampacity',
          points: [
            { x: 'Table', y: r.tableA },
            { x: 'Ambient', y: r.tableA * r.ambientFactor },
            { x: 'Together', y: r.deratedA },
            { x: 'Usable', y: r.usableA },
          ],
        },
      ],
      limits: [{ label: 'At the terminations', y: r.terminationA }],
    },
    {
      title: 'Usable ampacity against how many share the conduit',
      kind: 'bars',
      x: { label: 'Current-carrying conductors together', unit: 'count' },
      y: { label: 'Usable ampacity', unit: 'A' },
      series: [
        {
          name: 'Usable',
          points: [3, 6, 9, 20, 30, 40].map((n, at, all) => ({
            x: at ? `${(all[at - 1] ?? 0) + 1}–${n}` : `1–${n}`,
            y: solve({ ...i, nipple: false, currentCarrying: n }).usableA,
          })),
        },
      ],
    },
  ],
})
