import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Equipment } from '@/core/equipment'
import type { Labour } from '@/core/hookup/labour'
import type { Fault } from '@/core/outcome'
import type { Stock } from '@/core/search/stock'
import { call } from '../api'
import { dataOf, Refused, told } from '../query'

/** The firm's catalogue, what it has of each item, and its hours. */
export interface Firm {
  equipment: Equipment[]
  stock: Stock
  labour: Labour
}

const key = ['equipment']
const path = '/api/equipment'

/** What the firm has, as the server last told it; asked again when it is old. */
export const useFirm = (given?: Firm) =>
  useQuery({ queryKey: key, queryFn: () => told<Firm>(path), initialData: given })

export interface Wrong {
  message: string
  faults: Fault[]
}
const wrongOf = (error: unknown): Wrong =>
  error instanceof Refused
    ? { message: error.message, faults: error.answer.faults }
    : { message: 'The answer could not be read.', faults: [] }

/** Changes of the catalogue. A count stands at once, and goes back with a word where somebody counted meanwhile. */
export function useCatalogueChanges() {
  const client = useQueryClient()
  const { mutateAsync } = useMutation({
    mutationFn: (body: object) => dataOf(call<Firm>(path, 'POST', body)),
    onSuccess: data => client.setQueryData(key, data),
  })
  const change = async (body: object): Promise<Wrong | null> => {
    try {
      await mutateAsync(body)
      return null
    } catch (error) {
      return wrongOf(error)
    }
  }
  const count = async (item: string, next: number | null): Promise<Wrong | null> => {
    await client.cancelQueries({ queryKey: key })
    const before = client.getQueryData<Firm>(key)
    const was = before?.stock[item] ?? null
    client.setQueryData<Firm>(key, now => now && { ...now, stock: withCount(now.stock, item, next) })
    const wrong = await change({ act: 'stock', key: item, was, count: next })
    if (wrong) {
      client.setQueryData(key, before)
      void client.invalidateQueries({ queryKey: key })
    }
    return wrong
  }
  return { change, count }
}

function withCount(stock: Stock, item: string, next: number | null): Stock {
  const { [item]: _, ...rest } = stock
  return next === null ? rest : { ...rest, [item]: next }
}
