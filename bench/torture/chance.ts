import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** Chance with a seed: a run that broke something can be had again. */
export function chance(seed: number) {
  const generator = xoroshiro128plus(seed)
  const real = () => (generator.next() >>> 0) / 2 ** 32
  const below = (n: number) => Math.floor(real() * n)
  return { real, below, pick: <T>(from: readonly T[]): T => from[below(from.length)] as T }
}
export type Chance = ReturnType<typeof chance>
