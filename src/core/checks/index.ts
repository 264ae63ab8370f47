import { inEdition, workingIn } from '../articles'
import type { Evaluated } from '../assess/evaluated'
import type { Job } from '../job/schema'
import { articles } from './articles'
import { batteryOverCurrent, transferLimit } from './battery'
import {
  cordUnlisted,
  cordWeakLink,
  dropHigh,
  pathFaults,
  pathOverload,
  runChecks,
  wireSmallCircuits,
} from './conductors'
import { energyReserve, energyShort } from './energy'
import {
  circuitUnverified,
  circuitWithoutLoad,
  intervalDataMissing,
  loadUnmeasured,
  nameplateMissing,
  photoMissing,
} from './facts'
import { bySeverity, type Finding, type Said } from './finding'
import { applianceCordJurisdiction, cordHardWired, transferMissing, utilityReturnBlind } from './grid'
import {
  energyCold,
  generatorIndoors,
  generatorQuiet,
  generatorTooSmall,
  mountWet,
  solarStrings,
  sourceStoresNothing,
} from './inputs'
import {
  backfeedNoHoldDown,
  cordPermanent,
  groundInterrupted,
  interlockLimit,
  interlockNotListed,
  interlockPlanned,
  interlockWrongSpace,
} from './interlock'
import { breakerAbovePlate, loadSaturated, loadWeather, nameplateImpossible, utilityDoubt } from './loads'
import { chargeLoop, neutralLeftBehind, passthroughForbidden, protectionLost } from './moved'
import { bonds, neutralSharedOverload, neutralSharedSplit, neutralUnknown } from './neutral'
import { autoFullLoad, autotransformerIdle, autotransformerLimit, yAdapter } from './pairs'
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
  solarNotFound,
  solarOnIsland,
  subpanelBonded,
  tandemNotListed,
  tandemSameLeg,
  whipReach,
  workingSpace,
} from './panel'
import { planHindered } from './plan'
import {
  inputLimit,
  positionBridged,
  positionLimit,
  positionNone,
  spliceMetals,
  switchVolts,
} from './positions'
import {
  branchOverload,
  compressorWait,
  idleDominates,
  pairAvoid,
  powerOver,
  startOver,
  startTogether,
} from './power'
import {
  inspectionRemark,
  measuredCapacity,
  measuredStart,
  measuredTransfer,
  measuredVolts,
  measuredWatts,
  testFailed,
} from './proven'
import { legDead, legImbalance, legOverload, v240 } from './voltage'

/** Every check, in the order of the catalogue. Findings are sorted by severity afterwards. */
const checks: readonly ((evaluated: Evaluated) => Said[])[] = [
  transferMissing,
  interlockWrongSpace,
  interlockNotListed,
  interlockPlanned,
  interlockLimit,
  backfeedNoHoldDown,
  applianceCordJurisdiction,
  cordHardWired,
  cordPermanent,
  solarOnIsland,
  solarNotFound,
  bonds,
  groundInterrupted,
  subpanelBonded,
  neutralLeftBehind,
  protectionLost,
  chargeLoop,
  passthroughForbidden,
  neutralSharedOverload,
  neutralSharedSplit,
  neutralNoTie,
  panelNotFed,
  planHindered,
  v240,
  legDead,
  legOverload,
  legImbalance,
  yAdapter,
  autotransformerLimit,
  autotransformerIdle,
  tandemSameLeg,
  powerOver,
  branchOverload,
  startOver,
  startTogether,
  pairAvoid,
  batteryOverCurrent,
  transferLimit,
  autoFullLoad,
  idleDominates,
  energyShort,
  energyReserve,
  energyCold,
  sourceStoresNothing,
  solarStrings,
  generatorTooSmall,
  generatorIndoors,
  generatorQuiet,
  wireSmallCircuits,
  runChecks,
  pathFaults,
  cordWeakLink,
  pathOverload,
  cordUnlisted,
  dropHigh,
  positionLimit,
  positionBridged,
  switchVolts,
  spliceMetals,
  positionNone,
  inputLimit,
  breakerBrand,
  breakerCommonTrip,
  panelNoSpace,
  panelCapacity,
  panelBus,
  tandemNotListed,
  whipReach,
  workingSpace,
  mountWet,
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
  testFailed,
  measuredWatts,
  measuredStart,
  measuredVolts,
  measuredCapacity,
  measuredTransfer,
  inspectionRemark,
]

/** A key that stays while a finding’s figures change: its id and what it is about, numbered where several agree in both. */
function keyed(said: readonly Said[], job: Job): Finding[] {
  const seen = new Map<string, number>()
  return said.map(s => {
    const { target } = s
    const about =
      target.view === 'panel'
        ? [...target.circuitIds, target.panelId ?? '', target.field ?? ''].filter(Boolean).join(',')
        : (target.field ?? '')
    const base = `${s.id}|${about}`.slice(0, 380)
    const n = (seen.get(base) ?? 0) + 1
    seen.set(base, n)
    const key = n > 1 ? `${base}#${n}` : base
    const accepted = s.severity === 'stop' ? undefined : job.accepted?.find(a => a.key === key)
    const article = articles[s.id] ?? s.article
    const { edition } = job
    return {
      ...s,
      key,
      why: inEdition(s.why, edition),
      remedy: inEdition(s.remedy, edition),
      ...(s.working && { working: workingIn(s.working, edition) }),
      ...(article && { article: inEdition(article, edition) }),
      ...(accepted && { accepted }),
    }
  })
}

/** Everything the checks have to say on a job, gravest first. */
export const findingsOf = (evaluated: Evaluated): Finding[] =>
  keyed(
    checks.flatMap(check => check(evaluated)),
    evaluated.job,
  ).sort(bySeverity)
