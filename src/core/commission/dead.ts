import { named } from '../assess/needs'
import { changeText } from '../job/change-text'
import { circuitOf, feederOf, movesCircuits, placeText } from '../job/panels'
import { of } from '../job/work-log'
import { changeId } from '../plan/change'
import { plural, quantity } from '../units/format'
import { asked, byPlug, cause, expected, ours, type Proof, setUp, test, wiringOf } from './scene'
import type { Test } from './tests'

/** An equipment ground that clears a fault: what a long branch and its joints may have, Ω. */
const mostGroundOhms = 1
/** From here on two conductors are apart, Ω; a meter shows OL. */
const apartOhms = 100_000
const apartDoubtOhms = 1000
/** New wire reads hundreds; below this it is damp or damaged, MΩ. */
const leastMegohms = 1
const sampled = 3

const openGround = (id: string, name: string) =>
  cause(
    `ground-open:${id}`,
    `The equipment ground of ${name} is open: at a splice, a device, or the ground bar.`,
    'Follow it box by box from the panel; make it up anew, pull at it, and read again.',
  )

/** Before anything is switched on: grounds reach, what must be apart is apart, screws hold. */
export function deadTests(p: Proof): Test[] {
  return [...grounds(p), ...neutralsKept(p), ...apart(p), ...insulation(p), ...torque(p)]
}

function grounds(p: Proof): Test[] {
  return p.served.map(need => {
    const { id } = need.circuit
    const name = named(need)
    return test(
      {
        id: `ground:${id}`,
        group: 'dead',
        text: `Equipment ground of ${name}`,
        lines: [
          byPlug(p)
            ? 'From the ground pin of the appliance’s plug to its metal.'
            : 'A long lead on the ground bar of its panel, the other probe on the box or the ground slot of its last outlet.',
        ],
        setUp: setUp(p, 'dead', ['Everything off, locked and proven dead; what is plugged in, unplugged.']),
        asks: [
          asked(
            'ohms',
            'Ground bar to the far box',
            'Ω',
            'ohms',
            { place: `box ${id}`, at: `ground bar to the last box of ${name}`, points: ['G bar', 'G'] },
            expected('Ω', 0, mostGroundOhms, {
              formula: 'a ground path of wire and good joints has well under an ohm',
              tolerance: `at most ${quantity(mostGroundOhms, 'ohm')}, ${ours}: a poor joint has more, a broken one reads OL`,
              references: ['NEC 250.4(A)(5)'],
            }),
          ),
          ...(byPlug(p)
            ? [
                asked(
                  'hot',
                  'Narrow blade to its hot wire',
                  'Ω',
                  'ohms',
                  {
                    place: `blade ${id}`,
                    at: `plug of ${name} to where its hot is made up`,
                    points: ['H', 'hot'],
                  },
                  expected('Ω', 0, mostGroundOhms, {
                    formula: 'the narrow blade is the hot one',
                    tolerance: `at most ${quantity(mostGroundOhms, 'ohm')}, ${ours}; OL where the two are reversed`,
                    references: ['NEC 200.11'],
                  }),
                ),
              ]
            : []),
        ],
        causes: [
          openGround(id, name),
          ...(byPlug(p)
            ? [
                cause(
                  `polarity:${id}`,
                  `Hot and neutral are reversed in the plug of ${name}.`,
                  'Open the plug: brass screw hot, silver screw neutral, green ground.',
                ),
              ]
            : []),
        ],
        circuitIds: [id],
        panelId: need.panel.id,
        cite: ['250.4(A)(5)', '250.114'],
      },
      wiringOf(need, p),
    )
  })
}

/** Neutrals that hands have moved: each comes back with its own hot. */
function neutralsKept(p: Proof): Test[] {
  const touched = movesCircuits(p.job) || p.grounding.neutral === 'switched'
  if (!touched || byPlug(p)) return []
  return p.served
    .filter(n => n.circuit.poles === 1)
    .map(need => {
      const { id } = need.circuit
      const name = named(need)
      const others = p.served.filter(o => o !== need && o.circuit.poles === 1)
      return test(
        {
          id: `crossed:${id}`,
          group: 'dead',
          text: `Neutral of ${name} is its own`,
          lines: [
            'Its neutral lifted at the panel. At its last outlet neutral and ground joined by a clip, then without it.',
          ],
          setUp: setUp(p, 'dead', ['Everything off and proven dead; what is plugged in, unplugged.'], {
            state: { [`lifted ${id}`]: 'yes' },
          }),
          asks: [
            {
              ...asked(
                'clipped',
                'Its neutral to ground, clipped at the far end',
                'Ω',
                'ohms',
                {
                  place: `lifted ${id}`,
                  at: `lifted neutral of ${name} to the ground bar`,
                  points: ['N', 'G bar'],
                },
                expected('Ω', 0, 2 * mostGroundOhms, {
                  formula: 'there by the neutral, back by the ground of the same cable',
                  tolerance: `at most ${quantity(2 * mostGroundOhms, 'ohm')}, ${ours}`,
                  references: ['NEC 300.3(B)', 'NEC 200.4'],
                }),
              ),
              when: {
                state: { [`clip ${id}`]: 'yes' },
                says: 'Neutral and ground clipped together at its last outlet.',
              },
            },
            asked(
              'open',
              'The same, clip taken off',
              'Ω',
              'ohms',
              {
                place: `lifted ${id}`,
                at: `lifted neutral of ${name} to the ground bar`,
                points: ['N', 'G bar'],
              },
              openCircuit('a neutral that is lifted touches ground nowhere'),
            ),
          ],
          causes: others.map(o =>
            cause(
              `neutral-crossed:${[id, o.circuit.id].sort().join('+')}`,
              `The neutrals of ${name} and ${named(o)} are crossed.`,
              'Take the two neutrals apart, mark each with its circuit, land each beside its own hot.',
            ),
          ),
          circuitIds: [id],
          panelId: need.panel.id,
          cite: ['300.3(B)', '200.4'],
        },
        wiringOf(need, p),
      )
    })
}

const openCircuit = (formula: string) =>
  expected('Ω', apartOhms, Number.POSITIVE_INFINITY, {
    formula,
    tolerance: `OL, or above ${quantity(apartOhms, 'ohm')}, ${ours}; a load or damp lies between where it is less`,
    references: ['NEC 250.24(A)(5)', 'NEC 408.40'],
    doubtFrom: apartDoubtOhms,
  })

/** Panels that are fed from another: their neutral and ground meet nowhere in them. */
function apart(p: Proof): Test[] {
  // a plug changes nothing in a panel
  if (byPlug(p)) return []
  return p.job.panels
    .filter(panel => panel.supply !== 'service' && p.served.some(n => n.panel === panel))
    .map(panel =>
      test(
        {
          id: `apart:${panel.id}`,
          group: 'dead',
          text: `Neutral and ground apart in ${panel.name}`,
          lines: [
            feederOf(p.job, panel)
              ? 'The neutral of its feeder lifted first: through it the bars read as joined at the service.'
              : 'The neutral that comes in lifted first.',
          ],
          setUp: setUp(p, 'dead', ['Everything off and proven dead.'], {
            state: { [`neutral ${panel.id}`]: 'lifted' },
          }),
          asks: [
            asked(
              'ohms',
              'Neutral bar to ground bar',
              'Ω',
              'ohms',
              { place: `bus ${panel.id}`, at: `in ${panel.name}`, points: ['N', 'G'] },
              openCircuit('neutral and ground are joined at the service alone'),
            ),
          ],
          causes: [
            cause(
              `bond-second:${panel.id}`,
              `Neutral and ground are joined in ${panel.name}: a bonding screw or strap, or a ground on the neutral bar.`,
              'Take the screw or strap out, move the ground to its own bar.',
            ),
          ],
          panelId: panel.id,
          cite: ['250.24(A)(5)', '408.40'],
        },
        [panel.id, panel.supply],
      ),
    )
}

/** Wires that were pulled anew, where a megger is at hand. */
function insulation(p: Proof): Test[] {
  return (p.job.hookup.runs ?? []).map(run =>
    test(
      {
        id: `insulation:${run.id}`,
        group: 'dead',
        text: `Insulation of ${run.name}`,
        lines: [
          'Where an insulation tester is at hand: each wire to ground, then between the hots, both ends free.',
        ],
        optional: true,
        setUp: setUp(p, 'dead', ['Both ends lifted; nothing electronic on it.']),
        asks: [
          asked(
            'megohms',
            'Lowest of all pairs',
            'MΩ',
            'megohms',
            { place: `run ${run.id}`, at: run.name, points: ['wires', 'G'] },
            expected('MΩ', leastMegohms, Number.POSITIVE_INFINITY, {
              formula: 'sound insulation of a short run reads hundreds of megohms at 500 V',
              tolerance: `at least ${leastMegohms} MΩ, ${ours}, as is usual for 120/240 V`,
              references: ['NEC 110.7'],
              doubtFrom: leastMegohms / 2,
            }),
          ),
        ],
        cite: ['110.7'],
      },
      run,
    ),
  )
}

/** Where screws were tightened, in words: the change or the circuit that the task was of. */
function screwText({ found, job }: Proof, task: string): string {
  const change = found.planned.find(c => changeId(c) === task)
  if (change) return changeText(found, change)
  const at = circuitOf(job, task.split(':').at(-1) ?? '')
  return at ? `${placeText(job, at.panel, at.circuit)} ${at.circuit.label || 'unlabelled'}` : task
}

/** One in several of the screws that were tightened, checked again. */
function torque(p: Proof): Test[] {
  const said = of(p.found.work?.log ?? [], 'evidence').filter(e =>
    e.readings?.some(r => r.key === 'torque' && typeof r.value === 'number'),
  )
  if (!said.length) return []
  const every = Math.max(1, Math.floor(said.length / sampled))
  const picked = said.filter((_, n) => n % every === 0).slice(0, sampled)
  return [
    test(
      {
        id: 'torque:sample',
        group: 'dead',
        text: 'Torque, by sampling',
        lines: [
          `${plural(picked.length, 'screw')} of ${said.length} with a torque written down, chosen by the list, tightened once more to the same value.`,
        ],
        setUp: setUp(p, 'dead', ['Off, locked and proven dead where the screws are.']),
        asks: picked.map((e, n) => {
          const value = e.readings?.find(r => r.key === 'torque')?.value
          return asked(
            `${n + 1}`,
            `${screwText(p, e.task)}: ${value} in·lb`,
            null,
            'torque',
            { place: `screw ${e.task}`, at: screwText(p, e.task), points: ['screw'] },
            null,
            { choices: ['held', 'turned further'] },
          )
        }),
        causes: [
          cause(
            'screw-loose',
            'A screw turns further at the value of its label.',
            'Tighten it, and check every screw of the same hands that day.',
          ),
        ],
        cite: ['110.14(D)'],
      },
      picked.map(e => e.hold),
    ),
  ]
}
