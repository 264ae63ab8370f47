import { NextResponse } from 'next/server'
import { equipmentCsv } from '@/core/formats/equipment-csv'
import { listEquipment } from '@/server/catalogue/repository'
import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { note } from '@/server/people/record'

/** The firm's catalogue as a file: a table, or JSON. */
export const GET = handle(async request => {
  const actor = await currentActor()
  const items = await listEquipment(actor)
  await note(actor, 'exported', { what: 'the catalogue' })
  const json = new URL(request.url).searchParams.get('format') === 'json'
  return new NextResponse(json ? `${JSON.stringify(items, null, 2)}\n` : equipmentCsv(items), {
    headers: {
      'content-type': json ? 'application/json; charset=utf-8' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="equipment.${json ? 'json' : 'csv'}"`,
    },
  })
})
