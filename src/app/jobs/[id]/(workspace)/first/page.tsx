import { FirstView } from '@/ui/first/FirstView'
import { QueryRoot } from '@/ui/query'

export default function FirstPage() {
  return (
    <QueryRoot>
      <FirstView />
    </QueryRoot>
  )
}
