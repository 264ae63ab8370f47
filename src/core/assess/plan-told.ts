import type { Finding, Target } from '../checks/finding'
import { asPlanned } from '../job/as-planned'
import { changeText } from '../job/change-text'
import type { Job } from '../job/schema'
import { restsOn } from '../plan/apply'
import { changeId, changeKinds, circuitsOfChange, type PlannedChange } from '../plan/change'

/** A planned change as it is shown: what is done, in what turn, why, and what stands in its way. */
export interface ChangeTold extends Pick<PlannedChange, 'origin' | 'settles' | 'by' | 'on' | 'built'> {
  id: string
  kind: PlannedChange['kind']
  /** how it is marked, by shape and by word */
  sign: string
  word: string
  text: string
  circuitIds: string[]
  /** ids of changes that are done before it */
  restsOn: string[]
  /** why this house does not bear it; null where it does */
  hindered: string | null
}

/** A finding of the house as found that the plan cures. */
export interface Settled {
  finding: Finding
  /** ids of the changes that cure it */
  by: string[]
  text: string
  /** a hazard of the house as it stands today, whatever is connected to it: it stays until the change is built */
  today: boolean
}

/** The plan of a job, in the order in which it can be done. */
export function planTold(job: Job): ChangeTold[] {
  if (!job.planned.length) return []
  const rests = restsOn(job.panels, job.planned)
  const hindered = new Map(asPlanned(job).undone.map(u => [changeId(u.change), u.why]))
  const told = job.planned.map((change): ChangeTold => {
    const id = changeId(change)
    const { kind, origin, settles, by, on, built } = change
    return {
      id,
      kind,
      sign: changeKinds[kind].sign,
      word: changeKinds[kind].word,
      text: changeText(job, change),
      circuitIds: circuitsOfChange(change),
      restsOn: rests.get(id) ?? [],
      hindered: hindered.get(id) ?? null,
      origin,
      ...(settles !== undefined && { settles }),
      ...(by !== undefined && { by }),
      ...(on !== undefined && { on }),
      ...(built && { built }),
    }
  })
  return inOrder(told)
}

/** By turn, and each after what it rests on. */
function inOrder(told: readonly ChangeTold[]): ChangeTold[] {
  const waiting = [...told].sort((a, b) => changeKinds[a.kind].turn - changeKinds[b.kind].turn)
  const order: ChangeTold[] = []
  while (waiting.length) {
    const ready = waiting.findIndex(c => c.restsOn.every(id => !waiting.some(w => w.id === id)))
    order.push(...waiting.splice(Math.max(0, ready), 1))
  }
  return order
}

/** Checks that speak of the house itself, whatever is connected to it. */
const ofTheHouse: ReadonlySet<string> = new Set([
  'wire.small',
  'breaker.brand',
  'breaker.above-plate',
  'neutral.no-tie',
  'service.unbonded',
  'subpanel.bonded',
  'tandem.not-listed',
  'tandem.same-leg',
  'panel.bus',
  'working-space',
])

const about = (target: Target): string[] =>
  target.view === 'panel'
    ? target.circuitIds.length
      ? target.circuitIds
      : [target.panelId ?? '']
    : [target.field ?? '']

/** What stands against the house as found and no longer against it as planned, with the changes that cure it. */
export function settledBy(
  asFound: readonly Finding[],
  now: readonly Finding[],
  told: readonly ChangeTold[],
): Settled[] {
  return asFound
    .filter(f => !now.some(n => n.id === f.id && about(n.target).some(a => about(f.target).includes(a))))
    .map(finding => {
      // what was planned for it; else what is done to the same circuits; else everything that is done to the house
      const able = told.filter(c => c.hindered === null && c.kind !== 'lead' && c.kind !== 'notice')
      const touching = able.filter(c => c.circuitIds.some(id => about(finding.target).includes(id)))
      const [by = able] = [able.filter(c => c.settles === finding.key), touching].filter(l => l.length)
      return {
        finding,
        by: by.map(c => c.id),
        text: `settled by the plan: ${by.map(c => c.text).join('; ')}`,
        today: ofTheHouse.has(finding.id),
      }
    })
}
