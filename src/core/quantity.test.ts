import fc from 'fast-check'
import * as z from 'zod'
import { parseWith } from './outcome'
import { lengthOf, line } from './quantity'

const faultOf = (text: string, most = 80) => {
  const read = parseWith(line(most), text)
  return read.ok ? null : read.faults[0]?.message
}

test('characters are counted as a person does, in pieces as in one', () => {
  const whole = new Intl.Segmenter('en', { granularity: 'grapheme' })
  const glyph = fc.constantFrom('a', 'é', '👩‍🔧', '🇨🇦', 'n\u0303', ' ', '👨‍👩‍👧‍👦')
  fc.assert(
    fc.property(fc.array(glyph, { maxLength: 120 }), parts => {
      const text = parts.join('')
      expect(lengthOf(text)).toBe([...whole.segment(text)].length)
    }),
  )
})

test('text far too long is refused by its code units, before anything else looks at it', () => {
  expect(faultOf('x'.repeat(100_000))).toBe('must be at most 80 characters; this takes 100,000')
  expect(faultOf('👩‍🔧'.repeat(20_000))).toMatch(/this takes 100,000/)
  expect(faultOf(' '.repeat(2_000_000))).toMatch(/this takes 2,000,000/)
  expect(faultOf('👨‍👩‍👧‍👦'.repeat(80))).toBeNull()
  expect(faultOf('👨‍👩‍👧‍👦'.repeat(81))).toMatch(/this has 81/)
})

test('NUL, line breaks and halves of characters are refused, each in words', () => {
  for (const text of ['a\0b', 'a\nb', 'a\u009fb']) expect(faultOf(text)).toMatch(/control characters/)
  for (const text of ['\ud83d', 'a\udc00']) expect(faultOf(text)).toMatch(/half of a character/)
})

test('what is out of all bounds is refused before it is gone through', () => {
  const job = z.strictObject({
    panels: z.array(z.strictObject({ name: line(9) })).max(8),
    more: z.unknown().optional(),
  })
  const why = (raw: unknown) => {
    const read = parseWith(job, raw)
    return read.ok ? [] : read.faults.map(f => `${f.path} ${f.message}`)
  }
  expect(why({ panels: Array.from({ length: 600_000 }, () => ({})) })).toEqual([
    'panels must hold at most 8, not 600,000',
  ])
  const deep = JSON.parse(`${'['.repeat(5000)}${']'.repeat(5000)}`)
  expect(why({ panels: [], more: deep })[0]).toMatch(/goes deeper than 40 levels/)
  const keys = Object.fromEntries(Array.from({ length: 100_000 }, (_, n) => [`k${n}`, n]))
  expect(why({ panels: [], ...keys })).toEqual([expect.stringMatching(/has 100,001 keys/)])
})

test('of many faults fifty are told, and how many more there are; none is longer than a line or two', () => {
  const raw = Object.fromEntries(Array.from({ length: 1999 }, (_, n) => [`${'k'.repeat(900)}${n}`, n]))
  const read = parseWith(z.strictObject({}), raw)
  if (read.ok) throw new Error('taken')
  expect(read.faults).toHaveLength(51)
  expect(read.faults.at(-1)?.message).toBe('has 1,949 more faults like these')
  expect(JSON.stringify(read.faults).length).toBeLessThan(20_000)
})

test('a list in a union told by a key is bounded by the option that is meant', () => {
  const operation = z.discriminatedUnion('op', [
    z.strictObject({ op: z.literal('one'), ids: z.array(z.string()).max(2) }),
    z.strictObject({ op: z.literal('many'), ids: z.array(z.string()).max(9) }),
  ])
  const lengths = (op: string, n: number) =>
    parseWith(operation, { op, ids: Array.from({ length: n }, () => '') }).ok
  expect([lengths('one', 3), lengths('many', 9), lengths('many', 10)]).toEqual([false, true, false])
})
