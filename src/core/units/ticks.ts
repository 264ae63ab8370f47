const steps = [1, 2, 2.5, 5, 10]

/** Round values from 0 up to `most` for an axis, at most `count` intervals. */
export function roundTicks(most: number, count: number): number[] {
  if (!(most > 0)) return [0]
  const rough = most / count
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = power * (steps.find(s => s * power >= rough) ?? 10)
  return Array.from({ length: Math.floor(most / step + 1e-9) + 1 }, (_, i) => i * step)
}
