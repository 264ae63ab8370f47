import type { TemperatureC } from './conductors'

/**
 * Ampacity correction for ambient temperature, NEC 310.15(B)(1), 30 °C base. Bands are whole degrees inclusive;
 * a fractional temperature belongs to the next band up. Null: the insulation must not be used there.
 */
export const ambientBands: readonly { upToC: number; factor: Record<TemperatureC, number | null> }[] = [
  { upToC: 10, factor: { 60: 1.29, 75: 1.2, 90: 1.15 } },
  { upToC: 15, factor: { 60: 1.22, 75: 1.15, 90: 1.12 } },
  { upToC: 20, factor: { 60: 1.15, 75: 1.11, 90: 1.08 } },
  { upToC: 25, factor: { 60: 1.08, 75: 1.05, 90: 1.04 } },
  { upToC: 30, factor: { 60: 1, 75: 1, 90: 1 } },
  { upToC: 35, factor: { 60: 0.91, 75: 0.94, 90: 0.96 } },
  { upToC: 40, factor: { 60: 0.82, 75: 0.88, 90: 0.91 } },
  { upToC: 45, factor: { 60: 0.71, 75: 0.82, 90: 0.87 } },
  { upToC: 50, factor: { 60: 0.58, 75: 0.75, 90: 0.82 } },
  { upToC: 55, factor: { 60: 0.41, 75: 0.67, 90: 0.76 } },
  { upToC: 60, factor: { 60: null, 75: 0.58, 90: 0.71 } },
  { upToC: 65, factor: { 60: null, 75: 0.47, 90: 0.65 } },
  { upToC: 70, factor: { 60: null, 75: 0.33, 90: 0.58 } },
  { upToC: 75, factor: { 60: null, 75: null, 90: 0.5 } },
  { upToC: 80, factor: { 60: null, 75: null, 90: 0.41 } },
  { upToC: 85, factor: { 60: null, 75: null, 90: 0.29 } },
]

/** The correction factor at an ambient (°C) for an insulation's column; null beyond the column. */
export const ambientFactorOf = (ambientC: number, column: TemperatureC): number | null =>
  ambientBands.find(b => ambientC <= b.upToC)?.factor[column] ?? null

/** The highest ambient (°C) that an insulation's column goes to. */
export const highestAmbientC = (column: TemperatureC): number =>
  Math.max(...ambientBands.filter(b => b.factor[column] !== null).map(b => b.upToC))
