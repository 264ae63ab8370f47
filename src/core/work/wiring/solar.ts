import { quantity } from '../../units/format'
import { conductorSizes, tableAmpacityA } from '../../units/tables/conductors'
import { draw, end, lay, put, tell } from './draft'
import type { Site } from './site'
import { terminal } from './terminals'

/** Of the short-circuit current: the sun may shine stronger than rated, and for hours (690.8(A)(1), (B)(1)). */
const sunFactor = 1.25 * 1.25
const usualFt = 40

/** From each array that a wired inverter takes in: plus and minus of 156 % of its short-circuit current (NEC 690.8). */
export function fromSun(site: Site) {
  const { source } = site.job
  source?.arrays?.forEach((array, n) => {
    const unit = source.units.find(u => u.id === array.unitId)
    if (unit?.equipment.kind !== 'inverter' || array.owned) return
    const { name } = unit.equipment
    const neededA = array.module.iscA * array.parallel * sunFactor
    const size = conductorSizes.find(
      s =>
        conductorSizes.indexOf(s) >= conductorSizes.indexOf('10') &&
        (tableAmpacityA('cu', s, 75) ?? 0) >= neededA,
    )
    const id = `array-${n + 1}`
    const title = `Array ${n + 1}, ${array.series * array.parallel} × ${array.module.name}`
    put(site.draft, {
      id,
      kind: 'array',
      name: title,
      within: title,
      terminals: [terminal('plus', 'plus', 'lead'), terminal('minus', 'minus', 'lead')],
    })
    put(site.draft, {
      id: 'inverter',
      kind: 'inverter',
      name,
      within: name,
      terminals: [
        terminal(`PV ${n + 1} plus`, `PV ${n + 1} plus`, 'lead'),
        terminal(`PV ${n + 1} minus`, `PV ${n + 1} minus`, 'lead'),
      ],
    })
    const route = lay(site.draft, {
      id,
      name: `${title} to ${name}`,
      from: title,
      to: name,
      conduit: site.habits.raceway,
      lengthFt: usualFt,
      lengthFrom: 'assumed',
    })
    for (const pole of ['plus', 'minus'] as const)
      draw(site.draft, {
        function: pole,
        mark: `PV ${n + 1} ${pole}`,
        from: end(id, pole),
        to: end('inverter', `PV ${n + 1} ${pole}`),
        route,
        breakerA: null,
        size: size ?? '4/0',
      })
    tell(
      site.draft,
      `${title}: wires for ${quantity(neededA, 'A')}, 156 % of its short-circuit current (NEC 690.8); outdoors PV wire in the sun, a disconnect within sight, and the frames bonded (690.43). On a building they shut down with the source (690.12).`,
      id,
    )
  })
}
