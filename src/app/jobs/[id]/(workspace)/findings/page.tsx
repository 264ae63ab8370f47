import { FindingsView } from '@/ui/findings/FindingsView'

export default function FindingsPage() {
  return <FindingsView />
}
