import { current, type Draft, isDraft } from 'immer'
import * as z from 'zod'
import { restsOn } from '../../plan/apply'
import { changeId } from '../../plan/change'
import { plural } from '../../units/format'
import type { Job } from '../schema'
import { doneIn, type Entry, entrySchema, workSchema } from '../work-log'
import { operation } from './operation'

/** What the field writes down, in the order in which it comes. */

/**
 * What is done makes built what it says, once every task of it is done and what comes first is built; what is taken back makes it unbuilt again, and what
 * rests on it. Told anew after every entry, so that what two people finished apart comes out the same.
 */
function build(draft: Draft<Job>, came: readonly Entry[]) {
  const job = isDraft(draft) ? current(draft) : draft
  const log = job.work?.log ?? []
  const done = doneIn(log)
  const rests = restsOn(job.panels, job.planned)
  const built = new Set(job.planned.filter(c => c.built).map(changeId))
  const ends = log.filter(e => e.kind === 'done')
  const makes = ends.flatMap(e => e.builds ?? [])
  const back = new Set(came.flatMap(e => (e.kind === 'taken back' ? [e.task] : [])))
  for (const { change, needs } of makes)
    if (needs.some(n => back.has(n) && !done.has(n))) built.delete(change)
  const facts = new Map<string, NonNullable<Job['planned'][number]['built']>>()
  for (let grew = true; grew; ) {
    grew = false
    for (const { change, needs } of makes) {
      if (built.has(change) || !needs.every(n => done.has(n)) || !rests.has(change)) continue
      if (rests.get(change)?.some(id => !built.has(id))) continue
      built.add(change)
      // by whom it was finished; what was done otherwise at any of its tasks
      const of = ends.filter(e => needs.includes(e.task))
      const last = of.at(-1)
      const otherwise = of.flatMap(e => e.otherwise ?? []).join('; ')
      if (last)
        facts.set(change, {
          by: last.by,
          on: last.on,
          ...(otherwise && { otherwise: otherwise.slice(0, 200) }),
        })
      grew = true
    }
  }
  for (const change of draft.planned) {
    const id = changeId(current(change))
    const of = facts.get(id)
    if (!built.has(id)) delete change.built
    else if (!change.built && of) change.built = of
  }
}

const said: Record<Entry['kind'], string> = {
  began: 'began',
  'put down': 'put down',
  done: 'did',
  'taken back': 'took back',
  evidence: 'wrote down at',
  skipped: 'went on without',
  note: 'noted at',
}

export const fieldOperations = {
  /** what is there already, by its id, is not written twice */
  recordWork: operation(
    'recordWork',
    {
      entries: z.array(entrySchema).min(1, 'must hold an entry').max(400, 'must hold at most 400 entries'),
      /** the task in words, for the history */
      about: workSchema.shape.log.element.options[0].shape.task,
    },
    {
      apply:
        ({ entries }) =>
        draft => {
          const known = new Set(draft.work?.log.map(e => e.id))
          const came = entries.filter(
            (e, n) => !known.has(e.id) && entries.findIndex(o => o.id === e.id) === n,
          )
          if (!came.length) return
          draft.work = { ...draft.work, log: [...(draft.work?.log ?? []), ...came] }
          if (came.some(e => e.kind === 'done' || e.kind === 'taken back')) build(draft, came)
        },
      describe: (_, { entries, about }) => {
        const [first] = entries
        return entries.length === 1 && first
          ? `${said[first.kind]} ${about}`
          : `wrote down ${plural(entries.length, 'entry', 'entries')} of the work: ${about}`
      },
    },
  ),
  /** labels and notices that were printed, as they read: those are printed anew only when they read otherwise */
  recordPrinted: operation(
    'recordPrinted',
    { printed: workSchema.shape.printed.unwrap().min(1, 'must hold a label') },
    {
      apply:
        ({ printed }) =>
        draft => {
          const now = new Map(printed.map(p => [p.id, p]))
          const kept = (draft.work?.printed ?? []).filter(p => !now.has(p.id))
          draft.work = { ...draft.work, log: draft.work?.log ?? [], printed: [...kept, ...now.values()] }
        },
      describe: (_, { printed }) => `printed ${plural(printed.length, 'label')}`,
    },
  ),
  /** the order as somebody put it; empty: as it is computed */
  orderWork: operation(
    'orderWork',
    { order: workSchema.shape.order.unwrap() },
    {
      apply:
        ({ order }) =>
        draft => {
          const { order: _, ...work } = draft.work ?? { log: [] }
          draft.work = order.length ? { ...work, order } : work
        },
      describe: (_, { order }) =>
        order.length
          ? 'put the tasks of the work in another order'
          : 'put the tasks of the work back into their computed order',
    },
  ),
}
