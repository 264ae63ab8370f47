import { Alert } from '@mui/material'
import type { WorkStand } from '@/core/order/stand'
import { together } from '@/core/units/format'

/** What does not fit together since office and field worked apart: told to both. */
export const Merged = ({ stand }: { stand: WorkStand }) => (
  <>
    {stand.gone.map(g => (
      <Alert key={g.task} severity="warning">
        <b>{g.by}:</b> {g.text}
      </Alert>
    ))}
    {stand.clocks.length > 0 && (
      <Alert severity="info">
        The clock of {together(stand.clocks)} jumped: times of day say nothing there. Minutes and order are
        right.
      </Alert>
    )}
  </>
)
