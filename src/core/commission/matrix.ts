import { type CircuitNeed, named } from '../assess/needs'
import type { RunningLoad } from '../loads/as-read'
import { quantity } from '../units/format'
import { inVolts, lineV, noVolts, wayLeftOff } from './legs'
import {
  asked,
  byPlug,
  cause,
  expected,
  farOf,
  ours,
  type Proof,
  plugOf,
  setUp,
  test,
  wiringOf,
} from './scene'
import type { Cause, Expected, MatrixRow, Test } from './tests'

/** What has just run against pressure rests before it is fed again, minutes: as the check on compressors has it. */
export const restMin = 5

const hots = (need: CircuitNeed): [string, string] => (need.circuit.poles === 2 ? ['H', 'H2'] : ['H', 'N'])
const times = (need: CircuitNeed) => (need.circuit.poles === 2 ? 2 : 1)

/** A source may stand lower than a line does, V on a leg. */
const sourceVolts = (t: 1 | 2) =>
  expected('V', 110 * t, lineV.to * t, {
    formula: `${120 * t} V at the source, less the drop of the way`,
    tolerance: `${quantity(110 * t, 'V')} (the far outlet’s least) to ${quantity(lineV.to * t, 'V')}, ${ours}`,
    references: ['ANSI C84.1'],
    doubtFrom: 104 * t,
    doubtTo: lineV.doubtTo * t,
  })

/** The settings by which one circuit is alone on the source: what comes on then is its own. */
export const aloneOn = (p: Proof, need: CircuitNeed): Record<string, string> =>
  Object.fromEntries(
    p.served
      .filter(o => o !== need)
      .flatMap(o => Object.entries(byPlug(p) ? { [plugOf(o.circuit.id)]: 'house' } : offHandle(p, o))),
  )

/** The setting by which one circuit alone is off. */
function offHandle(p: Proof, need: CircuitNeed): Record<string, string> {
  if (need.place !== null && p.house.handles.some(h => h.id === `position ${need.place}`))
    return { [`position ${need.place}`]: 'off' }
  if (byPlug(p) && p.served.includes(need)) return { [plugOf(need.circuit.id)]: 'out' }
  return { [`breaker ${need.circuit.id}`]: 'off' }
}

export const runningLoads = (p: Proof, need: CircuitNeed): RunningLoad[] =>
  p.loads
    .filter(l => l.need.circuit.id === need.circuit.id)
    .map(({ load }) => ({ id: load.id, name: load.name, W: load.runningW.value, idleW: load.idleW.value }))

function causesOf(p: Proof, need: CircuitNeed): Cause[] {
  const { id } = need.circuit
  const name = named(need)
  const others =
    need.place === null
      ? []
      : p.served.filter(o => o !== need && o.place !== null && o.circuit.poles === need.circuit.poles)
  return [
    cause(
      `left-off:${id}`,
      need.place === null
        ? `A breaker of ${name} is off or tripped.`
        : `The breaker of position ${need.place} is off or tripped.`,
      'Find out why it tripped; then close it.',
    ),
    ...others.map(o =>
      cause(
        `leads-crossed:${[id, o.circuit.id].sort().join('+')}`,
        `The leads of ${name} and ${named(o)} are crossed at the switch.`,
        'Main off, prove dead; take the two splices apart and follow the position numbers on the leads.',
      ),
    ),
    ...(byPlug(p) ? [] : [wayLeftOff(p)]),
  ]
}

/** Every circuit by every supply; and what must stay dead is seen dead. */
export function matrixOf(p: Proof): { rows: MatrixRow[]; tests: Test[] } {
  if (!p.carried) return { rows: [], tests: [] }
  const reached = new Set(p.served.map(n => n.panel.id).concat(p.joined === 'no' ? [] : p.tied.id))
  const shown = p.needs.filter(
    n =>
      n.circuit.purpose === 'loads' &&
      !n.feeds &&
      (n.served || n.circuit.picked || (p.joined !== 'no' && reached.has(n.panel.id))),
  )
  const tests: Test[] = []
  const rows = shown.map((need): MatrixRow => {
    const { id } = need.circuit
    const serves = p.served.includes(need)
    const touched = need.circuit.picked
    const own = [
      ...(touched ? [onUtility(p, need), off(p, need)] : []),
      serves ? onSource(p, need) : staysDead(p, need),
    ]
    tests.push(...own)
    const by = (kind: string) => own.find(t => t.id === `${kind}:${id}`)?.id ?? null
    return {
      circuitId: id,
      name: named(need),
      tests: { utility: by('utility'), off: by('off'), source: by('watts') ?? by('dead') },
      sourceW: serves ? runningLoads(p, need).reduce((sum, l) => sum + l.W, 0) : null,
      compressor: need.circuit.loads.some(l => l.nature === 'compressor'),
    }
  })
  return { rows, tests }
}

const common = (need: CircuitNeed) => ({
  group: 'matrix' as const,
  circuitIds: [need.circuit.id],
  panelId: need.panel.id,
})

/** Volts at the last outlet of a circuit, by a meter or by a tester that loads it. */
const voltsOf = (need: CircuitNeed, by: 'volts' | 'tester', wants: Expected) =>
  asked('V', need.circuit.poles === 2 ? 'Between its hots' : 'Hot–N', 'V', by, farOf(need, hots(need)), wants)

const onUtility = (p: Proof, need: CircuitNeed): Test =>
  test(
    {
      ...common(need),
      id: `utility:${need.circuit.id}`,
      text: `${named(need)} on the utility`,
      setUp: setUp(p, 'utility', ['An ordinary day: on the utility, cord out.']),
      asks: [voltsOf(need, 'volts', inVolts(times(need)))],
      causes: causesOf(p, need).filter(c => !c.id.startsWith('left-off:way')),
    },
    wiringOf(need, p),
  )

const off = (p: Proof, need: CircuitNeed): Test =>
  test(
    {
      ...common(need),
      id: `off:${need.circuit.id}`,
      text: `${named(need)} off`,
      setUp: setUp(
        p,
        'utility',
        [
          need.place === null
            ? 'Its breaker off, everything else on.'
            : `Position ${need.place} in the middle, everything else on.`,
        ],
        { state: offHandle(p, need) },
      ),
      asks: [voltsOf(need, 'tester', noVolts)],
      causes: causesOf(p, need).filter(c => c.id.startsWith('leads')),
    },
    wiringOf(need, p),
  )

function onSource(p: Proof, need: CircuitNeed): Test {
  const loads = runningLoads(p, need)
  const compressor = need.circuit.loads.some(l => l.nature === 'compressor')
  const byNumber = need.place === null ? '' : `Position ${need.place} to the source`
  return test(
    {
      ...common(need),
      id: `watts:${need.circuit.id}`,
      text: `${named(need)} on the source`,
      lines: [
        ...(compressor
          ? [`It starts against pressure where it has just run: ${restMin} minutes of rest first.`]
          : []),
        'One circuit at a time: the watts by which the display rises, with what runs ticked.',
      ],
      setUp: setUp(
        p,
        'source',
        [
          byNumber
            ? `${byNumber}, every other one off.`
            : byPlug(p)
              ? 'Its plug into the source, alone.'
              : 'On the source, its breaker alone on.',
        ],
        { on: loads.map(l => l.id), state: aloneOn(p, need) },
      ),
      asks: [
        voltsOf(need, 'volts', sourceVolts(times(need))),
        ...(loads.length
          ? [
              asked('W', 'Watts as it comes on', 'W', 'display', {
                place: `draw ${need.circuit.id}`,
                at: 'at the unit’s display, before and after',
                points: ['W'],
              }),
            ]
          : []),
      ],
      together: loads.length ? [{ by: 'watts', key: 'W', loads }] : [],
      causes: causesOf(p, need),
      restsOn: ['legs'],
      restMin: compressor ? restMin : 0,
    },
    wiringOf(need, p),
  )
}

const staysDead = (p: Proof, need: CircuitNeed): Test =>
  test(
    {
      ...common(need),
      id: `dead:${need.circuit.id}`,
      text: `${named(need)} stays dead on the source`,
      setUp: setUp(p, 'source', ['As in an outage: everything that belongs on, on.']),
      asks: [voltsOf(need, 'tester', noVolts)],
      causes: [
        cause(
          `fed-too:${need.circuit.id}`,
          `${named(need)} hangs on a circuit that the source feeds: a splice joins the two.`,
          'Find the box where the two meet, and part them.',
        ),
      ],
    },
    wiringOf(need, p),
  )
