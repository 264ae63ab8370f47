import { Alert, Button } from '@mui/material'
import type { LoadRow } from '@/core/assess/loads-overview'
import { quantity } from '@/core/units/format'
import type { Working } from '@/core/working'
import { useWorkspace } from '../workspace/store'

/** What a meter's figures come to, beside what the load drew until now, with the working. */
export function Told({ said, row }: { said: { answer: string; working: Working } | null; row?: LoadRow }) {
  const showWorking = useWorkspace(s => s.showWorking)
  if (!said) return null
  return (
    <Alert>
      {said.answer} {row && `Was ${quantity(row.drawn.dailyWh, 'Wh')} a day (${row.from}). `}
      <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(said.working)}>
        Show the working
      </Button>
    </Alert>
  )
}
