const steps = [1, 2, 2.5, 5, 10]

/** Round values from `low` to `high` for an axis, at most `count` intervals. */
export function ticksBetween(low: number, high: number, count: number): number[] {
  if (!(high > low)) return [low]
  const rough = (high - low) / count
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = power * (steps.find(s => s * power >= rough) ?? 10)
  const first = Math.ceil(low / step - 1e-9)
  const last = Math.floor(high / step + 1e-9)
  // the step's own decimals: 3 × 0.1 is 0.3 on an axis
  return Array.from({ length: last - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(12)))
}

/** Round values from 0 up to `most` for an axis, at most `count` intervals. */
export const roundTicks = (most: number, count: number): number[] =>
  most > 0 ? ticksBetween(0, most, count) : [0]
