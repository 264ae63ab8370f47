import { houseOfJob } from '../isolation/house'
import { liveWith } from '../isolation/live'
import type { Job } from '../job/schema'
import { changeId } from '../plan/change'
import { type Line, oneLineOf, type Part } from '../work/one-line'
import type { Window } from './task'

/** How much of a part of the one-line is live. Null: the model does not know it, or it is joined to nothing yet; then nothing is said of it. */
export type Fill = 'full' | 'half' | 'dry' | null
export interface Water {
  parts: Record<string, Fill>
  /** by line, in the order of the diagram */
  lines: Fill[]
}

/** The one-line filled with what is live, as the house stands: with these windows open, and with what is built of the plan. */
export function waterOf(job: Job, windows: readonly Window[], open: readonly string[]): Water {
  const done = new Set(job.planned.filter(c => c.built).map(changeId))
  const house = houseOfJob(job, done)
  const handles = new Set(
    windows.filter(w => open.includes(w.id)).flatMap(w => [...w.opened, ...w.keptOpen].map(o => o.id)),
  )
  const live = liveWith(house, handles)
  const of = (...ids: string[]): Fill => {
    const there = ids.filter(id => house.places.some(p => p.id === id))
    const full = there.filter(id => live.has(id))
    if (!there.length) return null
    return full.length === 0 ? 'dry' : full.length === there.length ? 'full' : 'half'
  }
  const { parts, lines } = oneLineOf(job)
  const circuits = (panelId: string, picked: boolean) =>
    job.panels
      .find(p => p.id === panelId)
      ?.circuits.filter(c => c.picked === picked)
      .map(c => `circuit ${c.id}`) ?? []
  const fillOf = (part: Part): Fill => {
    const [, id = ''] = /^[a-z]+-(.+)$/.exec(part.id) ?? []
    switch (part.kind) {
      case 'utility':
      case 'meter':
        return of('service')
      case 'panel':
        return of(`line ${id}`, `bus ${id}`)
      case 'inlet':
        return of('inlet')
      case 'switch':
        return of('switch in', ...house.places.filter(p => p.id.startsWith('load ')).map(p => p.id))
      case 'interlock':
      case 'breaker':
        return of('inlet')
      case 'inverter':
        return part.id === 'transfer' ? of('inverter in', 'inverter out') : of(`out ${id}`)
      case 'unit':
        return of(`cells ${id}`, `out ${id}`)
      case 'bank':
        return of(`cells ${id}`)
      case 'solar':
        return of(`circuit ${id}`)
      case 'loads':
        return part.id === 'switched'
          ? of(...house.places.filter(p => p.id.startsWith('load ')).map(p => p.id))
          : of(...circuits(id, part.id.startsWith('picked')))
      default:
        return null
    }
  }
  const fills = Object.fromEntries(parts.map(p => [p.id, fillOf(p)]))
  const fillOfLine = ({ from, to }: Line): Fill => {
    const into = parts.find(p => p.id === to)
    const panelId = to.startsWith('panel-') ? to.slice('panel-'.length) : null
    // what feeds a panel is as live as the panel’s line side
    if (panelId !== null) return of(`line ${panelId}`)
    if (into?.kind === 'solar' || into?.kind === 'loads') return fills[to] ?? null
    // the transfer is as live on that side as what comes to it
    if (to === 'transfer' && from.startsWith('panel-')) return of(`bus ${from.slice('panel-'.length)}`)
    if (to === 'transfer' && from === 'meter') return of('service')
    const ends = [fills[from] ?? null, fills[to] ?? null]
    return ends.includes(null) ? null : ends.includes('dry') ? 'dry' : 'full'
  }
  return { parts: fills, lines: lines.map(fillOfLine) }
}
