import { OneLineView } from '@/ui/oneline/OneLineView'
import { type JobPageParams, loadJob } from '../../load'

export default async function OneLinePage({ params }: JobPageParams) {
  const { actor, today } = await loadJob((await params).id)
  return <OneLineView today={today} firm={actor.firm} />
}
