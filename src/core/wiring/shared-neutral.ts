import * as z from 'zod'
import type { Calculator } from '../calculator'
import { fault } from '../outcome'
import { positive } from '../quantity'
import { arrangementName, arrangements } from '../source/legs'
import { figure } from '../units/format'
import { materialSchema, ordinaryAmpacityA } from '../units/tables/conductors'
import { sourced } from '../working'

const input = z.strictObject({
  arrangement: z.enum(arrangements),
  breakerAA: positive,
  breakerBA: positive,
  neutral: z.strictObject({ material: materialSchema, size: z.string() }),
  sourceBreakerA: positive,
})

const output = z.strictObject({ worstNeutralA: z.number(), neutralA: z.number(), ok: z.boolean() })

/**
 * The worst current in a neutral that two circuits share, against what the neutral may carry (all in A).
 * `breakerAA`, `breakerBA`: the two hots' breakers; `sourceBreakerA`: the overcurrent device that feeds both
 * (for `independent` the one of each source). Fault: a `neutral.size` that the metal does not have.
 * Source: NEC 210.4, 310.16 (60 °C column), 240.4(D); `shared-neutral` of the calculators' contract.
 */
export const sharedNeutral: Calculator<z.infer<typeof input>, z.infer<typeof output>> = {
  name: 'shared-neutral',
  question: 'Can this shared neutral carry it?',
  input,
  output,
  faultsIn: i =>
    ordinaryAmpacityA(i.neutral.material, i.neutral.size) === null
      ? [fault('neutral.size', `is not a size that the table has for ${i.neutral.material}`)]
      : [],
  compute: (i, sources = {}) => {
    const { breakerAA: a, breakerBA: b, sourceBreakerA: s } = i
    const neutralA = ordinaryAmpacityA(i.neutral.material, i.neutral.size) ?? 0
    const f = figure
    const [worstNeutralA, formula, arithmetic] =
      i.arrangement === 'tied'
        ? ([
            Math.min(a + b, s),
            'the smaller of (A + B) and the source’s breaker: nothing cancels',
            `min(${f(a)} + ${f(b)}, ${f(s)})`,
          ] as const)
        : i.arrangement === 'independent'
          ? ([
              Math.min(a, s) + Math.min(b, s),
              'each hot up to its source’s breaker, added: nothing cancels',
              `min(${f(a)}, ${f(s)}) + min(${f(b)}, ${f(s)})`,
            ] as const)
          : ([
              Math.min(Math.max(a, b), s),
              'the larger of A and B, at most the source’s breaker: opposite legs cancel',
              `min(max(${f(a)}, ${f(b)}), ${f(s)})`,
            ] as const)
    const ok = worstNeutralA <= neutralA
    return {
      result: { worstNeutralA, neutralA, ok },
      working: {
        title: 'Shared neutral',
        formula: [`worst neutral current = ${formula}`, 'it must not exceed what the neutral may carry'],
        inputs: [
          {
            label: 'Arrangement',
            value: arrangementName[i.arrangement],
            unit: 'text',
            ...sourced(sources.arrangement),
          },
          { label: 'Breaker A', value: a, unit: 'A', ...sourced(sources.breakerAA) },
          { label: 'Breaker B', value: b, unit: 'A', ...sourced(sources.breakerBA) },
          {
            label: 'Neutral',
            value: `${i.neutral.size} AWG ${i.neutral.material}`,
            unit: 'text',
            ...sourced(sources.neutral),
          },
          { label: 'Source’s breaker', value: s, unit: 'A', ...sourced(sources.sourceBreakerA) },
        ],
        steps: [
          { label: 'Worst neutral current', value: worstNeutralA, unit: 'A', arithmetic },
          { label: 'Neutral may carry', value: neutralA, unit: 'A' },
        ],
        references: ['NEC 210.4 (multiwire branch circuits)', 'NEC 310.16, 60 °C column', 'NEC 240.4(D)'],
        notCovered: ['Neutral current from harmonics of electronic loads.'],
      },
    }
  },
}
