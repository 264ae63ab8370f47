import { UtilityView } from '@/ui/loads/UtilityView'

export default function UtilityPage() {
  return <UtilityView />
}
