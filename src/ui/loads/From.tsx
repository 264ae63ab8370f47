import type { Origin } from '@/core/working'
import styles from './Loads.module.css'

/** How good a source is, for the eye; the word says which. */
const full: Record<Origin, number> = {
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
    <span className={styles.from}>
      <span
        className={styles.tide}
        style={{ '--full': `${full[from]}%` } as React.CSSProperties}
        aria-hidden
      />
      {from === 'job' ? 'set on this job' : from}
    </span>
  )
}
