import { listEquipment } from '@/server/catalogue/repository'
import { currentActor } from '@/server/people/actor'
import { HookupView } from '@/ui/hookup/HookupView'

export default async function HookupPage() {
  return <HookupView catalogue={await listEquipment(await currentActor())} />
}
