import { AskView } from '@/ui/ask/AskView'

export default function AskPage() {
  return <AskView />
}
