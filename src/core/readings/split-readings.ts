import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { notNegative } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'
import { type ReadingVerdict, verdictOutput } from './verdict'

const verdicts = {
  'leg-dead': {
    name: 'A leg is dead',
    meaning:
      'One leg shows next to nothing: half of the panel is without supply, and a two-pole load would link the legs.',
    next: 'Switch every two-pole breaker off. Check the source’s outlet, the cord, the inlet and the backfeed breaker of that leg; if one leg is what was planned, write it on the card.',
  },
  'leg-out-of-range': {
    name: 'A leg is out of range',
    meaning:
      'A leg stands outside 104 to 132 V: a lost or loose neutral lets the legs drift apart, or the source sags under load.',
    next: 'Switch the loads off and measure again. If the legs stay unequal, check the neutral from source to panel before anything is connected.',
  },
  'not-synchronised': {
    name: 'Not synchronised',
    meaning:
      'The volts between the legs wander, or fit no fixed phase: the two legs come from units that do not follow each other.',
    next: 'No 240 V load and no shared neutral on this. Fit the makers’ combiner, or keep the units apart.',
  },
  'same-phase': {
    name: 'Both legs in phase',
    meaning:
      'The legs show the same voltage against neutral and next to nothing between them: they are tied, or two outlets of one 120 V unit.',
    next: '120 V circuits work; nothing works at 240 V. Shared neutrals add instead of cancelling: separate them or leave one of each pair off.',
  },
  'split-phase': {
    name: 'Split phase',
    meaning: 'The volts between the legs are the sum of the two: opposite phase, as a house panel expects.',
    next: 'Write the readings down, then load each leg and measure again.',
  },
  'loose-neutral': {
    name: 'A loose neutral?',
    meaning:
      'The legs stand opposite, but one is high by what the other is low: their neutral is loose or broken somewhere, and the loads share the volts between them.',
    next: 'Switch off at once: the low leg stalls motors, the high one burns electronics. Check every joint of the neutral from the source to the panel, tighten to torque, and measure again with about 1 kW on one leg: the legs must stay within 4 V.',
  },
  'three-phase-legs': {
    name: 'Two legs of three phases',
    meaning:
      'About 208 V between the legs: they stand a third of a turn apart, as two legs of a three-phase supply do.',
    next: '240 V heaters give three quarters of their power and motors may overheat; a shared neutral carries almost a full leg’s current. Ask what feeds this panel.',
  },
} as const satisfies Record<string, ReadingVerdict>

type Named = keyof typeof verdicts

const input = z.strictObject({
  l1V: labelled(notNegative, 'L1 to neutral', 'V'),
  l2V: labelled(notNegative, 'L2 to neutral', 'V'),
  l1l2V: labelled(notNegative, 'L1 to L2', 'V'),
  l1l2AgainV: labelled(z.array(notNegative).default([]), 'L1 to L2 again, over ten seconds or longer', 'V'),
})

const output = verdictOutput<Named>(verdicts)

type Input = z.infer<typeof input>

function spreadV(i: Input): number {
  const all = [i.l1l2V, ...i.l1l2AgainV]
  return all.reduce((a, b) => Math.max(a, b)) - all.reduce((a, b) => Math.min(a, b))
}

const threePhaseV = (i: Input) => (Math.sqrt(3) * (i.l1V + i.l2V)) / 2

function verdictOf(i: Input): Named {
  const { l1V, l2V, l1l2V } = i
  if (l1V < 30 || l2V < 30) return 'leg-dead'
  if ([l1V, l2V].some(v => v < 104 || v > 132)) return 'leg-out-of-range'
  if (spreadV(i) > 8) return 'not-synchronised'
  if (l1l2V <= Math.abs(l1V - l2V) + 10) return 'same-phase'
  if (Math.abs(l1l2V - (l1V + l2V)) <= 8) return Math.abs(l1V - l2V) > 8 ? 'loose-neutral' : 'split-phase'
  if (Math.abs(l1l2V - threePhaseV(i)) <= 8) return 'three-phase-legs'
  return 'not-synchronised'
}

const again =
  'One reading cannot prove that the legs follow each other: watch L1 to L2 for ten seconds or longer and enter what you see. '

function solve(i: Input) {
  const verdict = verdictOf(i)
  const { meaning, next }: ReadingVerdict = verdicts[verdict]
  const unproven = verdict === 'split-phase' && !i.l1l2AgainV.length
  return { verdict, meaning, next: `${unproven ? again : ''}${next}` }
}

/**
 * The angle between the legs, degrees from 0 (same phase) to 180 (opposite), by the law of cosines;
 * null where a leg is dead. What three meter readings allow, no more: the sign stays unknown.
 */
export function legAngleDegrees({ l1V, l2V, l1l2V }: Input): number | null {
  if (l1V <= 0 || l2V <= 0) return null
  const cosine = (l1V ** 2 + l2V ** 2 - l1l2V ** 2) / (2 * l1V * l2V)
  return (Math.acos(Math.min(1, Math.max(-1, cosine))) * 180) / Math.PI
}

/**
 * What the readings of two legs mean, and what to do next. Volts, each ≥ 0; the first test that fits decides.
 * `l1l2AgainV`: more readings between the legs over ten seconds or longer; without them, split phase stays unproven.
 * Source: sum of two phasors; `split-readings` of the calculators' contract.
 */
export const splitReadings = calculator({
  name: 'split-readings',
  topic: 'readings',
  question: 'Are the two legs as they should be?',
  asked: [
    'readings of the two legs',
    'L1 to L2',
    '240 V',
    'split phase',
    'synchronised',
    'tied',
    '208 V',
    'two units',
  ],
  input,
  output,
  example: { l1V: 121, l2V: 119, l1l2V: 239.5, l1l2AgainV: [239.4, 239.8] },
  solve,
  explain: (i, r) => {
    const f = figure
    const angle = legAngleDegrees(i)
    return {
      answer: `${verdicts[r.verdict].name}. ${r.meaning}`,
      next: r.next,
      working: {
        title: 'Readings of the two legs',
        formula: [
          'either leg under 30 V: dead; outside 104 to 132 V: out of range',
          'readings between the legs that differ by more than 8 V: not synchronised',
          'then: near the difference of the legs, near their sum (within 8 V; with legs more than 8 V apart a loose neutral), or near √3 × their mean (within 8 V)',
        ],
        steps: [
          step('Spread between the legs', spreadV(i), 'V'),
          step(
            'Difference of the legs, and 10 V',
            Math.abs(i.l1V - i.l2V) + 10,
            'V',
            `|${f(i.l1V)} − ${f(i.l2V)}| + 10`,
          ),
          step('Sum of the legs', i.l1V + i.l2V, 'V', `${f(i.l1V)} + ${f(i.l2V)}`),
          step('√3 × mean of the legs', threePhaseV(i), 'V', `1.73 × ${f((i.l1V + i.l2V) / 2)}`),
          ...(angle === null ? [] : [step('Angle between the legs', angle, 'degrees')]),
          step('Verdict', verdicts[r.verdict].name, 'text'),
        ],
        references: [
          `Nominal 120/240 V, ${quantity(104, 'V')} to ${quantity(132, 'V')} accepted`,
          'NEC 210.4 (shared neutrals need opposite legs)',
        ],
        notCovered: ['Whether the legs stay in step under load and through a changeover.'],
      },
    }
  },
})
