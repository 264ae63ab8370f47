import { type IntervalSeries, isSummerTime } from '@/core/loads/intervals'
import { seeded } from './seeded'

/** A made-up house, for a year of its utility’s data. */
export interface Household {
  id: string
  seed: number
  /** always on, W */
  baseW: number
  /** on top at the busiest hour of the morning and evening, W */
  morningW: number
  eveningW: number
  /** by day: children, a workshop */
  dayW: number
  /** coldest and warmest mean of a month, °C */
  winterC: number
  summerC: number
  /** for each degree below 15 °C and above 22 °C, W */
  heatingWPerC: number
  coolingWPerC: number
  /** rooftop solar at its best, W: what is left over is fed back */
  solarW?: number
}

const bump = (hour: number, at: number, width: number) => Math.exp(-(((hour - at) / width) ** 2))

/** A year by the hour from 1 February 2025, clock of Eastern time: what was drawn, and what was fed back where there is solar. */
export function yearOf(house: Household): IntervalSeries[] {
  const random = seeded(house.seed)
  const hours = 365 * 24
  const startS = Date.UTC(2025, 1, 1, 5) / 1000
  const forward = blank('forward', hours)
  const reverse = blank('reverse', hours)
  let spell = 0
  let habit = 1
  for (let n = 0; n < hours; n++) {
    const at = startS + n * 3600
    const offset = isSummerTime(at - 5 * 3600) ? -240 : -300
    const local = at + offset * 60
    const hour = (local % 86_400) / 3600
    const date = new Date(local * 1000)
    if (hour === 0) {
      spell = 0.75 * spell + 5 * (random() - 0.5)
      habit = 0.8 + 0.4 * random()
    }
    const dayOfYear =
      (Date.UTC(date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate()) -
        Date.UTC(date.getUTCFullYear(), 0, 1)) /
      86_400_000
    const season = Math.cos(((dayOfYear - 20) / 365) * 2 * Math.PI)
    const outdoorC =
      (house.summerC + house.winterC) / 2 -
      (season * (house.summerC - house.winterC)) / 2 +
      spell +
      4 * Math.sin(((hour - 9) / 24) * 2 * Math.PI)
    const weekday = date.getUTCDay() % 6 !== 0
    const wake = weekday ? 7 : 9
    const draw =
      house.baseW * (0.95 + 0.1 * random()) +
      habit *
        (house.morningW * bump(hour, wake, 1.4) * (0.7 + 0.6 * random()) +
          house.eveningW * bump(hour, 18.5, 2.4) * (0.7 + 0.6 * random()) +
          (weekday ? house.dayW * bump(hour, 12, 4) * (0.7 + 0.6 * random()) : 0)) +
      house.heatingWPerC * Math.max(0, 15 - outdoorC) * (0.8 + 0.4 * random()) +
      house.coolingWPerC * Math.max(0, outdoorC - 22) * (0.7 + 0.6 * random()) +
      // washing, a long bath: now and then an hour of something large
      (random() < 0.03 && hour > 7 && hour < 22 ? 1500 + 1800 * random() : 0)
    const sun = house.solarW
      ? house.solarW *
        Math.max(0, Math.sin(((hour - 6) / 12) * Math.PI)) *
        (0.75 - 0.25 * season) *
        (0.3 + 0.7 * random())
      : 0
    put(forward, n, at, offset, Math.round(Math.max(0, draw - sun)))
    put(reverse, n, at, offset, Math.round(Math.max(0, sun - draw)))
  }
  return house.solarW ? [forward, reverse] : [forward]
}

const blank = (flow: 'forward' | 'reverse', n: number): IntervalSeries => ({
  id: flow,
  flow,
  startS: new Float64Array(n),
  offsetMin: new Int16Array(n),
  minutes: new Float32Array(n).fill(60),
  Wh: new Float64Array(n),
})

function put(series: IntervalSeries, n: number, at: number, offset: number, Wh: number) {
  series.startS[n] = at
  series.offsetMin[n] = offset
  series.Wh[n] = Wh
}

/** The houses of the demo jobs that have a year of data. */
export const households: Record<'alder-hollow' | 'saltmarsh-lane' | 'mill-street', Household> = {
  'alder-hollow': {
    id: 'alder-hollow',
    seed: 101,
    baseW: 340,
    morningW: 1500,
    eveningW: 1900,
    dayW: 1300,
    winterC: -4,
    summerC: 21,
    heatingWPerC: 22,
    coolingWPerC: 90,
  },
  'saltmarsh-lane': {
    id: 'saltmarsh-lane',
    seed: 202,
    baseW: 620,
    morningW: 900,
    eveningW: 1500,
    dayW: 500,
    winterC: 9,
    summerC: 27,
    heatingWPerC: 60,
    coolingWPerC: 260,
  },
  'mill-street': {
    id: 'mill-street',
    seed: 404,
    baseW: 180,
    morningW: 800,
    eveningW: 1400,
    dayW: 250,
    winterC: -2,
    summerC: 22,
    heatingWPerC: 30,
    coolingWPerC: 70,
  },
}

/** A house of any other job: the same one for the same job. */
export const householdOf = (jobId: string, seed: number): Household => {
  const random = seeded(seed)
  const about = (low: number, high: number) => Math.round(low + (high - low) * random())
  return {
    id: jobId,
    seed,
    baseW: about(150, 700),
    morningW: about(600, 2000),
    eveningW: about(900, 2600),
    dayW: about(100, 1200),
    winterC: about(-8, 8),
    summerC: about(20, 29),
    heatingWPerC: about(10, 90),
    coolingWPerC: about(40, 260),
    ...(random() < 0.3 && { solarW: about(3000, 7000) }),
  }
}
