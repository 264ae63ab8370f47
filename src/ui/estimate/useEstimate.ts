import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Draft, DraftOption } from '@/core/estimate/draft'
import type { EstimateShown, OptionMade } from '@/core/estimate/shown'
import type { Terms } from '@/core/estimate/terms'
import type { Fault } from '@/core/outcome'
import { call } from '../api'
import { dataOf, told } from '../query'
import { useWorkspace } from '../workspace/store'

/** The estimate of the job at hand, its options worked out, and what was sent. */
export interface Estimate extends EstimateShown {
  /** of the job that it is worked out of */
  revision: number
  terms: Terms
  options: OptionMade[]
  faults: Fault[]
  /** of the link, right after it was made */
  token?: string
}

const pathOf = (id: string) => `/api/jobs/${id}/estimate`

/** As the server last told it; worked out anew when the job was saved anew. */
export function useEstimate() {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  return useQuery({
    queryKey: ['estimate', id, revision],
    queryFn: () => told<Estimate>(pathOf(id)),
    placeholderData: before => before,
  })
}

/** Keeps an answer for the revision of the job that it is of: a later one is worked out anew, and never shown by an earlier one’s figures. */
async function keep(client: QueryClient, id: string, data: Estimate) {
  await client.cancelQueries({ queryKey: ['estimate', id] })
  client.setQueryData(['estimate', id, data.revision], data)
  await client.invalidateQueries({
    queryKey: ['estimate', id],
    predicate: ({ queryKey }) => queryKey[2] !== data.revision,
  })
}

/** What is done to it. */
type EstimateChange =
  | { act: 'draft'; draft: Draft; version: number }
  | { act: 'send'; version: number; revision: number }
  | { act: 'withdraw' | 'relink'; n: number }
  | { act: 'settle'; questionId: string }

/** Changes of it; the answer is the whole as it stands then. */
export function useEstimateChanges() {
  const id = useWorkspace(s => s.id)
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: EstimateChange) => dataOf(call<Estimate>(pathOf(id), 'POST', body)),
    // words and tax stand at once; what costs anew comes with the answer
    onMutate: body => {
      if (body.act === 'draft')
        client.setQueriesData<Estimate>(
          { queryKey: ['estimate', id] },
          was => was && { ...was, draft: body.draft },
        )
    },
    onSuccess: data => keep(client, id, data),
    onError: () => client.invalidateQueries({ queryKey: ['estimate', id] }),
  })
}

/** Puts a design among the options from wherever it was found; a sentence that says what came of it. */
export function useAddOption() {
  const id = useWorkspace(s => s.id)
  const client = useQueryClient()
  return async (option: DraftOption): Promise<string> => {
    const now = await call<Estimate>(pathOf(id), 'GET')
    if (!now.ok) return now.message
    const { draft, draftVersion } = now.data
    const done = await call<Estimate>(pathOf(id), 'POST', {
      act: 'draft',
      draft: { ...draft, options: [...draft.options, option] },
      version: draftVersion,
    })
    if (!done.ok) return done.faults[0] ? `The options ${done.faults[0].message}.` : done.message
    await keep(client, id, done.data)
    return 'It is an option of the estimate.'
  }
}
