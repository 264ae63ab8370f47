import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** Chance as a stream of numbers: the same for the same keys, on any machine and in any worker. */
export interface Stream {
  /** 0 to 1, without 1 */
  uniform: () => number
  /** mean 0, standard deviation 1 */
  normal: () => number
  /** mean 1 */
  exponential: () => number
}

/** Spreads a key over 32 bits: the finalizer of MurmurHash3 (A. Appleby, public domain). */
function spread(key: number): number {
  let h = key | 0
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return h ^ (h >>> 16)
}

/** A number from a name: FNV-1a. */
export function keyOf(name: string): number {
  let hash = 2_166_136_261
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 16_777_619)
  return hash | 0
}

/**
 * The stream of one thing in one draw. Every load has its own, so that another battery, or another circuit picked, leaves
 * what all the others do as it was: designs are compared under the same chances.
 */
export function streamOf(seed: number, draw: number, thing: number): Stream {
  const source = xoroshiro128plus(spread(spread(spread(seed) + draw) ^ thing))
  // the first numbers still show the seed
  source.next()
  source.next()
  const uniform = () => (source.next() >>> 0) / 4_294_967_296
  return {
    uniform,
    // Box and Muller 1958
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
    exponential: () => -Math.log(1 - uniform()),
  }
}
