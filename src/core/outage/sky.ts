import { monthOfDay, unpackYear, type YearSeries, yearHours } from '../ask/weather-year'
import type { Plan } from './plan'
import { middleMonth } from './plan'
import type { Stream } from './stream'
import { arrayW, cloudFactor, onArray, type SunDay, sunDay, sunSlotMin, sunSlots } from './sun'

/** The sky of one course of an outage: air by the hour, and what each store gets of the sun by ten minutes. */
export interface Sky {
  month: number
  /** °C by the hour from the beginning; null: loads stay as read */
  outdoorC: Float64Array | null
  /** by store: W at the battery, every ten minutes from the beginning */
  sunW: Float64Array[]
}

/** What of the sky stays the same for all courses of a plan. */
export interface SkyTables {
  days: (SunDay | undefined)[]
  year: YearSeries | null
  /** days of the year that lie in the season, and what the year's file has for them on average */
  seasonDays: number[]
  meanC: number
  hourC: Float64Array
  hourWm2: Float64Array
}

export const monthsOf = (plan: Plan): number[] => {
  if (!plan.season) return Array.from({ length: 12 }, (_, m) => m)
  const middle = middleMonth[plan.season]
  return [(middle + 11) % 12, middle, (middle + 1) % 12]
}

export function skyTables(plan: Plan): SkyTables {
  const year = plan.weather.year ? unpackYear(plan.weather.year) : null
  const months = new Set(monthsOf(plan))
  const seasonDays = Array.from({ length: 365 }, (_, d) => d).filter(d => months.has(monthOfDay(d)))
  const hourC = new Float64Array(24)
  const hourWm2 = new Float64Array(24)
  let meanC = 0
  if (year) {
    for (const day of seasonDays)
      for (let h = 0; h < 24; h++) {
        hourC[h] = (hourC[h] ?? 0) + (year.outdoorC[day * 24 + h] ?? 0) / seasonDays.length
        hourWm2[h] = (hourWm2[h] ?? 0) + (year.flatWm2[day * 24 + h] ?? 0) / seasonDays.length
      }
    for (const C of hourC) meanC += C / 24
  }
  return { days: [], year, seasonDays, meanC, hourC, hourWm2 }
}

function dayOf(plan: Plan, tables: SkyTables, month: number): SunDay {
  const { latitudeDeg, year } = plan.weather
  const made =
    tables.days[month] ?? sunDay(month, latitudeDeg, year ? year.longitudeDeg - 15 * year.zoneH : 0)
  tables.days[month] = made
  return made
}

/** The sun's day in the month that stands for the season. */
export const sunDayOf = (plan: Plan, tables: SkyTables, month: number): SunDay => dayOf(plan, tables, month)

/** How far a day swings about its mean, how far a week lies from what was said, °C: ours. */
const daySwingC = 3
const weekSpreadC = 2.5
/** Clouds keep from hour to hour; and how far an hour lies from the mean sky, in logits: ours. */
const cloudKeeps = 0.9
const cloudSpread = 1.8

const cloudsAt = (meanFraction: number, z: number): number => {
  const mean = Math.max(0.02, Math.min(0.98, meanFraction))
  return 1 / (1 + Math.exp(-(1.2 * Math.log(mean / (1 - mean)) + cloudSpread * z)))
}
/** What the clouds leave on average: over nine equal parts of their distribution. */
export function meanCloudFactor(meanFraction: number): number {
  const middles = [-1.593, -0.967, -0.589, -0.282, 0, 0.282, 0.589, 0.967, 1.593]
  return middles.reduce((sum, z) => sum + cloudFactor(cloudsAt(meanFraction, z)), 0) / middles.length
}

/** Sun on the flat moved a part of the way to an overcast sky, or for a negative part to a clear one. */
const cloudier = (flatWm2: number, clearWm2: number, part: number): number =>
  part >= 0
    ? flatWm2 - part * Math.max(0, flatWm2 - cloudFactor(1) * clearWm2)
    : flatWm2 - part * Math.max(0, clearWm2 - flatWm2)

/**
 * The sky of one course: drawn by chance from the stream, or the mean without one. Temperatures are those said for the
 * outage, with the shape of the weather file where there is one; the file's own where nothing was said.
 */
export function skyOf(plan: Plan, tables: SkyTables, beginsH: number, chance: Stream | null): Sky {
  const { weather } = plan
  const months = monthsOf(plan)
  const hours = Math.ceil(plan.hours) + 1
  const pick = chance ? chance.uniform() : 0
  const day = tables.seasonDays[Math.floor(pick * tables.seasonDays.length)] ?? 0
  const month = !chance
    ? plan.season
      ? middleMonth[plan.season]
      : 2
    : tables.year
      ? monthOfDay(day)
      : (months[Math.floor(pick * months.length)] ?? 0)
  const hourAt = (h: number) => (((day * 24 + Math.floor(beginsH) + h) % yearHours) + yearHours) % yearHours
  const shiftC = chance ? weekSpreadC * chance.normal() : 0

  let outdoorC: Float64Array | null = null
  const { year } = tables
  if (year || weather.outdoorC !== null) {
    outdoorC = new Float64Array(hours)
    const moveC = (weather.outdoorC === null ? 0 : weather.outdoorC - tables.meanC) - weather.yearColderC
    for (let h = 0; h < hours; h++) {
      const clock = (Math.floor(beginsH) + h) % 24
      if (year) outdoorC[h] = (chance ? (year.outdoorC[hourAt(h)] ?? 0) : (tables.hourC[clock] ?? 0)) + moveC
      else
        outdoorC[h] =
          (weather.outdoorC ?? 0) +
          (chance ? shiftC + daySwingC * Math.cos((2 * Math.PI * (clock - 15)) / 24) : 0)
    }
  }
  if (!plan.arrays.length) return { month, outdoorC, sunW: [] }

  const sun = dayOf(plan, tables, month)
  const slots = Math.ceil((plan.hours * 60) / sunSlotMin) + 1
  const sunW = plan.stores.map(() => new Float64Array(slots))
  const first = (beginsH * 60) / sunSlotMin
  const mean = chance ? 0 : meanCloudFactor(weather.cloudFraction)
  let z = chance ? chance.normal() : 0
  let hour = -1
  let left = 0
  for (let s = 0; s < slots; s++) {
    const at = Math.floor(first + s)
    const slot = at % sunSlots
    const h = Math.floor((s * sunSlotMin) / 60)
    if (h !== hour) {
      hour = h
      if (chance) {
        z = cloudKeeps * z + Math.sqrt(1 - cloudKeeps ** 2) * chance.normal()
        left = cloudFactor(cloudsAt(weather.cloudFraction, z))
      } else left = mean
    }
    const sine = sun.sine[slot] ?? 0
    const clock = Math.floor((at * sunSlotMin) / 60) % 24
    const clear = sun.clearWm2[slot] ?? 0
    const ofYear = (chance ? year?.flatWm2[hourAt(h)] : tables.hourWm2[clock]) ?? 0
    const flat = !year ? clear * left : sine > 0 ? cloudier(ofYear, clear, weather.yearCloudierFraction) : 0
    if (flat <= 0) continue
    const air = outdoorC?.[Math.min(h, hours - 1)] ?? weather.climateC
    for (const array of plan.arrays) {
      if (!array.works || (array.folding && (clock < 8 || clock >= 18))) continue
      const wm2 = onArray(flat, sine, sun.azimuthDeg[slot] ?? 0, array.tiltDeg, array.azimuthDeg)
      const of = sunW[array.store]
      if (of) of[s] = (of[s] ?? 0) + Math.min(array.inputW, arrayW(array.stcW, wm2, air))
    }
  }
  return { month, outdoorC, sunW }
}
