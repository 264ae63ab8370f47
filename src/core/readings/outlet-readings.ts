import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { notNegative } from '../quantity'
import { figure } from '../units/format'
import { step } from '../working'
import { type ReadingVerdict, verdictOutput } from './verdict'

/** What the three readings of an outlet can mean: a name, a sentence, what to do. */
const verdicts = {
  'open-neutral': {
    name: 'Open neutral',
    meaning:
      'The hot is live to ground, but the neutral leads nowhere: nothing will run, and the neutral slot can be live through any load that is switched on.',
    next: 'Isolate the circuit, prove dead, and find the open neutral: a loose splice, a missing bond between source and panel, or a neutral landed on the wrong bar.',
  },
  leakage: {
    name: 'Leakage through filter capacitors',
    meaning:
      'Hot and neutral show a few volts against each other and the same higher volts against ground: both hang on the filter capacitors of electronics. Exposed prongs or metal can tingle.',
    next: 'Touch no prong. Unplug what is electronic and measure again with a low-impedance meter: the volts collapse. On a plug of the source’s own cord, open its switch or unplug it before anybody handles it.',
  },
  'no-voltage': {
    name: 'No voltage',
    meaning:
      'Neither the hot nor the ground shows voltage: the circuit is off, tripped, on the dead leg, or its hot is open.',
    next: 'Do not take it as dead until it is proven with a tester checked on a live circuit. Then look at breaker, ground-fault device, switch position, and which leg the source feeds.',
  },
  'high-voltage': {
    name: 'Too high',
    meaning:
      'More than 132 V between hot and neutral: 240 V on a 120 V outlet, or a lost neutral that lets the legs drift.',
    next: 'Switch off at once, unplug everything, and check the neutral of source and panel before anything is plugged in again.',
  },
  'low-voltage': {
    name: 'Too low',
    meaning:
      'Less than 104 V between hot and neutral: a long or thin run under load, a poor joint, a sagging source, or half of the panel on a lost leg.',
    next: 'Measure again with the load off. If it recovers, the run or a joint drops it; if not, measure at the inlet and at the source.',
  },
  'reversed-polarity': {
    name: 'Hot and neutral reversed',
    meaning:
      'The ground stands at the hot slot’s potential: hot and neutral are swapped somewhere between source and outlet.',
    next: 'Isolate, prove dead, and follow the conductors: cord, inlet, adapter, outlet. Switches and shells of lamps stay live until it is put right.',
  },
  bonded: {
    name: 'As it should be, bonded',
    meaning:
      'Hot to neutral and hot to ground agree and neutral to ground is near nothing: the neutral is bonded to ground upstream. Whether once or twice, three voltages cannot tell.',
    next: 'Write the readings down. Then put about 1 kW on and clamp the equipment ground: with one bond it carries nothing steady; a steady share of the load’s current means a second bond. On a house panel’s bond the source must float.',
  },
  'neutral-rise': {
    name: 'Neutral rise',
    meaning:
      'A bond exists and the neutral carries current over distance, or one of its joints is poor: the ground reads further from the hot than the neutral does.',
    next: 'Switch the load off and measure again. If the rise goes with the load, judge it as voltage drop; if it stays above a few volts, look for a poor neutral joint.',
  },
  'open-ground': {
    name: 'Open ground',
    meaning: 'The ground pin reads close to nothing against both: it is connected to nothing here.',
    next: 'Find where the equipment ground is interrupted. It is never interrupted in any hook-up; do not use the outlet for grounded appliances meanwhile.',
  },
  floating: {
    name: 'Floating source',
    meaning:
      'The ground lies between hot and neutral: the source has no bond, and small filter capacitors in the appliances pull the ground to an odd voltage. It is a phantom that can drive almost no current.',
    next: 'Confirm with a low-impedance meter: the volts to ground collapse. A source alone may float; connected to a house panel, the reading snaps to what the wall shows.',
  },
  inconsistent: {
    name: 'Inconsistent',
    meaning: 'No sound arrangement reads like this.',
    next: 'Treat the ground as live: stop, isolate, prove dead, and find out why before going on. Check the meter and its leads on a known outlet first.',
  },
} as const satisfies Record<string, ReadingVerdict>

type Named = keyof typeof verdicts

const places = {
  'unit-alone': 'at the unit, alone',
  'unit-with-plug': 'at the unit, with its bonding plug',
  inlet: 'at the inlet',
  'house-outlet': 'at an outlet of the house, on the source',
  unknown: 'not said',
} as const

/** On a house whose bond is in force, odd volts to ground are a lost ground until proved otherwise. */
const lostGround =
  'The ground lies between hot and neutral at an outlet of the house: where the house’s own bond is in force, that is an equipment ground that has been lost on the way, until it is proved otherwise.'

const input = z.strictObject({
  hotNeutralV: labelled(notNegative, 'Hot to neutral', 'V'),
  neutralGroundV: labelled(notNegative, 'Neutral to ground', 'V'),
  hotGroundV: labelled(notNegative, 'Hot to ground', 'V'),
  at: labelled(
    z.enum(['unit-alone', 'unit-with-plug', 'inlet', 'house-outlet', 'unknown']).default('unknown'),
    'Read where',
    'text',
    { names: places },
  ),
})

const output = verdictOutput<Named>(verdicts)

type Input = z.infer<typeof input>

/** The tests in their order; the first that fits decides. */
const tests: readonly {
  verdict: Named
  test: string
  fits: (n: number, g: number, h: number, at: Input['at']) => boolean
}[] = [
  {
    verdict: 'open-neutral',
    test: 'hot to neutral < 30 V and hot to ground ≥ 90 V',
    fits: (n, _, h) => n < 30 && h >= 90,
  },
  {
    verdict: 'leakage',
    test: 'hot to neutral < 30 V, neutral to ground from 20 to 90 V, the readings to ground alike',
    fits: (n, g, h) => n < 30 && g >= 20 && g < 90 && Math.abs(h - g) <= n + 5,
  },
  { verdict: 'no-voltage', test: 'hot to neutral < 30 V', fits: n => n < 30 },
  { verdict: 'high-voltage', test: 'hot to neutral > 132 V', fits: n => n > 132 },
  { verdict: 'low-voltage', test: 'hot to neutral < 104 V', fits: n => n < 104 },
  {
    verdict: 'reversed-polarity',
    test: 'hot to ground < 30 V and neutral to ground ≥ 90 V',
    fits: (_, g, h) => h < 30 && g >= 90,
  },
  {
    verdict: 'bonded',
    test: 'neutral to ground ≤ 3 V, the others within 5 V',
    fits: (n, g, h) => g <= 3 && Math.abs(h - n) <= 5,
  },
  {
    verdict: 'neutral-rise',
    test: 'neutral to ground ≤ 12 V, hot to ground within 3 V of the sum',
    fits: (n, g, h) => g <= 12 && Math.abs(h - (n + g)) <= 3,
  },
  { verdict: 'open-ground', test: 'both readings to ground < 30 V', fits: (_, g, h) => g < 30 && h < 30 },
  {
    verdict: 'open-ground',
    test: 'at an outlet of the house, the readings to ground add to at most 1.08 × hot to neutral',
    fits: (n, g, h, at) => at === 'house-outlet' && g + h <= 1.08 * n,
  },
  {
    verdict: 'floating',
    test: 'the readings to ground add to at most 1.08 × hot to neutral',
    fits: (n, g, h) => g + h <= 1.08 * n,
  },
]

const fitting = (i: Input) => tests.find(t => t.fits(i.hotNeutralV, i.neutralGroundV, i.hotGroundV, i.at))

function solve(i: Input) {
  const verdict = fitting(i)?.verdict ?? 'inconsistent'
  const { meaning, next }: ReadingVerdict = verdicts[verdict]
  const { neutralGroundV: g, hotGroundV: h } = i
  // both near nothing is a pin that touches nothing; anything else at a house outlet a ground lost on the way
  const lost = verdict === 'open-ground' && !(g < 30 && h < 30)
  return { verdict, meaning: lost ? lostGround : meaning, next }
}

/**
 * Where the ground stands on a line from neutral (0 V) to hot (hot-to-neutral V), as nearly as the readings allow:
 * between the two for a floating source, beyond neutral for a neutral rise. Volts from neutral.
 */
export function groundOnLine(i: Omit<Input, 'at'>): number {
  const { hotNeutralV: n, neutralGroundV: g, hotGroundV: h } = i
  if (fitting({ ...i, at: 'unknown' })?.verdict === 'floating' && g + h > 0) return (n * g) / (g + h)
  return Math.abs(n + g - h) < Math.abs(Math.abs(n - g) - h) ? -g : g
}

/**
 * What three meter readings at an outlet mean, and what to do next. Volts, each ≥ 0; the first test that fits decides.
 * Source: one neutral-to-ground bond, NEC 250.30 and 250.24; `outlet-readings` of the calculators' contract.
 */
export const outletReadings = calculator({
  name: 'outlet-readings',
  topic: 'readings',
  question: 'What do these readings mean?',
  asked: [
    'readings at the outlet',
    'odd volts',
    'phantom volts',
    'meter',
    'floating neutral',
    'open ground',
    'reversed polarity',
    'bonded',
    'voltage to ground',
  ],
  input,
  output,
  example: { hotNeutralV: 120, neutralGroundV: 54, hotGroundV: 63 },
  solve,
  explain: (i, r) => {
    const f = figure
    const { hotNeutralV: n, neutralGroundV: g, hotGroundV: h } = i
    const fits = fitting(i)
    const found = fits ? tests.indexOf(fits) : -1
    const passed = found === -1 ? tests.length : found
    return {
      answer: `${verdicts[r.verdict].name}. ${r.meaning}`,
      next: r.next,
      working: {
        title: 'Outlet readings',
        formula: ['the tests are tried in order; the first that fits decides'],
        steps: [
          step('Readings to ground, added', g + h, 'V', `${f(g)} + ${f(h)}`),
          step('1.08 × hot to neutral', 1.08 * n, 'V', `1.08 × ${f(n)}`),
          ...tests
            .slice(0, passed + 1)
            .map((t, at) =>
              step(`${at + 1}. ${verdicts[t.verdict].name}: ${t.test}`, at === found ? 'fits' : 'no', 'text'),
            ),
          ...(found === -1 ? [step('No test fits', verdicts.inconsistent.name, 'text')] : []),
        ],
        references: ['NEC 250.24, 250.30 (one bond in a system)', 'NEC 250.34 (portable sources)'],
        notes: ['Prove the meter on a live outlet before and after. Two hands, rated leads, no rings.'],
        notCovered: [
          'A reading is not proof of a sound conductor: a single strand reads like a good wire until it is loaded.',
        ],
      },
    }
  },
})
