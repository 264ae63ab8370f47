import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { readLegs, readSpaces, readTypes, rowsOf, spacesText } from './facts-text'
import type { Panel } from './schema'

const [found] = alderHollow.panels
if (!found) throw new Error('no panel')
const panel: Panel = { ...found, spaces: 12, numbering: 'odd-even' }

test('legs are typed row by row, with or without L and commas; another number of rows is told', () => {
  expect(readLegs(3)('1 2 2')).toEqual({ value: ['L1', 'L2', 'L2'] })
  expect(readLegs(3)('L1, l2, L1')).toEqual({ value: ['L1', 'L2', 'L1'] })
  expect(readLegs(3)('12')).toEqual({ problem: 'must be 3 figures, 1 or 2 for each row; this has 2' })
  expect(readLegs(2)('13')).toMatchObject({ problem: expect.stringMatching(/2 figures/) })
  expect(rowsOf({ ...panel, busLegs: 'L2' }, 3)).toEqual(['L2', 'L1', 'L2'])
})

test('spaces are typed as spans and lists by their printed numbers, and read back the same', () => {
  for (const [text, spaces] of [
    ['0', []],
    ['3', [3]],
    ['5-7, 2', [2, 5, 6, 7]],
    ['7 7', [7]],
  ] as const)
    expect(readSpaces(panel)(text)).toEqual({ value: spaces })
  expect(spacesText(panel, [2, 5])).toBe('2, 5')
  expect(spacesText(panel, [])).toBe('0')
  const down: Panel = { ...panel, numbering: 'in sequence' }
  const read = readSpaces(down)('2')
  expect('value' in read && spacesText(down, read.value)).toBe('2')
})

test.each(['13', '1-999999999', '0-3', 'top', '7-5', ''])('“%s” is no space of a panel of twelve', text => {
  expect(readSpaces(panel)(text)).toEqual({
    problem: 'must be spaces of this panel, such as 17-30 or 17, 19; it has 12',
  })
})

test('breaker types stand between commas, and none is longer than a sticker has it', () => {
  expect(readTypes(' QX , ,THQ')).toEqual({ value: ['QX', 'THQ'] })
  expect(readTypes('x'.repeat(21))).toMatchObject({ problem: expect.stringMatching(/20 characters/) })
})
