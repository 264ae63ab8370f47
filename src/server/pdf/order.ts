import type { Job } from '@/core/job/schema'
import { figure, quantity } from '@/core/units/format'
import { partKinds } from '@/core/work/parts/line'
import type { Order, OrderLine } from '@/core/work/parts/order'
import { type Minutes, workOfJob } from '@/core/work/parts/tasks'
import { amountOf, putUpOf } from '@/core/work/parts/words'
import { Paper, type Sheet } from './paper'

const putUps = ({ bought, unit }: OrderLine) =>
  bought.map(b => `${putUpOf(b, unit)}${b.supplier ? `, ${b.supplier}` : ''}`).join('; ')

/** What is to be ordered, with tools, protective equipment and hours, on paper; with put-ups and prices for those who may see them. */
export function orderPdf(
  job: Job,
  order: Order,
  minutes: Minutes,
  priced: boolean,
  sheet: Sheet,
): Promise<Buffer> {
  const paper = new Paper(`Parts and tools: ${job.title}`, sheet)
  for (const [kind, { name }] of Object.entries(partKinds)) {
    const lines = order.lines.filter(l => l.kind === kind)
    if (!lines.length) continue
    paper.heading(name)
    paper.table(
      [
        { head: 'Part', share: 34, cell: l => l.name },
        { head: 'Needed', share: 10, cell: l => amountOf(l.needed, l.unit), figure: true },
        { head: 'Stock', share: 9, cell: l => amountOf(l.fromStock, l.unit), figure: true },
        { head: 'Order', share: 10, cell: l => amountOf(l.toOrder, l.unit), figure: true },
        ...(priced
          ? [
              { head: 'As', share: 20, cell: putUps },
              {
                head: 'Price',
                share: 11,
                cell: (l: OrderLine) => (l.priceUsd === null ? 'ask' : quantity(l.priceUsd, '$')),
                figure: true,
              },
            ]
          : []),
      ],
      lines,
    )
  }
  if (priced)
    paper.paragraph(
      `Together ${quantity(order.knownUsd, '$')}${order.unpriced ? ` and ${order.unpriced} without a price` : ''}${order.oldestOn ? `; the oldest price is of ${order.oldestOn}` : ''}.`,
    )
  const work = workOfJob(job, minutes)
  paper.heading('Hours')
  paper.table(
    [
      { head: 'Work', share: 50, cell: t => t.name },
      { head: 'How many', share: 12, cell: t => figure(Math.round(t.count * 10) / 10), figure: true },
      { head: 'Minutes', share: 12, cell: t => figure(Math.round(t.minutes)), figure: true },
      { head: 'People', share: 10, cell: t => String(t.people), figure: true },
    ],
    work.tasks,
  )
  paper.paragraph(
    `${quantity(work.hours, 'h')} for one pair of hands${work.helperHours ? `, ${quantity(work.helperHours, 'h')} of them with a second` : ''}.`,
  )
  paper.heading('Tools')
  paper.paragraph(work.tools.map(t => t.name).join('; '))
  paper.heading('To be worn')
  paper.paragraph(work.protection.join('; '))
  for (const l of work.lifts)
    paper.paragraph(`${l.name}: ${quantity(l.weightLb, 'lb')}, ${l.people} people lift it.`)
  return paper.end()
}
