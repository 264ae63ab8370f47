import type { Course } from './course'
import type { Account, CourseOutcome, CourseRecord } from './course-outcome'
import { never } from './one-store'
import type { Plan } from './plan'
import type { Bench } from './sums'

/** What went through so far, in Wh, hours and gallons; and the fuel that is left. */
interface Sums extends Omit<Account, 'startWh' | 'endWh'> {
  generatorH: number
  gallons: number
  fuelWh: number
}

/** Everything that changes while a course runs. */
export interface State {
  plan: Plan
  course: Course
  bench: Bench
  record: CourseRecord | null
  outcome: CourseOutcome
  stepH: number
  stores: number
  capacity: Float64Array
  reserve: Float64Array
  level: Float64Array
  /** the store's output is on */
  on: Uint8Array
  full: Uint8Array
  tierOn: Uint8Array
  /** mean watts of each group in this step */
  cur: Float64Array
  /** volt-amps of each leg that touch this step */
  va: Float64Array
  sums: Sums
  /** of this step, by store: asked by its loads; from the sun; into the charger; to the loads; from the battery; got */
  need: Float64Array
  sunIn: Float64Array
  acIn: Float64Array
  acOut: Float64Array
  dcOut: Float64Array
  got: Float64Array
  deadUntil: number
  gone: boolean
  genOn: boolean
  tripsBy: Int16Array
}

export function stateFor(plan: Plan, course: Course, bench: Bench, record: CourseRecord | null): State {
  const { stores, generator } = plan
  const n = stores.length
  const by = (of: (s: Plan['stores'][number]) => number) =>
    Float64Array.from(stores, (s, k) => of(s) * (course.capacityFactor[k] ?? 1))
  const level = by(s => s.startWh)
  const reserve = by(s => s.reserveWh)
  const sums: Sums = {
    sunWh: 0,
    sunUnusedWh: 0,
    generatorHouseWh: 0,
    generatorChargeWh: 0,
    loadsWh: 0,
    idleWh: 0,
    inverterWh: 0,
    transformerWh: 0,
    chargerWh: 0,
    generatorH: 0,
    gallons: 0,
    fuelWh: generator ? generator.gallons * generator.WhPerGallon : 0,
  }
  return {
    plan,
    course,
    bench,
    record,
    outcome: {
      firstDarkH: [never, never, never],
      cause: ['lasted', 'lasted', 'lasted'],
      causeAt: -1,
      emptyH: never,
      emptyStore: -1,
      trips: [],
      tripEnds: false,
      servedH: new Float64Array(6),
      leftOff: [],
      generatorH: 0,
      gallons: 0,
      endWh: 0,
      account: accountOf(level, sums, level),
    },
    stepH: plan.stepS / 3600,
    stores: n,
    capacity: by(s => s.capacityWh),
    reserve,
    level,
    on: Uint8Array.from(stores, (s, k) => (s.works && (level[k] ?? 0) > (reserve[k] ?? 0) ? 1 : 0)),
    full: new Uint8Array(n),
    tierOn: new Uint8Array(3).fill(1),
    cur: new Float64Array(6),
    va: new Float64Array(2),
    sums,
    need: new Float64Array(n),
    sunIn: new Float64Array(n),
    acIn: new Float64Array(n),
    acOut: new Float64Array(n),
    dcOut: new Float64Array(n),
    got: new Float64Array(n),
    deadUntil: 0,
    gone: false,
    genOn: false,
    tripsBy: new Int16Array(plan.loads.length + 1),
  }
}

export const total = (values: Float64Array): number => {
  let all = 0
  for (const value of values) all += value
  return all
}

/** What went through, as an account of it. */
export const accountOf = (
  start: Float64Array,
  { generatorH, gallons, fuelWh, ...through }: Sums,
  end: Float64Array,
): Account => ({ startWh: total(start), ...through, endWh: total(end) })
