import { OutageView } from '@/ui/outage/OutageView'

export default function OutagePage() {
  return <OutageView />
}
