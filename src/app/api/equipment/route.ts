import * as z from 'zod'
import { equipmentSchema } from '@/core/equipment'
import { readEquipmentCsv, readEquipmentJson } from '@/core/formats/equipment-csv'
import { line } from '@/core/quantity'
import { listEquipment, putEquipment } from '@/server/catalogue/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'

const from = z.int().min(0)
const changeSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('put'), item: equipmentSchema, from }),
  z.strictObject({ act: z.literal('retire'), id: line(40, 1), from }),
  z.strictObject({
    act: z.literal('import'),
    format: z.enum(['csv', 'json']),
    text: z.string().max(1_000_000),
  }),
])

/** The firm's catalogue, the newest version of everything. */
export const GET = handle(async () => ({ equipment: await listEquipment(await currentActor()) }))

/** Writes a next version, takes an item out of use, or reads a file of items: all of it or nothing. */
export const POST = handle(async request => {
  const change = await bodyAs(request, changeSchema)
  const actor = await currentActor()
  const had = await listEquipment(actor)
  if (change.act === 'import') {
    const read = change.format === 'csv' ? readEquipmentCsv(change.text) : readEquipmentJson(change.text)
    if (!read.ok)
      return refuse(422, 'Nothing was taken over: put these right and read the file again.', read.faults)
    const versionOf = (id: string) => had.find(h => h.id === id)?.version ?? 0
    const meanwhile = await putEquipment(
      actor,
      read.value.map(item => ({ item, from: versionOf(item.id) })),
    )
    if (meanwhile)
      return refuse(
        409,
        `${meanwhile} was changed or taken out of use meanwhile. Look at the catalogue again.`,
      )
    return { equipment: await listEquipment(actor), read: read.value.length }
  }
  const item = change.act === 'put' ? change.item : had.find(h => h.id === change.id)
  if (!item) return refuse(404, 'That item is no longer in the catalogue.')
  const meanwhile = await putEquipment(actor, [{ item, from: change.from }], change.act === 'retire')
  if (meanwhile)
    return refuse(
      409,
      `Somebody else changed ${meanwhile} meanwhile, or its id is taken. Look at it again before you change it.`,
    )
  return { equipment: await listEquipment(actor) }
})
