'use client'
import { Alert, Button } from '@mui/material'
import { Settings2 } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { Empty, View } from '../common/pieces'
import { Takeaway } from '../common/Takeaway'
import { useWorkspace } from '../workspace/store'
import { DraftCard } from './DraftCard'
import { useEstimate } from './useEstimate'
import { VersionsCard } from './VersionsCard'

const TermsDialog = dynamic(() => import('./TermsDialog').then(m => m.TermsDialog))

/** What it costs: up to three options side by side, sent by a link, accepted and frozen; later changes as change orders. */
export function EstimateView() {
  const id = useWorkspace(s => s.id)
  const { data, error } = useEstimate()
  const [terms, setTerms] = useState(false)
  return (
    <View
      title="Estimate"
      lead={
        data?.number
          ? `${data.number}. What was sent is frozen; what follows is a version, or after an acceptance a change order.`
          : 'Up to three options side by side. It gets its number when it is sent.'
      }
      tools={
        <>
          <Button size="small" startIcon={<Settings2 size={16} aria-hidden />} onClick={() => setTerms(true)}>
            Rates, taxes, texts
          </Button>
          {data && data.draft.options.length > 0 && (
            <Takeaway formats={['pdf']} hrefOf={() => `/api/jobs/${id}/estimate/pdf`} />
          )}
        </>
      }
    >
      {error && <Alert severity="error">{error.message}</Alert>}
      {!data && !error && <Empty>The estimate is being worked out…</Empty>}
      {data && <DraftCard estimate={data} />}
      {data && <VersionsCard estimate={data} />}
      {terms && <TermsDialog onClose={() => setTerms(false)} />}
    </View>
  )
}
