import { quantity } from '../../units/format'
import { type ConductorSize, conductorSizes, tableAmpacityA } from '../../units/tables/conductors'
import { draw, end, lay, put, tell } from './draft'
import type { Site } from './site'
import { terminal } from './terminals'

/** Volts of a bank that is nearly empty, of its nominal ones. */
const lowShare = 0.9
const usualEfficiency = 0.85
const continuousFactor = 1.25
const usualCableFt = 5
const mostCables = 4
/** Cables in parallel are no thinner (310.10(G)). */
const leastParallel = '1/0'
const fusesA = [30, 40, 60, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350, 400, 500, 600] as const

/** How many cables of which size carry so many amps, by the 75 °C column: one where one does, else several equally long. */
function cablesFor(ratedA: number): { count: number; size: ConductorSize } | null {
  for (let count = 1; count <= mostCables; count++) {
    const size = conductorSizes.find(
      s =>
        (tableAmpacityA('cu', s, 75) ?? 0) * count >= ratedA &&
        (count === 1 || conductorSizes.indexOf(s) >= conductorSizes.indexOf(leastParallel)),
    )
    if (size) return { count, size }
  }
  return null
}

/**
 * Battery cables: A = W ÷ (low volts × efficiency) × 1.25, by the 75 °C column of the cable lugs, each string through a fuse of its own,
 * all through one disconnect (NEC 480.7, 706.15). A bank whose fuse is named has cables for the fuse.
 */
export function dcSide(site: Site) {
  const unit = site.job.source?.units.find(u => u.equipment.kind === 'inverter' && u.bank)
  if (unit?.equipment.kind !== 'inverter' || !unit.bank) return
  const { equipment: inverter, bank } = unit
  const lowV = lowShare * bank.equipment.unitV * bank.series
  const drawnA =
    (continuousFactor * inverter.continuousW) /
    (lowV * (inverter.fullLoadEfficiencyFraction ?? inverter.efficiencyFraction ?? usualEfficiency))
  const ratedA = Math.max(drawnA, bank.fuseA ?? 0)
  const stringA = drawnA / bank.parallel
  const fuseA = bank.fuseA ?? fusesA.find(A => A >= stringA)
  const main = cablesFor(ratedA)
  // a string is fused by itself: its cable carries what its fuse lets through
  const string = bank.parallel > 1 ? cablesFor(Math.max(stringA, fuseA ?? 0)) : main
  if (!main || !string || fuseA === undefined)
    tell(
      site.draft,
      `Battery cables carry ${quantity(ratedA, 'A')} at ${quantity(lowV, 'V')}, more than ${mostCables} of 4/0 do: bus bars, by the makers’ instructions.`,
      'battery',
    )
  const cables = main ?? { count: mostCables, size: '4/0' as const }
  const ofString = string ?? cables
  const { name } = bank.equipment
  const post = (id: string, title: string, most: number) => ({ ...terminal(id, title, 'post'), most })
  const disconnect = put(site.draft, {
    id: 'disconnect',
    kind: 'disconnect',
    name: `Battery disconnect ${quantity(ratedA, 'A')}${fuseA === undefined ? '' : `, fuses ${quantity(fuseA, 'A')}`}`,
    within: 'Battery disconnect',
    terminals: [
      ...Array.from({ length: bank.parallel }, (_, n) =>
        post(`string ${n + 1}`, `fuse of string ${n + 1}`, ofString.count),
      ),
      post('inverter', 'inverter side', cables.count),
    ],
  })
  put(site.draft, {
    id: 'inverter',
    kind: 'inverter',
    name: inverter.name,
    within: inverter.name,
    terminals: [
      post('DC plus', 'DC plus', cables.count),
      post('DC minus', 'DC minus', cables.count * bank.parallel),
    ],
  })
  tell(
    site.draft,
    `${disconnect.name}: a fuse for each string, of the interrupting rating that the battery’s maker states, within sight of the battery (NEC 480.7, 706.15).`,
    'battery',
  )
  const route = lay(site.draft, {
    id: 'battery',
    name: `${name} to ${inverter.name}`,
    from: name,
    to: inverter.name,
    conduit: null,
    lengthFt: usualCableFt,
    lengthFrom: 'assumed',
  })
  const several = (count: number, text: string, n: number) =>
    count > 1 ? `${text}, ${n + 1} of ${count}` : text
  for (let s = 1; s <= bank.parallel; s++) {
    const id = bank.parallel > 1 ? `bank-${s}` : 'bank'
    const title = bank.parallel > 1 ? `${name}, string ${s}` : name
    put(site.draft, {
      id,
      kind: 'bank',
      name: title,
      within: name,
      terminals: [post('plus', 'plus', ofString.count), post('minus', 'minus', ofString.count)],
    })
    for (let n = 0; n < ofString.count; n++) {
      const common = { route, breakerA: null, size: ofString.size }
      draw(site.draft, {
        ...common,
        function: 'plus',
        mark: several(ofString.count, `B${s}+`, n),
        from: end(id, 'plus'),
        to: end(disconnect.id, `string ${s}`),
      })
      draw(site.draft, {
        ...common,
        function: 'minus',
        mark: several(ofString.count, `B${s}−`, n),
        from: end(id, 'minus'),
        to: end('inverter', 'DC minus'),
      })
    }
  }
  for (let n = 0; n < cables.count; n++)
    draw(site.draft, {
      function: 'plus',
      mark: several(cables.count, 'B+', n),
      from: end(disconnect.id, 'inverter'),
      to: end('inverter', 'DC plus'),
      route,
      breakerA: null,
      size: cables.size,
    })
  if (bank.parallel > 1)
    tell(site.draft, `The cables of the ${bank.parallel} strings are equally long.`, 'battery')
}
