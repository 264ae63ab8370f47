import { TestsView } from '@/ui/prove/TestsView'

export default function TestsPage() {
  return <TestsView />
}
