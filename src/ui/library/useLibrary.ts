import { useQuery, useQueryClient } from '@tanstack/react-query'
import { library } from '@/core/loads/library'
import { merged, type Typical } from '@/core/loads/typical'
import { told } from '../query'

export interface FirmTypical {
  typical: Typical
  version: number
  by: string
}
interface Told {
  loads: FirmTypical[]
}
const key = ['loads']

/** Our typical loads with the firm's in their place; ours alone while the firm's cannot be reached. */
export function useLibrary(given?: FirmTypical[]) {
  const client = useQueryClient()
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => told<Told>('/api/loads'),
    initialData: given && { loads: given },
  })
  const firms = data?.loads ?? []
  return {
    entries: merged(
      library,
      firms.map(f => f.typical),
    ),
    firms,
    setFirms: (loads: FirmTypical[]) => client.setQueryData<Told>(key, { loads }),
    trouble: error && `${error.message} The firm’s own loads are missing here.`,
  }
}
