import type { Evaluated } from '../assess/evaluated'
import { methodOf } from '../hookup/method'
import { bankLimits } from '../source/bank-limits'
import { chargeOf, chargerEfficiencyFraction } from '../source/inputs'
import { lossesOf } from '../source/store'
import { quantity } from '../units/format'
import type { Said } from './finding'

/** What stands behind an inverter and ahead of it: its bank, and its own transfer. */

const target = { view: 'source', field: 'units' } as const

/** What the bank gives and takes against what its batteries and its fuse let through. */
export function batteryOverCurrent({ job, figures }: Evaluated): Said[] {
  const { source } = job
  if (!source) return []
  const share = 1 / source.units.length
  return source.units.flatMap((unit): Said[] => {
    const limits = bankLimits(unit)
    if (!limits) return []
    const { idleW, efficiencyFraction } = lossesOf(unit.equipment)
    const ampsFor = (W: number) => (idleW + W / efficiencyFraction) / limits.nominalV
    const runsA = ampsFor(Math.min(unit.equipment.continuousW, figures.together.both.W * share))
    const [start] = figures.starts
    const startsA = start ? ampsFor(Math.min(unit.equipment.surgeW, start.needVA * share)) : 0
    const chargesA = ((chargeOf(job, unit) ?? 0) * chargerEfficiencyFraction) / limits.nominalV
    const said = (sentence: string, remedy: string): Said => ({
      id: 'battery.over-current',
      severity: 'stop',
      sentence,
      why: 'The battery’s own protection opens and everything goes dark, or cells and terminals overheat where it has none.',
      remedy,
      article: 'NEC 240.21(H), 110.3(B)',
      target,
      fixes: [],
    })
    if (runsA > limits.dischargeA)
      return [
        said(
          `The ${unit.equipment.name} draws ${quantity(runsA, 'A')} from its bank with everything on that runs together; ${limits.name} gives ${quantity(limits.dischargeA, 'A')}.`,
          'More strings in parallel, a bank of higher volts, or fewer loads.',
        ),
      ]
    if (startsA > limits.surgeA)
      return [
        said(
          `${start?.load.load.name} starting asks ${quantity(startsA, 'A')} of the bank; ${limits.name} gives ${quantity(limits.surgeA, 'A')} for seconds.`,
          'More strings in parallel, a softer start, or fewer loads meanwhile.',
        ),
      ]
    if (source.charging && chargesA > limits.chargeA)
      return [
        said(
          `The ${unit.equipment.name} charges with ${quantity(chargesA, 'A')}; the bank takes ${quantity(limits.chargeA, 'A')}.`,
          'Set the charger lower, or take more strings in parallel.',
        ),
      ]
    return []
  })
}

/** On the utility everything behind an inverter with a transfer of its own passes through it, and it charges beside. */
export function transferLimit({ job, figures }: Evaluated): Said[] {
  const { source } = job
  if (!source || methodOf(job.hookup.method).transfer !== 'automatic') return []
  const { together: sums } = figures
  return source.units.flatMap((unit): Said[] => {
    const { equipment } = unit
    if (equipment.kind !== 'inverter' || !equipment.ownTransfer || equipment.transferA === undefined)
      return []
    const chargesA = source.charging?.from === 'not from the panel' ? 0 : (chargeOf(job, unit) ?? 0) / 240
    const passesA = Math.max(sums.L1.VA, sums.L2.VA) / 120 / Math.max(1, source.units.length) + chargesA
    if (passesA <= equipment.transferA) return []
    return [
      {
        id: 'transfer.limit',
        severity: 'stop',
        sentence: `On the utility ${quantity(passesA, 'A')} pass through the transfer of the ${equipment.name}${chargesA > 0 ? `, ${quantity(chargesA, 'A')} of it to charge` : ''}; it carries ${quantity(equipment.transferA, 'A')}.`,
        why: 'Its relay overheats on every ordinary day, not only in an outage.',
        remedy: 'Move circuits back, charge slower, or protect it by a breaker ahead of it that it can bear.',
        article: 'NEC 110.3(B), 702.4',
        target,
        fixes: [],
      },
    ]
  })
}
