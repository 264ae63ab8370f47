import { type CircuitNeed, named } from '../assess/needs'
import { protections } from '../panel/protection'
import { quantity } from '../units/format'
import { groundedAs, heaterAt, heaterOf } from './legs'
import { aloneOn, runningLoads } from './matrix'
import { loopOhms, mostLoopOhms } from './ohms'
import { asked, byPlug, cause, farOf, type Proof, seen, setUp, test, wayIn, wiringOf } from './scene'
import type { Asked, Test } from './tests'

/** A loaded reading may differ from what its ohms give by so much, V: two readings of a meter, and the source’s own droop. */
const withinV = 2
/** NEC 210.19(A), informational note: 5 % for feeder and branch together; and never below the range of utilisation, V. */
const leastFraction = 0.95
const leastV = 110

/** At the last outlet of each circuit: what its wires are, unloaded and loaded, and that its protection opens on the source too. */
export const farTests = (p: Proof): Test[] => p.served.flatMap(need => [outlet(p, need), ...guard(p, need)])

function outlet(p: Proof, need: CircuitNeed): Test {
  const { id, poles, loads } = need.circuit
  const name = named(need)
  const two = poles === 2
  const wired = loads.some(l => l.connection === 'hard-wired') && !loads.some(l => l.connection === 'plug')
  const own = wired || two
  const heaterW = heaterOf(p)
  const load = own ? runningLoads(p, need).map(l => l.id) : [heaterAt(id, heaterW)]
  const loaded = {
    on: load,
    says: own
      ? 'Everything on it running.'
      : `A heater of about ${quantity(heaterW, 'W')} at that outlet; where there is none, everything on it.`,
  }
  const probe = (a: string, b: string) => farOf(need, [a, b])
  const unloaded: Asked[] = two
    ? [asked('H–H', 'Between the hots', 'V', 'volts', probe('H', 'H2'))]
    : [
        asked('H–N', 'Hot–N', 'V', 'volts', probe('H', 'N')),
        asked('N–G', 'N–ground', 'V', 'volts', probe('N', 'G')),
        asked('H–G', 'Hot–ground', 'V', 'volts', probe('H', 'G')),
      ]
  const first = two ? 'H–H' : 'H–N'
  const alone = byPlug(p) || p.grounding.neutral === 'switched'
  return test(
    {
      id: `far:${id}`,
      group: 'far',
      text: `Last outlet of ${name}`,
      lines: [
        wired
          ? 'At the appliance: it is wired in.'
          : 'At the outlet that is furthest by wire; the one that the plan’s length is of.',
      ],
      setUp: setUp(p, 'source', ['On the source, only this circuit on.'], {
        on: [],
        state: aloneOn(p, need),
      }),
      asks: [
        ...unloaded,
        {
          ...asked(
            'loaded',
            `${two ? 'Between the hots' : 'Hot–N'}, loaded`,
            'V',
            'volts',
            probe('H', two ? 'H2' : 'N'),
          ),
          when: loaded,
        },
        {
          ...asked('amps', 'Amps meanwhile', 'A', 'clamp', {
            place: `hot ${id}`,
            at: `on the hot of ${name}, in its panel`,
            points: ['H'],
          }),
          when: loaded,
        },
      ],
      together: [
        ...(two || (alone && p.split)
          ? []
          : [
              {
                by: 'outlet' as const,
                keys: { hotNeutralV: 'H–N', neutralGroundV: 'N–G', hotGroundV: 'H–G' },
                at: alone ? ('unit-alone' as const) : ('house-outlet' as const),
                wanted: p.wantsBond
                  ? ['bonded']
                  : groundedAs(alone ? { ...p.grounding, neutral: 'stand-alone' } : p.grounding),
              },
            ]),
        {
          by: 'drop',
          keys: { unloaded: first, loaded: 'loaded', amps: 'amps' },
          ohms: loopOhms(need, p.job),
          mostOhms: mostLoopOhms(need, p.job),
          leastA: own
            ? (0.5 * runningLoads(p, need).reduce((sum, l) => sum + l.W, 0)) / (two ? 240 : 120)
            : (0.6 * heaterW) / 120,
          withinV: withinV * (two ? 2 : 1),
          leastV: leastV * (two ? 2 : 1),
          leastFraction,
        },
      ],
      causes: [
        two
          ? cause(
              `hot-loose:${id}`,
              `A hot of ${name} has a poor joint.`,
              'Off and proven dead; from the breaker on, make every joint up anew, to torque.',
            )
          : cause(
              `neutral-loose:${id}`,
              `The neutral of ${name} has a poor joint.`,
              'Box by box from the panel: make every neutral splice up anew, pull at it.',
            ),
        // a source that floats has no side that is hot
        ...(two || alone
          ? []
          : [
              cause(
                `polarity:${id}`,
                `Hot and neutral are reversed at an outlet of ${name}.`,
                'Main off, prove dead; brass screw hot, silver screw neutral, at every outlet from the first that reads so.',
              ),
            ]),
        cause(
          `ground-open:${id}`,
          `The equipment ground of ${name} is open: at a splice, a device, or the ground bar.`,
          'Follow it box by box from the panel; make it up anew, pull at it, and read again.',
        ),
        ...(p.joined === 'no'
          ? []
          : [
              cause(
                'neutral-loose:way',
                'The neutral between source and panel has a poor joint.',
                'Make the neutral of cord, inlet and panel up anew, to torque.',
              ),
            ]),
      ],
      circuitIds: [id],
      panelId: need.panel.id,
      restsOn: ['legs'],
      restMin: 0,
      cite: ['210.19(A)', '250.4(A)(5)'],
    },
    [wiringOf(need, p), wayIn(p)],
  )
}

/** Its AFCI or GFCI device, pressed while the source feeds it. */
function guard(p: Proof, need: CircuitNeed): Test[] {
  const { id, protection = 'none', outletProtection } = need.circuit
  // a breaker stays behind where its circuit is led through a switch or moved: then only a device at the outlet protects it
  const kept = protection !== 'none' && p.method.serves === 'panel'
  if (!kept && !outletProtection) return []
  const what = kept ? protections[protection].article : 'the protected outlet'
  return [
    test(
      {
        id: `guard:${id}`,
        group: 'far',
        text: `Protection of ${named(need)}, on the source`,
        lines: ['Press its test button while the source feeds it; then reset it.'],
        setUp: setUp(p, 'source', ['On the source.']),
        asks: [seen('opened', `Pressed: ${what}`, farOf(need, ['button']), ['opened', 'did not open'])],
        causes: [
          cause(
            `guard-dead:${id}`,
            'The device is worn out, or line and load are reversed.',
            'Exchange it; line side to the panel.',
          ),
        ],
        circuitIds: [id],
        panelId: need.panel.id,
        restsOn: ['legs'],
        cite: ['210.8', '210.12'],
      },
      [wiringOf(need, p), protection, outletProtection],
    ),
  ]
}
