import { houseOfJob } from '../isolation/house'
import type { Picture } from '../isolation/work'
import { asPlanned, standing, unbuilt } from '../job/as-planned'
import { changeText } from '../job/change-text'
import type { Job } from '../job/schema'
import { ofTests } from '../job/test-log'
import { restsOn } from '../plan/apply'
import { changeId } from '../plan/change'
import { partsOfJob } from '../work/parts'
import { kindsOfWork, type Minutes } from '../work/parts/tasks'
import { wiringPlan } from '../work/wiring'
import type { Drafted, Scene } from './draft'
import { tasksOfChanges } from './of-changes'
import { tasksOfWiring } from './of-wiring'
import { arriving, ending, inWindow, remarked, type WindowMade } from './steps'
import { phases, type Task, type WorkOrder } from './task'
import { namedDark, offFor, onTheBench, waitingFor, windowsOf } from './windows'

const turnOf = (t: Pick<Drafted, 'phase'>) => phases[t.phase].turn

/**
 * Minutes of tasks one after the other: the first of its kind takes longer; of a row that several tasks share each has its part, the first window the first of it;
 * splices are counted beside it.
 */
function timed(tasks: readonly Drafted[], own: Minutes): Map<string, number> {
  const row = (work: Drafted['work']) => own.find(o => o.work === work) ?? kindsOfWork[work]
  const firsts = new Map<string, string>()
  return new Map(
    tasks.map(t => {
      const { firstMin, eachMin } = row(t.work)
      const tugs = t.work === 'splice' ? 0 : t.holds.filter(h => h.kind === 'tug').length
      // a row that is shared is shared within its window, or before all of them
      const group = t.share < 1 ? `${t.window}` : t.id
      const first = firsts.get(t.work) ?? group
      firsts.set(t.work, first)
      const whole = t.count > 0 ? (first === group ? firstMin : eachMin) + eachMin * (t.count - 1) : 0
      return [t.id, Math.max(1, Math.round(whole * t.share + tugs * row('splice').eachMin))]
    }),
  )
}

/** Each as early as its turn has it, after all that it rests on. */
function inOrder<T extends { id: string; restsOn: readonly string[] }>(
  tasks: readonly T[],
  turn: (t: T) => number,
): T[] {
  const waiting = [...tasks].sort((a, b) => turn(a) - turn(b))
  const left = new Set(tasks.map(t => t.id))
  const order: T[] = []
  while (waiting.length) {
    const ready = waiting.findIndex(t => !t.restsOn.some(id => left.has(id)))
    const [t] = waiting.splice(Math.max(0, ready), 1)
    if (!t) break
    left.delete(t.id)
    order.push(t)
  }
  return order
}

/**
 * What one change rests on in the plan, its tasks rest on in the order; a later phase never comes before an earlier one for it, and what is connected to nothing
 * yet waits for nobody.
 */
function chained({ job }: Scene, tasks: readonly Drafted[], bench: ReadonlySet<string>): Drafted[] {
  const ahead = restsOn(job.panels, job.planned)
  const hands = tasks.filter(t => t.metal.length && !bench.has(t.id))
  return tasks.map(t => {
    if (!hands.includes(t)) return t
    const before = new Set(t.changes.flatMap(c => ahead.get(c) ?? []).filter(c => !t.changes.includes(c)))
    const on = hands.filter(o => o !== t && turnOf(o) <= turnOf(t) && o.changes.some(c => before.has(c)))
    return { ...t, restsOn: [...new Set([...t.restsOn, ...on.map(o => o.id)])] }
  })
}

/** Hands work in this order inside a window: ground before neutral before hots. */
const wireTurns: readonly Drafted['phase'][] = ['enter', 'ground', 'neutral', 'hots']

function linked(zones: readonly (readonly Drafted[])[]): Drafted[] {
  const all: Drafted[] = []
  let before: readonly Drafted[] = []
  for (const zone of zones) {
    const on = (t: Drafted): string[] => {
      const [isolate, prove] = [zone.find(o => o.phase === 'isolate'), zone.find(o => o.phase === 'prove')]
      const hands = zone.filter(o => turnOf(o) > phases.prove.turn && turnOf(o) < phases.close.turn)
      switch (t.phase) {
        case 'prove':
          return isolate ? [isolate.id] : []
        case 'close':
          return [...(prove ? [prove.id] : []), ...hands.map(o => o.id)]
        case 'energise':
          return zone.filter(o => o.phase === 'close').map(o => o.id)
        case 'isolate':
          return before.map(o => o.id)
        default: {
          if (!isolate) return before.map(o => o.id)
          const wire = wireTurns.indexOf(t.phase)
          const thinner = wire < 0 ? [] : hands.filter(o => wireTurns.slice(1, wire).includes(o.phase))
          return [...(prove ? [prove.id] : []), ...thinner.map(o => o.id)]
        }
      }
    }
    all.push(...zone.map(t => ({ ...t, restsOn: [...new Set([...t.restsOn, ...on(t)])] })))
    // who comes after a window comes after its power is back
    before = zone.some(o => o.phase === 'energise')
      ? zone.filter(o => o.phase === 'energise')
      : zone.length
        ? zone
        : before
  }
  return all
}

/** The computed order with those that somebody put elsewhere there, as far as what they rest on lets them. */
function asPut<T extends Drafted>(computed: readonly T[], byHand: readonly string[]): T[] {
  if (!byHand.length) return [...computed]
  const at = new Map(byHand.map((id, n) => [id, n]))
  const turns = new Map<string, number>()
  let last = -1
  // what nobody put comes after what it came after
  for (const t of computed) {
    last = at.get(t.id) ?? last + 1e-3
    turns.set(t.id, last)
  }
  return inOrder(computed, t => turns.get(t.id) ?? 0)
}

/**
 * The order of work of a job: from arriving to the tests, computed from what is planned, its wiring and what can make the house live. What needs no power off is done first;
 * then one window of power off after another. A task rests on what must be done before it; by hand the order changes only within that. Minutes.
 *
 * @param own the firm’s minutes by kind of work; ours where it has none
 */
export function workOrder(found: Job, own: Minutes = ours): WorkOrder {
  const parts = [
    found.panels,
    found.hookup,
    found.source,
    found.wiring,
    found.brief,
    found.edition,
    found.work?.order,
    remarksOf(found),
    own,
  ]
  const planned = found.planned.map(saidOf).join('\n')
  const was = known.find(k => k.planned === planned && k.parts.every((p, n) => p === parts[n]))
  if (was) return was.order
  const order = ordered(unbuilt(found), own)
  known = [{ parts, planned, order }, ...known.slice(0, 7)]
  return order
}

const ours: Minutes = []
/** What was remarked, as a text: the tests’ log grows without changing the order. */
const remarksOf = ({ tests }: Job): string =>
  ofTests(tests?.log ?? [], 'remark')
    .map(r => `${r.id} ${r.text} ${r.circuitIds}`)
    .join('\n')
/** Orders as they were computed last: what the field writes down, and what is built, changes none of them. */
let known: { parts: unknown[]; planned: string; order: WorkOrder }[] = []
const texts = new WeakMap<Job['planned'][number], string>()
/** A change as it is planned, whatever became of it. */
function saidOf(change: Job['planned'][number]): string {
  const was = texts.get(change)
  if (was !== undefined) return was
  const { built: _, ...planned } = change
  const text = JSON.stringify(planned)
  texts.set(change, text)
  return text
}

function ordered(job: Job, own: Minutes): WorkOrder {
  const planned = asPlanned(job)
  const hindered = new Set(planned.undone.map(u => changeId(u.change)))
  const changes = job.planned.filter(c => !hindered.has(changeId(c)))
  const stood = standing(job)
  const scene: Scene = {
    job,
    planned: planned.job,
    plan: wiringPlan(job),
    found: houseOfJob(stood),
    whole: houseOfJob(job),
  }
  const pictures: Picture[] = [
    { job: asPlanned(stood).job, house: scene.found },
    { job: planned.job, house: scene.whole },
  ]
  const open = planned.undone.map(
    u => `Not in the order, since this house does not bear it: ${changeText(job, u.change)}: ${u.why}`,
  )
  const remarks = remarked(scene)
  if (!changes.length && !remarks.length)
    return {
      tasks: [],
      windows: [],
      offMinutes: 0,
      offUnpreparedMinutes: 0,
      minutes: 0,
      waiting: [],
      dark: [],
      open,
    }

  const wired = changes.length ? tasksOfWiring(scene) : []
  const loose = [...tasksOfChanges(scene, pictures, wired, changes), ...wired]
  const bench = onTheBench(scene, loose)
  const drafted = chained(scene, loose, bench)
  const isolating = own.find(o => o.work === 'isolate') ?? kindsOfWork.isolate
  const rough = timed(drafted, own)
  const windows = windowsOf(scene, drafted, bench, isolating.eachMin, t => rough.get(t.id) ?? 0)
  const windowOf = new Map(windows.flatMap(w => [...w.tasks].map(id => [id, w.window.id] as const)))
  const made: WindowMade[] = windows.map(({ window, tasks }) => ({
    window,
    tasks: drafted.filter(t => tasks.has(t.id)),
  }))
  const kept = windows.flatMap(w => w.window.keptOpen.map(k => k.id))
  const last = changes.length ? ending(scene, changes, drafted, new Set(kept)) : { labels: [], after: [] }
  const labels = drafted.filter(t => t.phase === 'labels')
  const inside = drafted.map(t => ({ ...t, window: windowOf.get(t.id) ?? null }))
  /** Changes that are built when a window begins: all of their tasks are done before it. */
  const builtBefore = (window: number) => {
    const later = new Set(made.slice(window).flatMap(w => w.tasks))
    const unfinished = new Set([...later].flatMap(t => t.changes))
    return new Set(changes.map(changeId).filter(id => !unfinished.has(id)))
  }
  const linkedTasks = [
    ...linked([
      changes.length ? arriving(scene, drafted, made) : [],
      inside.filter(t => t.window === null && turnOf(t) < phases.labels.turn),
      ...made.map((w, n) => [
        ...inside.filter(t => t.window === w.window.id),
        ...inWindow(scene, w, houseOfJob(job, builtBefore(n))),
      ]),
      [...labels, ...last.labels],
      ...last.after.map(t => [t]),
    ]),
    // what is remarked is corrected whatever else is done by then
    ...remarks,
  ]
  const zones = ['', ...windows.map(w => w.window.id)]
  const turn = (t: Drafted) =>
    (t.window === null && turnOf(t) >= phases.labels.turn
      ? zones.length
      : t.phase === 'arrive'
        ? -1
        : zones.indexOf(t.window ?? '')) *
      100 +
    turnOf(t)
  const computed = inOrder(linkedTasks, turn)
  const minutes = timed(computed, own)
  const parts = partsOfJob(job)
  const places = [...scene.found.places, ...scene.whole.places]
  const tasks = asPut(computed, job.work?.order ?? []).map((t): Task => {
    const { metal, count: _, share: __, ...facts } = t
    const window = windows.find(w => w.window.id === t.window)?.window
    return {
      ...facts,
      minutes: minutes.get(t.id) ?? 1,
      people: kindsOfWork[t.work].people,
      tools: kindsOfWork[t.work].tools,
      parts: parts
        .filter(line =>
          line.why.some(w => w.at.of !== undefined && (w.at.of === t.at.of || t.changes.includes(w.at.of))),
        )
        .map(line => line.name),
      keptOpen: window?.keptOpen ?? (metal.length ? offFor(scene, metal).kept : []),
      places: metal.flatMap(id => places.find(p => p.id === id) ?? []),
      staysLive: window?.staysLive ?? [],
    }
  })
  const off = windows.map(w => ({ ...w.window, minutes: sum(tasks.filter(t => t.window === w.window.id)) }))
  const waiting = namedDark(scene, waitingFor(scene, kept))
  const offMinutes = sum(tasks.filter(t => t.window !== null))
  const prepared = tasks.filter(
    t => t.window === null && turnOf(t) > phases.arrive.turn && turnOf(t) < phases.labels.turn,
  )
  return {
    tasks,
    windows: off,
    offMinutes,
    offUnpreparedMinutes: off.length ? offMinutes + sum(prepared) : 0,
    minutes: sum(tasks),
    waiting,
    dark: darkFor(tasks, off, waiting),
    open: [...open, ...scene.plan.open.map(o => o.text)],
  }
}

const sum = (list: readonly Task[]) => list.reduce((total, t) => total + t.minutes, 0)

/** By circuit: how long it is dark, in windows and until the source is up; minutes, the longest first. */
function darkFor(
  tasks: readonly Task[],
  windows: WorkOrder['windows'],
  waiting: WorkOrder['waiting'],
): WorkOrder['dark'] {
  const energised = tasks.findLastIndex(t => t.phase === 'energise')
  const up = tasks.findIndex(t => t.phase === 'source')
  const wait = energised >= 0 && up > energised ? sum(tasks.slice(energised + 1, up + 1)) : 0
  const dark = new Map<string, WorkOrder['dark'][number]>()
  for (const [list, minutes] of [...windows.map(w => [w.dark, w.minutes] as const), [waiting, wait] as const])
    for (const d of list)
      dark.set(d.circuitId, { ...d, minutes: (dark.get(d.circuitId)?.minutes ?? 0) + minutes })
  return [...dark.values()].sort((a, b) => b.minutes - a.minutes)
}
