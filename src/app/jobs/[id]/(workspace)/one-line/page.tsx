import { currentActor } from '@/server/people/actor'
import { OneLineView } from '@/ui/oneline/OneLineView'

export default async function OneLinePage() {
  const { firm } = await currentActor()
  return <OneLineView today={new Date().toISOString().slice(0, 10)} firm={firm} />
}
