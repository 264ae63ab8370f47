import type { OrderLine } from '../work/parts/order'
import { cellsOf } from './cells'
import { orderCsv } from './order-csv'

const line = (facts: Partial<OrderLine>): OrderLine => ({
  key: 'part',
  kind: 'fitting',
  name: 'part',
  unit: 'each',
  needed: 3,
  fromStock: 1,
  toOrder: 2,
  bought: [],
  priceUsd: null,
  substitutes: [],
  why: [],
  ...facts,
})
const table = (...lines: OrderLine[]) =>
  cellsOf(orderCsv({ lines, knownUsd: 0, unpriced: 0, oldestOn: null }))
const put = { quantity: 500, count: 1, priceUsd: 210.5, supplier: 'Yard', on: '2026-01-01' }

test('an order as a table: a row for each put-up, “ask” where there is no price, nothing where all is in stock', () => {
  const [head, ...rows] = table(
    line({
      key: 'wire',
      unit: 'ft',
      toOrder: 516.4,
      bought: [put, { ...put, quantity: 1, count: 17, priceUsd: 0.6 }],
    }),
    line({ key: 'asked' }),
    line({ key: 'there', fromStock: 3, toOrder: 0, priceUsd: 0 }),
  )
  const at = (name: string) => head?.indexOf(name) ?? -1
  const of = (...names: string[]) => rows.map(r => names.map(n => r[at(n)]))
  expect(of('part', 'to order', 'put-up', 'put-ups', 'price')).toEqual([
    ['wire', '516.4', '500', '1', '210.5'],
    ['wire', '516.4', '1', '17', '10.2'],
    ['asked', '2', '', '', 'ask'],
    ['there', '0', '', '', '0'],
  ])
})

test('reasons stand once each, and what a spreadsheet would work out is text', () => {
  const why = { text: '=SUM(A1)', at: { view: 'plan' as const }, quantity: 1 }
  const csv = orderCsv({
    lines: [line({ name: '+1', why: [why, why, { ...why, text: 'Second' }] })],
    knownUsd: 0,
    unpriced: 1,
    oldestOn: null,
  })
  expect(csv).toContain("'+1")
  expect(csv).toContain("'=SUM(A1); Second")
})
