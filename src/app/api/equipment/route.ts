import * as z from 'zod'
import { type Equipment, equipmentSchema } from '@/core/equipment'
import { line } from '@/core/quantity'
import { expansionKey, stockSchema } from '@/core/search/stock'
import { readLabour } from '@/server/catalogue/labour'
import {
  countStock,
  listEquipment,
  listStock,
  mostItems,
  newestVersions,
  putEquipment,
} from '@/server/catalogue/repository'
import { readCatalogueAside } from '@/server/files/desk'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import type { Actor } from '@/server/people/types'
import { catalogue } from '@/server/seeds/catalogue'

const from = z.int().min(0)
const count = stockSchema.valueType
const changeSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('put'), item: equipmentSchema, from }),
  z.strictObject({ act: z.literal('retire'), id: line(40, 1), from }),
  z.strictObject({
    act: z.literal('stock'),
    key: line(60, 1),
    /** what stood there before, as the person saw it */
    was: count.nullable(),
    count: count.nullable(),
  }),
  z.strictObject({
    act: z.literal('import'),
    format: z.enum(['csv', 'json']),
    text: z.string().max(1_000_000),
  }),
  /** what a firm that has nothing yet may look around with */
  z.strictObject({ act: z.literal('example') }),
])

/** The firm's catalogue, the newest version of everything, and how many of it are in stock. */
export const GET = handle(async () => told(await currentActor()))

const told = async (actor: Actor) => ({
  equipment: await listEquipment(actor),
  stock: await listStock(actor),
  labour: (await readLabour(actor)).labour,
})

/** Writes a next version, counts the stock, takes an item out of use, or reads a file of items: all of it or nothing. */
export const POST = handle(async request => {
  const change = await bodyAs(request, changeSchema)
  const actor = await currentActor()
  const had = await listEquipment(actor)
  if (change.act === 'import') {
    const read = await readCatalogueAside(change.format, change.text)
    if (!read.ok)
      return refuse(422, 'Nothing was taken over: put these right and read the file again.', read.faults)
    await putNewest(actor, read.value)
    return { ...(await told(actor)), read: read.value.length }
  }
  if (change.act === 'example') {
    if (had.length)
      return refuse(409, 'The firm has equipment already: made-up items do not belong among it.')
    await putNewest(actor, catalogue)
    return told(actor)
  }
  if (change.act === 'stock') {
    const of = had.find(h => change.key === h.id || change.key === expansionKey(h.id))
    if (!of) return refuse(404, 'That item is no longer in the catalogue.')
    const there = await countStock(actor, change.key, change.was, change.count)
    if (there !== 'counted')
      return refuse(
        409,
        `Somebody counted ${of.name} meanwhile: ${there === null ? 'nothing' : there} stands there now. Look again.`,
      )
    return told(actor)
  }
  const item = change.act === 'put' ? change.item : had.find(h => h.id === change.id)
  if (!item) return refuse(404, 'That item is no longer in the catalogue.')
  await put(actor, [{ item, from: change.from }], change.act === 'retire')
  return told(actor)
})

/** Writes the next version of each, whatever stands there. */
async function putNewest(actor: Actor, items: readonly Equipment[]): Promise<void> {
  const versions = await newestVersions(
    actor,
    items.map(item => item.id),
  )
  await put(
    actor,
    items.map(item => ({ item, from: versions.get(item.id) ?? 0 })),
  )
}

/** Writes them, or refuses in words. */
async function put(actor: Actor, items: Parameters<typeof putEquipment>[1], retired = false): Promise<void> {
  const not = await putEquipment(actor, items, retired)
  if (not && 'tooMany' in not)
    refuse(
      409,
      `A catalogue holds at most ${mostItems} items in use; this would make ${not.tooMany}. Take some out of use first. Nothing was taken over.`,
    )
  if (not && 'meanwhile' in not)
    refuse(
      409,
      `Somebody else changed ${not.meanwhile} meanwhile, or its id is taken. Look at it again before you change it.`,
    )
}
