import { methodOf } from '../hookup/method'
import type { Job } from '../job/schema'
import { duration, quantity, together } from '../units/format'
import { buffersFor, meanCourse } from './course'
import { runCourse } from './kernel'
import { lostAtH } from './one-store'
import { planOf } from './plan'
import { benchFor } from './sums'

/** How long a job lasts on average where more than the store counts. */
export interface OnAverage {
  /** until the first must-run circuit is dark; where it outlasts what is asked, with what is left then at the average draw */
  hours: number
  /** of sun and generator over the hours asked, at the battery, Wh */
  broughtWh: number
  /** `sun and the generator`; empty where only circuits are let go */
  broughtBy: string
  /** what counts beside the store */
  by: string
  /** the sentence of the balance; `aloneHours` is what the store alone comes to */
  sentence: (aloneHours: number) => string
}

/** Coarse, since it is reckoned at every tap: an answer to within some minutes. */
const stepS = 600

/**
 * The mean course with sun, generator and what is let go: what closed form cannot say. Null where it can, or where nothing
 * can be simulated. `batteryW` is the average draw at the battery.
 */
export function onAverage(job: Job, batteryW: number): OnAverage | null {
  const { source, outage } = job
  const sheds = outage.shedding ? outage.shedding.policy !== 'none' : methodOf(job.hookup.method).sheds
  const bringing = [source?.arrays?.length ? 'sun' : '', source?.generator ? 'the generator' : ''].filter(
    Boolean,
  )
  if (!bringing.length && !sheds) return null
  const planned = planOf(job, { stepS })
  if (!planned.ok) return null
  const plan = planned.value
  const got = runCourse(plan, meanCourse(buffersFor(plan)), benchFor(plan))
  const goneH = lostAtH(plan, got)
  const lasts = goneH === Number.POSITIVE_INFINITY
  const { sunWh, generatorHouseWh, generatorChargeWh, chargerWh } = got.account
  const efficiencyFraction = plan.stores[0]?.efficiencyFraction ?? 1
  const reserveWh = plan.stores.reduce((sum, s) => sum + s.reserveWh, 0)
  const by = together([...bringing, ...(sheds ? ['circuits let go'] : [])])
  const hours = lasts
    ? outage.hours + (batteryW > 0 ? Math.max(0, got.endWh - reserveWh) / batteryW : 0)
    : Math.min(outage.hours, goneH)
  return {
    hours,
    broughtWh: sunWh + generatorChargeWh - chargerWh + generatorHouseWh / efficiencyFraction,
    broughtBy: together(bringing),
    by,
    sentence: aloneHours =>
      `With ${by} it lasts ${lasts ? `the ${quantity(outage.hours, 'h')} asked` : `${duration(hours)} of the ${quantity(outage.hours, 'h')} asked`}, on average; the store alone ${duration(aloneHours)}.`,
  }
}
