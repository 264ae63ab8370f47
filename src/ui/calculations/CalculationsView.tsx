'use client'
import { Button } from '@mui/material'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { Empty, View } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** The bench is large, and most visits to a job do not come here: it is fetched with the first calculation shown. */
const CalculationCard = dynamic(() => import('./CalculationCard').then(m => m.CalculationCard), {
  loading: () => <p>Working it out…</p>,
})

/** The calculations kept with the job, each worked out anew. */
export function CalculationsView() {
  const id = useWorkspace(s => s.id)
  const calculations = useWorkspace(s => s.job.calculations)
  return (
    <View
      title="Calculations"
      tools={
        <Button component={Link} href={`/bench?job=${id}`}>
          Ask the bench
        </Button>
      }
    >
      {calculations.length ? (
        calculations.map(c => <CalculationCard key={c.id} calculation={c} />)
      ) : (
        <Empty>
          Nothing is kept here yet. Ask the bench about a run, a conduit or a reading, and use the answer in
          this job: its inputs, answer and working then stand here and on the sheet.
        </Empty>
      )}
    </View>
  )
}
