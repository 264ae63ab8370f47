import { methodOf } from '../hookup/method'
import { positionLimitA, positionsThere } from '../hookup/positions'
import type { Evaluated } from '../job/evaluated'
import { named, positionsOf } from '../job/needs'
import { plural, quantity, together } from '../units/format'
import type { Said } from './finding'

/** Positions of a transfer switch or a managed panel. */

const target = { view: 'hook-up', field: 'positions' } as const

export function positionLimit({ job, needs }: Evaluated): Said[] {
  if (!positionsOf(job)) return []
  return needs.flatMap((n): Said[] => {
    if (n.place === null || !n.circuit.picked) return []
    const limitA = positionLimitA(job.hookup, n.place)
    if (limitA === null || n.circuit.breakerA <= limitA) return []
    return [
      {
        id: 'position.limit',
        severity: 'fix',
        sentence: `${named(n)} on ${n.circuit.breakerA} A stands on position ${n.place}, which takes ${quantity(limitA, 'A')}.`,
        why: 'The switch’s contact and lead are made for that much; its own breaker trips, or it burns.',
        remedy: 'Give it a heavier position: solve the positions again, or trade two.',
        target,
        fixes: [],
      },
    ]
  })
}

export function inputLimit({ job, figures }: Evaluated): Said[] {
  const device = job.hookup.switch ?? job.hookup.managed
  if (!device || methodOf(job.hookup.method).serves !== 'positions') return []
  const worst = Math.max(figures.together.L1.VA, figures.together.L2.VA) / 120
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
}

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
