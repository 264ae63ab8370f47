import { PartsView } from '@/ui/parts/PartsView'
import { QueryRoot } from '@/ui/query'
import { type JobPageParams, loadJob } from '../../load'

export default async function PartsPage({ params }: JobPageParams) {
  const { actor, today } = await loadJob((await params).id)
  return (
    <QueryRoot>
      <PartsView today={today} firm={actor.firm} />
    </QueryRoot>
  )
}
