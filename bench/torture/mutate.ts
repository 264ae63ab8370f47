import type { Chance } from './chance'

/** What no honest screen sends. */
const odd = (c: Chance): unknown =>
  c.pick([
    null,
    -1,
    0,
    1e308,
    Number.MAX_SAFE_INTEGER + 2,
    0.1 + 0.2,
    '',
    'x'.repeat(c.pick([90, 5000, 100_000])),
    '👩‍🔧'.repeat(c.pick([30, 3000])),
    'a\0b',
    '\ud83d',
    '../../etc/passwd',
    "'; drop table job; --",
    '<script>alert(1)</script>',
    '=cmd()',
    [],
    {},
    true,
    Array.from({ length: c.pick([200, 100_000]) }, () => ({})),
    Object.fromEntries(Array.from({ length: c.pick([60, 5000]) }, (_, n) => [`k${n}`, n])),
    JSON.parse(`${'['.repeat(3000)}${']'.repeat(3000)}`),
    { __proto__: null, constructor: 1 },
  ])

/** A copy of a document with a few places changed for the worse. */
export function mutated(document: unknown, c: Chance): unknown {
  const copy: unknown = structuredClone(document)
  for (let n = 1 + c.below(4); n > 0; n--) {
    let at: unknown = copy
    for (let depth = 0; depth < 8; depth++) {
      if (at === null || typeof at !== 'object') break
      const keys = Object.keys(at)
      const key = keys.length ? c.pick(keys) : 'new'
      const inner: unknown = Reflect.get(at, key)
      if (inner !== null && typeof inner === 'object' && c.real() < 0.75) {
        at = inner
        continue
      }
      const way = c.below(5)
      if (way === 0) Reflect.deleteProperty(at, key)
      else if (way === 1) Reflect.set(at, `${key}x`, odd(c))
      else if (way === 2 && Array.isArray(at)) at.push(...at)
      else Reflect.set(at, key, odd(c))
      break
    }
  }
  return copy
}

/** JSON text that no writer of ours writes: numbers beyond all, cut, doubled keys, rubbish put in. */
export function mutatedText(text: string, c: Chance): string {
  const place = c.below(text.length)
  return c.pick([
    () => text.replace(/:\s*\d+/, ':1e400'),
    () => text.slice(0, place),
    () => text.slice(0, place) + '\u0000\ufffd{'.repeat(1 + c.below(40)) + text.slice(place),
    () => text.replace(/"title"/, '"title":"a","title"'),
    () => `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`,
    () => text + text,
  ])()
}

/** Bytes of a file, damaged: flipped, cut, doubled, or with a stretch that never ends. */
export function mutatedBytes(bytes: Uint8Array, c: Chance): Uint8Array {
  const copy = Buffer.from(bytes)
  const place = c.below(copy.length)
  return c.pick([
    () => {
      for (let n = 1 + c.below(60); n > 0; n--) copy[c.below(copy.length)] = c.below(256)
      return copy
    },
    () => copy.subarray(0, place),
    () => Buffer.concat([copy.subarray(0, place), copy]),
    () =>
      Buffer.concat([
        copy.subarray(0, place),
        Buffer.alloc(c.pick([2000, 1_500_000]), c.pick(['9', '<a>', ',', '\r', ' '])),
        copy.subarray(place),
      ]),
  ])()
}
