import type { Evaluated } from '../assess/evaluated'
import { methodOf } from '../hookup/method'
import { neutralOf } from '../hookup/neutral-of'
import type { SimpleOperation } from '../job/operations'
import { placeText, tiedPanel } from '../job/panels'
import { besideMain } from '../panel/room'
import { quantity, together } from '../units/format'
import type { Said } from './finding'

/** The interlock, the backfed breaker, the cord. */

const target = (field: string) => ({ view: 'hook-up', field }) as const
const set = (facts: Extract<SimpleOperation, { op: 'setHookup' }>['facts']): SimpleOperation[] => [
  { op: 'setHookup', facts },
]

export function interlockWrongSpace({ job }: Evaluated): Said[] {
  const { backfed, method } = job.hookup
  const panel = tiedPanel(job)
  if (!methodOf(method).besideMain || backfed?.space === undefined) return []
  const right = besideMain(panel)
  if (right.includes(backfed.space)) return []
  const at = (space: number) => placeText(job, panel, { position: space, poles: 2 })
  const free = right.find(space => [space, space + 2].every(s => !panel.circuits.some(c => c.position === s)))
  return [
    {
      id: 'interlock.wrong-space',
      severity: 'stop',
      sentence: `The backfed breaker is planned at ${at(backfed.space)}, but the main of ${panel.name} stands at the other end: the interlock acts only at ${together(right.map(at))}.`,
      why: 'A plate that does not reach both handles keeps nobody from closing both.',
      remedy: `Put the backfed breaker at ${at(free ?? right[0] ?? 1)}, beside the main.`,
      target: target('backfed'),
      fixes:
        free === undefined
          ? []
          : [{ label: `Plan it at ${at(free)}`, operations: set({ backfed: { ...backfed, space: free } }) }],
    },
  ]
}

export function interlockNotListed({ job }: Evaluated): Said[] {
  const { interlock, method } = job.hookup
  if (methodOf(method).transfer !== 'interlock' || !interlock) return []
  const panel = tiedPanel(job)
  const foreign = panel.series !== '' && !interlock.fits.includes(panel.series)
  if (!foreign && interlock.listed) return []
  return [
    {
      id: 'interlock.not-listed',
      severity: 'fix',
      sentence: foreign
        ? `The ${interlock.name} is made for ${together(interlock.fits)}; ${panel.name} is a ${panel.series}.`
        : `The ${interlock.name} is not listed for this use.`,
      why: 'An interlock holds because it was tested with that cover, that main and that breaker.',
      remedy: 'Take the part that the panel’s sticker lists, or another hook-up.',
      target: target('interlock'),
      fixes: [
        {
          label: `Take the ${interlock.name} out of the plan`,
          operations: [{ op: 'setHookup', facts: {}, clear: ['interlock'] }],
        },
      ],
    },
  ]
}

/** A plate needs a main to lock against; which part it is, and what it takes, has to be known. */
export function interlockPlanned({ job }: Evaluated): Said[] {
  const { method, interlock } = job.hookup
  if (methodOf(method).transfer !== 'interlock') return []
  const panel = tiedPanel(job)
  const found: Said[] = []
  if (panel.mainA === undefined)
    found.push({
      id: 'interlock.no-main',
      severity: 'stop',
      sentence: `${panel.name} has no main breaker: there is nothing for the interlock to hold against the backfed one.`,
      why: 'The feed stays on whatever the plate does, and the source meets the utility.',
      remedy: 'A main breaker in this panel, an interlock at the panel that feeds it, or a transfer switch.',
      target: { view: 'panel', circuitIds: [], panelId: panel.id },
      fixes: [],
    })
  if (!interlock)
    found.push({
      id: 'interlock.missing',
      severity: 'ask',
      sentence: `An interlock is planned in ${panel.name}, and which part it is is not said.`,
      why: 'Only the part that was made for this cover, this main and this breaker holds.',
      remedy: 'Read the panel’s sticker for the interlock that it lists, and choose it.',
      target: target('interlock'),
      fixes: [],
    })
  return found
}

/** What the backfed breaker may be at most, by the part that takes least. */
export function interlockLimit({ job }: Evaluated): Said[] {
  const { method, interlock, inlet, backfed, path = [] } = job.hookup
  if (methodOf(method).transfer !== 'interlock' || !backfed) return []
  const takes = [
    ...(interlock ? [{ name: interlock.name, A: interlock.mostBreakerA }] : []),
    ...(inlet ? [{ name: inlet.name, A: inlet.ratingA }] : []),
    ...path
      .filter(l => l.kind === 'wire' || l.kind === 'inlet')
      .map(l => ({ name: l.name || l.kind, A: l.ratingA })),
  ]
  const [least] = takes.sort((a, b) => a.A - b.A)
  if (!least || backfed.breakerA <= least.A) return []
  return [
    {
      id: 'interlock.limit',
      severity: 'stop',
      sentence: `The backfed breaker is ${backfed.breakerA} A; the ${least.name} takes ${quantity(least.A, 'A')}.`,
      why: 'From the panel’s side that breaker is all that protects what stands behind it.',
      remedy: `A backfed breaker of at most ${quantity(least.A, 'A')}, or heavier parts all the way.`,
      target: target('backfed'),
      fixes: [
        {
          label: `Plan a ${least.A} A breaker`,
          operations: set({ backfed: { ...backfed, breakerA: least.A } }),
        },
      ],
    },
  ]
}

export function backfeedNoHoldDown({ job }: Evaluated): Said[] {
  const { backfed, method } = job.hookup
  if (methodOf(method).transfer !== 'interlock' || !backfed || backfed.heldDown) return []
  return [
    {
      id: 'backfeed.no-hold-down',
      severity: 'fix',
      sentence: `The backfed ${backfed.breakerA} A breaker in ${tiedPanel(job).name} is a plug-in one without its hold-down.`,
      why: 'Pulled off the bus, its stabs are live from the source side.',
      remedy: 'Fit the hold-down kit that the panel’s maker lists for it.',
      target: target('backfed'),
      fixes: [{ label: 'Plan the hold-down', operations: set({ backfed: { ...backfed, heldDown: true } }) }],
    },
  ]
}

export function cordPermanent({ job }: Evaluated): Said[] {
  if (!job.hookup.fixedCord) return []
  return [
    {
      id: 'cord.permanent',
      severity: 'fix',
      sentence: 'A flexible cord is fastened, or runs through a wall, as if it were fixed wiring.',
      why: 'Hidden or pinched, its jacket fails where nobody sees it.',
      remedy:
        'Wire from an inlet in a wiring method for buildings; the cord only joins the source to the inlet.',
      target: target('cord'),
      fixes: [{ label: 'Plan the cord as portable', operations: set({ fixedCord: false }) }],
    },
  ]
}

export function groundInterrupted({ job }: Evaluated): Said[] {
  const { ground, path } = job.hookup
  const unsaid = ground === undefined && (path?.length ?? 0) > 0 && neutralOf(job) !== 'stand-alone'
  if (ground === 'unknown' || unsaid)
    return [
      {
        id: 'ground.unknown',
        severity: 'ask',
        sentence:
          'Whether the equipment ground runs through the whole path from the source to the panel is not known.',
        why: 'Where it ends, a fault to metal finds no way back, and no breaker opens.',
        remedy:
          'Everything off and unplugged: measure ohms from the frame of the source to the ground bar of the panel.',
        article: 'NEC 250.118, 250.124',
        target: target('ground'),
        fixes: [],
      },
    ]
  if (job.hookup.ground !== 'interrupted') return []
  return [
    {
      id: 'ground.interrupted',
      severity: 'stop',
      sentence: 'The equipment ground does not run through the whole path from the source to the panel.',
      why: 'A fault to metal then finds no way back, and no breaker opens. That the ground is “connected elsewhere” does not help: it must follow its hots.',
      remedy:
        'Carry the equipment ground unbroken through cord, inlet, raceway and switch, bonded to each box.',
      target: target('ground'),
      fixes: [{ label: 'Plan it continuous', operations: set({ ground: 'continuous' }) }],
    },
  ]
}
