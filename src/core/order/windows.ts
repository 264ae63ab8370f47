import type { Handle, House, Place, Supply } from '../isolation/house'
import { liveWith } from '../isolation/live'
import { byId, type IsolatedChange, ofHouse } from '../isolation/work'
import { circuitsOf } from '../job/panels'
import type { Job } from '../job/schema'
import type { Drafted, Scene } from './draft'
import { circuitNames } from './of-changes'
import type { Opened, Window } from './task'

/** What has to be off for a task; `opened` is closed today, `kept` is open or not there yet. */
interface Off extends Omit<IsolatedChange, 'id' | 'text' | 'cuts'> {
  opened: Opened[]
  kept: Opened[]
}

const asOpened = ({ id, name, open, lock }: Handle, keepsAway: string[]): Opened => ({
  id,
  name,
  setting: open,
  lock,
  keepsAway,
})

/** A supply that no handle of the house keeps away is cut off by who owns it. */
const byItsOwner = (supply: Supply): Opened => ({
  id: supply.id,
  name: `${supply.name}, by its own cut-off ahead of the house`,
  setting: 'off',
  lock: 'with its owner’s lock or seal; never a cut seal of your own',
  keepsAway: [supply.name],
})

/** As found and as planned together: while a house is worked in, it may be either. */
export function offFor({ found, whole }: Scene, metal: readonly string[]): Off {
  const each = [found, whole].map(house => ofHouse(house, metal))
  const cuts = each.flatMap(e => e.cuts)
  const handles = byId(cuts.map(c => c.handle)).map(h =>
    asOpened(h, [...new Set(cuts.filter(c => c.handle.id === h.id).map(c => c.supply.name))]),
  )
  const closedToday = new Set(found.handles.filter(h => h.settings[0] !== h.open).map(h => h.id))
  return {
    places: byId(each.flatMap(e => e.places)),
    uncut: byId(each.flatMap(e => e.uncut)),
    staysLive: byId(each.flatMap(e => e.staysLive)),
    mainsOnly: {
      now: byId(each.flatMap(e => e.mainsOnly.now)),
      could: byId(each.flatMap(e => e.mainsOnly.could)),
    },
    opened: [
      ...handles.filter(h => closedToday.has(h.id)),
      ...byId(each.flatMap(e => e.uncut)).map(byItsOwner),
    ],
    kept: handles.filter(h => !closedToday.has(h.id)),
  }
}

/** Places that some supply could reach with these handles open, however the others stand. More than can be at once, never less. */
export function reachable(house: House, open: ReadonlySet<string>): Set<string> {
  const seen = new Set<string>()
  const queue = house.supplies.filter(s => !open.has(s.id)).map(s => s.at)
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (seen.has(at)) continue
    seen.add(at)
    for (const { from, to, by, oneWay } of house.joints)
      if (!by || !open.has(by.handle)) {
        if (from === at) queue.push(to)
        else if (to === at && !oneWay) queue.push(from)
      }
  }
  return seen
}

/** Circuits of a job that are live in one picture of the house and dead in another. */
function goneDark(
  job: Job,
  before: ReadonlyMap<string, unknown>,
  after: ReadonlyMap<string, unknown>,
): string[] {
  return circuitsOf(job)
    .map(c => c.id)
    .filter(id => before.has(`circuit ${id}`) && !after.has(`circuit ${id}`))
}
const none: ReadonlySet<string> = new Set()

/** Circuits that are live on an ordinary day and dead with these handles open. */
const darkWith = ({ found, job }: Scene, open: readonly string[]): string[] =>
  goneDark(job, liveWith(found, none), liveWith(found, new Set(open)))

/** Circuits that were live and are led behind what stays open until the source is brought up: they wait for it. */
export const waitingFor = ({ found, whole, job }: Scene, keptOpen: readonly string[]): string[] =>
  goneDark(job, liveWith(found, none), liveWith(whole, new Set(keptOpen)))

const cold = /refrigerat|freezer|fridge/i
export const namedDark = (scene: Scene, ids: readonly string[]) => {
  const circuits = new Map(circuitsOf(scene.job).map(c => [c.id, c]))
  return ids.map(circuitId => {
    const circuit = circuits.get(circuitId)
    return {
      circuitId,
      name: circuitNames({ ...scene, planned: scene.job }, [circuitId])[0] ?? circuitId,
      cold: [circuit?.label, ...(circuit?.loads.map(l => l.name) ?? [])].some(
        n => n !== undefined && cold.test(n),
      ),
    }
  })
}

/** Tasks that are done in one window, and what is open in it. */
interface Group {
  tasks: readonly Drafted[]
  opened: Opened[]
  dark: string[]
  minutes: number
}

/** The fewest handles that keep these places dead: what another one, locked, keeps away already is left out, the narrowest first. */
function fewest(
  { found, whole }: Scene,
  metal: readonly string[],
  opened: readonly Opened[],
  kept: readonly string[],
): Opened[] {
  const dead = (list: readonly Opened[]) => {
    const open = new Set([...list.map(o => o.id), ...kept])
    return [found, whole].every(house => {
      const live = reachable(house, open)
      return metal.every(m => !live.has(m))
    })
  }
  let left = [...opened]
  for (const handle of [...opened].reverse()) {
    const without = left.filter(o => o !== handle)
    if (handle.id.startsWith('breaker ') && without.length && dead(without)) left = without
  }
  return left
}

/** Tasks whose bare metal is not in the house yet, nor rests on anything that is: they are done with the power on. */
export function onTheBench({ found }: Scene, tasks: readonly Drafted[]): Set<string> {
  const there = new Set(found.places.map(p => p.id))
  const bench = new Set(tasks.filter(t => t.metal.every(m => !there.has(m))).map(t => t.id))
  for (let grew = true; grew; ) {
    grew = false
    for (const t of tasks)
      if (
        bench.has(t.id) &&
        t.metal.length &&
        t.restsOn.some(id => tasks.some(o => o.id === id) && !bench.has(id))
      ) {
        bench.delete(t.id)
        grew = true
      }
  }
  return bench
}

/**
 * Windows of power off: tasks that need the same handles open are done in one. Two are made one where that leaves fewer circuit-minutes in the dark than
 * switching off twice; so are two that rest on each other. The fewest in the dark first.
 */
export function windowsOf(
  scene: Scene,
  tasks: readonly Drafted[],
  bench: ReadonlySet<string>,
  overheadMin: number,
  minutesOf: (task: Drafted) => number,
): { window: Omit<Window, 'minutes'>; tasks: ReadonlySet<string> }[] {
  const offs = new Map(
    tasks.filter(t => t.metal.length && !bench.has(t.id)).map(t => [t.id, offFor(scene, t.metal)]),
  )
  const needs = (list: readonly Drafted[]) => byId(list.flatMap(t => offs.get(t.id)?.opened ?? []))
  const kept = (list: readonly Drafted[]) => byId(list.flatMap(t => offs.get(t.id)?.kept ?? []))
  const metalOf = (list: readonly Drafted[]) => [...new Set(list.flatMap(t => t.metal))]
  const grouped = (list: readonly Drafted[]): Group => {
    const opened = fewest(
      scene,
      metalOf(list),
      needs(list),
      kept(list).map(k => k.id),
    )
    return {
      tasks: list,
      opened,
      dark: darkWith(
        scene,
        opened.map(o => o.id),
      ),
      minutes: list.reduce((sum, t) => sum + minutesOf(t), 0),
    }
  }
  const bySet = new Map<string, Drafted[]>()
  for (const t of tasks) {
    if (!offs.has(t.id)) continue
    const opened = fewest(
      scene,
      t.metal,
      needs([t]),
      kept([t]).map(k => k.id),
    )
    if (!opened.length) continue
    const key = opened
      .map(o => o.id)
      .sort()
      .join('|')
    bySet.set(key, [...(bySet.get(key) ?? []), t])
  }
  let groups = [...bySet.values()].map(grouped)
  const cost = ({ dark, minutes }: Group) => dark.length * (minutes + overheadMin)
  for (;;) {
    const [best] = groups
      .flatMap((a, i) => groups.slice(i + 1).map(b => ({ a, b, both: grouped([...a.tasks, ...b.tasks]) })))
      .map(p => ({ ...p, saves: entangled(p.a, p.b) ? Infinity : cost(p.a) + cost(p.b) - cost(p.both) }))
      .sort((x, y) => y.saves - x.saves)
    if (!best || best.saves < 0) break
    groups = [...groups.filter(g => g !== best.a && g !== best.b), best.both]
  }
  return inTurn(groups.sort((a, b) => a.dark.length - b.dark.length)).map((g, n) => {
    const off = g.tasks.flatMap(t => offs.get(t.id) ?? [])
    const metal = metalOf(g.tasks)
    return {
      tasks: new Set(g.tasks.map(t => t.id)),
      window: {
        id: `w${n + 1}`,
        name: g.opened.map(o => `${o.name} ${o.setting}`).join(', '),
        opened: g.opened,
        keptOpen: kept(g.tasks),
        dark: namedDark(scene, g.dark),
        staysLive: liveBeside(scene, metal, new Set([...g.opened, ...kept(g.tasks)].map(o => o.id))),
        mainsOnly: {
          now: byId(off.flatMap(o => o.mainsOnly.now)),
          could: byId(off.flatMap(o => o.mainsOnly.could)),
        },
      },
    }
  })
}

const restsOnAny = (a: Group, b: Group) =>
  a.tasks.some(t => t.restsOn.some(id => b.tasks.some(o => o.id === id)))
const entangled = (a: Group, b: Group) => restsOnAny(a, b) && restsOnAny(b, a)

/** Each after those that it rests on; where that cannot be, as they come. */
function inTurn(groups: readonly Group[]): Group[] {
  const waiting = [...groups]
  const order: Group[] = []
  while (waiting.length) {
    const ready = waiting.findIndex(g => !waiting.some(o => o !== g && restsOnAny(g, o)))
    order.push(...waiting.splice(Math.max(0, ready), 1))
  }
  return order
}

/** Live metal in the enclosures that are opened, with these handles open: by name. */
function liveBeside({ found, whole }: Scene, metal: readonly string[], open: ReadonlySet<string>): Place[] {
  return byId(
    [found, whole].flatMap(house => {
      const live = liveWith(house, open)
      const opened = new Set(
        house.places.filter(p => metal.includes(p.id) && !p.id.startsWith('circuit ')).map(p => p.within),
      )
      return house.places.filter(p => opened.has(p.within) && live.has(p.id) && !metal.includes(p.id))
    }),
  )
}
