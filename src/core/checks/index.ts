import type { Evaluated } from '../job/evaluated'
import { energyReserve, energyShort } from './energy'
import { circuitUnverified, circuitWithoutLoad, loadUnmeasured, nameplateMissing } from './facts'
import type { Finding } from './finding'
import { applianceCordJurisdiction, transferMissing, utilityReturnBlind } from './grid'
import { bonds, neutralSharedOverload, neutralSharedSplit, neutralUnknown } from './neutral'
import { compressorWait, idleDominates, pairAvoid, powerOver, startOver, startTogether } from './power'
import { legDead, legImbalance, legOverload, v240 } from './voltage'

/** Every check, in the order of the catalogue. Findings are sorted by severity afterwards. */
export const checks: readonly ((evaluated: Evaluated) => Finding[])[] = [
  transferMissing,
  applianceCordJurisdiction,
  bonds,
  neutralSharedOverload,
  neutralSharedSplit,
  v240,
  legDead,
  legOverload,
  legImbalance,
  powerOver,
  startOver,
  startTogether,
  pairAvoid,
  idleDominates,
  energyShort,
  energyReserve,
  circuitUnverified,
  circuitWithoutLoad,
  loadUnmeasured,
  nameplateMissing,
  neutralUnknown,
  compressorWait,
  utilityReturnBlind,
]
