import type { Grounding } from '../assess/grounding'
import type { Leg } from '../panel/leg'
import { quantity } from '../units/format'
import { asked, byPlug, cause, expected, ours, type Proof, setUp, test, wayIn } from './scene'
import type { Asked, Cause, Probe, Test, Together } from './tests'

/** A kilowatt on one leg, by a heater of W: what a neutral has to bear without the legs moving. */
export const heaterOn = (leg: Leg, W = heaterW) => `heater ${W} on ${leg}`
/** A heater of about 1 kW at the last outlet of a circuit. */
export const heaterAt = (circuitId: string, W = heaterW) => `heater ${W} far ${circuitId}`
export const heaterW = 1000
/** Half of it where the source is small, W. */
export const heaterOf = ({ output }: Proof): number =>
  (output?.totalW ?? Infinity) < 1.4 * heaterW ? heaterW / 2 : heaterW
/** ANSI C84.1, range A at the service: five hundredths either way of 120 V. */
export const lineV = { from: 114, to: 126, doubtFrom: 110, doubtTo: 132 } as const

export const inVolts = (times: 1 | 2 = 1) =>
  expected('V', lineV.from * times, lineV.to * times, {
    formula: `${120 * times} V ± 5 %`,
    tolerance: `${quantity(lineV.from * times, 'V')} to ${quantity(lineV.to * times, 'V')}: range A of ANSI C84.1; of a source the same, ${ours}`,
    references: ['ANSI C84.1'],
    doubtFrom: lineV.doubtFrom * times,
    doubtTo: lineV.doubtTo * times,
  })

/** Dead to a meter that loads the wire, V. */
export const noVolts = expected('V', 0, 3, {
  formula: 'nothing feeds it',
  tolerance: `at most ${quantity(3, 'V')}, ${ours}; up to ${quantity(30, 'V')} may be coupled in from wires beside it: with low impedance it collapses`,
  doubtTo: 30,
})

/** What three readings must mean where the source meets the house, or stands alone. */
export function groundedAs({ neutral, bonds, unknownUnit }: Grounding): readonly string[] {
  if (neutral === 'hots-only' || bonds.length > 0) return ['bonded']
  return unknownUnit ? ['bonded', 'floating'] : ['floating']
}

/** Where the source’s legs are read before it is let into the panel. */
export function whereLegs(p: Proof): { place: string; at: string } {
  if (p.joined === 'inlet') return { place: 'inlet', at: 'at the inlet, behind its flange' }
  if (p.joined === 'wires') return { place: `line ${p.tied.id}`, at: `at the lugs of ${p.tied.name}` }
  const unit = p.job.source?.units[0]
  return { place: `unit ${unit?.id}`, at: `at the outlet of the ${unit?.equipment.name}` }
}

/** Settings that keep the source out of the panel while its legs are read. */
const before = (p: Proof) => ({
  ...Object.fromEntries(p.house.handles.filter(h => h.kind === 'position').map(h => [h.id, 'off'])),
  ...(p.house.handles.some(h => h.id === 'backfed') && { backfed: 'off' }),
  ...(p.joined === 'wires' && {
    ...Object.fromEntries(p.tied.circuits.map(c => [`breaker ${c.id}`, 'off'])),
    ...(p.house.handles.some(h => h.id === `main ${p.tied.id}`) && { [`main ${p.tied.id}`]: 'off' }),
  }),
})

export const wayCauses = (p: Proof): Cause[] =>
  p.joined === 'no'
    ? []
    : [
        cause(
          'neutral-loose:way',
          'The neutral between source and panel has a poor joint.',
          'Make the neutral of cord, inlet and panel up anew, to torque.',
        ),
        ...p.legs.map(leg =>
          cause(
            `hot-open:${leg}`,
            `${leg} does not arrive: cord, adapter, inlet or its wire is open.`,
            `Follow ${leg} from the source’s outlet, link by link.`,
          ),
        ),
      ]

const leftOff = (p: Proof): Cause =>
  cause(
    'left-off:way',
    p.joined === 'wires'
      ? 'A breaker between battery and panel is off.'
      : 'A breaker between source and panel is off or tripped.',
    'Close it, and write on it that it stays closed.',
  )
export const wayLeftOff = leftOff

/** Legs of the source, before the breaker is closed. */
export function legTests(p: Proof): Test[] {
  const { source } = p.job
  if (!source || !p.carried) return []
  const where = whereLegs(p)
  const probe = (...points: [string, string]): Probe => ({ ...where, points })
  const volts = (a: string, b: string, facts: Partial<Asked> = {}): Asked => ({
    ...asked(`${a}–${b}`, `${a}–${b === 'G' ? 'ground' : b}`, 'V', 'volts', probe(a, b)),
    ...facts,
  })
  const first = p.legs[0] ?? 'L1'
  const both = p.legs.length > 1 && !byPlug(p)
  const alone = byPlug(p) || p.grounding.neutral === 'switched'
  const wanted = alone
    ? p.wantsBond
      ? ['bonded']
      : groundedAs({ ...p.grounding, neutral: 'stand-alone' })
    : groundedAs(p.grounding)
  const at = byPlug(p) ? (p.job.hookup.bondingPlug ? 'unit-with-plug' : 'unit-alone') : 'inlet'
  // floating with two hots the ground stands where it likes between them: three readings tell nothing of it
  const outlets: Together[] = (alone && p.split ? [] : both ? p.legs : [first]).map(leg => ({
    by: 'outlet',
    keys: { hotNeutralV: `${leg}–N`, neutralGroundV: 'N–G', hotGroundV: `${leg}–G` },
    at,
    wanted,
  }))
  const dead: Leg[] = p.legs.length === 1 && p.joined !== 'no' ? [first === 'L1' ? 'L2' : 'L1'] : []
  const between: Asked[] = both
    ? [
        volts('L1', 'L2'),
        {
          ...volts('L1', 'L2'),
          key: 'L1–L2 again',
          name: 'L1–L2, ten seconds later',
        },
        ...(p.split
          ? [
              {
                ...volts('L1', 'L2'),
                key: 'L1–L2 loaded',
                name: 'L1–L2, about 1 kW on L1',
                when: { on: [heaterOn('L1')], says: 'A heater of about 1 kW on L1.' },
              },
            ]
          : []),
      ]
    : []
  return [
    test(
      {
        id: 'legs',
        group: 'legs',
        text: `Legs of the source ${where.at}`,
        lines: [
          ...(p.joined === 'inlet'
            ? ['Every position or backfed breaker still off: nothing of the house is on it.']
            : []),
          'Prove the meter on a live outlet first. Two hands, rated leads, no rings.',
        ],
        setUp: setUp(
          p,
          byPlug(p) ? 'dead' : 'source',
          [
            p.joined === 'inlet'
              ? 'Cord in at both ends, source on, its breaker or positions off.'
              : p.joined === 'wires'
                ? `Utility opened, inverter on, every breaker of ${p.tied.name} off.`
                : 'Source on, nothing plugged in.',
          ],
          { state: { ...before(p), ...(byPlug(p) && unitsOn(p)) } },
        ),
        asks: [
          ...(both ? p.legs : [first]).flatMap(leg => [volts(leg, 'N'), volts(leg, 'G')]),
          volts('N', 'G'),
          ...dead.map(leg => volts(leg, 'N', { expected: noVolts, instrument: 'tester' })),
          ...between,
        ],
        together: [
          ...outlets,
          ...(both
            ? [
                {
                  by: 'legs' as const,
                  keys: {
                    l1V: 'L1–N',
                    l2V: 'L2–N',
                    l1l2V: 'L1–L2',
                    again: ['L1–L2 again', ...(p.split ? ['L1–L2 loaded'] : [])],
                  },
                  wanted: legsWanted(p),
                },
              ]
            : []),
        ],
        causes: [
          ...wayCauses(p).filter(c => p.split || !c.id.startsWith('neutral')),
          // of one hot and a floating source nobody can tell which is hot
          ...(p.joined === 'inlet' && p.split ? [polarityOfWay] : []),
          ...(p.joined === 'wires' ? [leftOff(p)] : []),
        ],
        panelId: p.tied.id,
        cite: ['250.24(A)(5)', '250.30', '110.7'],
      },
      wayIn(p),
    ),
  ]
}

export const unitsOn = ({ house }: Proof) =>
  Object.fromEntries(
    house.handles.filter(h => h.kind === 'unit' || h.kind === 'disconnect').map(h => [h.id, 'on']),
  )

const polarityOfWay = cause(
  'polarity:way',
  'Hot and neutral are reversed between source and inlet: in a cord end that was made up, or at the inlet.',
  'Open the cord end and the inlet: brass screw hot, silver screw neutral, green ground.',
)

/** What the legs must be to each other; of two units that nothing synchronises one snapshot may look like anything. */
const legsWanted = (p: Proof): readonly string[] =>
  p.split
    ? ['split-phase']
    : p.job.source?.arrangement === 'tied'
      ? ['same-phase']
      : ['not-synchronised', 'same-phase', 'split-phase', 'three-phase-legs', 'loose-neutral']
