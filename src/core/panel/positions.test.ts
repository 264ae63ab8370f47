import fc from 'fast-check'
import {
  alternating,
  columnOf,
  feedOf,
  freeSpaces,
  halvesOf,
  legOf,
  occupancy,
  otherLeg,
  positionText,
  rowOf,
  spaceName,
  spaceNamed,
  spacesOf,
} from './positions'

const odd = { spaces: 42, numbering: 'odd-even' } as const

test('odd down the left, even down the right, legs alternating row by row', () => {
  expect([1, 2, 3, 4, 5, 41, 42].map(space => legOf(alternating, space))).toEqual([
    'L1',
    'L1',
    'L2',
    'L2',
    'L1',
    'L1',
    'L1',
  ])
  expect([1, 2, 29, 30].map(columnOf)).toEqual(['left', 'right', 'left', 'right'])
  expect([1, 2, 3, 42].map(rowOf)).toEqual([1, 1, 2, 21])
})

test('a two-pole takes the space below on its side, and with it the other leg', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), position => {
      const [upper, lower] = spacesOf({ position, poles: 2 })
      expect(lower).toBe(position + 2)
      expect(columnOf(lower ?? 0)).toBe(columnOf(upper ?? 0))
      expect(legOf(alternating, lower ?? 0)).toBe(otherLeg(legOf(alternating, upper ?? 0)))
      expect(feedOf(alternating, { position, poles: 2 })).toBe('both')
    }),
  )
  expect(positionText(odd, { position: 8, poles: 2 })).toBe('8·10')
})

test('free spaces and taken ones make up the panel', () => {
  const breakers = [
    { position: 1, poles: 2 as const },
    { position: 4, poles: 1 as const },
  ]
  expect([...occupancy(breakers).keys()].sort()).toEqual([1, 3, 4])
  expect(freeSpaces(8, breakers)).toEqual([2, 5, 6, 7, 8])
})

test('a panel numbered in sequence names the same spaces otherwise, and every name leads back', () => {
  const panel = { spaces: 12, numbering: 'in sequence' } as const
  expect([1, 3, 11, 2, 4, 12].map(space => spaceName(panel, space))).toEqual([1, 2, 6, 7, 8, 12])
  expect(positionText(panel, { position: 2, poles: 2 })).toBe('7·8')
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 42 }).map(rows => 2 * rows),
      fc.constantFrom('odd-even' as const, 'in sequence' as const),
      (spaces, numbering) => {
        const all = Array.from({ length: spaces }, (_, i) => i + 1)
        expect(all.map(s => spaceNamed({ spaces, numbering }, spaceName({ spaces, numbering }, s)))).toEqual(
          all,
        )
      },
    ),
  )
})

test('a tandem and a quad share spaces half by half', () => {
  const quad = [
    { position: 7, poles: 2 as const, half: 'a' as const },
    { position: 7, poles: 2 as const, half: 'b' as const },
  ]
  expect(quad.map(q => positionText(odd, q))).toEqual(['7A·9B', '7B·9A'])
  expect(quad.flatMap(halvesOf).sort()).toEqual(['7a', '7b', '9a', '9b'])
  expect(
    occupancy(quad)
      .get(9)
      ?.map(q => q.half),
  ).toEqual(['b', 'a'])
  expect(positionText(odd, { position: 7, poles: 1, half: 'b' })).toBe('7B')
  expect(freeSpaces(8, quad, [1])).toEqual([2, 3, 4, 5, 6, 8])
})

test('legs that do not alternate are those of their rows', () => {
  expect([1, 2, 3, 5].map(space => legOf({ busLegs: ['L2', 'L2', 'L1'] }, space))).toEqual([
    'L2',
    'L2',
    'L2',
    'L1',
  ])
  expect([1, 3].map(space => legOf({ busLegs: 'L2' }, space))).toEqual(['L2', 'L1'])
})
