import { QueryRoot } from '@/ui/query'
import { UtilityView } from '@/ui/utility/UtilityView'

export default function UtilityPage() {
  return (
    <QueryRoot>
      <UtilityView />
    </QueryRoot>
  )
}
