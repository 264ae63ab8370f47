import { methodOf } from '../hookup/method'
import { metalOf, type Picture } from '../isolation/work'
import { changeText } from '../job/change-text'
import { circuitOf, placeText, tiedPanel } from '../job/panels'
import { changeId, type PlannedChange } from '../plan/change'
import { quantity } from '../units/format'
import type { KindOfWork } from '../work/parts/tasks'
import { type Drafted, hold, reading, type Scene, stands, task, torqueHold } from './draft'
import type { Phase } from './task'

type Of<K extends PlannedChange['kind']> = Extract<PlannedChange, { kind: K }>
/** What a change takes beside its wires; null: it is its wires. */
type Row<K extends PlannedChange['kind']> = (change: Of<K>, scene: Scene) => Partial<Drafted>[] | null

/** One task in the panel, with the power of it off. */
const inPanel =
  <K extends PlannedChange['kind']>(phase: Phase, work: KindOfWork, lines: string[] = []): Row<K> =>
  () => [{ phase, work, lines, metal: ['of the change'] }]
const torqued = [
  'Its wire first, then its stab: no breaker is pulled under load.',
  'Only a breaker that the panel’s label lists (NEC 110.3(B)).',
]
const atOutlet = ['Ground, then neutral, then hot. Mark the wires before they are lifted.']
const onWall = [
  'The panel stays closed: nothing of this needs the power off.',
  'Into studs or masonry; level; where 30 in wide, 36 in deep and 6½ ft high stay free before it (NEC 110.26).',
]

/** The tasks of each kind of change that are no wires: a row each. `metal: ['of the change']` stands for where the change meets bare metal. */
const rows: { [K in PlannedChange['kind']]: Row<K> } = {
  move: inPanel('hots', 'breaker', [
    'In one go, each breaker with its wire. Wires that do not reach are spliced, not stretched.',
    ...torqued,
  ]),
  exchange: inPanel('hots', 'breaker', [
    'Lift the hot, and the neutral where the breaker has one; change the breaker; land them again.',
    ...torqued,
  ]),
  remove: inPanel('hots', 'breaker', [
    'Lift and cap its wires, marked, before the breaker comes out; close the open space.',
  ]),
  add: ({ panelId, circuit }, scene) =>
    stands(scene, panelId)
      ? [
          {
            phase: 'hots',
            work: 'breaker',
            metal: ['of the change'],
            circuitIds: [circuit.id],
            lines: [
              'Off before it goes in, and off until power is back and it is its turn.',
              ...torqued.slice(1),
            ],
          },
        ]
      : null,
  tie: inPanel('devices', 'breaker', [
    'Both breakers off and side by side; then both handles must move together.',
  ]),
  lock: inPanel('devices', 'breaker', [
    'The lock stays on the breaker for whoever connects the source; tried once.',
  ]),
  bond: inPanel('neutral', 'bond', [
    'Only this panel’s own screw or strap. Neutrals and grounds that share a bar are parted onto bars of their own.',
  ]),
  filler: inPanel('devices', 'breaker', [
    'The cover’s opening is closed from behind, before the cover goes on (NEC 408.7).',
  ]),
  guard: inPanel('devices', 'outlet', atOutlet),
  'soft-start': inPanel('devices', 'outlet', [
    'By the starter’s own drawing; its own test start comes after power is back.',
    ...atOutlet,
  ]),
  cord: inPanel('devices', 'outlet', [
    'A cord with a ground, strain relief at the box; the appliance’s instructions must allow it.',
    ...atOutlet,
  ]),
  receptacle: inPanel('enter', 'outlet', [
    'Box fixed and its cable clamped; wires in, marked; the receptacle is landed after them.',
  ]),
  notice: ({ where, text }) => [
    {
      phase: 'labels',
      work: 'label',
      lines: [`At the ${where}, where it is seen with the door shut: ${text}.`],
    },
  ],
  panel: ({ panel }) => [wall(panel.id)],
  intercept: ({ panel, feeds }, scene) => [
    wall(panel.id),
    {
      id: `cut-in:${panel.id}`,
      phase: 'hots',
      work: 'panel',
      metal: ['of the change'],
      panelId: panel.id,
      lines: [
        `The feeder of ${scene.planned.panels.find(p => p.id === feeds)?.name ?? 'the panel'} ends in the new one; its own breaker feeds on.`,
        'Neutral and ground of the feeder on bars of their own (NEC 408.40).',
      ],
    },
  ],
  mount: ({ device, name }, scene) => mounting[device](scene, name),
  backfeed: ({ panelId, heldDown }, { job }) => [
    {
      id: `breaker:backfeed:${panelId}`,
      // a plate that no line of the plan brings is seen before the breaker goes in
      holds:
        methodOf(job.hookup.method).transfer === 'interlock' &&
        !job.planned.some(c => c.kind === 'mount' && c.device === 'interlock') &&
        !job.hookup.exists?.includes('interlock')
          ? [
              hold(
                `breaker:backfeed:${panelId}`,
                'interlock',
                'A listed interlock for this panel is there, and lets only one of main and backfed breaker be on. Without one this breaker stays in its box.',
              ),
            ]
          : [],
      phase: 'hots',
      work: 'backfeed',
      metal: [`bus ${panelId}`],
      panelId,
      lines: [
        'Off before it goes in, and off until the tests.',
        ...(heldDown
          ? ['Held down by the fitting listed for it: it is fed from its terminals (NEC 408.36(D)).']
          : []),
        'Marked: backfed, do not move.',
      ],
    },
  ],
  'position-breaker': ({ position }, scene) =>
    scene.job.hookup.exists?.includes('switch')
      ? [{ phase: 'devices', work: 'breaker', metal: ['of the change'], lines: torqued }]
      : [
          {
            phase: 'mount',
            work: 'breaker',
            lines: [`On the bench: position ${position} is connected to nothing yet.`],
            restsOn: ['wall:switch'],
          },
        ],
  lead: () => null,
  land: () => null,
  run: () => null,
}

function wall(panelId: string): Partial<Drafted> & { id: string } {
  const id = `wall:${panelId}`
  return {
    id,
    phase: 'mount',
    work: 'panel',
    lines: [
      ...onWall,
      'Its bonding screw or strap stays out: neutral and ground are apart here (NEC 250.24(A)(5), 408.40).',
      'Its breakers go in now, off, while nothing feeds it.',
    ],
    panelId,
    holds: [
      hold(id, 'apart', 'With nothing landed yet: neutral bar to ground bar.', {
        readings: [reading('apart', 'Neutral bar to ground bar', 'Ω', 'apart')],
      }),
    ],
  }
}

type Mounted = Of<'mount'>['device']
const mounting: Record<Mounted, (scene: Scene, name: string) => Partial<Drafted>[]> = {
  switch: () => [
    {
      id: 'wall:switch',
      phase: 'mount',
      work: 'mount',
      lines: [...onWall, 'All positions off; its own cord is plugged nowhere.'],
    },
  ],
  secondSwitch: () => [
    {
      id: 'wall:secondSwitch',
      phase: 'mount',
      work: 'mount',
      lines: [...onWall, 'All positions off; its own cord is plugged nowhere.'],
    },
  ],
  managed: () => [{ id: 'wall:managed', phase: 'mount', work: 'mount', lines: onWall }],
  inlet: () => [
    {
      id: 'wall:inlet',
      phase: 'mount',
      work: 'mount',
      lines: [
        ...onWall.slice(0, 1),
        'Cover closed, no cord in it until the tests. Sealed above where it is outside.',
      ],
    },
  ],
  inverter: scene => [
    {
      id: 'wall:inverter',
      phase: 'mount',
      work: 'mount',
      lines: [...onWall, 'Battery disconnect open, locked and tagged from the first hour.', ...heavy(scene)],
    },
  ],
  transformer: () => [{ id: 'wall:transformer', phase: 'mount', work: 'mount', lines: onWall }],
  combiner: () => [
    {
      id: 'wall:combiner',
      phase: 'mount',
      work: 'mount',
      lines: ['Set, not plugged: no cord of it goes in before the tests.'],
    },
  ],
  interlock: scene => {
    const panel = tiedPanel(scene.planned)
    return [
      {
        id: 'device:interlock',
        phase: 'devices',
        work: 'mount',
        metal: [`bus ${panel.id}`],
        panelId: panel.id,
        lines: [
          'With the cover off and laid on a bench: template on, holes marked, looked at by somebody else, then drilled. A cover is drilled once.',
          'Slide it both ways by hand: the main and the backfed breaker can never both be on.',
        ],
        holds: [
          hold(
            'device:interlock',
            'template',
            'Template on the cover, before the drill: a second pair of eyes.',
          ),
        ],
      },
    ]
  },
  'current transformers': ({ planned }) => [
    {
      id: 'device:cts',
      phase: 'devices',
      work: 'lead',
      metal: planned.panels.filter(p => p.supply === 'service').map(p => `bus ${p.id}`),
      lines: [
        'Around insulation only: what is ahead of the main is live. Where the cores need the bare lugs uncovered, the utility cuts off first.',
        'L1 to L1, L2 to L2, arrow as its instructions have it; leads never open while current flows.',
      ],
      holds: [hold('device:cts', 'arrow', 'Leg and arrow of each, seen and photographed.')],
    },
  ],
}

function heavy({ job }: Scene): string[] {
  const lb = Math.max(0, ...(job.source?.units ?? []).map(u => u.equipment.weightLb ?? 0))
  return lb > 50 ? [`Up to ${quantity(lb, 'lb')}: two lift.`] : []
}

/** Wires that no wiring plan draws: one task, where the change meets bare metal. */
const unwired: Partial<Drafted> = { phase: 'hots', work: 'breaker', metal: ['of the change'] }

/** Every change’s tasks that are not its wires; one that would have none gets one where it meets bare metal. */
export function tasksOfChanges(
  scene: Scene,
  pictures: readonly Picture[],
  wired: readonly Drafted[],
  changes: readonly PlannedChange[],
): Drafted[] {
  const has = new Set(wired.flatMap(t => t.changes))
  return changes.flatMap(change => {
    const id = changeId(change)
    const own = (rows[change.kind] as (change: PlannedChange, scene: Scene) => Partial<Drafted>[] | null)(
      change,
      scene,
    )
    // its wires are its work; where the wiring plan draws none, it is one task by itself
    const parts = own ?? (has.has(id) ? [] : [unwired])
    return parts.map(part => {
      const metal = part.metal?.flatMap(m => (m === 'of the change' ? metalOf(change, pictures) : [m])) ?? []
      const taskId = part.id ?? id
      const at = 'circuitId' in change ? circuitOf(scene.planned, change.circuitId) : undefined
      const made = task({
        id: taskId,
        phase: 'hots',
        work: 'breaker',
        text: changeText(scene.job, change),
        changes: [id],
        at: { view: 'plan', of: id },
        circuitIds:
          'circuitId' in change
            ? [change.circuitId]
            : 'places' in change
              ? change.places.map(p => p.circuitId)
              : [],
        panelId: 'panelId' in change ? change.panelId : (at?.panel.id ?? null),
        ...part,
        metal,
      })
      const screws =
        made.phase === 'hots' ||
        (made.work === 'outlet' && made.phase !== 'enter') ||
        made.work === 'bond' ||
        change.kind === 'position-breaker'
      return screws && change.kind !== 'remove'
        ? { ...made, holds: [...made.holds, torqueHold(taskId, [])] }
        : made
    })
  })
}

/** Circuits by name, with the place of each. */
export const circuitNames = ({ planned }: Scene, ids: readonly string[]): string[] =>
  ids.flatMap(id => {
    const at = circuitOf(planned, id)
    return at ? [`${placeText(planned, at.panel, at.circuit)} ${at.circuit.label || 'unlabelled'}`] : []
  })
