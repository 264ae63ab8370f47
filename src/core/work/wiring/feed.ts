import type { Run } from '../../hookup/design'
import { placeText } from '../../job/panels'
import type { Panel } from '../../panel/schema'
import { type ConductorSize, type Material, tableAmpacityA } from '../../units/tables/conductors'
import { connectorOf } from '../../units/tables/receptacles'
import { draw, end, lay, put, tell } from './draft'
import type { End, Terminal } from './parts'
import { atBar, atBreaker, atMain, type Fed, inside, polesOf, type Site } from './site'
import { breakerFacts, ratedTerminal, terminal } from './terminals'

/** Where the four wires of a supply end; a supply of one leg, or without a neutral, leaves those out. */
export interface Supply {
  L1?: End | undefined
  L2?: End | undefined
  neutral?: End | undefined
  ground: End
}

const usualRunFt = 10
const leastAluminumA = 60
const hots = ['L1', 'L2'] as const

/** Leads a supply from one place to another: hots, neutral, ground. */
export function lead(
  site: Site,
  from: Supply,
  to: Supply,
  how: {
    route: string
    mark: string
    breakerA: number
    /** what the job says of its hots and neutral */
    wire?: { size: ConductorSize; material?: Material | undefined } | undefined
    there?: boolean
  },
) {
  const { route, mark, breakerA, there } = how
  const wire = how.wire && { size: how.wire.size, ...(how.wire.material && { material: how.wire.material }) }
  const common = { route, breakerA, ...(there && { comes: 'there already' as const }) }
  let led = 0
  // thinner aluminum is not what a feeder is made of
  const metal =
    !how.wire && !there && breakerA >= leastAluminumA && site.habits.feederMetal === 'al'
      ? { material: 'al' as const }
      : {}
  for (const leg of hots) {
    const [a, b] = [from[leg], to[leg]]
    if (!a || !b) continue
    draw(site.draft, {
      ...common,
      ...metal,
      ...wire,
      function: 'hot',
      leg,
      mark: `${mark} ${leg}`,
      from: a,
      to: b,
      feeder: true,
    })
    led++
  }
  if (from.neutral && to.neutral)
    draw(site.draft, {
      ...common,
      ...metal,
      ...wire,
      function: 'neutral',
      mark: `${mark} N`,
      from: from.neutral,
      to: to.neutral,
      // of one phase it carries the difference, unless the legs are tied, or one of them alone is led
      balanced: led === 2 && site.job.source?.arrangement !== 'tied',
      feeder: true,
    })
  draw(site.draft, { ...common, function: 'ground', mark: `${mark} G`, from: from.ground, to: to.ground })
}

/** What a firm that plans for a second unit makes the inlet and its run for, A. */
export const growthA = 50
export const growing = ({ habits }: Site, there: boolean): number => (habits.growth && !there ? growthA : 0)

/** The inlet’s own terminals, for a plug of its type. */
function inletSupply(site: Site, leastA: number): (Supply & { ratedA: number }) | null {
  const { inlet } = site.job.hookup
  const plug = inlet && connectorOf(inlet.type)
  if (!inlet || !plug) return null
  const ratedA = Math.max(inlet.ratingA, leastA)
  const terminals: Terminal[] = [
    ...(plug.hots === 2 ? ['L1', 'L2'] : [liveLeg(site)]).map(l => ratedTerminal(l, ratedA)),
    ...(plug.neutral ? [ratedTerminal('neutral', ratedA)] : []),
    ratedTerminal('ground', ratedA),
  ]
  put(site.draft, { id: 'inlet', kind: 'inlet', name: inlet.name, within: inlet.name, terminals })
  const at = (id: string) => (terminals.some(t => t.id === id) ? end('inlet', id) : undefined)
  return {
    L1: at('L1'),
    L2: at('L2'),
    neutral: at('neutral'),
    ground: end('inlet', 'ground'),
    ratedA,
  }
}

const liveLeg = ({ job }: Site) => (job.source?.arrangement === 'one-leg' ? job.source.liveLeg : 'L1')

/** The run of the job that is the inlet’s: it says so, or has the name of the wire in the path. */
export const runOfInlet = ({ job: { hookup } }: Site): Run | undefined => {
  const said = hookup.runs?.find(r => r.serves === 'inlet')
  if (said) return said
  const wire = hookup.path?.find(l => l.kind === 'wire')
  return wire?.name === undefined
    ? undefined
    : hookup.runs?.find(r => r.name === wire.name && r.serves === undefined)
}

/** The run from the inlet to what it feeds: by what the job says of its wire, else as is usual. */
export function fromInlet(site: Site, target: Supply, far: string, there: boolean) {
  const transformer = site.job.source?.autotransformer
  const { to, into } = transformer
    ? viaTransformer(site, transformer.name, target, far)
    : { to: target, into: far }
  const supply = inletSupply(site, growing(site, there))
  if (!supply) return
  const { path, inlet } = site.job.hookup
  const wire = path?.find(l => l.kind === 'wire')
  const run = runOfInlet(site)
  const lengthFt = run?.lengthFt ?? wire?.lengthFt
  const named = run?.size ?? wire?.size
  const material = run ? run.material : wire?.material
  // what was entered for today’s amps is no choice against tomorrow’s
  const outgrown =
    growing(site, there) > 0 &&
    named !== undefined &&
    (tableAmpacityA(material ?? 'cu', named, 60) ?? 0) < supply.ratedA
  const size = outgrown ? undefined : named
  const route = lay(site.draft, {
    id: 'inlet',
    name: `Inlet to ${into}`,
    from: inlet?.name ?? 'the inlet',
    to: into,
    conduit: there ? null : (run?.conduit ?? site.habits.raceway),
    tradeSize: outgrown ? undefined : run?.tradeSize,
    lengthFt: lengthFt ?? usualRunFt,
    lengthFrom: lengthFt === undefined ? 'assumed' : 'job',
    ambientC: run?.ambientC,
  })
  lead(site, supply, bothLegs(site, supply, to, into), {
    route,
    mark: 'IN',
    breakerA: supply.ratedA,
    wire: size && { size, material },
    there,
  })
}

const atTransformer = 'the box where the autotransformer joins'
const besideFt = 3

/** An autotransformer makes the neutral of a source that has none: it joins the run in a box, and the run goes on from there. */
function viaTransformer(site: Site, name: string, to: Supply, into: string): { to: Supply; into: string } {
  site.draft.boxes.add(atTransformer)
  const joint = (wire: string) => {
    put(site.draft, {
      id: `transformer-${wire}`,
      kind: 'splice',
      name: `Splice at the autotransformer, ${wire}`,
      within: atTransformer,
      terminals: [terminal('joint', 'joint', 'splice')],
    })
    return end(`transformer-${wire}`, 'joint')
  }
  const at: Supply = { L1: joint('L1'), L2: joint('L2'), neutral: joint('neutral'), ground: joint('ground') }
  const ratedA = site.job.hookup.inlet?.ratingA ?? site.job.hookup.backfed?.breakerA ?? 30
  const wires = ['L1', 'L2', 'neutral', 'ground'] as const
  put(site.draft, {
    id: 'transformer',
    kind: 'transformer',
    name,
    within: name,
    terminals: wires.map(w => ratedTerminal(w, ratedA)),
  })
  const own: Supply = {
    L1: end('transformer', 'L1'),
    L2: end('transformer', 'L2'),
    neutral: end('transformer', 'neutral'),
    ground: end('transformer', 'ground'),
  }
  const way = (id: string, far: string, conduit: 'FMC' | typeof site.habits.raceway) =>
    lay(site.draft, {
      id,
      name: `${atTransformer} to ${far}`,
      from: atTransformer,
      to: far,
      conduit,
      lengthFt: besideFt,
      lengthFrom: 'assumed',
    })
  lead(site, at, own, { route: way('transformer', name, 'FMC'), mark: 'AT', breakerA: ratedA })
  lead(site, at, to, { route: way('inlet-on', into, site.habits.raceway), mark: 'IN on', breakerA: ratedA })
  tell(
    site.draft,
    `${name}: its own breaker and its place in the path are as its instructions have them (NEC 450.5); the neutral that it makes is bonded nowhere but at the one bond of the system.`,
    'transformer',
  )
  return { to: at, into: atTransformer }
}

/** Where one hot is to feed two poles that are tied, it ends in a splice with a pigtail to each. */
function bothLegs(site: Site, supply: Supply, to: Supply, into: string): Supply {
  if ((supply.L1 && supply.L2) || !to.L1 || !to.L2) return to
  if (site.job.source?.arrangement !== 'tied') {
    tell(
      site.draft,
      `${into}: the source feeds ${supply.L1 ? 'L1' : 'L2'} alone; the other pole stays empty, and what stands on that leg dark.`,
      'inlet',
    )
    return to
  }
  const leg = supply.L1 ? 'L1' : 'L2'
  put(site.draft, {
    id: 'splice-tied',
    kind: 'splice',
    name: 'Splice that ties both legs',
    within: into,
    terminals: [terminal('joint', 'joint', 'splice')],
  })
  for (const l of hots)
    draw(site.draft, {
      function: 'hot',
      leg: l,
      mark: `tie ${l}`,
      from: end('splice-tied', 'joint'),
      to: to[l] ?? to.ground,
      route: inside(site, into),
      breakerA: site.job.hookup.inlet?.ratingA ?? null,
      feeder: true,
    })
  return { ...to, L1: undefined, L2: undefined, [leg]: end('splice-tied', 'joint') }
}

export const junction = 'the box where the source divides'
const junctionFt = 2

/** Where one source feeds two switches: a splice for each wire, and on from there to each of them. */
export function shared(site: Site, inputs: readonly { name: string; input: Supply }[]): Supply {
  site.draft.boxes.add(junction)
  const at = (wire: string) => {
    put(site.draft, {
      id: `divide-${wire}`,
      kind: 'splice',
      name: `Splice of the source’s ${wire}`,
      within: junction,
      terminals: [terminal('joint', 'joint', 'splice')],
    })
    return end(`divide-${wire}`, 'joint')
  }
  const from = { L1: at('L1'), L2: at('L2'), neutral: at('neutral'), ground: at('ground') }
  inputs.forEach(({ name, input }, n) => {
    const route = lay(site.draft, {
      id: `divide-${n + 1}`,
      name: `${junction} to ${name}, ${n + 1}`,
      from: junction,
      to: name,
      conduit: 'FMC',
      lengthFt: junctionFt,
      lengthFrom: 'assumed',
    })
    lead(site, from, input, { route, mark: `IN${n + 1}`, breakerA: site.job.hookup.inlet?.ratingA ?? 30 })
  })
  return from
}

/** The backfed breaker of a panel, as a supply comes to it; its poles by the legs of its spaces. */
export function atBackfed(site: Site, panel: Panel): Supply {
  const { backfed } = site.job.hookup
  if (backfed && backfed.space === undefined)
    tell(
      site.draft,
      `${panel.name}: where the source’s ${backfed.breakerA} A breaker stands is not said yet: choose its space under Hook-up, beside the main as the interlock asks.`,
      'backfed',
    )
  const placed =
    backfed?.space === undefined
      ? ''
      : ` at ${placeText(site.job, panel, { position: backfed.space, poles: 2 })}`
  const device = put(site.draft, {
    id: 'backfed',
    kind: 'breaker',
    name: backfed ? `Backfed ${backfed.breakerA} A breaker${placed}` : 'Backfed breaker',
    within: panel.name,
    terminals: hots.map(l => ({ id: l, name: `${l} pole`, ...breakerFacts(backfed?.breakerA ?? 30) })),
  })
  return {
    L1: end(device.id, 'L1'),
    L2: end(device.id, 'L2'),
    neutral: atBar(site, panel, 'neutral'),
    ground: atBar(site, panel, 'ground'),
  }
}

/** A two-pole breaker as the beginning of a feeder, with the bars beside it. */
export function atFeeder(site: Site, fed: Fed): Supply {
  const at = (leg: 'L1' | 'L2') => {
    const pole = polesOf(fed).find(p => p.leg === leg)
    return pole && atBreaker(site, fed, pole.pole)
  }
  return {
    L1: at('L1'),
    L2: at('L2'),
    neutral: atBar(site, fed.panel, 'neutral'),
    ground: atBar(site, fed.panel, 'ground'),
  }
}

/** Where a panel is fed: main or lugs, and its bars apart (408.40). */
export const atPanel = (site: Site, panel: Panel): Supply => ({
  L1: atMain(site, panel, 'L1'),
  L2: atMain(site, panel, 'L2'),
  neutral: atBar(site, panel, 'neutral'),
  ground: atBar(site, panel, 'ground'),
})
