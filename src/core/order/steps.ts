import { methodOf } from '../hookup/method'
import type { Handle, House } from '../isolation/house'
import { circuitOf, tiedPanel } from '../job/panels'
import { ofTests } from '../job/test-log'
import type { Panel } from '../panel/schema'
import { type PlannedChange, panelPutUp } from '../plan/change'
import { opposed } from '../source/arrangement'
import { figure, plural, quantity, sentenceStart, together } from '../units/format'
import { type Drafted, hold, reading, type Scene, stands, task } from './draft'
import type { Hold, ReadingAsked } from './holds'
import { circuitNames } from './of-changes'
import type { Opened, Window } from './task'
import { reachable } from './windows'

/** A window of power off with the tasks that are done in it. */
export interface WindowMade {
  window: Omit<Window, 'minutes'>
  tasks: readonly Drafted[]
}

/** Switching off, proving, closing and switching on again share one row of minutes. */
const isolating = { work: 'isolate' as const, share: 0.25 }
const preparing = (share: number) => ({ work: 'prepare' as const, share })

const panelsIn = (scene: Scene, tasks: readonly Drafted[]): Panel[] => {
  const met = new Set(tasks.flatMap(t => t.metal))
  return scene.planned.panels.filter(p => met.has(`bus ${p.id}`))
}
/** Circuits that are worked on away from every panel. */
const outletsIn = (scene: Scene, tasks: readonly Drafted[]): string[] => [
  ...new Set(
    tasks
      .filter(t => !t.metal.some(m => m.startsWith('bus ')))
      .flatMap(t =>
        t.metal.flatMap(m =>
          m.startsWith('circuit ') && circuitOf(scene.planned, m.slice(8)) ? [m.slice(8)] : [],
        ),
      ),
  ),
]

/** What is seen, said and laid out before anything is touched. */
export function arriving(scene: Scene, tasks: readonly Drafted[], windows: readonly WindowMade[]): Drafted[] {
  const { job } = scene
  const met = new Set(panelsIn(scene, tasks).map(p => p.id))
  const found = job.panels.filter(p => met.has(p.id))
  const seen = found.length ? found : [tiedPanel(job)]
  const dark = windows.flatMap(w => w.window.dark)
  const cold = dark.filter(d => d.cold)
  const medical = job.brief.medical === 'yes'
  const tell = 'arrive:tell'
  return [
    task({
      id: 'arrive:found',
      phase: 'arrive',
      ...preparing(0.4),
      text: 'See that the house is as it was found',
      lines: [
        ...seen.map(
          p =>
            `${p.name}: ${p.mainA === undefined ? 'lugs only' : `main of ${quantity(p.mainA, 'A')}`}, ${figure(p.spaces)} spaces, ${plural(p.circuits.length, 'breaker')} where the survey has them; warmth, rust, water, a smell: stop and say so.`,
        ),
        'What differs is corrected under Panel now, before anything is cut: the order follows.',
      ],
      holds: seen.map(p =>
        hold('arrive:found', 'as found', `${p.name} is as the survey has it, door open, seen by me.`, {
          of: p.id,
        }),
      ),
      panelId: seen[0]?.id ?? null,
      at: { view: 'panel' },
    }),
    task({
      id: tell,
      phase: 'arrive',
      ...preparing(0.1),
      text: dark.length
        ? 'Tell who lives here what goes dark, and when'
        : 'Tell who lives here what is done today',
      lines: [
        ...windows.map(w =>
          sentenceStart(
            `${w.window.name}: ${together(w.window.dark.map(d => d.name)) || 'nothing goes dark'}.`,
          ),
        ),
        ...(cold.length
          ? [
              `Cold food among it (${together(cold.map(d => d.name))}): doors stay shut; a closed refrigerator keeps for about 4 h.`,
            ]
          : []),
        ...(medical
          ? [
              `${job.brief.medicalWhat || 'A medical device'}: it runs on a second way, tried, before anything goes off.`,
            ]
          : []),
        'Computers are shut down by their owners; alarms are told to who watches them.',
      ],
      holds: medical
        ? [
            hold(
              tell,
              'told',
              `${job.brief.medicalWhat || 'The medical device'} runs on its second way, and was seen running.`,
            ),
          ]
        : [],
      at: { view: 'plan' },
    }),
    task({
      id: 'arrive:lay-out',
      phase: 'arrive',
      ...preparing(0.5),
      text: 'Protect the floor, lay out parts, tools and locks',
      lines: [
        'Missing now is better than missing with the power off: tick the parts off before anything is opened.',
      ],
      at: { view: 'plan' },
    }),
  ]
}

/** Pairs of a panel that are read dead, with the known source before and after. */
function pairsOf(panel: Panel | null): ReadingAsked[] {
  const hots = panel === null ? ['H'] : ['L1', 'L2']
  const legs = hots.length > 1 ? [reading('L1–L2', 'L1–L2', 'V', 'dead')] : []
  return [
    reading('before', 'Known source, before', 'V', 'known'),
    ...legs,
    ...hots.map(h => reading(`${h}–N`, `${h}–N`, 'V', 'dead')),
    ...hots.map(h => reading(`${h}–G`, `${h}–ground`, 'V', 'dead to ground')),
    reading('N–G', 'N–ground', 'V', 'dead to ground'),
    reading('after', 'Known source, after', 'V', 'known'),
  ]
}

/** The panel, and the breakers in it, at which something is opened: the first of them. */
function whereOpened({ job }: Scene, opened: readonly Opened[]): Pick<Drafted, 'panelId' | 'circuitIds'> {
  const at = opened.flatMap(o => circuitOf(job, o.id.replace(/^breaker /, '')) ?? [])
  const main = opened.flatMap(o => job.panels.filter(p => o.id === `main ${p.id}`))
  const panel = main[0] ?? at[0]?.panel
  return { panelId: panel?.id ?? null, circuitIds: at.filter(a => a.panel === panel).map(a => a.circuit.id) }
}

/**
 * Off and locked, proven dead, closed, and on again.
 *
 * @param before the house as it stands when the window begins: what was built by then can be closed by somebody
 */
export function inWindow(scene: Scene, { window, tasks }: WindowMade, before: House): Drafted[] {
  const { id, opened, keptOpen, mainsOnly } = window
  const panels = panelsIn(scene, tasks)
  const outlets = outletsIn(scene, tasks)
  const { exists = [], switch: own } = scene.job.hookup
  const open = [...opened, ...keptOpen].map(o => o.id)
  const metal = new Set(tasks.flatMap(t => t.metal))
  const reaches = (id: string) =>
    [...reachable(before, new Set(open.filter(o => o !== id)))].some(place => metal.has(place))
  // what an earlier visit left is there, though nobody knows what was plugged into it; so is what an earlier window built, where it leads to these hands
  const standing = new Set([
    ...scene.found.handles.map(h => h.id),
    ...before.handles.map(h => h.id).filter(reaches),
    ...(exists.includes('inlet') || (exists.includes('switch') && own?.inlet) ? ['cord'] : []),
    ...(exists.includes('interlock') ? ['backfed'] : []),
  ])
  const [isolate, prove, energise] = [`isolate:${id}`, `prove:${id}`, `energise:${id}`]
  const names = together(opened.map(o => o.name))
  const could = [...opened, ...keptOpen].map(o => `${together(o.keepsAway)} by ${o.name}`)
  const dead = (of: string, where: string, panel: Panel | null): Hold =>
    hold(
      prove,
      'prove',
      `${where}: known source, every pair, known source again. The same instrument, not put down between.`,
      {
        of,
        readings: pairsOf(panel),
        could,
      },
    )
  const panelId =
    panels[0]?.id ??
    (outlets[0] === undefined ? null : (circuitOf(scene.planned, outlets[0])?.panel.id ?? null))
  const here = { window: id, panelId }
  return [
    task({
      id: isolate,
      phase: 'isolate',
      ...isolating,
      ...here,
      ...whereOpened(scene, opened),
      text: `Switch off and lock: ${names}`,
      lines: [
        ...(window.dark.length > 1 ? ['Loads down first: branch breakers off, then what feeds them.'] : []),
        ...opened.map(o =>
          sentenceStart(`${o.name}: ${o.setting}, ${o.lock}. It keeps away ${together(o.keepsAway)}.`),
        ),
        ...keptOpen.map(o =>
          sentenceStart(
            `${o.name}: stays ${o.setting}${standing.has(o.id) ? `, ${o.lock}` : ' from the moment it is there'}.`,
          ),
        ),
        'Whoever works inside has a lock and tag of their own on it, and its key in their own pocket (NFPA 70E 120).',
        ...(mainsOnly.now.length
          ? [
              `With the mains alone off it would be live still, by ${together(mainsOnly.now.map(s => s.name))}.`,
            ]
          : []),
        ...(mainsOnly.could.length
          ? [
              `With the mains alone off it could become live, by ${together(mainsOnly.could.map(s => s.name))}.`,
            ]
          : []),
      ],
      holds: [...opened, ...keptOpen.filter(o => standing.has(o.id))].map(o =>
        hold(isolate, 'lock', sentenceStart(`${o.name}: ${o.setting}, ${o.lock}.`), {
          of: o.id,
        }),
      ),
      at: { view: 'panel' },
    }),
    task({
      id: prove,
      phase: 'prove',
      ...isolating,
      ...here,
      text: `Prove dead: ${together([...panels.filter(p => stands(scene, p.id)).map(p => p.name), ...circuitNames(scene, outlets)])}`,
      lines: [
        'Glasses, rated gloves and arc-rated clothing until it is proven: until then it is live (NFPA 70E 110, 120).',
        'The cover comes off with all of that on; its screws are kept.',
        ...panels
          .filter(p => p.mainA !== undefined)
          .map(p => `Read ${p.name} behind its main, never ahead of it.`),
      ],
      holds: [
        ...panels.filter(p => stands(scene, p.id)).map(p => dead(p.id, p.name, p)),
        ...outlets.map(o => dead(o, circuitNames(scene, [o])[0] ?? o, null)),
      ],
      at: { view: 'panel' },
    }),
    ...[
      ...panels.map(p => ({ key: p.id, name: p.name, sub: p.supply !== 'service' })),
      ...outlets.map(o => ({ key: o, name: `the box of ${circuitNames(scene, [o])[0] ?? o}`, sub: false })),
    ].map(({ key, name, sub }, n) =>
      task({
        id: `close:${id}:${key}`,
        phase: 'close',
        ...isolating,
        share: n ? 0.05 : isolating.share,
        ...here,
        text: `Close ${name}`,
        lines: [
          'Tools counted, screws and clippings out, wires clear of the edge of the cover; open spaces filled.',
        ],
        holds: [
          hold(`close:${id}:${key}`, 'empty', `Nothing is left in ${name}.`),
          ...(sub
            ? [
                hold(
                  `close:${id}:${key}`,
                  'bars',
                  `${name}: neutrals and grounds each on bars of their own, no screw or strap between (NEC 250.24(A)(5)).`,
                ),
              ]
            : []),
          hold(`close:${id}:${key}`, 'cover', `Cover on, every screw, before anything is switched on.`),
        ],
        panelId: panels.some(p => p.id === key) ? key : here.panelId,
        at: { view: 'panel' },
      }),
    ),
    task({
      id: energise,
      phase: 'energise',
      ...isolating,
      ...here,
      text: `Power back: ${names}`,
      lines: [
        'Every breaker off, everybody told, locks taken off by who put them on.',
        ...(opened.some(o => o.id.startsWith('main ') || o.id.startsWith('breaker '))
          ? [
              'Stand to the side, face away; then branch breakers one by one, the largest load last, warm compressors after their minutes.',
            ]
          : []),
        ...keptOpen.map(o => sentenceStart(`${o.name}: stays ${o.setting}.`)),
      ],
      holds:
        panels.length || outlets.length
          ? [
              hold(energise, 'volts', 'Volts after the switch is closed, before the loads.', {
                readings: voltsOf(panels[0] ?? null),
              }),
            ]
          : [],
      at: { view: 'panel' },
    }),
  ]
}

function voltsOf(panel: Panel | null): ReadingAsked[] {
  return panel === null
    ? [reading('H–N', 'H–N', 'V', 'leg')]
    : [
        reading('L1–N', 'L1–N', 'V', 'leg'),
        reading('L2–N', 'L2–N', 'V', 'leg'),
        reading('L1–L2', 'L1–L2', 'V', 'legs'),
      ]
}

/** Labels, the source, the tests. */
export function ending(
  scene: Scene,
  changes: readonly PlannedChange[],
  tasks: readonly Drafted[],
  kept: ReadonlySet<string>,
): { labels: Drafted[]; after: Drafted[] } {
  const { job, planned } = scene
  const method = methodOf(job.hookup.method)
  const panels = panelsIn(scene, tasks)
  const up = new Set(changes.flatMap(c => panelPutUp(c)?.id ?? []))
  const picked = planned.panels.flatMap(p => p.circuits).filter(c => c.picked)
  // plugs first, then what is wired, the output last
  const turns: Handle['kind'][] = ['plug', 'disconnect', 'breaker', 'unit']
  const closing = scene.whole.handles
    .filter(
      h =>
        h.kind === 'disconnect' ||
        h.kind === 'unit' ||
        h.kind === 'plug' ||
        (h.kind === 'breaker' && h.id !== 'backfed' && kept.has(h.id)),
    )
    .sort((x, y) => turns.indexOf(x.kind) - turns.indexOf(y.kind))
  const alone = method.neutral === 'stand-alone'
  const source = job.source?.units.map(u => u.equipment.name) ?? []
  const twoLegs = job.source !== undefined && opposed(job.source.arrangement)
  return {
    labels: [
      ...panels.map(p =>
        task({
          id: `directory:${p.id}`,
          phase: 'labels',
          work: 'label',
          text: `Directory of ${p.name}, and labels of what is new or moved`,
          lines: [
            'Each circuit by its own name, so that nobody takes one for another (NEC 408.4(A)).',
            ...(up.has(p.id) ? [`Fed from: panel and breaker, on the door (NEC 408.4(B)).`] : []),
          ],
          panelId: p.id,
          at: { view: 'panel' },
        }),
      ),
    ],
    after: [
      ...(source.length
        ? [
            task({
              id: 'source:energise',
              phase: 'source',
              ...isolating,
              text: `Bring the source up: ${together(source)}`,
              lines: [
                ...(alone
                  ? []
                  : [
                      'Exactly one bond of neutral and ground in the whole system (NEC 250.24, 250.30); the interlock or switch is as it stands on an ordinary day.',
                    ]),
                ...closing.map((h, n) => {
                  const alike = closing.slice(0, n).filter(o => o.name === h.name).length
                  const on = h.settings.find(s => s !== h.open)
                  return sentenceStart(
                    `${h.name}${alike ? `, number ${alike + 1}` : ''}: from ${h.open} to ${on}, and a look at the display.`,
                  )
                }),
                ...(method.transfer === 'automatic'
                  ? ['Then the breakers behind it, one by one.']
                  : alone
                    ? []
                    : ['Nothing of the house is on the source yet: that comes with the tests.']),
              ],
              holds: [
                hold(
                  'source:energise',
                  'volts',
                  alone
                    ? 'Volts at the source’s own outlet.'
                    : 'Volts where the source arrives, before anything is closed onto it.',
                  {
                    readings: [
                      reading('H–N', 'H–N', 'V', 'leg'),
                      ...(twoLegs
                        ? [
                            reading('L2–N', 'The other leg to N', 'V', 'leg'),
                            reading('L1–L2', 'L1–L2', 'V', 'legs'),
                          ]
                        : []),
                    ],
                  },
                ),
              ],
              at: { view: 'source' },
            }),
          ]
        : []),
      task({
        id: 'commission:tests',
        phase: 'commission',
        work: 'test',
        count: Math.max(1, picked.length),
        text: 'Prove that it works: each circuit on the utility, off, and on the source',
        lines: [
          ...(('steps' in method ? method.steps : undefined) ?? []),
          'One circuit at a time, watts written down as it comes on; a warm compressor waits its minutes.',
          ...(method.transfer === 'interlock'
            ? ['The interlock tried both ways: both can never be on.']
            : []),
        ],
        circuitIds: picked.map(c => c.id),
        at: { view: 'tests' },
      }),
    ],
  }
}

/** What the inspector remarked, each a task of its own. */
export function remarked({ job }: Scene): Drafted[] {
  const circuits = new Set(job.panels.flatMap(p => p.circuits.map(c => c.id)))
  return ofTests(job.tests?.log ?? [], 'remark').map(r => {
    const id = `remark:${r.id}`
    return task({
      id,
      phase: 'remarks',
      work: 'outlet',
      text: r.text,
      lines: [
        `Remarked at the inspection, written down by ${r.by} on ${r.on}.`,
        'Where hands go into anything: off, locked and proven dead first, as for every other step.',
        'What was opened is tested again.',
      ],
      holds: [hold(id, 'corrected', 'Corrected as the authority wants it.')],
      circuitIds: (r.circuitIds ?? []).filter(c => circuits.has(c)),
      at: { view: 'tests', of: 'inspection' },
    })
  })
}
