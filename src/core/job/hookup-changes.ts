import { hookupDevices } from '../hookup/design'
import { methodOf } from '../hookup/method'
import { changeId, changeKinds, type PlannedChange, type Unplanned } from '../plan/change'
import { asPlanned } from './as-planned'
import { interceptingPanel, newPanelOf } from './new-panel'
import { circuitsOf, tiedPanel } from './panels'
import type { Job } from './schema'

/** The job with nothing planned but what people and findings want of it. */
export const withoutHookup = (job: Job): Job => {
  const planned = job.planned.filter(c => c.origin !== 'hook-up' && c.origin !== 'design')
  return planned.length === job.planned.length ? job : { ...job, planned }
}

/** What the hook-up of a job asks to be done to the house, beside what exists there already. */
function changesOfHookup(job: Job): PlannedChange[] {
  const { hookup, source } = job
  const about = methodOf(hookup.method)
  const exists = new Set(hookup.exists)
  const follows: Unplanned[] = []
  const house = asPlanned(withoutHookup(job)).job
  const made = newPanelOf(house)
  if (made) {
    follows.push(
      { kind: 'add', panelId: made.from.id, circuit: made.feeder },
      { kind: 'panel', panel: made.panel },
    )
    for (const places of made.landings) follows.push({ kind: 'land', places })
  }
  const between = interceptingPanel(house)
  if (between) follows.push({ kind: 'intercept', ...between })
  const tied = tiedPanel(job)
  // what cannot stand there is told once, by itself
  const bearable = tied.supply === 'service' ? null : between
  for (const device of hookupDevices) {
    const there = hookup[device]
    if (there && about.devices?.includes(device) && !exists.has(device))
      follows.push({ kind: 'mount', device, name: there.name })
  }
  if (about.devices?.includes('managed') && hookup.managed && !exists.has('managed'))
    follows.push({
      kind: 'mount',
      device: 'current transformers',
      name: `Current transformers of the ${hookup.managed.name}`.slice(0, 120),
    })
  if (about.neutral !== 'stand-alone' && about.neutral !== 'unknown' && source) {
    const inverter = source.units.find(u => u.equipment.kind === 'inverter' && !u.owned)
    if (inverter) follows.push({ kind: 'mount', device: 'inverter', name: inverter.equipment.name })
    if (source.autotransformer)
      follows.push({ kind: 'mount', device: 'transformer', name: source.autotransformer.name })
    if (source.combiner) follows.push({ kind: 'mount', device: 'combiner', name: source.combiner.name })
  }
  if (about.transfer === 'interlock' && hookup.backfed)
    follows.push({
      kind: 'backfeed',
      panelId: (made ?? bearable)?.panel.id ?? tied.id,
      ...hookup.backfed,
    })
  const circuits = new Map(circuitsOf(job).map(c => [c.id, c]))
  const neutral =
    hookup.neutrals === 'follow their hots'
      ? 'goes along'
      : hookup.neutrals === 'stay behind'
        ? 'stays'
        : 'not decided'
  if (about.serves === 'positions')
    for (const { position, circuitId, breakerA } of hookup.positions ?? []) {
      if (breakerA !== undefined) follows.push({ kind: 'position-breaker', position, breakerA })
      if (circuits.get(circuitId)?.picked) follows.push({ kind: 'lead', circuitId, position, neutral })
    }
  if (hookup.method === 'cord-and-plug')
    for (const circuit of circuits.values())
      for (const load of circuit.picked ? circuit.loads : [])
        if (load.connection === 'hard-wired')
          follows.push(
            { kind: 'cord', circuitId: circuit.id, loadId: load.id },
            { kind: 'receptacle', circuitId: circuit.id, what: `for the ${load.name}`.slice(0, 80) },
          )
  for (const run of hookup.runs ?? []) follows.push({ kind: 'run', runId: run.id, name: run.name })
  if (about.transfer === 'switch' || about.transfer === 'interlock' || about.transfer === 'automatic')
    follows.push({
      kind: 'notice',
      where: 'service equipment',
      text: 'type and place of the standby source (NEC 702.7(A))',
    })
  return follows
    .map(change => ({ ...change, origin: 'hook-up' as const }))
    .sort((a, b) => changeKinds[a.kind].turn - changeKinds[b.kind].turn)
}

/**
 * The job with the list of changes that its hook-up asks for, and no other of that origin: what no longer follows from it is gone,
 * unless it was built. The job itself where the list is right already.
 */
export function withHookupChanges(job: Job): Job {
  const follows = new Map(changesOfHookup(job).map(c => [changeId(c), c]))
  const kept = job.planned.flatMap((change): PlannedChange[] => {
    const id = changeId(change)
    const now = follows.get(id)
    follows.delete(id)
    if (change.origin !== 'hook-up' || change.built) return [change]
    return now ? [now] : []
  })
  const planned = [...kept, ...follows.values()]
  return JSON.stringify(planned) === JSON.stringify(job.planned) ? job : { ...job, planned }
}
