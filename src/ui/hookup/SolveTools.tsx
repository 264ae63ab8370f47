import { Button } from '@mui/material'

interface Props {
  label: string
  busy: boolean
  onSolve: () => void
  onStop: () => void
  /** left out while nothing is pinned */
  onLoosen?: (() => void) | undefined
}

/** What is done with a problem that is solved in its worker: solve, stop, loosen every pin. */
export const SolveTools = ({ label, busy, onSolve, onStop, onLoosen }: Props) => (
  <>
    <Button size="small" variant="contained" onClick={onSolve}>
      {label}
    </Button>
    {busy && (
      <Button size="small" onClick={onStop}>
        Stop
      </Button>
    )}
    {onLoosen && (
      <Button size="small" onClick={onLoosen}>
        Loosen every pin
      </Button>
    )}
  </>
)
