import { LoadsView } from '@/ui/loads/LoadsView'
import { QueryRoot } from '@/ui/query'

export default function LoadsPage() {
  return (
    <QueryRoot>
      <LoadsView />
    </QueryRoot>
  )
}
