import * as z from 'zod'
import { may, type Right, refusal } from '@/core/firm/roles'
import { habitsSchema } from '@/core/hookup/wiring-choices'
import { line } from '@/core/quantity'
import { stockSchema } from '@/core/search/stock'
import { partsOfJob } from '@/core/work/parts'
import { partsConsidered } from '@/core/work/parts/alternatives'
import { priceSchema } from '@/core/work/parts/prices'
import { minutesSchema } from '@/core/work/parts/tasks'
import { countStock } from '@/server/catalogue/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { pricesOf, putWays, readWays, reserve, stockFor, takePrices } from '@/server/parts/repository'
import { currentActor } from '@/server/people/actor'
import type { Actor } from '@/server/people/types'
import { type JobParams, jobOf } from '../../params'

const count = stockSchema.valueType
const changeSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('reserve') }),
  z.strictObject({ act: z.literal('release') }),
  z.strictObject({
    act: z.literal('count'),
    key: line(60, 1),
    was: count.nullable(),
    count: count.nullable(),
  }),
  z.strictObject({ act: z.literal('price'), price: priceSchema }),
  z.strictObject({ act: z.literal('minutes'), minutes: minutesSchema, version: z.int().min(0) }),
  z.strictObject({ act: z.literal('habits'), habits: habitsSchema.partial(), version: z.int().min(0) }),
])

/** What a change takes beyond what the route asks for. */
const takes: Partial<Record<z.infer<typeof changeSchema>['act'], Right>> = {
  price: 'money',
  minutes: 'design',
  habits: 'design',
}

/** What the firm knows of a job's parts: prices, for those who may see them; stock, what is kept for whom, minutes by kind of work. */
async function known(actor: Actor, id: string, job: Parameters<typeof partsOfJob>[0]) {
  const keys = partsConsidered(job)
  const [prices, stock, ways] = await Promise.all([
    may(actor.role, 'money') ? pricesOf(actor, keys) : null,
    stockFor(actor, id, keys),
    readWays(actor),
  ])
  return { prices, ...stock, ...ways }
}

export const GET = handle(async (_, { params }: JobParams) => {
  const { job } = await jobOf(params)
  return known(await currentActor(), (await params).id, job)
})

export const POST = handle(async (request, { params }: JobParams) => {
  const change = await bodyAs(request, changeSchema)
  const { job } = await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  const right = takes[change.act]
  if (right && !may(actor.role, right)) return refuse(403, refusal(actor.role, right))
  if (change.act === 'release') await reserve(actor, id, {})
  if (change.act === 'reserve')
    await reserve(actor, id, Object.fromEntries(partsOfJob(job).map(p => [p.key, p.needed])))
  if (change.act === 'count') {
    const there = await countStock(actor, change.key, change.was, change.count)
    if (there !== 'counted')
      return refuse(
        409,
        `Somebody counted it meanwhile: ${there === null ? 'nothing' : there} stands there now. Look again.`,
      )
  }
  if (change.act === 'price') {
    const done = await takePrices(actor, [change.price])
    if ('tooMany' in done) return refuse(409, 'The price book is full: take prices out of it first.')
    if (!done.taken)
      return refuse(409, 'A newer price stands there already. Look again before you change it.')
  }
  if (
    (change.act === 'minutes' || change.act === 'habits') &&
    !(await putWays(actor, change, change.version))
  )
    return refuse(
      409,
      'Somebody else changed the firm’s ways meanwhile. Look at them again before you change them.',
    )
  return known(actor, id, job)
})
