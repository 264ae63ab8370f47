import { distance } from 'fastest-levenshtein'
import type { Calculator } from './calculator'
import { capacityTest } from './commission/capacity-test'
import { outletReadings } from './commission/outlet-readings'
import { splitReadings } from './commission/split-readings'
import { cordChain } from './hookup/cord-chain'
import { intervalDemand } from './loads/interval-demand'
import { loadLog } from './loads/load-log'
import { panelDemand } from './loads/panel-demand'
import { start } from './loads/start'
import { weatherScale } from './loads/weather-scale'
import { bank } from './source/bank'
import { legs } from './source/legs'
import { refill } from './source/refill'
import { runtime } from './source/runtime'
import { solarString } from './source/solar-string'
import { twoBatteries } from './source/two-batteries'
import { ampacity } from './wiring/ampacity'
import { boxFill } from './wiring/box-fill'
import { conduitFill } from './wiring/conduit-fill'
import { equipmentGround } from './wiring/equipment-ground'
import { sharedNeutral } from './wiring/shared-neutral'
import { voltageDrop } from './wiring/voltage-drop'

/** Every calculator of the bench, room by room. */
// biome-ignore lint/suspicious/noExplicitAny: each keeps its own input and output types; the registry only runs them from raw input
export const calculators: readonly Calculator<any, any>[] = [
  ampacity,
  conduitFill,
  equipmentGround,
  voltageDrop,
  boxFill,
  sharedNeutral,
  cordChain,
  start,
  loadLog,
  weatherScale,
  intervalDemand,
  panelDemand,
  runtime,
  twoBatteries,
  bank,
  capacityTest,
  refill,
  solarString,
  legs,
  outletReadings,
  splitReadings,
]

/** The calculators whose names come nearest, for a mistyped one. */
export function nearestNames(name: string, most = 3): string[] {
  return calculators
    .map(c => ({ name: c.name, steps: distance(name, c.name) }))
    .sort((a, b) => a.steps - b.steps)
    .slice(0, most)
    .map(c => c.name)
}
