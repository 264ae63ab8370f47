import type { PartKind } from '../work/parts/line'

/** What a part of a kind may cost where nobody has a price of it, $ for one or for a foot: our estimates, told with the line. Never nothing. */
const guesses: Record<PartKind, { least: number; most: number; footLeast?: number; footMost?: number }> = {
  device: { least: 150, most: 2500 },
  breaker: { least: 10, most: 120 },
  wire: { least: 2, most: 20, footLeast: 0.2, footMost: 6 },
  raceway: { least: 2, most: 20, footLeast: 0.8, footMost: 6 },
  fitting: { least: 1, most: 15 },
  connector: { least: 0.2, most: 12 },
  box: { least: 4, most: 60 },
  cord: { least: 40, most: 250 },
  label: { least: 1, most: 12 },
  sundry: { least: 2, most: 30 },
}

export function guessUsd(
  kind: PartKind,
  unit: 'each' | 'ft',
  quantity: number,
): { low: number; high: number } {
  const { least, most, footLeast = least, footMost = most } = guesses[kind]
  return unit === 'ft'
    ? { low: quantity * footLeast, high: quantity * footMost }
    : { low: quantity * least, high: quantity * most }
}
