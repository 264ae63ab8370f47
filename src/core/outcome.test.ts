import * as z from 'zod'
import { parseWith, pathText } from './outcome'
import { line, within } from './quantity'

const schema = z.strictObject({
  name: line(5, 1),
  kind: z.enum(['a', 'b']),
  list: z.array(z.strictObject({ ratingA: within(1, 50, 'A') })),
  count: z.int('must be a whole number').optional(),
})
const good = { name: 'x', kind: 'a', list: [] }
const faults = (raw: unknown) => {
  const parsed = parseWith(schema, raw)
  return parsed.ok ? [] : parsed.faults.map(f => `${f.path}: ${f.message}`)
}

test('paths are keys with list positions in brackets; the whole is $', () => {
  expect(pathText(['links', 2, 'ratingA'])).toBe('links[2].ratingA')
  expect(pathText([])).toBe('$')
  expect(faults({ ...good, list: [{ ratingA: 5 }, { ratingA: 99 }] })).toEqual([
    'list[1].ratingA: must be from 1 to 50 A',
  ])
})

test.each([
  [{ ...good, name: undefined }, 'name: is missing'],
  [{ ...good, name: null }, 'name: must be a string, not null: leave the key out instead'],
  [{ ...good, name: 7 }, 'name: must be a string'],
  [{ ...good, name: '' }, 'name: must not be empty'],
  [{ ...good, name: 'longer than five' }, 'name: must be at most 5 characters; this has 16'],
  [{ ...good, kind: 'c' }, 'kind: must be one of "a", "b"'],
  [{ name: 'x', list: [] }, 'kind: is missing: give one of "a", "b"'],
  [{ ...good, list: {} }, 'list: must be a list, not an object'],
  [{ ...good, count: 1.5 }, 'count: must be a whole number'],
  [{ ...good, extra: 1 }, 'extra: is not a key that belongs here'],
  [[], '$: must be an object, not a list'],
])('a fault names the place and what to do (%#)', (raw, told) => {
  expect(faults(raw)).toEqual([told])
})

test('every fault of one input is told at once', () => {
  expect(faults({ name: '', kind: 'z', list: [{}] })).toHaveLength(3)
})
