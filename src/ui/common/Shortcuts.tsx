'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { shortcutsAt, type Where } from './keys'
import styles from './Shortcuts.module.css'

const headings: Record<Where, string> = {
  job: 'Anywhere in a job',
  panel: 'On the panel',
  bench: 'On the bench',
}

/** The keys that do something here, by place. */
export function Shortcuts({ at, onClose }: { at: readonly Where[]; onClose: () => void }) {
  return (
    <Dialog
      open
      onClose={onClose}
      maxWidth={at.length > 1 ? 'md' : 'sm'}
      fullWidth
      aria-labelledby="shortcuts-title"
    >
      <DialogTitle id="shortcuts-title">Shortcuts</DialogTitle>
      <DialogContent className={styles.places}>
        {at.map(place => (
          <section key={place}>
            {at.length > 1 && <h3>{headings[place]}</h3>}
            <dl className={styles.keys}>
              {shortcutsAt(place).map(({ shown, what }) => (
                <div key={`${shown} ${what}`}>
                  <dt>
                    <kbd>{shown}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </DialogContent>
      <DialogActions>
        <Button autoFocus onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  )
}
