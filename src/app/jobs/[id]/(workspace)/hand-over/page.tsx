import { HandOverView } from '@/ui/handover/HandOverView'
import { QueryRoot } from '@/ui/query'
import { type JobPageParams, loadJob } from '../../load'

export default async function HandOverPage({ params }: JobPageParams) {
  const { actor } = await loadJob((await params).id)
  return (
    <QueryRoot>
      <HandOverView firm={actor.firm} />
    </QueryRoot>
  )
}
