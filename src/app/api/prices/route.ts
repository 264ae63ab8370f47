import { NextResponse } from 'next/server'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { isKnownPart } from '@/core/work/parts/keys'
import { mostPrices, pricesCsv, readPrices } from '@/core/work/parts/prices'
import { listEquipment } from '@/server/catalogue/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { priceBook, takePrices } from '@/server/parts/repository'
import { currentActor } from '@/server/people/actor'

const bookSchema = z.strictObject({
  text: z.string().max(1_900_000, 'must be at most 1.9 MB: part the book in two'),
})

/** The firm's price book as CSV. */
export const GET = handle(async () => {
  const prices = await priceBook(await currentActor())
  return new NextResponse(pricesCsv(prices), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="prices.csv"',
    },
  })
})

/** Takes a book over: rows that cannot be taken are told, and leave the others. */
export const POST = handle(async request => {
  const { text } = await bodyAs(request, bookSchema)
  const actor = await currentActor()
  const { prices, faults, doubled } = readPrices(text, dayIn(actor.zone, new Date()))
  if (!prices.length)
    return refuse(
      422,
      'Nothing was taken over: put these right and read the file again.',
      faults.map(f => ({ path: `row ${f.row}, ${f.column}`, message: f.message })),
    )
  const done = await takePrices(actor, prices)
  if ('tooMany' in done)
    return refuse(
      409,
      `A book holds at most ${mostPrices.toLocaleString('en-US')} prices; this would make ${done.tooMany.toLocaleString('en-US')}. Nothing was taken over.`,
    )
  const devices = new Set((await listEquipment(actor)).map(e => e.id))
  const unknown = [...new Set(prices.map(p => p.part))].filter(part => !isKnownPart(part, devices))
  return {
    unknown: { count: unknown.length, some: unknown.slice(0, 20) },
    taken: done.taken,
    older: prices.length - done.taken,
    doubled,
    faults: faults.slice(0, 200),
  }
})
