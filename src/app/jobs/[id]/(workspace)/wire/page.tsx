import { QueryRoot } from '@/ui/query'
import { WireView } from '@/ui/wire/WireView'
import { type JobPageParams, loadJob } from '../../load'

export default async function WirePage({ params }: JobPageParams) {
  const { actor, today } = await loadJob((await params).id)
  return (
    <QueryRoot>
      <WireView today={today} firm={actor.firm} />
    </QueryRoot>
  )
}
