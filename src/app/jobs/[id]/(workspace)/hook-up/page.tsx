import { readLabour } from '@/server/catalogue/labour'
import { listEquipment } from '@/server/catalogue/repository'
import { pageActor } from '@/server/people/actor'
import { HookupView } from '@/ui/hookup/HookupView'

export default async function HookupPage() {
  const actor = await pageActor()
  return <HookupView catalogue={await listEquipment(actor)} hours={await readLabour(actor)} />
}
