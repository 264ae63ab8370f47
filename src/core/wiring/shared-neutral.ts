import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { arrangementName, arrangements } from '../panel/leg'
import { positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { conductorName, metal, noSuchSize, ordinaryAmpacityA, sizeSchema } from '../units/tables/conductors'
import { step } from '../working'

const input = z.strictObject({
  arrangement: labelled(z.enum(arrangements), 'Arrangement', 'text', { names: arrangementName }),
  breakerAA: labelled(positive, 'Breaker A', 'A'),
  breakerBA: labelled(positive, 'Breaker B', 'A'),
  neutral: labelled(z.strictObject({ material: metal, size: sizeSchema }), 'Neutral'),
  sourceBreakerA: labelled(positive, 'Source’s breaker', 'A'),
})

const output = z.strictObject({
  worstNeutralA: labelled(z.number(), 'Worst neutral current', 'A'),
  neutralA: labelled(z.number(), 'Neutral may carry', 'A'),
  ok: labelled(z.boolean(), 'Within what the neutral may carry'),
})

type Input = z.infer<typeof input>

function worstOf({ arrangement, breakerAA: a, breakerBA: b, sourceBreakerA: s }: Input): number {
  if (arrangement === 'tied') return Math.min(a + b, s)
  if (arrangement === 'independent') return Math.min(a, s) + Math.min(b, s)
  return Math.min(Math.max(a, b), s)
}

function solve(i: Input) {
  const worstNeutralA = worstOf(i)
  const neutralA = ordinaryAmpacityA(i.neutral.material, i.neutral.size) ?? 0
  return { worstNeutralA, neutralA, ok: worstNeutralA <= neutralA }
}

const words = {
  'one-leg': 'the larger of A and B, at most the source’s breaker: only one of the two hots is live',
  'split-phase': 'the larger of A and B, at most the source’s breaker: opposite legs cancel',
  tied: 'the smaller of (A + B) and the source’s breaker: nothing cancels',
  independent: 'each hot up to its source’s breaker, added: nothing cancels',
} as const

/**
 * The worst current in a neutral that two circuits share, against what the neutral may carry (all in A).
 * `breakerAA`, `breakerBA`: the two hots' breakers; `sourceBreakerA`: the overcurrent device that feeds both
 * (for `independent` the one of each source). The hots stand on opposite legs, as NEC 210.4 asks.
 * Fault: a `neutral.size` that the metal does not have.
 * Source: NEC 210.4, 310.16 (60 °C column), 240.4(D); `shared-neutral` of the calculators' contract.
 */
export const sharedNeutral = calculator({
  name: 'shared-neutral',
  topic: 'wiring',
  question: 'Can this shared neutral carry it?',
  asked: ['multiwire', 'MWBC', 'tied legs', 'neutral overload', 'two hots one neutral'],
  input,
  output,
  example: {
    arrangement: 'tied',
    breakerAA: 20,
    breakerBA: 20,
    neutral: { material: 'cu', size: '12' },
    sourceBreakerA: 30,
  },
  faultsIn: i =>
    ordinaryAmpacityA(i.neutral.material, i.neutral.size) === null
      ? [fault('neutral.size', noSuchSize(i.neutral.material))]
      : [],
  solve,
  explain: (i, r) => {
    const { arrangement, breakerAA: a, breakerBA: b, sourceBreakerA: s } = i
    const f = figure
    const arithmetic = {
      'one-leg': `min(max(${f(a)}, ${f(b)}), ${f(s)})`,
      'split-phase': `min(max(${f(a)}, ${f(b)}), ${f(s)})`,
      tied: `min(${f(a)} + ${f(b)}, ${f(s)})`,
      independent: `min(${f(a)}, ${f(s)}) + min(${f(b)}, ${f(s)})`,
    }[arrangement]
    const wire = conductorName(i.neutral.size, i.neutral.material)
    return {
      answer: `Up to ${quantity(r.worstNeutralA, 'A')} in a neutral of ${wire} that may carry ${quantity(r.neutralA, 'A')}: ${r.ok ? 'within it' : 'it can overheat without tripping anything'}.`,
      working: {
        title: 'Shared neutral',
        formula: [
          `worst neutral current = ${words[arrangement]}`,
          'it must not exceed what the neutral may carry',
        ],
        steps: [
          { label: 'Worst neutral current', value: r.worstNeutralA, unit: 'A', arithmetic },
          step('Neutral may carry', r.neutralA, 'A'),
        ],
        rows: [
          { table: 'NEC 310.16 and 240.4(D)', row: wire, column: '60 °C', value: quantity(r.neutralA, 'A') },
        ],
        references: ['NEC 210.4 (multiwire branch circuits)', 'NEC 310.16, 60 °C column', 'NEC 240.4(D)'],
        notes: [
          'No breaker sees the neutral: an overloaded one heats inside the wall while both breakers stay on.',
        ],
        notCovered: [
          'Neutral current from harmonics of electronic loads.',
          'Two hots on the same leg add under every arrangement: they are no multiwire pair (NEC 210.4).',
        ],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'The same pair under each arrangement',
      kind: 'bars',
      x: { label: 'Arrangement', unit: 'text' },
      y: { label: 'Worst neutral current', unit: 'A' },
      series: [
        {
          name: 'Worst neutral current',
          points: arrangements.map(arrangement => ({
            x: arrangementName[arrangement],
            y: worstOf({ ...i, arrangement }),
          })),
        },
      ],
      limits: [{ label: 'Neutral may carry', y: r.neutralA }],
    },
  ],
})
