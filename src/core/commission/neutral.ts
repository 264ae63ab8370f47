import { feederOf } from '../job/panels'
import { voltsOf } from '../source/design'
import { quantity } from '../units/format'
import { groundedAs, heaterOn, heaterW, inVolts, unitsOn, wayCauses, whereLegs } from './legs'
import {
  asked,
  byPlug,
  carriedTogether,
  cause,
  expected,
  ours,
  type Proof,
  setUp,
  test,
  unitName,
  wayIn,
} from './scene'
import type { Asked, Cause, Test } from './tests'

/** The legs may move apart by so much with a kilowatt on one of them, V. */
const mostSpreadV = 4
/** A ground carries nothing steady; what a clamp shows of nothing, A. */
const mostGroundA = 0.1

/** What must not flow, and where neutral and ground meet. */
export function neutralTests(p: Proof): Test[] {
  return [...spread(p), ...groundCurrent(p), ...unitBonds(p)]
}

/** A second bond, wherever it could be. */
const secondBonds = (p: Proof): Cause[] => [
  ...p.job.panels
    .filter(panel => panel.supply !== 'service' && p.served.some(n => n.panel === panel))
    .map(panel =>
      cause(
        `bond-second:${panel.id}`,
        `Neutral and ground are joined in ${panel.name}: a bonding screw or strap, or a ground on the neutral bar.`,
        'Take the screw or strap out, move the ground to its own bar.',
      ),
    ),
  ...(p.joined === 'inlet'
    ? [
        cause(
          'bond-second:inlet',
          'Neutral and ground are joined at the inlet or in a cord end.',
          'Open it, take the jumper out: neutral and ground run apart.',
        ),
      ]
    : []),
  ...(p.job.source?.units ?? [])
    .filter(u => p.joined !== 'no' && u.equipment.neutral === 'floating' && !p.job.hookup.bondingPlug)
    .map(u =>
      cause(
        `bond-second:${u.id}`,
        `Neutral and ground are joined inside the ${u.equipment.name}, though its sheet says that they float.`,
        'Ask its maker for the setting; on this hook-up it must float.',
      ),
    ),
]

function spread(p: Proof): Test[] {
  if (!p.split || p.joined === 'no' || !p.carried) return []
  const where = whereLegs(p)
  const read = (leg: 'L1' | 'L2', loaded: boolean): Asked => ({
    ...asked(
      `${leg}${loaded ? ' loaded' : ''}`,
      `${leg}–N${loaded ? ', about 1 kW on L1' : ', nothing on'}`,
      'V',
      'volts',
      { ...where, points: [leg, 'N'] },
    ),
    ...(loaded && { when: { on: [heaterOn('L1')], says: 'A heater of about 1 kW on L1 alone.' } }),
  })
  return [
    test(
      {
        id: 'neutral:spread',
        group: 'neutral',
        text: 'Neutral of the source, under a kilowatt on one leg',
        lines: ['A heater of about 1 kW on L1 alone, behind the point where it is read.'],
        setUp: setUp(p, 'source', ['On the source, every circuit off.'], { on: [] }),
        asks: [
          read('L1', false),
          read('L2', false),
          read('L1', true),
          read('L2', true),
          {
            ...asked(
              'amps',
              'Amps of the heater',
              'A',
              'clamp',
              { place: heaterOn('L1'), at: 'on the hot of the heater', points: ['H'] },
              expected('A', (0.6 * heaterW) / 120, (1.2 * heaterW) / 120, {
                formula: `${quantity(heaterW, 'W')} at 120 V`,
                tolerance: `from 60 % to 120 %, ${ours}: without its current nothing is proven of the neutral`,
                doubtFrom: 0,
                doubtTo: 30,
              }),
            ),
            when: { on: [heaterOn('L1')], says: 'A heater of about 1 kW on L1 alone.' },
          },
        ],
        together: [
          {
            by: 'spread',
            keys: { before: ['L1', 'L2'], loaded: ['L1 loaded', 'L2 loaded'] },
            mostV: mostSpreadV,
          },
        ],
        causes: wayCauses(p).filter(c => c.id.startsWith('neutral')),
        panelId: p.tied.id,
        restsOn: ['legs'],
        cite: ['250.24(A)(5)', '110.14'],
      },
      wayIn(p),
    ),
  ]
}

/** So much has to flow that a second bond would show, A. */
function leastLoadA(p: Proof): number {
  const on = new Set(carriedTogether(p))
  const VA = p.loads.filter(l => on.has(l.load.id)).reduce((sum, l) => sum + l.VA, 0)
  return VA / 120 / (p.split ? 6 : 3)
}

function groundCurrent(p: Proof): Test[] {
  if (p.joined === 'no' || !p.served.length) return []
  const fed = p.job.panels.filter(
    panel => panel.supply !== 'service' && p.served.some(n => n.panel === panel) && feederOf(p.job, panel),
  )
  const none = expected('A', 0, mostGroundA, {
    formula: 'with one bond the load’s current comes back by the neutral alone',
    tolerance: `at most ${quantity(mostGroundA, 'A')}, ${ours}: what a clamp shows of nothing; a second bond takes a steady share`,
    references: ['NEC 250.6', 'NEC 250.24(A)(5)'],
    doubtTo: 3 * mostGroundA,
  })
  return [
    test(
      {
        id: 'ground:current',
        group: 'neutral',
        text: 'Nothing steady on the grounds, under load',
        lines: [
          'What draws most first, as much as the source carries.',
          'Clamp one conductor at a time; a neutral beside it shows its current, the ground must show none.',
        ],
        setUp: setUp(p, 'source', ['On the source, everything on that it carries together.'], {
          on: carriedTogether(p),
        }),
        asks: [
          asked(
            'load',
            p.split ? 'Amps on the hots meanwhile, the fuller one' : 'Amps on the neutral meanwhile',
            'A',
            'clamp',
            {
              place: 'load way',
              at: 'on the way in, one conductor in the jaw',
              points: [p.split ? 'H' : 'N'],
            },
            expected('A', leastLoadA(p), 400, {
              formula: 'a third of what is on',
              tolerance: `at least ${quantity(leastLoadA(p), 'A')}, ${ours}: without a load nothing is proven of the ground`,
              doubtFrom: 0,
            }),
          ),
          asked(
            'way',
            p.joined === 'inlet' ? 'Ground between inlet and panel' : 'Ground between inverter and panel',
            'A',
            'clamp',
            { place: 'ground way', at: 'on the ground of the way in', points: ['G'] },
            none,
          ),
          ...(p.joined === 'inlet'
            ? [
                asked(
                  'cord',
                  'Ground of the cord, at the source',
                  'A',
                  'clamp',
                  {
                    place: 'ground cord',
                    at: 'on the ground of the cord, by an adapter that parts it',
                    points: ['G'],
                  },
                  none,
                  { optional: true },
                ),
              ]
            : []),
          ...(p.joined === 'wires'
            ? [
                {
                  ...asked(
                    'passing',
                    'Ground ahead of the inverter, passing through',
                    'A',
                    'clamp',
                    {
                      place: 'ground ahead',
                      at: 'on the ground between inverter and the panel ahead',
                      points: ['G'],
                    },
                    none,
                  ),
                  when: {
                    state: p.states.utility,
                    says: 'Back on the utility: the inverter passes it through.',
                  },
                },
              ]
            : []),
          ...fed.map(panel =>
            asked(
              `feeder ${panel.id}`,
              `Ground of the feeder of ${panel.name}`,
              'A',
              'clamp',
              {
                place: `ground feeder ${panel.id}`,
                at: `on the feeder ground of ${panel.name}`,
                points: ['G'],
              },
              none,
            ),
          ),
        ],
        causes: secondBonds(p),
        panelId: p.tied.id,
        restsOn: ['legs'],
        cite: ['250.6', '250.24(A)(5)', '250.30'],
      },
      wayIn(p),
    ),
  ]
}

/** Each unit by itself: ohms alone, switched off, mislead with a relay that bonds while it inverts. */
function unitBonds(p: Proof): Test[] {
  const { source } = p.job
  if (!source || p.joined === 'wires') return []
  return source.units
    .filter(u => u.equipment.kind !== 'inverter')
    .map(unit => {
      const { neutral = 'not stated' } = unit.equipment
      const name = unitName(p, unit.id)
      const place = { place: `unit ${unit.id}`, at: `at an outlet of the ${name}, nothing plugged in` }
      const plugged = p.job.hookup.bondingPlug
      const bonded = plugged || neutral === 'bonded'
      const alone = Object.fromEntries(
        Object.keys(unitsOn(p)).map(handle => [handle, handle === `unit ${unit.id}` ? 'on' : 'off']),
      )
      const on = { state: alone, says: 'Switched on, by itself.' }
      const both = voltsOf(unit.equipment) === '120/240'
      const unsaid = neutral === 'not stated' && !plugged
      return test(
        {
          id: `bond:${unit.id}`,
          group: 'neutral',
          text: `Neutral of the ${name} by itself`,
          lines: [
            'Its cord unplugged. Off, then on; where it passes its input through, then too.',
            'Ohms while it is off are no proof: a relay may join neutral and ground only while it inverts.',
          ],
          setUp: setUp(p, 'dead', ['Cord out, nothing plugged in.']),
          asks: [
            asked(
              'off',
              'N–ground, off',
              'Ω',
              'ohms',
              { ...place, points: ['N', 'G'] },
              plugged
                ? expected('Ω', 0, 2, {
                    formula: 'the bonding plug joins them',
                    tolerance: `at most ${quantity(2, 'ohm')}, ${ours}`,
                  })
                : null,
            ),
            { ...asked('H–N', 'Hot–N, on', 'V', 'volts', { ...place, points: ['H', 'N'] }), when: on },
            { ...asked('N–G', 'N–ground, on', 'V', 'volts', { ...place, points: ['N', 'G'] }), when: on },
            { ...asked('H–G', 'Hot–ground, on', 'V', 'volts', { ...place, points: ['H', 'G'] }), when: on },
            {
              ...asked(
                'low',
                'Hot–ground, on, with low impedance',
                'V',
                'tester',
                { ...place, points: ['H', 'G'] },
                unsaid
                  ? null
                  : bonded
                    ? inVolts()
                    : expected('V', 0, 30, {
                        formula: 'what floats can drive no current: its volts to ground collapse',
                        tolerance: `at most ${quantity(30, 'V')}, ${ours}`,
                      }),
              ),
              when: on,
            },
            {
              ...asked('through', 'N–ground, passing through', 'V', 'volts', {
                ...place,
                points: ['N', 'G'],
              }),
              optional: true as const,
              when: on,
            },
          ],
          together: [
            {
              by: 'outlet',
              keys: { hotNeutralV: 'H–N', neutralGroundV: 'N–G', hotGroundV: 'H–G' },
              at: plugged ? 'unit-with-plug' : 'unit-alone',
              // with two hots the ground may stand at the neutral by symmetry: low impedance tells
              wanted:
                unsaid || (both && !bonded)
                  ? ['bonded', 'floating']
                  : groundedAs({
                      ...p.grounding,
                      neutral: 'stand-alone',
                      bonds: bonded ? [{ at: 'unit', where: name }] : [],
                      unknownUnit: null,
                    }),
            },
          ],
          causes: [
            ...secondBonds(p).filter(c => c.id === `bond-second:${unit.id}`),
            ...(byPlug(p) && bonded
              ? [
                  cause(
                    `bond-lost:${unit.id}`,
                    plugged
                      ? 'The bonding plug does not join neutral and ground.'
                      : `The ${name} does not join neutral and ground, though its sheet says so.`,
                    plugged
                      ? 'Another plug, tried before.'
                      : 'Ask its maker; a burner will refuse its flame meanwhile.',
                  ),
                ]
              : []),
          ],
          cite: ['250.24(A)(5)', '250.30', '250.34'],
        },
        [unit.equipment.id, unit.equipment.version, plugged],
      )
    })
}
