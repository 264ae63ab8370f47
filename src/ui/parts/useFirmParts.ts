import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Habits } from '@/core/hookup/wiring-choices'
import type { Stock } from '@/core/search/stock'
import type { Price } from '@/core/work/parts/prices'
import type { Minutes } from '@/core/work/parts/tasks'
import { call } from '../api'
import { dataOf, told } from '../query'
import { useWorkspace } from '../workspace/store'

/** What the firm knows of a job’s parts. */
export interface FirmParts {
  /** null for those who may not see them */
  prices: Price[] | null
  /** counted; kept for this job; kept for others */
  stock: Stock
  own: Stock
  others: Stock
  minutes: Minutes
  habits: Partial<Habits>
  version: number
}

/** As the server last told it; asked again when the job was saved anew. */
export function useFirmParts() {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  return useQuery({
    queryKey: ['parts', id, revision],
    queryFn: () => told<FirmParts>(`/api/jobs/${id}/parts`),
    placeholderData: before => before,
  })
}

/** Changes of what the firm knows; the answer is the whole as it stands then. */
export function useFirmPartsChanges() {
  const id = useWorkspace(s => s.id)
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: object) => dataOf(call<FirmParts>(`/api/jobs/${id}/parts`, 'POST', body)),
    onSuccess: data => client.setQueriesData({ queryKey: ['parts', id] }, data),
    onError: () => client.invalidateQueries({ queryKey: ['parts', id] }),
  })
}

export interface BookTaken {
  taken: number
  older: number
  doubled: number
  faults: { row: number; column: string; message: string }[]
  /** parts that no list asks for */
  unknown: { count: number; some: string[] }
}

/** Takes a price book over. */
export function useBook() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (text: string) => dataOf(call<BookTaken>('/api/prices', 'POST', { text })),
    onSuccess: () => client.invalidateQueries({ queryKey: ['parts'] }),
  })
}
