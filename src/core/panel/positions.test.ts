import fc from 'fast-check'
import {
  columnOf,
  feedOf,
  freeSpaces,
  legOf,
  occupancy,
  otherLeg,
  positionText,
  rowOf,
  spacesOf,
} from './positions'

test('odd down the left, even down the right, legs alternating row by row', () => {
  expect([1, 2, 3, 4, 5, 41, 42].map(legOf)).toEqual(['L1', 'L1', 'L2', 'L2', 'L1', 'L1', 'L1'])
  expect([1, 2, 29, 30].map(columnOf)).toEqual(['left', 'right', 'left', 'right'])
  expect([1, 2, 3, 42].map(rowOf)).toEqual([1, 1, 2, 21])
})

test('a two-pole takes the space below on its side, and with it the other leg', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), position => {
      const [upper, lower] = spacesOf({ position, poles: 2 })
      expect(lower).toBe(position + 2)
      expect(columnOf(lower ?? 0)).toBe(columnOf(upper ?? 0))
      expect(legOf(lower ?? 0)).toBe(otherLeg(legOf(upper ?? 0)))
      expect(feedOf({ position, poles: 2 })).toBe('both')
    }),
  )
  expect(positionText({ position: 8, poles: 2 })).toBe('8·10')
})

test('free spaces and taken ones make up the panel', () => {
  const breakers = [
    { position: 1, poles: 2 as const },
    { position: 4, poles: 1 as const },
  ]
  expect([...occupancy(breakers).keys()].sort()).toEqual([1, 3, 4])
  expect(freeSpaces(8, breakers)).toEqual([2, 5, 6, 7, 8])
})
