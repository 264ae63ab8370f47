'use client'
import Button from '@mui/material/Button'
import { moveMeans } from '@/core/panel/move'
import { positionText, spaceName } from '@/core/panel/positions'
import type { Circuit, Panel } from '@/core/panel/schema'
import { useWorkspace } from '../workspace/store'
import styles from './MovingStrip.module.css'

interface Props {
  panel: Panel
  circuit: Circuit
  target: number | null
  onDrop: () => void
  onCancel: () => void
}

/** While a breaker is being moved: what it would change in the wiring at the place under the pointer or the focus. */
export function MovingStrip({ panel, circuit, target, onDrop, onCancel }: Props) {
  const live = useWorkspace(s => (s.job.source?.arrangement === 'one-leg' ? s.job.source.liveLeg : null))
  const away = target !== null && target !== circuit.position
  return (
    <section className={styles.strip} aria-label="Moving a breaker">
      <p>
        <b>
          Moving {positionText(panel, circuit)} {circuit.label || 'Unlabelled'}
        </b>{' '}
        {away
          ? `to ${spaceName(panel, target)}:`
          : 'Tap the place, or go there with the arrows and press Enter.'}
      </p>
      <ul aria-live="polite">
        {away && moveMeans(panel, circuit, target, live).map(line => <li key={line}>{line}</li>)}
      </ul>
      <div>
        {away && (
          <Button size="small" variant="contained" onClick={onDrop}>
            Put it at {spaceName(panel, target)}
          </Button>
        )}
        <Button size="small" onClick={onCancel}>
          Leave it where it is (Esc)
        </Button>
      </div>
    </section>
  )
}
