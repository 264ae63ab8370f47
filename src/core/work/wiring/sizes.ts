import { inEdition, workingIn } from '../../articles'
import type { Edition } from '../../editions'
import { quantity } from '../../units/format'
import { type ConductorSize, conductorSizeSchema, conductorSizes } from '../../units/tables/conductors'
import type { ConduitKind } from '../../units/tables/conduit'
import { ampacity } from '../../wiring/ampacity'
import { conduitFill } from '../../wiring/conduit-fill'
import { equipmentGround } from '../../wiring/equipment-ground'
import type { Working } from '../../working'
import { type Drawn, draw, put, type RouteDrawn, tell } from './draft'
import { joined } from './joints'
import type { Conductor, End, GroundAsked, Route, SizeAsked, WiringPlan } from './parts'
import { pullPointsFor, supportsFor } from './raceways'
import { inside, type Site } from './site'
import { terminal as terminalOf } from './terminals'
import { decided, enclosureKey, enclosuresOf } from './ways'

const nippleFt = 2
const insulationC = 90
/** No wiring terminal up to 100 A may be taken for more where nothing says so (110.14(C)(1)). */
const terminationC = 60
const usualAmbientC = 30

/** Conductors of a route that carry current together: hots, and neutrals that carry more than the difference (310.15(E)). */
const carries = (c: Drawn): boolean => c.function === 'hot' || (c.function === 'neutral' && !c.balanced)

const isNipple = (route: RouteDrawn): boolean => route.conduit !== null && route.lengthFt <= nippleFt
/** Loose in an enclosure, as in a nipple, there is no adjustment for company (310.15(C)(1)(b), 312.8). */
const isLoose = (route: RouteDrawn): boolean => isNipple(route) || route.from === route.to

/** The thinnest that a breaker protects, derated for what lies beside it; undefined where none of the table does. */
function smallestFor(breakerA: number, facts: SizeAsked): ConductorSize | undefined {
  return conductorSizes.find(size => {
    const { maxBreakerA } = ampacity.solve({ size, insulationC, terminationC, ...facts })
    return maxBreakerA !== null && maxBreakerA >= breakerA
  })
}

const rank = (size: ConductorSize): number => conductorSizes.indexOf(size)
const thicker = (a: ConductorSize, b: ConductorSize): ConductorSize => (rank(a) >= rank(b) ? a : b)

/** Of a wire that stays within one enclosure: free length to bring it out and make it up, ft (300.14). */
const withinFt = 1.5

/** What is there stays; a device’s own lead is as long as it is; what is bought is cut with something left at each end, ft. */
const cutOf = ({ comes }: Drawn, route: RouteDrawn, slackFt: number): number => {
  if (comes === 'there already') return 0
  if (comes === 'with its device') return route.lengthFt
  return route.from === route.to ? withinFt : route.lengthFt + 2 * slackFt
}

const colours = { plus: 'red', minus: 'black', ground: 'green', sense: 'as it comes' } as const

function colourOf(c: Drawn, size: ConductorSize | null): string {
  // 4 AWG and thicker may be taped at both ends (200.6(B), 250.119(A))
  const taped = size !== null && rank(size) > rank('6')
  if (c.comes === 'with its device') return 'as it comes'
  if (c.comes === 'there already') return 'as found'
  if (c.function === 'neutral') return taped ? 'black, white tape' : 'white'
  if (c.function === 'ground') return taped ? 'bare' : 'green'
  if (c.function === 'hot') return c.leg === 'L2' ? (taped ? 'black, red tape' : 'red') : 'black'
  return colours[c.function]
}

/** Sizes, raceways, lengths and marks of what was drawn, by the calculators of the bench. */
export function sized(site: Site): WiringPlan {
  const { draft, habits } = site
  const conductors: Conductor[] = []
  const routes: Route[] = []
  const size = (id: string) => {
    const drawn = draft.routes.get(id)
    if (!drawn) return
    const route = decided(site, drawn)
    const along = draft.conductors.filter(c => c.route === id).map(c => chosen(site, c))
    const nipple = isNipple(route)
    const currentCarrying = Math.max(1, along.filter(carries).length)
    const ambientC = route.ambientC ?? usualAmbientC
    const company = (c: Drawn): SizeAsked => ({
      material: c.material ?? 'cu',
      ambientC,
      currentCarrying,
      nipple: isLoose(route),
      roundUp: c.feeder ?? false,
    })
    const asked = (c: Drawn): ConductorSize | undefined =>
      c.breakerA === null ? undefined : smallestFor(c.breakerA, company(c))
    const ofHot = (c: Drawn): ConductorSize | null => {
      if (c.function === 'sense') return null
      const least = asked(c)
      if (!least && c.breakerA !== null)
        tell(
          draft,
          `No size of the table carries ${c.breakerA} A in ${route.name} beside so many others: take a second raceway.`,
          id,
        )
      if (c.comes === 'there already' && !c.size)
        tell(
          draft,
          `${c.mark}: its size is not known; what ${c.breakerA} A asks stands there: look at it.`,
          id,
        )
      else if (c.comes === 'with its device' && !c.size)
        tell(
          draft,
          `${route.name}: the size of the leads is not stated; what is asked stands there: read it on them.`,
          id,
        )
      else if (c.size && least && rank(c.size) < rank(least))
        tell(
          draft,
          `${c.mark}: ${c.size} AWG is too thin for ${c.breakerA} A there: ${least} AWG is asked.`,
          id,
        )
      if (c.size) return c.size
      return least && habits.oneSizeUp && (c.comes ?? 'bought') === 'bought' && route.conduit
        ? (conductorSizes[rank(least) + 1] ?? least)
        : (least ?? '4/0')
    }
    const hots = along.filter(c => c.function !== 'ground')
    const sizes = new Map(hots.map(c => [c, ofHot(c)]))
    const groundAsked = groundFacts(along, sizes, asked)
    const groundSize = groundOf(groundAsked)
    const own = along.map(c => ({
      c,
      awg: reaching(site, c, c.function === 'ground' ? (c.size ?? groundSize) : (sizes.get(c) ?? null)),
    }))
    const held = own.flatMap(({ awg }) => (awg ? [{ size: awg }] : []))
    const fill = route.conduit === null ? null : fillOf(route, held, nipple)
    if (fill && !fill.tradeSize)
      tell(
        draft,
        `${route.name}: no trade size up to 2 holds ${held.length} conductors: take two raceways.`,
        id,
      )
    else if (fill && (fill.fillFraction ?? 0) > fill.limitFraction)
      tell(
        draft,
        `${route.name}: trade size ${fill.tradeSize} would be ${quantity(fill.fillFraction ?? 0, 'fraction')} full, ${quantity(fill.limitFraction, 'fraction')} may be: take ${fill.smallest ?? 'two raceways'}.`,
        id,
      )
    const raceway =
      route.conduit === null || !fill?.tradeSize ? null : { kind: route.conduit, tradeSize: fill.tradeSize }
    routes.push({
      id,
      name: route.name,
      from: route.from,
      to: route.to,
      ends: [enclosureKey(site, route.from), enclosureKey(site, route.to)],
      raceway,
      lengthFt: route.lengthFt,
      lengthFrom: route.lengthFrom,
      bendsDeg: route.bendsDeg ?? 0,
      supports: raceway ? supportsFor(raceway.kind, raceway.tradeSize, route.lengthFt) : 0,
      pullPoints: raceway ? pullPointsFor(route.bendsDeg ?? 0) : 0,
      wet: route.wet ?? false,
      through: route.through ?? null,
      nipple,
      currentCarrying,
      fillFraction: fill?.fillFraction ?? null,
      mayFillFraction: fill?.limitFraction ?? null,
    })
    for (const { c, awg } of own) {
      const material = c.material ?? 'cu'
      conductors.push({
        id: `w${conductors.length + 1}`,
        function: c.function,
        leg: c.leg ?? null,
        circuitId: c.circuitId ?? null,
        mark: c.mark,
        size: awg,
        material,
        insulationC,
        colour: colourOf(c, awg),
        from: awg && c.comes === undefined ? taken(site, c, c.from, awg) : c.from,
        to: awg && c.comes === undefined ? taken(site, c, c.to, awg) : c.to,
        route: id,
        cutFt: cutOf(c, route, habits.slackFt),
        breakerA: c.breakerA,
        asked: c.breakerA === null || c.function === 'ground' ? null : company(c),
        groundAsked: c.function === 'ground' && c.comes !== 'there already' ? groundAsked : null,
        comes: c.comes ?? 'bought',
      })
    }
  }
  const isInside = (id: string) => draft.routes.get(id)?.from === draft.routes.get(id)?.to
  // pigtails inside an enclosure are drawn while the others are sized
  for (const id of [...draft.routes.keys()].filter(id => !isInside(id))) size(id)
  for (const id of [...draft.routes.keys()].filter(isInside)) size(id)
  return {
    enclosures: enclosuresOf(site),
    devices: [...draft.devices.values()],
    conductors,
    routes,
    ...joined(site, conductors),
    open: Array.from(draft.open, ([text, at]) => ({ text: inEdition(text, site.job.edition), at })),
  }
}

/** As thick as both its terminals ask at least; one that the job names stays as it is, and is told. */
function reaching(site: Site, c: Drawn, size: ConductorSize | null): ConductorSize | null {
  if (size === null || (c.comes ?? 'bought') !== 'bought') return size
  const least = [c.from, c.to].reduce<ConductorSize>((t, at) => {
    const terminal = site.draft.devices.get(at.device)?.terminals.find(one => one.id === at.terminal)
    return terminal ? thicker(t, terminal.thinnest) : t
  }, '14')
  if (rank(size) >= rank(least)) return size
  if (!c.size) return least
  tell(
    site.draft,
    `${c.mark}: ${size} AWG is thinner than its terminals take (${least} AWG at least).`,
    c.route,
  )
  return size
}

/** A conductor with the size and metal that a person chose for it. */
function chosen(site: Site, c: Drawn): Drawn {
  const choice =
    c.comes === undefined && site.job.wiring?.wires?.find(w => w.route === c.route && w.mark === c.mark)
  return choice ? { ...c, size: choice.size, ...(choice.material && { material: choice.material }) } : c
}

/** One ground in a raceway, by the largest breaker ahead (250.122(C)), never thicker than the hots (250.122(A)). */
function groundFacts(
  along: readonly Drawn[],
  sizes: ReadonlyMap<Drawn, ConductorSize | null>,
  asked: (c: Drawn) => ConductorSize | undefined,
): GroundAsked {
  const largestA = Math.max(0, ...along.map(c => c.breakerA ?? 0))
  const thickest = [...sizes.values()].reduce<ConductorSize>((t, size) => thicker(t, size ?? '14'), '14')
  // hots thicker than their breaker asks take a thicker ground along (250.122(B))
  const largest = along.find(c => c.function !== 'ground' && c.breakerA === largestA)
  const [requiredSize, installedSize] = largest ? [asked(largest), sizes.get(largest)] : []
  const enlarged = requiredSize && installedSize && rank(installedSize) > rank(requiredSize)
  return {
    breakerA: Math.max(15, largestA),
    circuitSize: thickest,
    ...(enlarged && { requiredSize, installedSize }),
  }
}

const groundOf = (facts: GroundAsked): ConductorSize =>
  conductorSizeSchema.parse(equipmentGround.solve({ material: 'cu', ...facts }).size)

/** The end itself, or, where its terminal takes nothing so thick, a splice beside it with a pigtail as thick as it takes. */
function taken(site: Site, c: Drawn, at: End, size: ConductorSize): End {
  const device = site.draft.devices.get(at.device)
  const terminal = device?.terminals.find(t => t.id === at.terminal)
  if (!device || !terminal || rank(size) <= rank(terminal.thickest)) return at
  const id = `pigtail-${at.device}-${at.terminal}`
  put(site.draft, {
    id,
    kind: 'splice',
    name: `Splice at ${device.name}, ${terminal.name}`,
    within: device.within,
    terminals: [terminalOf('joint', 'joint', 'splice')],
  })
  tell(
    site.draft,
    `${c.mark}: ${size} AWG is thicker than ${device.name} takes (${terminal.thickest} AWG): it ends in a splice, with a pigtail.`,
    c.route,
  )
  draw(site.draft, {
    function: c.function,
    ...(c.leg && { leg: c.leg }),
    mark: `${c.mark} pigtail`,
    from: { device: id, terminal: 'joint' },
    to: at,
    route: inside(site, device.within),
    breakerA: null,
    size: terminal.thickest,
  })
  return { device: id, terminal: 'joint' }
}

/** How full a raceway is, worked out by the calculator of the bench; null where there is none. */
export function fillWorking(
  { conductors }: Pick<WiringPlan, 'conductors'>,
  route: Route,
  edition: Edition,
): Working | null {
  if (!route.raceway) return null
  const along = conductors.flatMap(c => (c.route === route.id && c.size ? [{ size: c.size }] : []))
  return along.length
    ? workingIn(conduitFill.compute(fillAsked(route.raceway.kind, along, route.nipple)).working, edition)
    : null
}

const fillAsked = (
  conduit: ConduitKind,
  own: readonly { size: ConductorSize }[],
  nipple: boolean,
): Parameters<typeof conduitFill.solve>[0] => {
  const counts = new Map<ConductorSize, number>()
  for (const { size } of own) counts.set(size, (counts.get(size) ?? 0) + 1)
  return { conduit, conductors: [...counts].map(([size, count]) => ({ size, count })), nipple }
}

/** How full the trade size is that the job names, or the smallest that holds them. */
function fillOf(route: RouteDrawn, own: readonly { size: ConductorSize }[], nipple: boolean) {
  if (!route.conduit || !own.length) return null
  const { sizes, smallest, limitFraction } = conduitFill.solve(fillAsked(route.conduit, own, nipple))
  const tradeSize = route.tradeSize ?? smallest
  const row = sizes.find(s => s.tradeSize === tradeSize)
  return { tradeSize, smallest, fillFraction: row?.fillFraction ?? null, limitFraction }
}

/** Why a conductor is as thick as it is: the calculators of ampacity and of grounds on what lies beside it; null where no breaker asks. */
export function sizeWorking(
  { size, asked, groundAsked }: Pick<Conductor, 'size' | 'asked' | 'groundAsked'>,
  edition: Edition,
): Working | null {
  if (groundAsked)
    return workingIn(equipmentGround.compute({ material: 'cu', ...groundAsked }).working, edition)
  if (!asked || !size) return null
  const input = { size, insulationC, terminationC, ...asked } as const
  return ampacity.faultsIn?.(input).length ? null : workingIn(ampacity.compute(input).working, edition)
}
