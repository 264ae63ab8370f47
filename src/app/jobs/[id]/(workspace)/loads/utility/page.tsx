import { UtilityView } from '@/ui/utility/UtilityView'

export default function UtilityPage() {
  return <UtilityView />
}
