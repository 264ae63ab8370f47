import { PlanView } from '@/ui/plan/PlanView'

export default function PlanPage() {
  return <PlanView />
}
