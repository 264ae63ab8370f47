'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import styles from './Shortcuts.module.css'

/** The keys that do something here. */
export function Shortcuts({
  keys,
  onClose,
}: {
  keys: readonly [key: string, what: string][]
  onClose: () => void
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="shortcuts-title">
      <DialogTitle id="shortcuts-title">Shortcuts</DialogTitle>
      <DialogContent>
        <dl className={styles.keys}>
          {keys.map(([key, what]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </DialogContent>
      <DialogActions>
        <Button autoFocus onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  )
}
