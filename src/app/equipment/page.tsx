import type { Metadata } from 'next'
import { listEquipment, listStock } from '@/server/catalogue/repository'
import { forPage } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { EquipmentScreen } from '@/ui/equipment/EquipmentScreen'

export const metadata: Metadata = { title: 'Equipment' }

export default async function EquipmentPage() {
  const { actor, equipment, stock } = await forPage(async () => {
    const actor = await currentActor()
    return { actor, equipment: await listEquipment(actor), stock: await listStock(actor) }
  })
  return <EquipmentScreen person={actor.person} equipment={equipment} stock={stock} />
}
