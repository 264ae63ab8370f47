import { EstimateView } from '@/ui/estimate/EstimateView'
import { QueryRoot } from '@/ui/query'

export default function EstimatePage() {
  return (
    <QueryRoot>
      <EstimateView />
    </QueryRoot>
  )
}
