import { current, type Draft, isDraft } from 'immer'
import * as z from 'zod'
import { type Fault, fault } from '../../outcome'
import { bodyOf } from '../../panel/body'
import { moved } from '../../panel/move'
import { restsOn, withChanges, withFollowers } from '../../plan/apply'
import { changeId, changeSchema, type Place, type PlannedChange } from '../../plan/change'
import { isMove, withSmallestMoves } from '../../plan/placement'
import { line } from '../../quantity'
import { asPlanned } from '../as-planned'
import { changeText } from '../change-text'
import { circuitOf, placeText } from '../panels'
import type { Job } from '../schema'
import { idSchema, operation } from './operation'
import { circuitName } from './reach'

/** What somebody will do to the house. The survey stays as it is. */

const whole = (job: Draft<Job>): Job => (isDraft(job) ? current(job) : job)

/** The list with a change for the same thing in place of the one there was, else at its end. */
function withChange(planned: readonly PlannedChange[], change: PlannedChange): PlannedChange[] {
  const id = changeId(change)
  return planned.some(c => changeId(c) === id)
    ? planned.map(c => (changeId(c) === id ? change : c))
    : [...planned, change]
}

/** Takes the list over where the house bears every change of it that it bore before, and every new one. */
function plan(job: Draft<Job>, now: Job, planned: PlannedChange[]): Fault[] | void {
  // what is built stands; it is found by the next visit, and planned from there
  const altered = now.planned.find(c => c.built && !planned.includes(c))
  if (altered) return [fault('planned', `is built already: ${changeText(now, altered)}`)]
  const before = new Set(asPlanned(now).undone.map(u => changeId(u.change)))
  const refused = withChanges(now.panels, planned).undone.find(u => !before.has(changeId(u.change)))
  if (refused) {
    const why = refused.against ? `it is planned as well: ${changeText(now, refused.against)}` : refused.why
    return [fault('planned', `cannot be: ${changeText({ ...now, planned }, refused.change)}: ${why}`)]
  }
  job.planned = planned
}

/** Where circuits end when one is moved in the house as planned, or why it cannot be. */
function placesAfter(
  house: Job,
  circuitId: string,
  toPosition: number,
  toPanelId: string | undefined,
): Place[] | string {
  const at = circuitOf(house, circuitId)
  if (!at) return `no longer hold the circuit ${circuitId}`
  const { panel, circuit } = at
  if (toPanelId === undefined || toPanelId === panel.id) {
    const move = moved(panel, circuit, toPosition)
    return move.ok
      ? [...move.places].map(([id, place]) => ({ circuitId: id, panelId: panel.id, ...withHalf(place) }))
      : move.why
  }
  const to = house.panels.find(p => p.id === toPanelId)
  if (!to) return `no longer hold the panel ${toPanelId}`
  if (to.feederId === circuitId) return 'cannot take the breaker that feeds this very panel'
  const body = bodyOf(panel.circuits, circuit)
  const left = body.find(({ neutral }) => neutral.kind === 'shared' && !body.some(o => o.id === neutral.with))
  if (left)
    return `cannot part ${left.label || 'the circuit'} from the circuit that shares its neutral: tie the two, and they move together`
  const shift = toPosition - circuit.position
  return body.map(c => ({
    circuitId: c.id,
    panelId: toPanelId,
    ...withHalf({ position: c.position + shift, half: c.half }),
  }))
}

/** Pins where a circuit lands in its new panel, with the other hot of its neutral; what was pinned there trades places with it. */
function pin(
  draft: Draft<Job>,
  job: Job,
  together: readonly Place[],
  circuitId: string,
  toPosition: number,
  toPanelId: string | undefined,
): Fault[] | void {
  const here = together.find(p => p.circuitId === circuitId)
  const panel = asPlanned(job).job.panels.find(p => p.id === here?.panelId)
  if (!here || !panel || (toPanelId !== undefined && toPanelId !== panel.id))
    return [fault('panels', 'moves to the new panel by the hook-up: drop it from what is picked to leave it')]
  const shift = toPosition - here.position
  const ends = new Map(together.map(p => [p.circuitId, p.position + shift]))
  const off = [...ends.values()].find(p => p < 1 || p > panel.spaces)
  if (off !== undefined) return [fault('panels', `has no space ${off} in a panel of ${panel.spaces}`)]
  const landings = (job.hookup.landings ?? []).filter(l => !ends.has(l.circuitId))
  const taken = new Map([...ends].map(([, position], n) => [position, together[n]?.position ?? position]))
  draft.hookup.landings = [
    ...landings.map(l => ({ ...l, position: taken.get(l.position) ?? l.position })),
    ...[...ends].map(([id, position]) => ({ circuitId: id, position, pinned: true })),
  ]
}

const withHalf = ({ position, half }: { position: number; half?: 'a' | 'b' | undefined }) => ({
  position,
  ...(half && { half }),
})

const named = (job: Job, id: string) => {
  const change = job.planned.find(c => changeId(c) === id)
  return change ? changeText(job, change) : 'a change that is gone'
}

export const planOperations = {
  planMove: operation(
    'planMove',
    {
      circuitId: idSchema,
      toPosition: z.int(),
      /** to another panel: with its wire, and whatever comes out with it */
      toPanelId: idSchema.optional(),
    },
    {
      apply:
        ({ circuitId, toPosition, toPanelId }) =>
        draft => {
          const job = whole(draft)
          const lands = job.planned.find(
            c => c.kind === 'land' && c.places.some(p => p.circuitId === circuitId),
          )
          if (lands?.kind === 'land') return pin(draft, job, lands.places, circuitId, toPosition, toPanelId)
          const places = placesAfter(asPlanned(job).job, circuitId, toPosition, toPanelId)
          if (typeof places === 'string') return [fault('panels', places)]
          // a breaker that is itself planned is planned elsewhere
          const added = new Set(job.planned.flatMap(c => (c.kind === 'add' ? [c.circuit.id] : [])))
          const list = job.planned.map(c => {
            const place = c.kind === 'add' ? places.find(p => p.circuitId === c.circuit.id) : undefined
            if (c.kind !== 'add' || !place) return c
            return { ...c, panelId: place.panelId, circuit: { ...c.circuit, ...withHalf(place) } }
          })
          const stood = places.filter(p => !added.has(p.circuitId))
          return plan(draft, job, withSmallestMoves(job.panels, list, stood))
        },
      describe: (before, { circuitId, toPosition, toPanelId }) => {
        const house = asPlanned(before).job
        const found = circuitOf(house, circuitId)
        const panel = house.panels.find(p => p.id === toPanelId) ?? found?.panel
        const to =
          panel && found ? placeText(house, panel, { ...found.circuit, position: toPosition }) : toPosition
        return `planned to move ${circuitName(house, circuitId)} to ${to}`
      },
    },
  ),
  planChange: operation(
    'planChange',
    { change: changeSchema },
    {
      apply:
        ({ change }) =>
        draft => {
          const job = whole(draft)
          if (isMove(change))
            return [fault('planned', 'takes a move by planMove, which sees what trades places')]
          const was = job.planned.find(c => changeId(c) === changeId(change))
          if (was?.built) return [fault('planned', 'is built already: record what was done otherwise')]
          return plan(draft, job, withSmallestMoves(job.panels, withChange(job.planned, change)))
        },
      describe: (before, { change }) =>
        `planned: ${changeText({ ...before, planned: withChange(before.planned, change) }, change)}`,
    },
  ),
  /** done on site: it can be only when what it rests on is */
  recordBuilt: operation(
    'recordBuilt',
    { id: line(200), built: changeSchema.options[0].shape.built.unwrap() },
    {
      apply:
        ({ id, built }) =>
        draft => {
          const job = whole(draft)
          const change = draft.planned.find(c => changeId(c) === id)
          if (!change) return [fault('planned', 'no longer holds that change')]
          const ahead = restsOn(job.panels, job.planned).get(id) ?? []
          const open = job.planned.find(c => !c.built && ahead.includes(changeId(c)))
          if (open) return [fault('planned', `is not done yet, and comes first: ${changeText(job, open)}`)]
          change.built = built
        },
      describe: (before, { id }) => `built: ${named(before, id)}`,
    },
  ),
  withdrawBuilt: operation(
    'withdrawBuilt',
    { id: line(200) },
    {
      apply:
        ({ id }) =>
        draft => {
          const job = whole(draft)
          const change = draft.planned.find(c => changeId(c) === id)
          if (!change?.built) return [fault('planned', 'does not hold that change as built')]
          const after = withFollowers(job.panels, job.planned, [id])
          const other = job.planned.find(c => c.built && changeId(c) !== id && after.has(changeId(c)))
          if (other) return [fault('planned', `rests on it, and is built: ${changeText(job, other)}`)]
          delete change.built
        },
      describe: (before, { id }) => `not built after all: ${named(before, id)}`,
    },
  ),
  /** takes changes back, with every other that rests on them */
  dropChanges: operation(
    'dropChanges',
    { ids: z.array(line(200)).min(1, 'must name a change').max(300) },
    {
      apply:
        ({ ids }) =>
        draft => {
          const job = whole(draft)
          const going = withFollowers(job.panels, job.planned, ids)
          const dropped = job.planned.filter(c => going.has(changeId(c)))
          if (!dropped.length) return [fault('planned', 'no longer holds that change')]
          const built = dropped.find(c => c.built)
          if (built) return [fault('planned', `is built already: ${changeText(job, built)}`)]
          const follows = dropped.find(c => c.origin === 'hook-up' && ids.includes(changeId(c)))
          if (follows)
            return [
              fault(
                'planned',
                `follows from the hook-up: ${changeText(job, follows)}. Change the hook-up instead`,
              ),
            ]
          draft.planned = withSmallestMoves(
            job.panels,
            job.planned.filter(c => !going.has(changeId(c))),
          )
        },
      describe: (before, { ids }) => {
        const [first, ...more] = before.planned.filter(c => ids.includes(changeId(c)))
        return `no longer planned: ${first ? changeText(before, first) : 'a change'}${more.length ? ` and ${more.length} more` : ''}`
      },
    },
  ),
}
