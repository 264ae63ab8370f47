import type { RouteChoice } from '../../hookup/wiring-choices'
import { quantity } from '../../units/format'
import { type RouteDrawn, tell } from './draft'
import type { Enclosure } from './parts'
import { mostBendsDeg, pullPointsFor, raceways } from './raceways'
import type { Site } from './site'
import { wayOnWall } from './wall'

/** The key of an enclosure by its name: a panel or device of the job, which keep theirs when they are renamed. */
export function enclosureKey({ job }: Site, name: string): string {
  const panel = job.panels.find(p => p.name === name)
  if (panel) return `panel-${panel.id}`
  const { hookup } = job
  for (const which of ['inlet', 'switch', 'secondSwitch', 'managed'] as const)
    if (hookup[which]?.name === name) return which
  const unit = job.source?.units.find(u => u.equipment.name === name || u.bank?.equipment.name === name)
  if (unit) return unit.equipment.name === name ? `unit-${unit.id}` : `bank-${unit.id}`
  return name.slice(0, 80)
}

/** Every enclosure that wires go into or out of, once. */
export function enclosuresOf(site: Site): Enclosure[] {
  const { devices, routes } = site.draft
  const names = [
    ...[...routes.values()].flatMap(r => [r.from, r.to]),
    ...[...devices.values()].filter(d => d.kind !== 'circuit').map(d => d.within),
  ]
  return [...new Set(names)].map(name => ({ key: enclosureKey(site, name), name }))
}

/** A route with what a person says of it, or what the sketch of the wall shows; and what is wrong with that. */
export function decided(site: Site, drawn: RouteDrawn): RouteDrawn {
  const { wiring } = site.job
  const choice: Partial<RouteChoice> = wiring?.routes?.find(r => r.id === drawn.id) ?? {}
  const route = { ...drawn }
  const [a, b] = [drawn.from, drawn.to].map(name =>
    wiring?.sketch?.boxes.find(box => box.of === enclosureKey(site, name)),
  )
  if (a && b && drawn.from !== drawn.to) {
    const { lengthFt, bendsDeg } = wayOnWall(a, b)
    route.bendsDeg = bendsDeg
    if (drawn.leads && lengthFt > drawn.lengthFt)
      tell(
        site.draft,
        `${drawn.name}: its leads are ${quantity(drawn.lengthFt, 'ft')} long; on the sketch it is ${quantity(lengthFt, 'ft')}: move it nearer, or splice in a box.`,
        drawn.id,
      )
    else if (!drawn.leads) {
      route.lengthFt = Math.max(0.5, lengthFt)
      route.lengthFrom = 'sketch'
    }
  }
  if (choice.lengthFt !== undefined) {
    route.lengthFt = choice.lengthFt
    route.lengthFrom = 'job'
  }
  if (choice.bendsDeg !== undefined) route.bendsDeg = choice.bendsDeg
  if (choice.tradeSize !== undefined) route.tradeSize = choice.tradeSize
  if (choice.ambientC !== undefined) route.ambientC = choice.ambientC
  route.wet = choice.wet ?? false
  route.through = choice.through ?? null
  if (drawn.conduit !== null) route.conduit = choice.conduit ?? dryOnly(drawn.conduit, route.wet)
  if (route.conduit && route.wet && !raceways[route.conduit].wet)
    tell(
      site.draft,
      `${route.name}: ${raceways[route.conduit].name} may not lie in a wet place (NEC 348.12): take a liquid-tight one.`,
      route.id,
    )
  const bends = route.bendsDeg ?? 0
  if (bends > mostBendsDeg)
    tell(
      site.draft,
      `${route.name}: bends of ${bends}° together, more than ${mostBendsDeg}° between pulls: ${pullPointsFor(bends)} pull point${pullPointsFor(bends) > 1 ? 's' : ''} between.`,
      route.id,
    )
  if (route.through === 'fire-rated')
    tell(
      site.draft,
      `${route.name}: where it goes through the fire-rated wall, the opening is fire-stopped by a listed system (NEC 300.21).`,
      route.id,
    )
  if (route.through === 'finished')
    tell(
      site.draft,
      `${route.name}: it goes through a finished wall: ask before it is opened, and what closes it is agreed.`,
      route.id,
    )
  return route
}

const dryOnly = (conduit: NonNullable<RouteDrawn['conduit']>, wet: boolean) =>
  wet && !raceways[conduit].wet ? 'LFNC-B' : conduit
