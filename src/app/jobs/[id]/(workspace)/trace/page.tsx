import { TraceView } from '@/ui/trace/TraceView'

export default function TracePage() {
  return <TraceView />
}
