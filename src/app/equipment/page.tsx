import type { Metadata } from 'next'
import { listEquipment, listStock } from '@/server/catalogue/repository'
import { currentActor } from '@/server/people/actor'
import { EquipmentScreen } from '@/ui/equipment/EquipmentScreen'

export const metadata: Metadata = { title: 'Equipment' }

export default async function EquipmentPage() {
  const actor = await currentActor()
  return (
    <EquipmentScreen
      person={{ label: actor.label, firm: actor.firm, people: actor.people }}
      equipment={await listEquipment(actor)}
      stock={await listStock(actor)}
    />
  )
}
