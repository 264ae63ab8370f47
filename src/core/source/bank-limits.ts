import type { Unit } from './design'
import { lossesOf } from './store'

/** What a bank lets through, and by what. Amps at its terminals, watts behind the inverter. */
export interface BankLimits {
  nominalV: number
  /** for hours, and what that makes behind the inverter; Infinity where nothing says */
  dischargeA: number
  outputW: number
  surgeA: number
  surgeW: number
  /** while it is charged */
  chargeA: number
  /** what limits the discharge, as it stands in a sentence */
  name: string
}

/**
 * The limits of an inverter's bank: what its batteries may give and take, all strings together, and the bank's fuse. For
 * seconds the named surge counts, else what it gives for hours: a fuse is slow, a battery's own protection is not.
 * Null without a bank, or where neither a limit nor a fuse is said.
 */
export function bankLimits(unit: Unit): BankLimits | null {
  const { bank } = unit
  if (!bank) return null
  const { equipment, series, parallel, fuseA } = bank
  const { maxDischargeA, maxChargeA, surgeA } = equipment
  if (maxDischargeA === undefined && maxChargeA === undefined && fuseA === undefined) return null
  const nominalV = equipment.unitV * series
  const { efficiencyFraction, idleW } = lossesOf(unit.equipment)
  const ofBatteries = (maxDischargeA ?? Infinity) * parallel
  const dischargeA = Math.min(ofBatteries, fuseA ?? Infinity)
  const forSeconds = surgeA !== undefined ? surgeA * parallel : ofBatteries
  const behind = (A: number) => Math.max(0, (A * nominalV - idleW) * efficiencyFraction)
  return {
    nominalV,
    dischargeA,
    outputW: behind(dischargeA),
    surgeA: forSeconds,
    surgeW: behind(forSeconds),
    chargeA: (maxChargeA ?? Infinity) * parallel,
    name:
      fuseA !== undefined && fuseA < ofBatteries
        ? `the ${fuseA} A fuse of the bank`
        : `${series * parallel} × ${equipment.name}`,
  }
}
