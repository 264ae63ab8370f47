import { HistoryView } from '@/ui/history/HistoryView'

export default function HistoryPage() {
  return <HistoryView />
}
