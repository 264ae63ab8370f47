import { useQueryClient } from '@tanstack/react-query'
import { type Terms, termsSchema } from '@/core/estimate/terms'
import { call } from '../api'
import { Quiet } from '../common/pieces'
import { FactsDialog } from '../form/FactsDialog'
import { type TermsTold, useTerms } from './useTerms'

/** How the firm prices its work: rates, mark-up, taxes by place, texts, numbering. For every estimate from now on. */
export function TermsDialog({ onClose }: { onClose: () => void }) {
  const client = useQueryClient()
  const { data } = useTerms()
  if (!data) return null
  return (
    <FactsDialog<Terms>
      key={data.version}
      title="How the firm prices its work"
      schema={termsSchema}
      draft={structuredClone(data.terms)}
      save="Save for the firm"
      onSave={async terms => {
        const answer = await call<TermsTold>('/api/terms', 'POST', { terms, version: data.version })
        if (!answer.ok) return answer.faults.length ? answer.faults : answer.message
        client.setQueryData(['terms'], answer.data)
        await client.invalidateQueries({ queryKey: ['estimate'] })
        return null
      }}
      onClose={onClose}
    >
      <Quiet>For every estimate from now on. What was sent stays as it was sent.</Quiet>
    </FactsDialog>
  )
}
