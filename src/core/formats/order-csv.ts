import type { Order, OrderLine } from '../work/parts/order'
import { csvOf } from './cells'

const heads = ['part', 'name', 'unit', 'needed', 'from stock', 'to order']
const amounts = (l: OrderLine) => [
  l.key,
  l.name,
  l.unit,
  round(l.needed),
  round(l.fromStock),
  round(l.toOrder),
]
const reasons = (l: OrderLine) => [...new Set(l.why.map(w => w.text))].join('; ')

/** An order as a table: a line for each part, and for each put-up of it that is bought. */
export const orderCsv = ({ lines }: Order): string =>
  csvOf([
    [...heads, 'put-up', 'put-ups', 'price each', 'price', 'supplier', 'price of', 'why'],
    ...lines.flatMap(l => {
      const line = (bought: Order['lines'][number]['bought'][number] | null) => [
        ...amounts(l),
        bought ? bought.quantity : '',
        bought ? bought.count : '',
        bought ? bought.priceUsd : '',
        bought
          ? round(bought.count * bought.priceUsd)
          : l.toOrder > 0 && l.priceUsd === null
            ? 'ask'
            : round(l.priceUsd ?? 0),
        bought ? bought.supplier : '',
        bought ? bought.on : '',
        reasons(l),
      ]
      return l.bought.length ? l.bought.map(line) : [line(null)]
    }),
  ])

const round = (value: number) => Number(value.toFixed(2))

/** The same for those who fetch it and see no prices: how much of what, and why. */
export const fetchedCsv = ({ lines }: Order): string =>
  csvOf([[...heads, 'why'], ...lines.map(l => [...amounts(l), reasons(l)])])
