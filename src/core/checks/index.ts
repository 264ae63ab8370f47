import type { Evaluated } from '../job/evaluated'
import { energyReserve, energyShort } from './energy'
import {
  circuitUnverified,
  circuitWithoutLoad,
  intervalDataMissing,
  loadUnmeasured,
  nameplateMissing,
  photoMissing,
} from './facts'
import type { Finding } from './finding'
import { applianceCordJurisdiction, transferMissing, utilityReturnBlind } from './grid'
import { breakerAbovePlate, loadSaturated, loadWeather, nameplateImpossible, utilityDoubt } from './loads'
import { bonds, neutralSharedOverload, neutralSharedSplit, neutralUnknown } from './neutral'
import {
  breakerBrand,
  breakerCommonTrip,
  doubleLabelled,
  neutralNoTie,
  nothingDied,
  panelBus,
  panelCapacity,
  panelNoSpace,
  panelNotFed,
  solarOnIsland,
  subpanelBonded,
  tandemNotListed,
  tandemSameLeg,
  whipReach,
  workingSpace,
} from './panel'
import { compressorWait, idleDominates, pairAvoid, powerOver, startOver, startTogether } from './power'
import { legDead, legImbalance, legOverload, v240 } from './voltage'

/** Every check, in the order of the catalogue. Findings are sorted by severity afterwards. */
export const checks: readonly ((evaluated: Evaluated) => Finding[])[] = [
  transferMissing,
  applianceCordJurisdiction,
  solarOnIsland,
  bonds,
  subpanelBonded,
  neutralSharedOverload,
  neutralSharedSplit,
  neutralNoTie,
  panelNotFed,
  v240,
  legDead,
  legOverload,
  legImbalance,
  tandemSameLeg,
  powerOver,
  startOver,
  startTogether,
  pairAvoid,
  idleDominates,
  energyShort,
  energyReserve,
  breakerBrand,
  breakerCommonTrip,
  panelNoSpace,
  panelCapacity,
  panelBus,
  tandemNotListed,
  whipReach,
  workingSpace,
  circuitUnverified,
  circuitWithoutLoad,
  loadUnmeasured,
  nameplateMissing,
  photoMissing,
  intervalDataMissing,
  doubleLabelled,
  nothingDied,
  neutralUnknown,
  nameplateImpossible,
  breakerAbovePlate,
  loadWeather,
  loadSaturated,
  utilityDoubt,
  compressorWait,
  utilityReturnBlind,
]
