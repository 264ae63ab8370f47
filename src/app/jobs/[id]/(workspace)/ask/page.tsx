import { AskView } from '@/ui/ask/AskView'
import { QueryRoot } from '@/ui/query'

export default function AskPage() {
  return (
    <QueryRoot>
      <AskView />
    </QueryRoot>
  )
}
