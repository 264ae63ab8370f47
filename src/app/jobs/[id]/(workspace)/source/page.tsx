import { listEquipment } from '@/server/catalogue/repository'
import { pageActor } from '@/server/people/actor'
import { SourceView } from '@/ui/source/SourceView'

export default async function SourcePage() {
  return <SourceView catalogue={await listEquipment(await pageActor())} />
}
