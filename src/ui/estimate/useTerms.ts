import { useQuery } from '@tanstack/react-query'
import type { Terms } from '@/core/estimate/terms'
import { told } from '../query'

export interface TermsTold {
  terms: Terms
  version: number
}

/** How the firm prices its work, as the server last told it. */
export const useTerms = () => useQuery({ queryKey: ['terms'], queryFn: () => told<TermsTold>('/api/terms') })
