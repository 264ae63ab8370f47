import { quantity } from '../../units/format'
import { type ConductorSize, conductorRow, conductorSizes, materialName } from '../../units/tables/conductors'
import { boxFor } from './boxes'
import { tell } from './draft'
import type { Box, Conductor, Splice } from './parts'
import type { Site } from './site'
import { areaOf, connectorFor, connectorNamed } from './splices'

/** A panel’s gutter as it usually is, in²; how full it may be at any place, with splices and of wires alone (312.8). */
const gutterIn2 = 14
const mayFillFraction = 0.75
const wiresMayFillFraction = 0.4

/** Whether the splices made in a panel, with their wires, leave the room that is asked: by usual gutters, measured where it is near. */
function inGutters(site: Site, splices: readonly Splice[], ends: ReadonlyMap<string, Conductor[]>) {
  for (const panel of site.job.panels) {
    const inIt = splices.filter(s => site.draft.devices.get(s.device)?.within === panel.name)
    // each bends round in the gutter once, whatever it is joined to
    const wires = new Set(inIt.flatMap(s => ends.get(s.device) ?? []))
    const wiresIn2 = [...wires].reduce(
      (sum, { size }) => sum + (size ? (conductorRow(size)?.areaIn2 ?? 0) : 0),
      0,
    )
    const joinedIn2 = inIt.reduce((sum, s) => sum + areaOf(s.connector), 0)
    const all = (wiresIn2 + joinedIn2) / gutterIn2
    if (all > mayFillFraction || wiresIn2 / gutterIn2 > wiresMayFillFraction)
      tell(
        site.draft,
        `${panel.name}: ${inIt.length} splices and their wires would fill ${quantity(all, 'fraction')} of a usual gutter of ${gutterIn2} in²; ${quantity(mayFillFraction, 'fraction')} may be, ${quantity(wiresMayFillFraction, 'fraction')} of wires alone (NEC 312.8). Measure it, or splice in a box beside it.`,
        `gutter ${panel.id}`,
      )
  }
}

/** With what each splice is made, and the boxes that the work puts up, by what enters them. */
export function joined(site: Site, conductors: readonly Conductor[]): { splices: Splice[]; boxes: Box[] } {
  const splices: Splice[] = []
  const ends = new Map<string, Conductor[]>()
  for (const c of conductors)
    for (const { device } of [c.from, c.to]) ends.set(device, [...(ends.get(device) ?? []), c])
  const devices = [...site.draft.devices.values()]
  for (const device of devices) {
    if (device.kind !== 'splice') continue
    const wires = (ends.get(device.id) ?? []).flatMap(({ size, material }) =>
      size ? [{ size, material }] : [],
    )
    const chosen = site.job.wiring?.joints?.find(j => j.of === device.id)?.with
    const named = chosen === undefined ? null : connectorNamed(chosen, wires)
    if (chosen !== undefined && named) {
      if (!named.takes)
        tell(
          site.draft,
          `${device.name}: a ${named.name} does not take ${wires.map(w => `${w.size} ${materialName[w.material]}`).join(', ')} together.`,
          device.id,
        )
      splices.push({ device: device.id, connector: chosen, name: named.name })
      continue
    }
    if (chosen !== undefined)
      tell(
        site.draft,
        `${device.name}: no connector is called ${chosen}; the one of the plan is taken.`,
        device.id,
      )
    const found = connectorFor(wires, site.habits.connectors)
    if (!found)
      tell(
        site.draft,
        `${device.name}: no connector of the list takes its wires: choose one listed for them.`,
        device.id,
      )
    splices.push({ device: device.id, connector: found?.key ?? null, name: found?.name ?? 'to be chosen' })
  }
  inGutters(site, splices, ends)
  const boxes: Box[] = []
  for (const name of site.draft.boxes) {
    const inIt = devices.filter(d => d.within === name)
    const entering = inIt.flatMap(d =>
      (ends.get(d.id) ?? []).filter(c => {
        const other = c.from.device === d.id ? c.to.device : c.from.device
        // what stays within the box is not counted (314.16(B)(1))
        return !inIt.some(o => o.id === other)
      }),
    )
    const counts = new Map<ConductorSize, number>()
    let grounds = 0
    let groundSize: ConductorSize = '14'
    for (const c of entering) {
      if (!c.size) continue
      if (c.function === 'ground') {
        grounds++
        // the largest counts for all (314.16(B)(5))
        if (conductorSizes.indexOf(c.size) > conductorSizes.indexOf(groundSize)) groundSize = c.size
      } else counts.set(c.size, (counts.get(c.size) ?? 0) + 1)
    }
    const device = inIt.find(d => d.kind === 'receptacle')
    const onIt = device && (ends.get(device.id) ?? []).find(c => c.size)?.size
    const box = boxFor(
      {
        conductors: [...counts].map(([size, count]) => ({ size, count })),
        grounds: grounds ? { size: groundSize, count: grounds } : null,
        device: onIt ?? null,
      },
      site.job.edition,
      site.job.wiring?.joints?.find(j => j.of === name)?.with,
    )
    if (box?.pull)
      tell(
        site.draft,
        `${name}: wires of 4 AWG and more make it a pull box: straight eight times the largest raceway, round a corner six times (NEC 314.28). The ${box.name} is ${box.large ? 'a proposal' : 'too small for them'}.`,
        name,
      )
    if (box && box.requiredIn3 > box.volumeIn3)
      tell(
        site.draft,
        `${name}: a ${box.name} holds ${quantity(box.volumeIn3, 'in3')}; what enters it asks for ${quantity(box.requiredIn3, 'in3')} (NEC 314.16).`,
      )
    if (box)
      boxes.push({
        name,
        box: box.name,
        key: box.key,
        requiredIn3: box.requiredIn3,
        volumeIn3: box.volumeIn3,
      })
    else tell(site.draft, `${name}: no usual box holds what enters it: take one made for it.`)
  }
  return { splices, boxes }
}
