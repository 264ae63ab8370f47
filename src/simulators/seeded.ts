/** A sequence of numbers from 0 to 1, the same for the same seed: Mulberry32 by T. Ettinger, in the public domain. */
export function seeded(seed: number): () => number {
  let state = seed | 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** A seed from a name. */
export function seedOf(name: string): number {
  let hash = 2_166_136_261
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 16_777_619)
  return hash
}
