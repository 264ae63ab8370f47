import { LoadsView } from '@/ui/loads/LoadsView'

export default function LoadsPage() {
  return <LoadsView />
}
