import type { Metadata } from 'next'
import { readLabour } from '@/server/catalogue/labour'
import { listEquipment, listStock } from '@/server/catalogue/repository'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { EquipmentScreen } from '@/ui/equipment/EquipmentScreen'
import { QueryRoot } from '@/ui/query'

export const metadata: Metadata = { title: 'Equipment' }

export default async function EquipmentPage() {
  const { person, firm } = await forPage(async () => {
    const actor = await pageActor()
    const [equipment, stock, { labour }] = await Promise.all([
      listEquipment(actor),
      listStock(actor),
      readLabour(actor),
    ])
    return { person: actor.person, firm: { equipment, stock, labour } }
  })
  return (
    <QueryRoot>
      <EquipmentScreen person={person} firm={firm} />
    </QueryRoot>
  )
}
