import { NoticesView } from '@/ui/labels/NoticesView'

export default function NoticesPage() {
  return <NoticesView />
}
