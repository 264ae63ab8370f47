import { quantity } from '../../units/format'
import { type ConductorSize, conductorSizes, type Material } from '../../units/tables/conductors'
import { ampacity } from '../../wiring/ampacity'
import { conduitFill } from '../../wiring/conduit-fill'
import { equipmentGround } from '../../wiring/equipment-ground'
import type { Draft, Drawn, RouteDrawn } from './draft'
import type { Conductor, Route, WiringPlan } from './parts'

/** What is left at an end, in an enclosure, to lead the wire round and make it up, ft (300.14 asks for half a foot at least). */
const slackFt = 3
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

interface Company {
  material: Material
  ambientC: number
  currentCarrying: number
  nipple: boolean
  roundUp: boolean
}

/** The thinnest that a breaker protects, derated for what lies beside it; undefined where none of the table does. */
function smallestFor(breakerA: number, facts: Company): ConductorSize | undefined {
  return conductorSizes.find(size => {
    const { maxBreakerA } = ampacity.solve({ size, insulationC, terminationC, ...facts })
    return maxBreakerA !== null && maxBreakerA >= breakerA
  })
}

const thicker = (a: ConductorSize, b: ConductorSize): ConductorSize =>
  conductorSizes.indexOf(a) >= conductorSizes.indexOf(b) ? a : b

/** What is there stays; a device’s own lead is as long as it is; what is bought is cut with something left at each end, ft. */
const cutOf = ({ comes }: Drawn, lengthFt: number): number =>
  comes === 'there already' ? 0 : comes === 'with its device' ? lengthFt : lengthFt + 2 * slackFt

const colours = { plus: 'red', minus: 'black', ground: 'green' } as const

function colourOf(c: Drawn, size: ConductorSize): string {
  // 4 AWG and thicker may be taped at both ends (200.6(B), 250.119(A))
  const taped = conductorSizes.indexOf(size) > conductorSizes.indexOf('6')
  if (c.comes === 'with its device') return 'as it comes'
  if (c.comes === 'there already') return 'as found'
  if (c.function === 'neutral') return taped ? 'black, white tape' : 'white'
  if (c.function === 'ground') return taped ? 'bare' : 'green'
  if (c.function === 'hot') return c.leg === 'L2' ? (taped ? 'black, red tape' : 'red') : 'black'
  return colours[c.function]
}

/** Sizes, raceways, lengths and marks of what was drawn, by the calculators of the bench. */
export function sized(draft: Draft): WiringPlan {
  const conductors: Conductor[] = []
  const routes: Route[] = []
  for (const route of draft.routes.values()) {
    const along = draft.conductors.filter(c => c.route === route.id)
    const nipple = isNipple(route)
    const currentCarrying = Math.max(1, along.filter(carries).length)
    const ambientC = route.ambientC ?? usualAmbientC
    const asked = (c: Drawn): ConductorSize | undefined =>
      c.breakerA === null
        ? undefined
        : smallestFor(c.breakerA, {
            material: c.material ?? 'cu',
            ambientC,
            currentCarrying,
            nipple: isLoose(route),
            roundUp: c.feeder ?? false,
          })
    const ofHot = (c: Drawn): ConductorSize => {
      const least = asked(c)
      if (!least && c.breakerA !== null)
        draft.open.add(
          `No size of the table carries ${c.breakerA} A in ${route.name} beside so many others: take a second raceway.`,
        )
      if (c.comes === 'there already' && !c.size)
        draft.open.add(
          `${c.mark}: its size is not known; what ${c.breakerA} A asks stands there: look at it.`,
        )
      else if (c.comes === 'with its device' && !c.size)
        draft.open.add(
          `${route.name}: the size of the leads is not stated; what is asked stands there: read it on them.`,
        )
      else if (c.size && least && conductorSizes.indexOf(c.size) < conductorSizes.indexOf(least))
        draft.open.add(
          `${c.mark}: ${c.size} AWG is too thin for ${c.breakerA} A there: ${least} AWG is asked.`,
        )
      return c.size ?? least ?? '4/0'
    }
    const hots = along.filter(c => c.function !== 'ground')
    const sizes = new Map(hots.map(c => [c, ofHot(c)]))
    const largestA = Math.max(0, ...along.map(c => c.breakerA ?? 0))
    // one ground in a raceway, by the largest breaker ahead (250.122(C)), never thicker than the hots (250.122(A))
    const thickest = [...sizes.values()].reduce<ConductorSize>(thicker, '14')
    // hots thicker than their breaker asks take a thicker ground along (250.122(B))
    const largest = hots.find(c => c.breakerA === largestA)
    const [requiredSize, installedSize] = largest ? [asked(largest), sizes.get(largest)] : []
    const enlarged =
      requiredSize &&
      installedSize &&
      conductorSizes.indexOf(installedSize) > conductorSizes.indexOf(requiredSize)
    const groundSize = equipmentGround.solve({
      material: 'cu',
      breakerA: Math.max(15, largestA),
      circuitSize: thickest,
      ...(enlarged && { requiredSize, installedSize }),
    }).size as ConductorSize
    const ground = (c: Drawn): ConductorSize => c.size ?? groundSize
    const own = along.map(c => ({ c, size: c.function === 'ground' ? ground(c) : (sizes.get(c) ?? '14') }))
    const fill = route.conduit === null ? null : fillOf(route, own, nipple)
    if (fill && !fill.tradeSize)
      draft.open.add(
        `${route.name}: no trade size up to 2 holds ${own.length} conductors: take two raceways.`,
      )
    else if (fill && (fill.fillFraction ?? 0) > fill.limitFraction)
      draft.open.add(
        `${route.name}: trade size ${fill.tradeSize} would be ${quantity(fill.fillFraction ?? 0, 'fraction')} full, ${quantity(fill.limitFraction, 'fraction')} may be: take ${fill.smallest ?? 'two raceways'}.`,
      )
    routes.push({
      id: route.id,
      name: route.name,
      from: route.from,
      to: route.to,
      raceway:
        route.conduit === null || !fill?.tradeSize
          ? null
          : { kind: route.conduit, tradeSize: fill.tradeSize },
      lengthFt: route.lengthFt,
      lengthFrom: route.lengthFrom,
      nipple,
      currentCarrying,
      fillFraction: fill?.fillFraction ?? null,
      mayFillFraction: fill?.limitFraction ?? null,
    })
    for (const { c, size } of own)
      conductors.push({
        id: `w${conductors.length + 1}`,
        function: c.function,
        leg: c.leg ?? null,
        circuitId: c.circuitId ?? null,
        mark: c.mark,
        size,
        material: c.material ?? 'cu',
        insulationC,
        colour: colourOf(c, size),
        from: c.from,
        to: c.to,
        route: c.route,
        cutFt: cutOf(c, route.lengthFt),
        breakerA: c.breakerA,
        comes: c.comes ?? 'bought',
      })
  }
  return { devices: [...draft.devices.values()], conductors, routes, open: [...draft.open] }
}

/** How full the trade size is that the job names, or the smallest that holds them. */
function fillOf(route: RouteDrawn, own: readonly { size: ConductorSize }[], nipple: boolean) {
  if (!route.conduit || !own.length) return null
  const counts = new Map<ConductorSize, number>()
  for (const { size } of own) counts.set(size, (counts.get(size) ?? 0) + 1)
  const { sizes, smallest, limitFraction } = conduitFill.solve({
    conduit: route.conduit,
    conductors: [...counts].map(([size, count]) => ({ size, count })),
    nipple,
  })
  const tradeSize = route.tradeSize ?? smallest
  const row = sizes.find(s => s.tradeSize === tradeSize)
  return { tradeSize, smallest, fillFraction: row?.fillFraction ?? null, limitFraction }
}
