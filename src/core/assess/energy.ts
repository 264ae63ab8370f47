import type { Job } from '../job/schema'
import type { Leg } from '../panel/leg'
import { arrangementNames } from '../source/arrangement'
import { runtime } from '../source/runtime'
import { catalogueOf, deratingWorking, type Store, sourceName, storeOf } from '../source/store'
import { twoBatteries } from '../source/two-batteries'
import { fromJob, type Working } from '../working'

/** How long the store lasts at the average draw, in closed form. */
export interface RunTime {
  hours: number
  /** drawn from the batteries together, W */
  batteryW: number
  usableWh: number
  /** for the hours asked, Wh; with batteries apart what the fuller leg asks of both */
  needWh: number
  /** left in the battery that lasts longer, Wh */
  strandedWh: number
  limitedBy: Leg | 'both'
  working: Working
}

/** What the source must deliver on average: whole, and by leg, W. */
export interface MeanDraw {
  W: number
  legW: Record<Leg, number>
  working: Working
}

/**
 * The run time of a job's source: `runtime` of the whole store, or `two-batteries` where each leg drains its own.
 * Null without a source, or where nothing is stored (a generator alone).
 */
export function runOf(job: Job, mean: MeanDraw): RunTime | null {
  const { source, outage } = job
  if (!source) return null
  const store = storeOf(source, outage.deratingFraction, mean.W)
  if (store.capacityWh <= 0) return null
  return store.apart ? apart(job, store, mean) : whole(job, store, mean)
}

function whole(job: Job, store: Store, mean: MeanDraw): RunTime {
  const { source, outage } = job
  const catalogue = source ? catalogueOf(source) : fromJob
  const transformer = source?.arrangement === 'autotransformer' ? source.autotransformer : undefined
  const worked = runtime.compute(
    {
      capacityWh: store.capacityWh,
      startFraction: outage.startFraction,
      reserveFraction: outage.reserveFraction,
      deratingFraction: store.deratingFraction,
      idleW: store.idleW + store.transformerIdleW,
      efficiencyFraction: store.efficiencyFraction,
      loadW: mean.W,
    },
    {
      capacityWh: { ...catalogue, label: `Capacity: ${source ? sourceName(source) : ''}` },
      startFraction: fromJob,
      reserveFraction: fromJob,
      deratingFraction: source
        ? {
            from: 'job',
            label: 'Left of the capacity',
            working: deratingWorking(source, outage.deratingFraction, store.rateFraction),
          }
        : fromJob,
      idleW: {
        ...catalogue,
        ...(transformer && {
          label: `Own draw, with the ${transformer.name}’s ${transformer.idleW} W at the battery`,
        }),
      },
      efficiencyFraction: {
        ...catalogue,
        ...(transformer && { label: `Efficiency, through the ${transformer.name}` }),
      },
      loadW: { from: 'job', working: mean.working },
    },
  )
  const { hours, batteryW, usableWh } = worked.result
  return {
    hours,
    batteryW,
    usableWh,
    needWh: batteryW * outage.hours,
    strandedWh: 0,
    limitedBy: 'both',
    working: worked.working,
  }
}

function apart(job: Job, store: Store, mean: MeanDraw): RunTime {
  const { source, outage } = job
  const share = store.deratingFraction * (outage.startFraction - outage.reserveFraction)
  const [a = 0, b = 0] = store.unitsWh
  const unitWh: [number, number] = [a * share, b * share]
  const legW: [number, number] = [mean.legW.L1, mean.legW.L2]
  const idleW = store.idleW / 2
  const catalogue = source ? catalogueOf(source) : fromJob
  const worked = twoBatteries.compute(
    { unitWh, idleW, efficiencyFraction: store.efficiencyFraction, legW, shared: false },
    {
      unitWh: source
        ? { from: 'job', working: deratingWorking(source, outage.deratingFraction, store.rateFraction) }
        : fromJob,
      idleW: catalogue,
      efficiencyFraction: catalogue,
      legW: { from: 'job', working: mean.working },
    },
  )
  const { hours, limitedBy, strandedWh } = worked.result
  const drawnW = (leg: 0 | 1) => idleW + legW[leg] / store.efficiencyFraction
  const batteryW = drawnW(0) + drawnW(1)
  const usableWh = unitWh[0] + unitWh[1]
  return {
    hours,
    batteryW,
    // what is stranded is not usable
    usableWh: usableWh - strandedWh,
    needWh: batteryW * outage.hours,
    strandedWh,
    limitedBy,
    working: {
      ...worked.working,
      notes: [
        ...(worked.working.notes ?? []),
        `${source ? arrangementNames[source.arrangement] : ''}: each leg drains its own battery.`,
      ],
    },
  }
}
