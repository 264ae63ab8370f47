import { type MethodId, methodOf } from '../../hookup/method'
import { usualHabits } from '../../hookup/wiring-choices'
import { asPlanned } from '../../job/as-planned'
import { withoutHookup } from '../../job/hookup-changes'
import { interceptingPanel, newPanelOf } from '../../job/new-panel'
import { circuitOf, circuitsOf, tiedPanel } from '../../job/panels'
import type { Job } from '../../job/schema'
import { plural } from '../../units/format'
import { advised } from './advice'
import { converted } from './appliance'
import { atSwitch, ledOver, throughPositions } from './circuits'
import { dcSide } from './dc'
import { end, newDraft, put, tell } from './draft'
import {
  atBackfed,
  atFeeder,
  atPanel,
  fromInlet,
  junction,
  lead,
  runOfInlet,
  type Supply,
  shared,
} from './feed'
import { inverterSides } from './inverter'
import type { WiringPlan } from './parts'
import { sensed } from './sense'
import { inside, type Site } from './site'
import { sized } from './sizes'
import { fromSun } from './solar'
import { terminal } from './terminals'

const exists = (site: Site, device: 'switch' | 'inlet' | 'interlock' | 'managed') =>
  site.job.hookup.exists?.includes(device) ?? false

/** A switch, or two, or a managed panel: each circuit through its position, and the source to its input. */
function byPositions(site: Site) {
  const { hookup } = site.job
  const tied = tiedPanel(site.job)
  throughPositions(site)
  const placed = new Set(hookup.positions?.map(p => p.circuitId))
  const without = circuitsOf(site.job).filter(c => c.picked && !placed.has(c.id)).length
  if (without)
    tell(
      site.draft,
      `${plural(without, 'picked circuit')} ${without > 1 ? 'have' : 'has'} no position yet, and no wire here: solve the positions under Hook-up.`,
    )
  const inputs = (['switch', 'secondSwitch', 'managed'] as const).flatMap(which => {
    const device = hookup[which]
    // a managed panel is taken where there is no switch
    if (!device || (which === 'managed' && hookup.switch)) return []
    if (which === 'managed') sensed(site, device.name)
    return [{ name: device.name, input: atSwitch(site, which, tied) }]
  })
  if (!hookup.inlet)
    for (const { name } of inputs)
      tell(
        site.draft,
        `${name}: no inlet is planned: the source’s cord goes into its own, and nothing is wired there.`,
      )
  const there = exists(site, 'inlet') && exists(site, 'switch')
  const [first, second] = inputs
  if (first && second) fromInlet(site, shared(site, [first, second]), junction, there)
  else if (first) fromInlet(site, first.input, first.name, there)
}

/** The panel as it stands, with the source’s breaker in it. */
function intoPanel(site: Site) {
  const tied = tiedPanel(site.job)
  fromInlet(site, atBackfed(site, tied), tied.name, exists(site, 'inlet') && exists(site, 'interlock'))
}

/** A new panel: its feeder, what is led over to it, and the source’s side of it. */
function newPanel(site: Site) {
  const house = asPlanned(withoutHookup(site.found)).job
  const made = newPanelOf(house)
  const panel = made && site.job.panels.find(p => p.id === made.panel.id)
  const between = interceptingPanel(house)
  if (panel && made) {
    const feeder = circuitOf(site.job, made.feeder.id)
    if (feeder) fedFrom(site, feeder, panel)
    ledOver(
      site,
      made.landings.flat().map(p => p.circuitId),
      made.from,
      panel,
    )
    if (site.job.hookup.backfed) fromInlet(site, atBackfed(site, panel), panel.name, false)
  } else if (between) intercepting(site, between.panel.id, between.feeds)
  // a panel that is there already is fed as any other
  else if (site.job.hookup.backfed) intoPanel(site)
  else
    tell(
      site.draft,
      'No new panel is planned, since nothing moves to it: pick its circuits, or choose another hook-up.',
    )
}

/** From its breaker to the new panel; through the inverter where that passes the utility on. */
function fedFrom(
  site: Site,
  feeder: NonNullable<ReturnType<typeof circuitOf>>,
  panel: Site['job']['panels'][number],
) {
  const { breakerA } = feeder.circuit
  const sides = inverterSides(site)
  if (!sides) {
    if (!site.job.hookup.backfed)
      tell(
        site.draft,
        `${panel.name}: no inverter that passes the utility through is in the source, and no inlet: how the source comes in is not planned.`,
        'feeder',
      )
    const route = feederRoute(site, 'feeder', feeder.panel.name, panel.name, breakerA)
    lead(site, atFeeder(site, feeder), atPanel(site, panel), {
      route,
      mark: 'F',
      breakerA,
      wire: feederRun(site, breakerA),
    })
    return
  }
  const into = feederRoute(site, 'feeder-in', feeder.panel.name, sides.name, breakerA)
  lead(site, atFeeder(site, feeder), sides.input, {
    route: into,
    mark: 'AC IN',
    breakerA,
    wire: feederRun(site, breakerA),
  })
  const out = feederRoute(site, 'feeder-out', sides.name, panel.name, breakerA)
  lead(site, sides.output, atPanel(site, panel), {
    route: out,
    mark: 'AC OUT',
    breakerA,
    wire: feederRun(site, breakerA),
  })
  dcSide(site)
}

/** What the job says of a feeder: the run that says so, for its breaker; else one of four wires at most that is not the inlet’s. */
function feederRun(site: Site, breakerA: number) {
  const runs = site.job.hookup.runs?.filter(r => r.breakerA === breakerA && r !== runOfInlet(site))
  return (
    runs?.find(r => r.serves === 'feeder') ?? runs?.find(r => r.conductors <= 4 && r.serves === undefined)
  )
}

function feederRoute(site: Site, id: string, from: string, to: string, breakerA: number): string {
  const run = feederRun(site, breakerA)
  site.draft.routes.set(id, {
    id,
    name: `${from} to ${to}`,
    from,
    to,
    conduit: run?.conduit ?? site.habits.raceway,
    tradeSize: run?.tradeSize,
    lengthFt: run?.lengthFt ?? usualFeederFt,
    lengthFrom: run ? 'job' : 'assumed',
    ambientC: run?.ambientC,
  })
  return id
}
const usualFeederFt = 6

/** A new panel in the feeder of another: what fed that one ends in it, and a breaker of its own feeds on. */
function intercepting(site: Site, id: string, feeds: string) {
  const panel = site.job.panels.find(p => p.id === id)
  const behind = site.job.panels.find(p => p.id === feeds)
  const on = behind?.feederId === undefined ? undefined : circuitOf(site.job, behind.feederId)
  if (!panel || !behind || !on) return
  const above = panel.feederId === undefined ? undefined : circuitOf(site.job, panel.feederId)
  const breakerA = above?.circuit.breakerA ?? on.circuit.breakerA
  const route = above
    ? feederRoute(site, 'feeder-in', above.panel.name, panel.name, breakerA)
    : inside(site, panel.name)
  lead(site, above ? atFeeder(site, above) : asItComes(site, behind.name), atPanel(site, panel), {
    route,
    mark: 'F1',
    breakerA,
    there: true,
  })
  tell(
    site.draft,
    `${panel.name}: the wires that fed ${behind.name} are led into it; where they are too short, they are spliced in a box and led on.`,
  )
  lead(site, atFeeder(site, on), atPanel(site, behind), {
    route: feederRoute(site, 'feeder-on', panel.name, behind.name, on.circuit.breakerA),
    mark: 'F2',
    breakerA: on.circuit.breakerA,
  })
  fromInlet(site, atBackfed(site, panel), panel.name, false)
}

/** The four wires of a feeder that comes from where nobody entered. */
function asItComes(site: Site, fed: string): Supply {
  const wires = ['L1', 'L2', 'neutral', 'ground'] as const
  const { id } = put(site.draft, {
    id: 'feeder-there',
    kind: 'circuit',
    name: `Feeder that fed ${fed}`,
    within: 'the house',
    terminals: wires.map(w => terminal(w, w, 'wall')),
  })
  const [L1, L2, neutral, ground] = wires.map(w => end(id, w))
  return { L1, L2, neutral, ground: ground ?? end(id, 'ground') }
}

/** What each way of connecting asks to be wired: a row for each. */
const recipes: Record<MethodId, ((site: Site) => void) | null> = {
  undecided: null,
  'cord-and-plug': converted,
  'single-circuit-switch': byPositions,
  'multi-circuit-switch': byPositions,
  'interlocked-inlet': intoPanel,
  'sub-panel-interlock': newPanel,
  'critical-subpanel': newPanel,
  'managed-panel': byPositions,
  'extension-cords': null,
  'backfeed-unprotected': null,
}

const known = new WeakMap<Job, WiringPlan>()

/**
 * Which conductor goes where, of a job as planned: devices with their terminals, conductors with both ends, size, colour, mark and
 * length, routes with their raceway. Lengths in ft, sizes AWG. Sources: NEC 310.15, 240.4, 250.122, chapter 9.
 */
export function wiringPlan(found: Job): WiringPlan {
  const was = known.get(found)
  if (was) return was
  const { job } = asPlanned(found)
  const site: Site = { job, found, draft: newDraft(), habits: { ...usualHabits, ...found.wiring?.habits } }
  recipes[job.hookup.method]?.(site)
  fromSun(site)
  advised(site)
  const picked = circuitsOf(job).some(c => c.picked)
  if (!picked) tell(site.draft, 'No circuit is picked: nothing of them is in the plan.')
  if (recipes[job.hookup.method] === null)
    tell(site.draft, `Nothing is wired: ${methodOf(job.hookup.method).name}.`)
  const plan = sized(site)
  known.set(found, plan)
  return plan
}
