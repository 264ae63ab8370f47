import { quantity } from '../units/format'
import { heaterOn, inVolts, unitsOn, wayLeftOff } from './legs'
import { asked, carriedTogether, cause, expected, ours, type Proof, seen, setUp, test, wayIn } from './scene'
import type { Test } from './tests'

/** Where no sheet says how fast it takes over, s. */
const usualTransferS = 10
/** A grid-tied inverter waits so long before it comes back, minutes (IEEE 1547, default 300 s). */
const solarBackMin: readonly [number, number] = [5, 15]
const heaterW = 1000
const sensorTolerance = 0.15

/** Systems that take over without a hand; and solar, which must not feed an island. */
export const automaticTests = (p: Proof): Test[] => [
  ...(p.method.automatic && p.carried
    ? [closed(p), lost(p), back(p), ...shed(p), ...sensors(p), ...charging(p)]
    : []),
  ...solar(p),
]

const closed = (p: Proof): Test =>
  test(
    {
      id: 'auto:closed',
      group: 'automatic',
      text: 'Every breaker between battery and panel closed',
      lines: [
        'Disconnect of the bank, output of the inverter, main of the panel behind it: each seen, before the utility is opened.',
      ],
      setUp: setUp(p, 'utility', ['On the utility, as on an ordinary day.'], { state: unitsOn(p) }),
      asks: [
        seen(
          'closed',
          'All of them',
          { place: 'way', at: 'from the battery to the panel', points: ['breakers'] },
          ['closed', 'one is off'],
        ),
      ],
      causes: [wayLeftOff(p)],
      panelId: p.tied.id,
      cite: ['480.7', '706.15'],
    },
    wayIn(p),
  )

/** How fast it says that it takes over, s: as timed, else by its sheet. */
export function transferSaid({ job: { source, hookup } }: Pick<Proof, 'job'>): number | null {
  const unit = source?.units[0]?.equipment
  return (
    source?.transferS?.value ??
    (unit?.kind === 'inverter' ? unit.transferSeconds : undefined) ??
    hookup.managed?.transferSeconds ??
    null
  )
}

function lost(p: Proof): Test {
  const said = transferSaid(p)
  const to = said === null ? usualTransferS : Math.max(1.5 * said, said + 0.5)
  return test(
    {
      id: 'auto:loss',
      group: 'automatic',
      text: 'The utility is lost',
      lines: ['Main of the service off, as one act. Time until the circuits live again; then the volts.'],
      setUp: setUp(p, 'source', ['Everything on that it carries; then the main of the service off.'], {
        on: carriedTogether(p),
      }),
      asks: [
        asked(
          's',
          'Dark for',
          's',
          'watch',
          { place: 'transfer', at: 'by the watch, or by a lamp', points: ['time'] },
          expected('s', 0, to, {
            formula:
              said === null
                ? 'no sheet says how fast'
                : `its sheet, or the last timing: ${quantity(said, 's')}`,
            tolerance:
              said === null
                ? `at most ${quantity(to, 's')}, ${ours}`
                : `half as much again, at least half a second: a hand on a watch, ${ours}`,
            references: ['NEC 702.4(B)'],
            doubtTo: Number.POSITIVE_INFINITY,
          }),
        ),
        asked(
          'V',
          'Volts at the panel then',
          'V',
          'volts',
          p.method.serves === 'positions'
            ? { place: 'input', at: 'at the input of its positions', points: ['L1', 'N'] }
            : { place: `line ${p.tied.id}`, at: `at the lugs of ${p.tied.name}`, points: ['L1', 'N'] },
          inVolts(),
        ),
      ],
      causes: [wayLeftOff(p)],
      panelId: p.tied.id,
      restsOn: ['auto:closed', 'legs'],
      cite: ['702.4(B)', '702.5'],
    },
    wayIn(p),
  )
}

const back = (p: Proof): Test =>
  test(
    {
      id: 'auto:return',
      group: 'automatic',
      text: 'The utility returns',
      lines: ['Main of the service on. It waits some minutes to be sure of the utility.'],
      setUp: setUp(p, 'utility', ['On the battery; then the main of the service on.'], { state: unitsOn(p) }),
      asks: [
        seen('back', 'It', { place: 'transfer', at: 'at the unit', points: ['state'] }, [
          'goes back by itself',
          'stays on the battery',
        ]),
        asked(
          'min',
          'After',
          'min',
          'watch',
          { place: 'return', at: 'by the watch', points: ['time'] },
          expected('min', 0, 15, {
            formula: 'it watches the utility before it goes back',
            tolerance: `at most 15 min, ${ours}; commonly 1 to 5`,
          }),
        ),
      ],
      causes: [
        cause(
          'return-off',
          'Its return is set to “by hand”, or the breaker ahead of it is off.',
          'Close the breaker; set the return as the plan has it.',
        ),
      ],
      panelId: p.tied.id,
      restsOn: ['auto:loss'],
      cite: ['702.5'],
    },
    wayIn(p),
  )

const shed = (p: Proof): Test[] =>
  p.method.sheds
    ? [
        test(
          {
            id: 'auto:shed',
            group: 'automatic',
            text: 'What may go is let go first',
            lines: ['On the battery, load after load added until it sheds: what goes, in which order.'],
            setUp: setUp(p, 'source', ['On the battery.']),
            asks: [
              seen('order', 'They went', { place: 'shed', at: 'at the panel', points: ['circuits'] }, [
                'in the order of the plan',
                'in another order',
                'not at all',
              ]),
            ],
            causes: [
              cause(
                'shed-order',
                'Priorities are set otherwise than planned.',
                'Set them as the plan has them.',
              ),
            ],
            panelId: p.tied.id,
            restsOn: ['auto:loss'],
            cite: ['702.4(B)'],
          },
          [wayIn(p), p.served.map(n => [n.circuit.id, n.circuit.tier])],
        ),
      ]
    : []

/** Current transformers: place, leg and arrow, by a load that is known. */
const sensors = (p: Proof): Test[] =>
  p.job.hookup.managed
    ? (['L1', 'L2'] as const).map(leg => {
        const other = leg === 'L1' ? 'L2' : 'L1'
        const at = (l: string) =>
          ({ place: `ct ${l}`, at: `reading of ${l} at the panel’s display`, points: ['W'] }) as const
        return test(
          {
            id: `ct:${leg}`,
            group: 'automatic',
            text: `Current transformer of ${leg}`,
            lines: [
              `A heater of about 1 kW on ${leg} alone: by how much each reading moves.`,
              'Less than before with a load added: the arrow points the wrong way. On the other leg: it sits on the wrong one.',
            ],
            setUp: setUp(p, 'utility', ['On the utility; nothing else switches meanwhile.'], {
              on: [heaterOn(leg)],
            }),
            asks: [
              asked(
                'own',
                `${leg} rises by`,
                'W',
                'display',
                at(leg),
                expected('W', heaterW * (1 - sensorTolerance), heaterW * (1 + sensorTolerance), {
                  formula: 'a heater of 1,000 W, drawn from the utility, counts as import: positive',
                  tolerance: `± ${quantity(sensorTolerance, 'fraction')}, ${ours}: the heater’s own, and the line’s volts`,
                }),
              ),
              asked(
                'other',
                `${other} rises by`,
                'W',
                'display',
                at(other),
                expected('W', -50, 50, {
                  formula: 'nothing is on the other leg',
                  tolerance: `± 50 W, ${ours}`,
                }),
              ),
            ],
            causes: [
              cause(
                `ct-reversed:${leg}`,
                `The arrow of ${leg}’s current transformer points the wrong way.`,
                'Turn it round on its conductor: the arrow towards the loads.',
              ),
              cause(
                'ct-crossed',
                'The current transformers of L1 and L2 sit on each other’s leg.',
                'Change the two over.',
              ),
            ],
            panelId: p.tied.id,
            cite: ['110.3(B)'],
          },
          [p.job.hookup.managed?.id, leg],
        )
      })
    : []

const charging = (p: Proof): Test[] => {
  const { charging, units = [] } = p.job.source ?? {}
  if (
    !units.some(u => u.equipment.kind === 'inverter' || charging?.from === 'a circuit of the panel it feeds')
  )
    return []
  return [
    test(
      {
        id: 'auto:sign',
        group: 'automatic',
        text: 'Signs of charge and discharge',
        lines: ['Charging from the utility, then on the battery: which sign the display gives each.'],
        setUp: setUp(p, 'utility', ['On the utility, charging.'], { state: unitsOn(p) }),
        asks: [
          seen(
            'sign',
            'Charging counts as going',
            { place: 'battery sign', at: 'at the unit’s display', points: ['W'] },
            ['into the battery', 'out of the battery'],
          ),
        ],
        causes: [
          cause(
            'ct-reversed:battery',
            'The battery’s sensor is reversed.',
            'Turn it round, or change its sign in the settings.',
          ),
        ],
        cite: ['110.3(B)'],
      },
      wayIn(p),
    ),
  ]
}

const solar = (p: Proof): Test[] =>
  p.needs
    .filter(n => n.circuit.purpose === 'solar' && p.joined !== 'no' && p.carried)
    .map(need => {
      const { id } = need.circuit
      const probe = {
        place: `solar ${id}`,
        at: `at the display of the solar inverter on ${need.position}`,
        points: ['W'],
      } as const
      return test(
        {
          id: `solar:${id}`,
          group: 'automatic',
          text: `Solar on ${need.position}: off on the island, back afterwards`,
          lines: [
            'In sun. Utility opened, house on the source: it must give nothing. Then back on the utility.',
          ],
          setUp: setUp(p, 'source', ['As in an outage; the solar breaker as the card has it.']),
          asks: [
            asked(
              'island',
              'On the island',
              'W',
              'display',
              probe,
              expected('W', 0, 5, {
                formula: 'a grid-tied inverter feeds nothing without a utility',
                tolerance: `at most 5 W, ${ours}: a display’s rest`,
                references: ['IEEE 1547', 'NEC 705.40'],
              }),
            ),
            asked(
              'back',
              'Back on the utility, after',
              'min',
              'watch',
              { ...probe, place: 'solar back' },
              expected('min', solarBackMin[0] - 1, solarBackMin[1], {
                formula: 'it watches the utility for five minutes first',
                tolerance: `${solarBackMin[0] - 1} to ${solarBackMin[1]} min: IEEE 1547 has 5 min as its default, ${ours} beyond`,
                references: ['IEEE 1547'],
              }),
            ),
          ],
          causes: [
            cause(
              `solar-island:${id}`,
              'The solar inverter feeds the island.',
              'Its breaker off and locked before any outage, until its maker says otherwise.',
            ),
          ],
          circuitIds: [id],
          panelId: need.panel.id,
          restsOn: ['legs'],
          cite: ['705.40', '710.15'],
        },
        [need.panel.id, need.circuit.position],
      )
    })
