import * as z from 'zod'
import { typicalSchema } from '@/core/loads/typical'
import { line } from '@/core/quantity'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { dropTypical, listTypical, putTypical } from '@/server/loads/library'
import { currentActor } from '@/server/people/actor'

const version = z.int().min(0)
const changeSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('put'), typical: typicalSchema, version }),
  z.strictObject({ act: z.literal('drop'), id: line(40, 1), version }),
])

/** The firm's own typical loads. */
export const GET = handle(async () => ({ loads: await listTypical(await currentActor()) }))

/** Changes, adds or takes away one of them; refused when somebody else changed it meanwhile. */
export const POST = handle(async request => {
  const change = await bodyAs(request, changeSchema)
  const actor = await currentActor()
  const done =
    change.act === 'put'
      ? await putTypical(actor, change.typical, change.version, new Date())
      : await dropTypical(actor, change.id, change.version)
  if (done === null)
    return refuse(409, 'Somebody else changed this load meanwhile. Look at it again before you change it.')
  return { loads: await listTypical(actor) }
})
