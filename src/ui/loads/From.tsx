import { LinearProgress } from '@mui/material'
import type { Origin } from '@/core/working'
import { Row } from '../common/pieces'

/** How good a source is, for the eye; the word says which. */
const full: Record<Origin, number> = {
  commissioned: 100,
  metered: 100,
  nameplate: 70,
  'utility data': 70,
  catalogue: 55,
  job: 45,
  'typical value': 35,
  assumed: 12,
}

/** Where a figure comes from: the word, and a gauge that is the fuller the better it is known. */
export function From({ from }: { from: Origin }) {
  return (
    <Row component="span" spacing={0.5} sx={{ display: 'inline-flex', flexWrap: 'nowrap' }}>
      <LinearProgress
        variant="determinate"
        value={full[from]}
        aria-hidden
        sx={{ width: 26, height: 9, border: 1, borderColor: 'text.secondary', borderRadius: 0.5 }}
      />
      {from === 'job' ? 'set on this job' : from}
    </Row>
  )
}
