import type { Evaluated } from '../assess/evaluated'
import { type CircuitNeed, coincidence, named, positionsOf, type ServedLoad } from '../assess/needs'
import { positionsThere } from '../assess/positions'
import type { Hookup } from '../hookup/design'
import { methodOf } from '../hookup/method'
import { breakerAt, commonTripAt, positionOf, wireProtectsAt } from '../hookup/position'
import { plural, quantity, together } from '../units/format'
import { conductorName } from '../units/tables/conductors'
import type { Fix, Said } from './finding'
import { movedCircuits } from './moved'

/** Positions of a transfer switch or a managed panel. */

const target = { view: 'hook-up', field: 'positions' } as const

/** The breaker of a position exchanged, as a plan; nothing where it does not go in there. */
function exchange(hookup: Hookup, n: CircuitNeed, breakerA: number): Fix[] {
  const { positions } = hookup
  const place = n.place
  const mostA = place === null ? 0 : (positionOf(hookup, place)?.mostA ?? 0)
  if (!positions || place === null || breakerA > mostA) return []
  const others = positions.filter(p => p.circuitId !== n.circuit.id)
  const own = positions.find(p => p.circuitId === n.circuit.id)
  return [
    {
      label: `Plan a ${breakerA} A breaker at position ${place}`,
      operations: [
        {
          op: 'setPositions',
          positions: [
            ...others,
            { pinned: false, ...own, position: place, circuitId: n.circuit.id, breakerA },
          ].sort((a, b) => a.position - b.position),
        },
      ],
    },
  ]
}

/** On the source only the breaker of the position protects a circuit: it must carry it, and its wire must bear it. */
export function positionLimit({ job, needs }: Evaluated): Said[] {
  if (!positionsOf(job)) return []
  const { hookup } = job
  return needs.flatMap((n): Said[] => {
    if (n.place === null || !n.circuit.picked) return []
    const { circuit, place } = n
    const standsA = breakerAt(hookup, place)
    if (standsA === null) return []
    const protects = positionOf(hookup, place)?.protects ?? false
    const wireA = wireProtectsAt(circuit)
    const wire = circuit.wire
      ? `whose ${conductorName(circuit.wire.size, circuit.wire.material)} is good for ${quantity(wireA, 'A')},`
      : `whose wire nobody looked at, so that no more than its ${quantity(wireA, 'A')} may be assumed,`
    if (circuit.breakerA > standsA)
      return [
        {
          id: 'position.limit',
          severity: 'stop',
          sentence: `${named(n)} on ${circuit.breakerA} A stands on position ${place}, which takes ${quantity(standsA, 'A')}.`,
          why: 'Its contact, lead and breaker are made for that much: it trips on what the circuit may draw, or it burns.',
          remedy:
            'Give it a heavier position: solve the positions again, trade two, or exchange the breaker where the switch takes one.',
          target,
          fixes: exchange(hookup, n, circuit.breakerA),
        },
      ]
    if (!protects || standsA <= wireA) return []
    return [
      {
        id: 'position.protects',
        severity: 'stop',
        sentence: `${named(n)}, ${wire} stands on position ${place} with a ${standsA} A breaker.`,
        why: 'On the source its breaker in the panel is out of the way: only that of the position protects the wire in the wall.',
        remedy: `A breaker of at most ${quantity(wireA, 'A')} at that position, or a position that has one.`,
        target,
        fixes: exchange(hookup, n, circuit.breakerA),
      },
    ]
  })
}

/** A two-pole with a common trip inside is one breaker: two circuits that are no pair need two singles. */
export function positionBridged({ job, needs }: Evaluated): Said[] {
  const { hookup } = job
  if (!positionsOf(job)) return []
  return needs.flatMap((a): Said[] => {
    const { place } = a
    if (place === null || place % 2 === 0 || a.circuit.poles === 2 || !commonTripAt(hookup, place)) return []
    const b = needs.find(n => n.place === place + 1)
    const planned = hookup.positions?.some(p => p.position === place && p.breakerA !== undefined)
    const pair = a.circuit.neutral.kind === 'shared' && a.circuit.neutral.with === b?.circuit.id
    if (!b || pair || planned) return []
    return [
      {
        id: 'position.bridged',
        severity: 'fix',
        sentence: `${named(a)} and ${named(b)} stand on positions ${place} and ${place + 1}, which are one breaker with a common trip inside.`,
        why: 'A fault on either darkens both, and it cannot be split by taking a tie off.',
        remedy: 'Plan two single breakers there, or put one of them elsewhere.',
        target,
        fixes: exchange(hookup, a, a.circuit.breakerA),
      },
    ]
  })
}

export function switchVolts({ job, needs }: Evaluated): Said[] {
  if (methodOf(job.hookup.method).transfer !== 'switch') return []
  const { switch: first, secondSwitch } = job.hookup
  return needs.flatMap((n): Said[] => {
    if (!n.circuit.picked || n.volts !== 240 || n.feeds) return []
    const which = n.place === null ? 'switch' : positionOf(job.hookup, n.place)?.device
    const device = which === 'secondSwitch' ? secondSwitch : first
    const elsewhere = n.place === null && secondSwitch?.volts === '120/240'
    if (device?.volts !== '120' || elsewhere) return []
    return [
      {
        id: 'switch.volts',
        severity: 'stop',
        sentence: `${named(n)} needs 240 V, and the ${device.name} is made for 120 V only.`,
        why: 'It would get one leg at most, and parts that are not made for what stands between its hots.',
        remedy: 'A switch for 120/240 V, or leave the circuit out.',
        target: { view: 'hook-up', field: 'switch' },
        fixes: [
          {
            label: `Drop ${named(n)}`,
            operations: [{ op: 'selectCircuit', circuitId: n.circuit.id, picked: false }],
          },
        ],
      },
    ]
  })
}

export function inputLimit({ job, needs, figures }: Evaluated): Said[] {
  const { switch: first, secondSwitch, managed } = job.hookup
  if (methodOf(job.hookup.method).serves !== 'positions') return []
  const devices = first
    ? [
        { which: 'switch' as const, device: first },
        ...(secondSwitch ? [{ which: 'secondSwitch' as const, device: secondSwitch }] : []),
      ]
    : managed
      ? [{ which: 'managed' as const, device: managed }]
      : []
  return devices.flatMap(({ which, device }): Said[] => {
    const on = secondSwitch
      ? figures.loads.filter(
          l =>
            l.need.place !== null &&
            needs.includes(l.need) &&
            positionOf(job.hookup, l.need.place)?.device === which,
        )
      : figures.loads
    const worst = Math.max(legVA(on, 'L1'), legVA(on, 'L2')) / 120
    if (worst <= device.inputA) return []
    return [
      {
        id: 'input.limit',
        severity: 'fix',
        sentence: `The positions of one leg carry ${quantity(worst, 'A')} together; the input of the ${device.name} takes ${quantity(device.inputA, 'A')}.`,
        why: 'Its input breaker opens, and every position goes dark.',
        remedy: 'Spread the circuits over both legs, leave one on the utility, or take a larger switch.',
        target,
        fixes: [],
      },
    ]
  })
}

const legVA = (loads: readonly ServedLoad[], leg: 'L1' | 'L2') => coincidence(loads, leg).VA

export function positionNone({ job, needs }: Evaluated): Said[] {
  const method = methodOf(job.hookup.method)
  const picked = needs.filter(n => n.circuit.picked && !n.feeds && n.feed !== 'not-fed')
  const most = Math.min(method.most ?? Infinity, positionsThere(job.hookup) ?? Infinity)
  const takes = picked.reduce((sum, n) => sum + n.circuit.poles, 0)
  const left = picked.filter(n => n.feed === 'no-position')
  const tooMany = method.serves === 'positions' && takes > most
  if (!left.length && !tooMany) return []
  const device = job.hookup.switch ?? job.hookup.managed
  return [
    {
      id: 'position.none',
      severity: left.some(n => n.circuit.tier === 1) ? 'stop' : 'fix',
      sentence: tooMany
        ? `${plural(picked.length, 'picked circuit')} need ${plural(takes, 'position')}; the ${device?.name ?? method.short.toLowerCase()} has ${most}.${left.length ? ` Without one: ${together(left.map(named))}.` : ''}`
        : `${together(left.map(named))} ${left.length > 1 ? 'are' : 'is'} picked and ${left.length > 1 ? 'stand' : 'stands'} on no position.`,
      why: 'What is on no position stays dark in the outage.',
      remedy: tooMany
        ? 'Drop circuits, or take a switch with more positions.'
        : 'Solve the positions again, or put it on a free one.',
      target,
      fixes: left.map(n => ({
        label: `Drop ${named(n)}`,
        operations: [{ op: 'selectCircuit' as const, circuitId: n.circuit.id, picked: false }],
      })),
    },
  ]
}

/** Aluminum is not joined to copper by what is made for copper. */
export function spliceMetals(evaluated: Evaluated): Said[] {
  const moved = movedCircuits(evaluated).filter(n => n.circuit.wire?.material === 'al')
  if (!moved.length) return []
  return [
    {
      id: 'splice.metals',
      severity: 'fix',
      sentence: `${together(moved.map(named))} ${moved.length > 1 ? 'are' : 'is'} wired in aluminum and would be spliced to the copper leads of what is planned.`,
      why: 'The two metals creep and corrode at a joint made for one of them: it heats inside the wall.',
      remedy:
        'Connectors listed for aluminum with copper, made up as their instructions say; put them on the parts list.',
      article: 'NEC 110.14',
      target: { view: 'panel', circuitIds: moved.map(n => n.circuit.id) },
      fixes: [],
    },
  ]
}
