import { PlanView } from '@/ui/plan/PlanView'
import { type JobPageParams, loadJob } from '../../load'

export default async function PlanPage({ params }: JobPageParams) {
  const { actor, today } = await loadJob((await params).id)
  return <PlanView today={today} firm={actor.firm} />
}
