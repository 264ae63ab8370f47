import { quantity } from '../../units/format'
import { conductorSizes, tableAmpacityA } from '../../units/tables/conductors'
import { draw, end, lay, put, tell } from './draft'
import type { Site } from './site'
import { terminal } from './terminals'

/** Volts of a bank that is nearly empty, of its nominal ones. */
const lowShare = 0.9
const usualEfficiency = 0.85
const continuousFactor = 1.25
const usualCableFt = 5

/**
 * Battery cables: A = W ÷ (low volts × efficiency) × 1.25, by the 75 °C column of the cable lugs, plus through fuse and disconnect
 * (NEC 480.7, 706.15). A bank whose fuse is named has cables for the fuse.
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
  const size = conductorSizes.find(s => (tableAmpacityA('cu', s, 75) ?? 0) >= ratedA)
  if (!size)
    tell(
      site.draft,
      `Battery cables carry ${quantity(ratedA, 'A')} at ${quantity(lowV, 'V')}, more than 4/0 does: take two of each, equally long.`,
    )
  if (bank.parallel > 1)
    tell(
      site.draft,
      `The cables of the ${bank.parallel} strings are equally long, each with a fuse of its own.`,
    )
  const name = bank.equipment.name
  put(site.draft, {
    id: 'bank',
    kind: 'bank',
    name,
    within: name,
    terminals: [terminal('plus', 'plus', 'post'), terminal('minus', 'minus', 'post')],
  })
  put(site.draft, {
    id: 'disconnect',
    kind: 'disconnect',
    name: 'Battery disconnect with its fuse',
    within: 'Battery disconnect',
    terminals: [terminal('bank', 'bank side', 'post'), terminal('inverter', 'inverter side', 'post')],
  })
  put(site.draft, {
    id: 'inverter',
    kind: 'inverter',
    name: inverter.name,
    within: inverter.name,
    terminals: [terminal('DC plus', 'DC plus', 'post'), terminal('DC minus', 'DC minus', 'post')],
  })
  const route = lay(site.draft, {
    id: 'battery',
    name: `${name} to ${inverter.name}`,
    from: name,
    to: inverter.name,
    conduit: null,
    lengthFt: usualCableFt,
    lengthFrom: 'assumed',
  })
  const common = { route, breakerA: null, size: size ?? ('4/0' as const) }
  draw(site.draft, {
    ...common,
    function: 'plus',
    mark: 'B+ 1',
    from: end('bank', 'plus'),
    to: end('disconnect', 'bank'),
  })
  draw(site.draft, {
    ...common,
    function: 'plus',
    mark: 'B+ 2',
    from: end('disconnect', 'inverter'),
    to: end('inverter', 'DC plus'),
  })
  draw(site.draft, {
    ...common,
    function: 'minus',
    mark: 'B−',
    from: end('bank', 'minus'),
    to: end('inverter', 'DC minus'),
  })
}
