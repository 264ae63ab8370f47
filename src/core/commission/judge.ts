import type { Read } from '../job/test-log'
import { wattsExpected, wattsLeast, wattsShare } from '../loads/as-read'
import { capacityTest } from '../readings/capacity-test'
import { outletReadings } from '../readings/outlet-readings'
import { splitReadings } from '../readings/split-readings'
import { chargerEfficiencyFraction } from '../source/inputs'
import { runtime } from '../source/runtime'
import { figure, quantity, together } from '../units/format'
import { step, type Working } from '../working'
import type { Asked, Expected, Test, TestUnit, Together } from './tests'

/** What readings come to. Of several things the gravest. */
export interface Verdict {
  state: 'open' | 'passed' | 'doubtful' | 'failed'
  /** in a word or two */
  name: string
  text: string
  next: string
  working: Working | null
  /** kinds of cause that read like this, the likeliest first */
  suspects?: readonly string[]
}

const rank = { open: 0, passed: 1, doubtful: 2, failed: 3 } as const
const passed = (text = '', working: Working | null = null): Verdict => ({
  state: 'passed',
  name: 'As it should be',
  text,
  next: '',
  working,
})

/** A reading with its unit, as people write it. */
export function readingText(value: number | string, unit: TestUnit | null): string {
  if (typeof value === 'string') return value
  switch (unit) {
    case 'V':
    case 'A':
    case 'W':
    case 's':
    case 'Wh':
      return quantity(value, unit)
    case 'Ω':
      return quantity(value, 'ohm')
    default:
      return unit ? `${figure(value)} ${unit}` : figure(value)
  }
}

export const rangeText = ({ from, to }: Expected, unit: TestUnit | null): string =>
  Number.isFinite(to)
    ? from > 0 || from < 0
      ? `${readingText(from, unit)} to ${readingText(to, unit)}`
      : `at most ${readingText(to, unit)}`
    : `at least ${readingText(from, unit)}, or OL`

const legsText: Readonly<Record<string, string>> = {
  'split-phase': 'L1–L2 is the sum of the two, about 240 V, and stays so',
  'same-phase': 'both legs alike, and nothing between them: they are tied',
}

/** What is expected of several readings together, in a sentence. */
export function togetherText(t: Together, ran?: readonly string[]): string {
  switch (t.by) {
    case 'outlet':
      return t.wanted.length > 1
        ? 'Bonded or floating: its sheet does not say which. Write down which it is.'
        : t.wanted[0] === 'bonded'
          ? 'Bonded: about 120 V from hot to neutral and from hot to ground, and at most 3 V between neutral and ground.'
          : 'Floating: about 120 V from hot to neutral, the ground somewhere between the two.'
    case 'legs':
      return `The legs: ${legsText[t.wanted[0] ?? ''] ?? 'nothing holds them together: never 240 V, never a shared neutral'}.`
    case 'spread':
      return `The legs move apart by at most ${quantity(t.mostV, 'V')}.`
    case 'drop':
      return `Loaded at least ${quantity(t.leastV, 'V')} and ${quantity(t.leastFraction, 'fraction')} of the unloaded volts; ${
        t.ohms === null
          ? `of unknown length, at most ${quantity(t.mostOhms, 'ohm')} there and back`
          : `unloaded − ${quantity(t.ohms, 'ohm')} × amps, within ${quantity(t.withinV, 'V')}`
      }.`
    case 'watts': {
      const { W, from, to } = wattsExpected(t.loads, ran)
      return `About ${quantity(W, 'W')} (${quantity(from, 'W')} to ${quantity(to, 'W')}) with what is ticked running.`
    }
    case 'capacity':
      return `About ${quantity(t.ratedWh * t.leftFraction * t.efficiencyFraction, 'Wh')} less its own draw of ${quantity(t.idleW, 'W')}, from full to empty: worked out for the load that is read; passed from nine tenths of it.`
  }
}

/** What is kept of a reading: its figures, how the house was connected, how it was judged then and, where it did not pass, in which words. */
export function judgedEntry(
  test: Pick<Test, 'asks' | 'together' | 'basis' | 'text'>,
  readings: Read[],
  ran?: string[],
) {
  const { state, text, next } = judgeTest(test, readings, ran)
  return {
    kind: 'read' as const,
    readings,
    basis: test.basis,
    judged: state === 'open' ? ('doubtful' as const) : state,
    ...(state !== 'passed' && { verdict: `${test.text}: ${text || next}`.slice(0, 300) }),
    ...(ran && { ran }),
  }
}

/** What a test says to readings: each by itself, and what they mean together. `ran`: ids of the loads that ran, where not all did. */
export function judgeTest(
  test: Pick<Test, 'asks' | 'together'>,
  readings: readonly Read[],
  ran?: readonly string[],
): Verdict {
  const value = (key: string) => readings.find(r => r.key === key)?.value
  const missing = test.asks.filter(a => !a.optional && value(a.key) === undefined)
  if (missing.length)
    return {
      state: 'open',
      name: 'Open',
      text: '',
      next: `Still to be read: ${together(missing.map(m => m.name))}.`,
      working: null,
    }
  const said = [
    ...test.asks.flatMap(a => {
      const v = value(a.key)
      return v === undefined ? [] : (one(a, v) ?? [])
    }),
    ...test.together.map(t => several(t, test.asks, value, ran)),
  ]
  const worst = said.reduce((a, b) => (rank[b.state] > rank[a.state] ? b : a), passed())
  const told = worst.state === 'passed' ? [...new Set(said.flatMap(s => s.text || []))] : []
  const looks = worst.state === 'failed' || worst.state === 'doubtful' ? likelier(test, readings, ran) : ''
  return {
    ...worst,
    ...(told.length && { text: told.join(' ') }),
    ...(looks && { text: `${worst.text} ${looks}` }),
    working: worst.working ?? said.find(s => s.working)?.working ?? null,
  }
}

/** The causes of a test, those that read like this first. */
export function causesBy(
  { causes }: Pick<Test, 'causes'>,
  { suspects = [] }: Pick<Verdict, 'suspects'>,
): Test['causes'] {
  const turn = (id: string) => {
    const at = suspects.findIndex(kind => id.startsWith(kind))
    return at < 0 ? suspects.length : at
  }
  return [...causes].sort((a, b) => turn(a.id) - turn(b.id))
}

/** One reading by what is expected of it; null where nothing is, or all is well. */
function one(asked: Asked, value: number | string): Verdict | null {
  const { expected, unit, name, choices } = asked
  if (choices) {
    if (value === choices[0]) return null
    return {
      state: 'failed',
      name: 'Not as it should be',
      text: `${name}: ${value}.`,
      next: `It should be: ${choices[0]}.`,
      working: null,
    }
  }
  if (!expected) return null
  const figure = value === 'OL' ? Number.POSITIVE_INFINITY : Number(value)
  if (unit !== 'Ω' && unit !== 'MΩ' && value === 'OL')
    return {
      state: 'failed',
      name: 'No reading',
      text: `${name}: OL is no reading of ${unit}.`,
      next: 'Set the instrument to the right function and range, prove it, and read again.',
      working: null,
    }
  if (figure >= expected.from && figure <= expected.to) return null
  const doubtful =
    figure >= (expected.doubtFrom ?? expected.from) && figure <= (expected.doubtTo ?? expected.to)
  return {
    state: doubtful ? 'doubtful' : 'failed',
    name: doubtful ? 'Doubtful' : 'Not as it should be',
    text: `${name}: ${readingText(value, unit)}; expected ${rangeText(expected, unit)}.`,
    next: doubtful
      ? 'Read again; what stays is told and looked into.'
      : 'Look for what is named below, beginning with the first.',
    working: expected.working,
  }
}

type Values = (key: string) => number | string | undefined
const num = (value: number | string | undefined) =>
  typeof value === 'number' ? value : value === 'OL' ? Number.NaN : Number.NaN

/** What several readings mean together. */
function several(t: Together, asks: readonly Asked[], value: Values, ran?: readonly string[]): Verdict {
  const at = (key: string) => num(value(key))
  switch (t.by) {
    case 'outlet': {
      const { hotNeutralV, neutralGroundV, hotGroundV } = t.keys
      const v = {
        hotNeutralV: at(hotNeutralV),
        neutralGroundV: at(neutralGroundV),
        hotGroundV: at(hotGroundV),
      }
      if (Object.values(v).some(Number.isNaN)) return unread([hotNeutralV, neutralGroundV, hotGroundV], asks)
      const worked = outletReadings.compute({ ...v, at: t.at })
      const verdict = worked.result.verdict
      if (t.wanted.includes(verdict)) return passed(worked.result.meaning, worked.working)
      const bondMissing = verdict === 'floating' && t.wanted.includes('bonded')
      const bondThere = verdict === 'bonded' && t.wanted.includes('floating')
      return {
        state: 'failed',
        name: nameOf(verdict),
        text: bondThere
          ? 'Neutral and ground are joined, where the plan has them apart.'
          : bondMissing
            ? 'Neutral and ground are apart, where the plan has them joined.'
            : worked.result.meaning,
        next: worked.result.next,
        working: worked.working,
        ...(pointsTo[verdict] && { suspects: pointsTo[verdict] }),
      }
    }
    case 'legs': {
      const v = { l1V: at(t.keys.l1V), l2V: at(t.keys.l2V), l1l2V: at(t.keys.l1l2V) }
      if (Object.values(v).some(Number.isNaN)) return unread([t.keys.l1V, t.keys.l2V, t.keys.l1l2V], asks)
      const l1l2AgainV = t.keys.again.flatMap(k => (Number.isNaN(at(k)) ? [] : [at(k)]))
      const worked = splitReadings.compute({ ...v, l1l2AgainV })
      const { verdict } = worked.result
      if (t.wanted.includes(verdict)) return passed(worked.result.meaning, worked.working)
      return {
        state: 'failed',
        name: nameOf(verdict),
        text: `${worked.result.meaning}${t.wanted[0] === 'same-phase' && verdict === 'split-phase' ? ' The plan ties the legs: this is another source, or another adapter.' : ''}`,
        next: worked.result.next,
        working: worked.working,
        suspects: verdict === 'leg-dead' ? ['hot-open', 'left-off'] : ['neutral-loose', 'polarity'],
      }
    }
    case 'spread': {
      const [a, b, c, d] = [...t.keys.before, ...t.keys.loaded].map(at)
      if ([a, b, c, d].some(v => v === undefined || Number.isNaN(v)))
        return unread([...t.keys.before, ...t.keys.loaded], asks)
      const was = Math.abs((a ?? 0) - (b ?? 0))
      const now = Math.abs((c ?? 0) - (d ?? 0))
      const moved = Math.abs(now - was)
      const working: Working = {
        title: 'Neutral under load',
        formula: ['moved apart = |L1 − L2| loaded − |L1 − L2| unloaded'],
        inputs: [],
        steps: [
          step('Apart, unloaded', was, 'V'),
          step('Apart, loaded', now, 'V'),
          step('Moved', moved, 'V', `${figure(now)} − ${figure(was)}`),
        ],
        references: [`tolerance ${t.mostV} V: ours, as in practice`],
        notCovered: [
          'A source that sags on one leg moves it too: the other leg then falls or stays, it does not rise.',
        ],
      }
      if (moved <= t.mostV) return passed('', working)
      return {
        state: 'failed',
        name: 'A loose neutral',
        text: `The legs move apart by ${quantity(moved, 'V')} under a kilowatt; ${quantity(t.mostV, 'V')} is the most.`,
        next: 'Switch off at once: one leg rises as the other falls. Every joint of the neutral from source to panel, to torque.',
        working,
      }
    }
    case 'drop':
      return drop(t, asks, at)
    case 'watts':
      return watts(t, at(t.key), ran)
    case 'capacity':
      return capacity(t, at)
  }
}

const nameOf = (verdict: string) => verdict.charAt(0).toUpperCase() + verdict.slice(1).replaceAll('-', ' ')

const unread = (keys: readonly string[], asks: readonly Asked[]): Verdict => ({
  state: 'failed',
  name: 'No reading',
  text: `${together([...new Set(keys)].map(k => asks.find(a => a.key === k)?.name ?? k))}: OL is no reading of volts.`,
  next: 'Set the instrument to AC volts, prove it on a live outlet, and read again.',
  working: null,
})

type Of<B extends Together['by']> = Extract<Together, { by: B }>

/** Below these a drop says nothing of ohms. */
const leastTestA = 0.5
const leastTestV = 1

function drop(t: Of<'drop'>, asks: readonly Asked[], at: (key: string) => number): Verdict {
  const [unloaded, loaded, amps] = [at(t.keys.unloaded), at(t.keys.loaded), at(t.keys.amps)]
  if ([unloaded, loaded].some(Number.isNaN)) return unread([t.keys.unloaded, t.keys.loaded], asks)
  const A = Number.isNaN(amps) ? 0 : amps
  const predicted = t.ohms === null ? null : unloaded - t.ohms * A
  const least = Math.max(t.leastV, t.leastFraction * unloaded)
  const working: Working = {
    title: 'Volts at the far outlet, loaded',
    formula: [
      ...(predicted === null
        ? ['the length of its wire is not known: only the floors are judged']
        : ['expected = unloaded − ohms of the whole way × amps']),
      `never below ${quantity(t.leastV, 'V')}, nor ${quantity(t.leastFraction, 'fraction')} of the unloaded volts`,
    ],
    inputs: [
      { label: 'Unloaded', value: unloaded, unit: 'V' },
      { label: 'Amps', value: A, unit: 'A' },
      ...(t.ohms === null
        ? []
        : [{ label: 'Ohms of the whole way, there and back', value: t.ohms, unit: 'ohm' as const }]),
    ],
    steps: [
      ...(predicted === null
        ? []
        : [step('Expected', predicted, 'V', `${figure(unloaded)} − ${figure(t.ohms ?? 0)} × ${figure(A)}`)]),
      step('Least', least, 'V'),
      ...(A > 0
        ? [
            step(
              'Measured ohms',
              (unloaded - loaded) / A,
              'ohm',
              `(${figure(unloaded)} − ${figure(loaded)}) ÷ ${figure(A)}`,
            ),
          ]
        : []),
    ],
    references: ['NEC 210.19(A), informational note', 'tolerance of the expected volts: ours'],
    notCovered: ['The source’s own droop is counted with the way.'],
  }
  if (A < t.leastA)
    return {
      state: 'doubtful',
      name: 'No load flowed',
      text: `${quantity(A, 'A')} flowed; what is to be on draws at least ${quantity(t.leastA, 'A')}: nothing is proven of the wires.`,
      next: 'Switch the load on, clamp its hot alone, and read volts and amps again.',
      working,
    }
  if (loaded > unloaded + t.withinV)
    return {
      state: 'failed',
      name: 'It rises',
      text: `${quantity(loaded, 'V')} loaded, ${quantity(unloaded, 'V')} unloaded: volts that rise under load come from a lost neutral.`,
      next: 'Switch off at once, and look at the neutral first.',
      working,
      suspects: ['neutral-loose', 'hot-loose'],
    }
  if (loaded < least)
    return {
      state: 'failed',
      name: 'Too much is lost on the way',
      text: `${quantity(loaded, 'V')} loaded${A ? ` at ${quantity(A, 'A')}` : ''}; at least ${quantity(least, 'V')}.`,
      next: 'Feel no joint by hand: read along the way under load; what drops most has the poor joint, or the wire is too thin for its length.',
      working,
      suspects: ['neutral-loose', 'hot-loose'],
    }
  const ohms = A > 0 ? (unloaded - loaded) / A : 0
  // a meter’s tenth of a volt is no ohm
  if (predicted === null && A >= leastTestA && unloaded - loaded >= leastTestV && ohms > t.mostOhms)
    return {
      state: 'doubtful',
      name: 'More ohms than a sound way has',
      text: `${quantity(unloaded - loaded, 'V')} are lost at ${quantity(A, 'A')}: ${quantity(ohms, 'ohm')}, where even a long way has at most ${quantity(t.mostOhms, 'ohm')}.`,
      next: 'A joint that is poor, most likely of a neutral: box by box from the panel. Enter the length of the wire where it is longer.',
      working,
      suspects: ['neutral-loose', 'hot-loose'],
    }
  if (predicted !== null && loaded < predicted - t.withinV)
    return {
      state: 'doubtful',
      name: 'Less than its wires explain',
      text: `${quantity(loaded, 'V')} loaded; its wires alone would leave ${quantity(predicted, 'V')}.`,
      next: 'A longer way than planned, or a joint that is poor: look for the joint first. Where it is the length, take the measured ohms over.',
      working,
      suspects: ['neutral-loose', 'hot-loose'],
    }
  return passed('', working)
}

function watts(t: Of<'watts'>, W: number, ran?: readonly string[]): Verdict {
  const all = wattsExpected(t.loads, ran)
  const of = t.loads.filter(l => !ran || ran.includes(l.id))
  const working: Working = {
    title: 'Watts as the circuit comes on',
    formula: [
      'expected = the running watts of what ran + the idle watts of the rest',
      `tolerance ± ${quantity(wattsShare, 'fraction')}, at least ${quantity(wattsLeast, 'W')}: ours; volts alone move a heater by a tenth`,
    ],
    inputs: t.loads.map(l => ({
      label: of.includes(l) ? l.name : `${l.name}, idle`,
      value: of.includes(l) ? l.W : l.idleW,
      unit: 'W' as const,
    })),
    steps: [step('Expected', all.W, 'W')],
    references: [],
    notCovered: ['A display rounds small loads to nothing.'],
  }
  if (!of.length)
    return {
      state: 'doubtful',
      name: 'Nothing ran',
      text: 'Nothing on it ran: that the source carries it is not proven.',
      next: 'Switch on what hangs on it, and read again.',
      working,
    }
  if (W >= all.from && W <= all.to) return passed('', working)
  const more = W > all.to
  return {
    state: 'doubtful',
    name: more ? 'It draws more than planned' : 'It draws less than planned',
    text: `It draws ${quantity(W, 'W')}; the plan has ${quantity(all.W, 'W')}${of.length ? ` for ${together(of.map(l => l.name))}` : ''}.`,
    next: more
      ? 'Something else hangs on it, or the figure is wrong: find out, and take the measured watts over.'
      : 'Tick what really ran: a refrigerator pauses. Where all of it ran, take the measured watts over.',
    working,
  }
}

const capacityPassed = 0.9
const capacityDoubt = 0.8
const roundTripLeast = 0.6

function capacity(t: Of<'capacity'>, at: (key: string) => number): Verdict {
  const [loadW, out, from, to, back] = ['loadW', 'Wh out', 'from', 'to', 'Wh back'].map(at)
  if (
    [loadW, out, from, to].some(v => v === undefined || Number.isNaN(v)) ||
    !loadW ||
    (from ?? 0) <= (to ?? 0)
  )
    return {
      state: 'failed',
      name: 'No reading',
      text: 'Load, watt-hours and charge at both ends are needed, and the charge must have fallen.',
      next: 'Begin full, end where it switches off.',
      working: null,
    }
  const expected = runtime.compute({
    capacityWh: t.ratedWh,
    startFraction: (from ?? 100) / 100,
    reserveFraction: (to ?? 0) / 100,
    deratingFraction: t.leftFraction,
    idleW: t.idleW,
    efficiencyFraction: t.efficiencyFraction,
    loadW,
  })
  const share = (out ?? 0) / expected.result.deliveredWh
  const label = capacityTest.compute({
    ratedWh: t.ratedWh * (((from ?? 100) - (to ?? 0)) / 100),
    deliveredWh: out ?? 0,
  })
  const working: Working = {
    ...expected.working,
    title: 'Capacity test',
    formula: [
      ...expected.working.formula,
      `passed from ${quantity(capacityPassed, 'fraction')} of the expected watt-hours, failed below ${quantity(capacityDoubt, 'fraction')}: ours`,
    ],
    steps: [
      ...expected.working.steps,
      step(
        'Delivered of the expected',
        share,
        'fraction',
        `${figure(out ?? 0)} ÷ ${figure(expected.result.deliveredWh)}`,
      ),
      step('Delivered of the label', label.result.deliveredFraction, 'fraction'),
      ...(back
        ? [
            step('Round trip', (out ?? 0) / back, 'fraction'),
            step(
              'Round trip as designed',
              expected.result.effectiveFraction * chargerEfficiencyFraction,
              'fraction',
              `${figure(expected.result.effectiveFraction)} × ${figure(chargerEfficiencyFraction)} of the charger`,
            ),
          ]
        : []),
    ],
  }
  const says = `Delivered ${quantity(out ?? 0, 'Wh')} of ${quantity(expected.result.deliveredWh, 'Wh')} expected at ${quantity(loadW, 'W')} (${quantity(share, 'fraction')}); ${quantity(label.result.deliveredFraction, 'fraction')} of the label.`
  if (back && !Number.isNaN(back) && (out ?? 0) > back)
    return {
      state: 'failed',
      name: 'More out than in',
      text: `${quantity(out ?? 0, 'Wh')} out, ${quantity(back, 'Wh')} in: no battery does that.`,
      next: 'Reset both meters, recharge to full, and test again.',
      working,
    }
  if (share < capacityPassed)
    return {
      state: share < capacityDoubt ? 'failed' : 'doubtful',
      name: share < capacityDoubt ? 'It holds too little' : 'It holds less than designed',
      text: says,
      next: 'Charge fully, let it rest for a night, test again. What stays is taken over; below its warranty’s share, its maker is asked.',
      working,
    }
  if (back && !Number.isNaN(back) && (out ?? 0) / back < roundTripLeast)
    return {
      state: 'doubtful',
      name: 'Much is lost on the round trip',
      text: `${says} Round trip ${quantity((out ?? 0) / back, 'fraction')}.`,
      next: 'Was it full at both ends, and cold meanwhile? Else the charger is asked.',
      working,
    }
  const trip =
    back && !Number.isNaN(back)
      ? ` Round trip ${quantity((out ?? 0) / back, 'fraction')}; the design reckons with ${quantity(expected.result.effectiveFraction * chargerEfficiencyFraction, 'fraction')}.`
      : ''
  return passed(`${says}${trip}`, working)
}

/** What three readings point to: kinds of cause, the likeliest first. */
const pointsTo: Partial<Record<string, readonly string[]>> = {
  'open-neutral': ['neutral-loose', 'left-off'],
  'no-voltage': ['left-off', 'hot-open', 'leads-crossed'],
  'low-voltage': ['neutral-loose', 'hot-loose'],
  'high-voltage': ['neutral-loose'],
  'reversed-polarity': ['polarity'],
  'open-ground': ['ground-open'],
  floating: ['ground-open', 'bond-lost'],
  bonded: ['bond-second'],
  'neutral-rise': ['neutral-loose', 'bond-second'],
}

/** Where readings fit other points better than those they stand at: said, never taken for them. */
function likelier(
  test: Pick<Test, 'asks' | 'together'>,
  readings: readonly Read[],
  ran?: readonly string[],
): string {
  const volts = test.asks.filter(
    a => a.unit === 'V' && !a.when && typeof readings.find(r => r.key === a.key)?.value === 'number',
  )
  if (volts.length < 2 || volts.length > 8) return ''
  for (const a of volts)
    for (const b of volts) {
      if (volts.indexOf(b) <= volts.indexOf(a)) continue
      // a real reversal of hot and neutral looks like this too: it is never explained away
      if (reverses(a, b)) continue
      const swapped = readings.map(r => {
        const other = r.key === a.key ? b : r.key === b.key ? a : null
        return other ? { key: r.key, value: readings.find(o => o.key === other.key)?.value ?? r.value } : r
      })
      if (quick(test, swapped, ran) === 'passed')
        return `It looks as if ${a.name} and ${b.name} were read the other way round: read both again.`
    }
  return ''
}

const reverses = (a: Asked, b: Asked) => {
  const grounded = (x: Asked) => x.probe.points.includes('G')
  return grounded(a) && grounded(b)
}

function quick(test: Pick<Test, 'asks' | 'together'>, readings: readonly Read[], ran?: readonly string[]) {
  const value = (key: string) => readings.find(r => r.key === key)?.value
  const said = [
    ...test.asks.flatMap(a => {
      const v = value(a.key)
      return v === undefined ? [] : (one(a, v) ?? [])
    }),
    ...test.together.map(t => several(t, test.asks, value, ran)),
  ]
  return said.every(s => s.state === 'passed') ? 'passed' : 'failed'
}
