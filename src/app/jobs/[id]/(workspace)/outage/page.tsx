import { OutageView } from '@/ui/outage/OutageView'
import { QueryRoot } from '@/ui/query'

export default function OutagePage() {
  return (
    <QueryRoot>
      <OutageView />
    </QueryRoot>
  )
}
