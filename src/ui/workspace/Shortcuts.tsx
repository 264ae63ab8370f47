'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import styles from './Shortcuts.module.css'
import { views } from './views'

const keys: [string, string][] = [
  ['Arrows, Home, End', 'move over the panel'],
  ['Space', 'pick or drop the breaker'],
  ['Enter', 'open the circuit, or add a breaker to a free space'],
  ['Esc', 'close what is open'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['Ctrl K', 'commands'],
  ...views.map((v, i): [string, string] => [String(i + 1), v.label]),
  ['?', 'this sheet'],
]

export function Shortcuts({ onClose }: { onClose: () => void }) {
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
