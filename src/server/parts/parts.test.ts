import type { Price } from '@/core/work/parts/prices'
import { setStock } from '../catalogue/repository'
import { closeDb } from '../db/connection'
import { createJob } from '../jobs/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { priceBook, pricesOf, putWays, readWays, reserve, stockFor, takePrices } from './repository'

afterAll(closeDb)

const made = (firm: Actor) => createJob(firm, alderHollow, 'made', new Date('2026-01-01T12:00:00Z'))
const price = (part: string, quantity: number, priceUsd: number | null, on = '2026-01-02'): Price => ({
  part,
  name: part,
  quantity,
  priceUsd,
  supplier: 'Yard',
  substitutes: ['other'],
  on,
})

test('a price book is taken over and kept apart from other firms’; an older price does not replace a newer one', async () => {
  const [one, two] = [await testFirm(), await testFirm()]
  const book = [price('b', 1, null), price('a', 500, 210.5), price('a', 1, 0.6)]
  expect(await takePrices(one, book)).toEqual({ taken: 3 })
  expect(await priceBook(one)).toEqual([book[2], book[1], book[0]])
  expect(await priceBook(two)).toEqual([])
  expect(await takePrices(one, [price('a', 1, 9, '2025-12-31')])).toEqual({ taken: 0 })
  expect(await takePrices(one, [price('a', 1, 0.7, '2026-01-03')])).toEqual({ taken: 1 })
  expect((await pricesOf(one, ['a'])).map(p => p.priceUsd)).toEqual([0.7, 210.5])
})

test('twenty thousand prices are held, one more is refused and nothing of it stays', async () => {
  const firm = await testFirm()
  const many = Array.from({ length: 20_000 }, (_, n) => price(`p${n}`, 1, n + 1))
  expect(await takePrices(firm, many)).toEqual({ taken: 20_000 })
  expect(await takePrices(firm, [price('a', 1, 5), price('z', 1, 1)])).toEqual({ tooMany: 20_002 })
  expect(await pricesOf(firm, ['a', 'z', 'p7'])).toMatchObject([{ part: 'p7', priceUsd: 8 }])
})

test('what one job keeps of the stock another cannot; kept anew it replaces, and is let go', async () => {
  const firm = await testFirm()
  const [one, two] = [await made(firm), await made(firm)]
  await setStock(firm, { wire: 100, box: 2 })
  expect(await reserve(firm, one, { wire: 70.5, box: 1, none: 3 })).toEqual({ wire: 70.5, box: 1 })
  const [kept] = await Promise.all([reserve(firm, two, { wire: 70.5 }), reserve(firm, two, { wire: 70.5 })])
  expect(kept).toEqual({ wire: 29.5 })
  expect(await stockFor(firm, one, ['wire', 'box'])).toEqual({
    stock: { wire: 100, box: 2 },
    own: { wire: 70.5, box: 1 },
    others: { wire: 29.5 },
  })
  expect(await reserve(firm, one, {})).toEqual({})
  expect((await stockFor(firm, two, ['wire'])).others).toEqual({})
  expect((await stockFor(await testFirm(), one, ['wire'])).stock).toEqual({})
})

test('the firm’s ways: none at first, and two who change them at once do not overwrite each other', async () => {
  const firm = await testFirm()
  expect(await readWays(firm)).toEqual({ minutes: [], habits: {}, version: 0 })
  const minutes = [{ work: 'splice' as const, firstMin: 4, eachMin: 3 }]
  expect(await putWays(firm, { minutes }, 0)).toBe(true)
  expect(await putWays(firm, { habits: { growth: true } }, 0)).toBe(false)
  expect(await putWays(firm, { habits: { connectors: 'lever' } }, 1)).toBe(true)
  expect(await readWays(firm)).toEqual({ minutes, habits: { connectors: 'lever' }, version: 2 })
})
