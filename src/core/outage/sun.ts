import { getPosition } from 'suncalc'

/** Sun on a tilted array: position by suncalc, the rest by short formulas with their sources. */

const radians = Math.PI / 180
/** Sun is reckoned every ten minutes. */
export const sunSlotMin = 10
export const sunSlots = 1440 / sunSlotMin
const solarConstantWm2 = 1361

/** Where the sun stands over a day of a month at a latitude, slot by slot. */
export interface SunDay {
  /** sine of its height, 0 at night */
  sine: Float64Array
  /** its bearing, degrees from north */
  azimuthDeg: Float64Array
  /** clear sky on the flat, W/m² */
  clearWm2: Float64Array
  sunriseH: number | null
  sunsetH: number | null
}

/**
 * The middle of a month at a latitude. Hours are of the place's own sun unless `eastDeg` says how far the place lies east
 * of the meridian of its clock. Clear sky: Haurwitz 1945, 1098 × sin h × exp(−0.057 / sin h).
 */
export function sunDay(month: number, latitudeDeg: number, eastDeg = 0): SunDay {
  const sine = new Float64Array(sunSlots)
  const azimuthDeg = new Float64Array(sunSlots)
  const clearWm2 = new Float64Array(sunSlots)
  const up: number[] = []
  for (let slot = 0; slot < sunSlots; slot++) {
    const at = new Date(Date.UTC(2026, month, 15, 0, (slot + 0.5) * sunSlotMin))
    const { altitude, azimuth } = getPosition(at, latitudeDeg, eastDeg)
    const s = Math.max(0, Math.sin(altitude * radians))
    sine[slot] = s
    azimuthDeg[slot] = azimuth
    clearWm2[slot] = s > 0 ? 1098 * s * Math.exp(-0.057 / s) : 0
    if (s > 0) up.push(slot)
  }
  const first = up[0]
  const last = up.at(-1)
  const polar = up.length === 0 || up.length === sunSlots
  return {
    sine,
    azimuthDeg,
    clearWm2,
    sunriseH: polar || first === undefined ? null : (first * sunSlotMin) / 60,
    sunsetH: polar || last === undefined ? null : ((last + 1) * sunSlotMin) / 60,
  }
}

/** What clouds leave of the clear sky: Kasten and Czeplak 1980, 1 − 0.75 N^3.4. */
export const cloudFactor = (cloudFraction: number): number => 1 - 0.75 * cloudFraction ** 3.4

/** The diffuse part of what reaches the flat, from the clearness index: Erbs, Klein and Duffie 1982. */
export function diffuseFraction(clearness: number): number {
  const k = Math.max(0, Math.min(1, clearness))
  if (k <= 0.22) return 1 - 0.09 * k
  if (k <= 0.8) return 0.9511 - 0.1604 * k + 4.388 * k ** 2 - 16.638 * k ** 3 + 12.336 * k ** 4
  return 0.165
}

const groundReflects = 0.2
/** Beam is not trusted below five degrees: sin 5°. */
const lowestSine = 0.087

/**
 * Sun on an array, W/m², from that on the flat: the isotropic sky of Liu and Jordan 1963.
 * `sine` and `azimuthDeg` are the sun's, the rest the array's, in degrees.
 */
export function onArray(
  flatWm2: number,
  sine: number,
  sunAzimuthDeg: number,
  tiltDeg: number,
  azimuthDeg: number,
): number {
  if (flatWm2 <= 0) return 0
  const diffuse = sine > lowestSine ? flatWm2 * diffuseFraction(flatWm2 / (solarConstantWm2 * sine)) : flatWm2
  const tilt = tiltDeg * radians
  const cosine = Math.sqrt(Math.max(0, 1 - sine * sine))
  const incidence =
    sine * Math.cos(tilt) + cosine * Math.sin(tilt) * Math.cos((sunAzimuthDeg - azimuthDeg) * radians)
  const beam = sine > lowestSine ? ((flatWm2 - diffuse) * Math.max(0, incidence)) / sine : 0
  return beam + (diffuse * (1 + Math.cos(tilt))) / 2 + (flatWm2 * groundReflects * (1 - Math.cos(tilt))) / 2
}

/** Kept of an array's watts by dirt, wire and mismatch: our assumption. */
export const arrayKept = 0.9
const powerPerC = -0.004
/** A cell is warmer than the air by 0.03 °C for each W/m²: Ross 1976. */
const warmerPerWm2 = 0.03

/** Watts of an array of rated `stcW` under sun and air. */
export function arrayW(stcW: number, wm2: number, outdoorC: number): number {
  const cellC = outdoorC + warmerPerWm2 * wm2
  return Math.max(0, (stcW * wm2 * arrayKept * (1 + powerPerC * (cellC - 25))) / 1000)
}
