import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { figure, quantity } from '../units/format'
import {
  conductorName,
  conductorRow,
  conductorSizes,
  conductors,
  type Material,
  metal,
  noSuchSize,
} from '../units/tables/conductors'
import { equipmentGrounds } from '../units/tables/equipment-ground'
import { step } from '../working'

const largestA = Math.max(...equipmentGrounds.map(g => g.upToA))

const input = z.strictObject({
  material: metal,
  breakerA: labelled(
    z
      .number()
      .gt(0, 'must be more than 0')
      .max(largestA, `must be at most ${largestA}: the table here ends there`),
    'Breaker ahead of it',
    'A',
  ),
  requiredSize: labelled(z.string().optional(), 'Size the hots would need', 'AWG', { among: conductorSizes }),
  installedSize: labelled(z.string().optional(), 'Size the hots are', 'AWG', { among: conductorSizes }),
  circuitSize: labelled(z.string().optional(), 'Circuit’s own conductors', 'AWG', { among: conductorSizes }),
})

const output = z.strictObject({
  baseSize: labelled(z.string(), 'From the table', 'AWG'),
  size: labelled(z.string(), 'Equipment ground', 'AWG'),
})

type Input = z.infer<typeof input>

const cmil = (size: string) => conductorRow(size)?.circularMils ?? 0
const rowOf = (i: Input) => equipmentGrounds.find(g => i.breakerA <= g.upToA) ?? equipmentGrounds[0]
const baseOf = (i: Input) => rowOf(i)?.[i.material] ?? '14'

/** The circular mils asked for: those of the base size, times the enlargement of the hots (multiplied first). */
function neededCmil(i: Input): number {
  const base = cmil(baseOf(i))
  if (i.requiredSize === undefined || i.installedSize === undefined) return base
  return Math.max(base, (base * cmil(i.installedSize)) / cmil(i.requiredSize))
}

/** The smallest size of the metal with at least these circular mils; undefined above 4/0. */
const sizeFor = (material: Material, circularMils: number) =>
  conductors.find(c => c.ampacityA[material] && c.circularMils >= circularMils)?.size

function solve(i: Input) {
  const enlarged = sizeFor(i.material, neededCmil(i)) ?? '4/0'
  const capped = i.circuitSize !== undefined && cmil(i.circuitSize) < cmil(enlarged)
  return { baseSize: baseOf(i), size: capped && i.circuitSize !== undefined ? i.circuitSize : enlarged }
}

function faultsIn(i: Input): Fault[] {
  const unknown = (['requiredSize', 'installedSize', 'circuitSize'] as const).flatMap(key => {
    const size = i[key]
    return size === undefined || conductorRow(size, i.material) ? [] : [fault(key, noSuchSize(i.material))]
  })
  if (unknown.length) return unknown
  const { requiredSize, installedSize } = i
  if (requiredSize === undefined && installedSize === undefined) return []
  if (requiredSize === undefined)
    return [fault('requiredSize', 'is missing: give it together with installedSize, or neither')]
  if (installedSize === undefined)
    return [fault('installedSize', 'is missing: give it together with requiredSize, or neither')]
  if (cmil(installedSize) < cmil(requiredSize))
    return [fault('installedSize', `must not be smaller than requiredSize (${requiredSize} AWG)`)]
  if (!sizeFor(i.material, neededCmil(i)))
    return [fault('installedSize', 'enlarges the ground beyond 4/0, where the table here ends')]
  return []
}

/**
 * Size of the equipment grounding conductor by the breaker ahead of it, enlarged in step with the hots.
 * `breakerA` in A (at most 400), sizes AWG. Faults: only one of `requiredSize` and `installedSize`; installed below
 * required; a result above 4/0 (`installedSize`); a size the metal lacks (its own key).
 * Source: NEC 250.122, 250.122(A) (need not exceed the circuit's conductors), 250.122(B) (enlargement).
 */
export const equipmentGround = calculator({
  name: 'equipment-ground',
  topic: 'wiring',
  question: 'What size ground?',
  asked: ['equipment grounding conductor', 'EGC', 'ground wire size', 'upsized conductors'],
  input,
  output,
  example: { material: 'cu', breakerA: 50, requiredSize: '8', installedSize: '4', circuitSize: '4' },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const row = rowOf(i)
    const enlarged = i.requiredSize !== undefined && i.installedSize !== undefined
    const needed = neededCmil(i)
    const capped = cmil(r.size) < needed
    return {
      answer: `${conductorName(r.size, i.material)} behind ${quantity(i.breakerA, 'A')}${
        capped
          ? ', as large as the circuit’s own conductors: it need not be larger'
          : r.size === r.baseSize
            ? ''
            : `, up from ${r.baseSize} AWG because the hots were enlarged`
      }.`,
      working: {
        title: 'Equipment ground',
        formula: [
          'base size = the table’s, by the breaker ahead',
          ...(enlarged
            ? ['enlarged = base size’s circular mils × installed ÷ required circular mils, the next size up']
            : []),
          ...(i.circuitSize === undefined ? [] : ['it need not be larger than the circuit’s own conductors']),
        ],
        steps: [
          step('Base size', r.baseSize, 'AWG'),
          ...(enlarged
            ? [
                step(
                  'Circular mils needed',
                  needed,
                  'count',
                  `${f(cmil(r.baseSize))} × ${f(cmil(i.installedSize ?? ''))} ÷ ${f(cmil(i.requiredSize ?? ''))}`,
                ),
              ]
            : []),
          step('Equipment ground', r.size, 'AWG'),
        ],
        rows: [
          {
            table: 'NEC 250.122',
            row: `up to ${row?.upToA} A`,
            column: i.material === 'cu' ? 'copper' : 'aluminum',
            value: `${r.baseSize} AWG`,
          },
          ...[i.requiredSize, i.installedSize].flatMap(size =>
            size === undefined
              ? []
              : [
                  {
                    table: 'NEC chapter 9, table 8',
                    row: `${size} AWG`,
                    value: `${cmil(size).toLocaleString('en-US')} circular mils`,
                  },
                ],
          ),
        ],
        references: ['NEC 250.122', 'NEC 250.122(A)', 'NEC 250.122(B)'],
        notes: [
          'One ground may serve several circuits in one raceway: size it for the largest breaker (250.122(C)).',
        ],
        notCovered: ['Metal conduit that itself serves as the ground (250.118), and parallel conductors.'],
      },
    }
  },
})
