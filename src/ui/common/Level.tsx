import { LinearProgress } from '@mui/material'

/** How much of the most there is, as water in a gauge. */
export const Level = ({ full }: { full: number }) => (
  <LinearProgress variant="determinate" aria-hidden value={Math.max(1, Math.min(100, 100 * full))} />
)
