import { CalculationsView } from '@/ui/calculations/CalculationsView'

export default function CalculationsPage() {
  return <CalculationsView />
}
