import styles from './Labels.module.css'

/** A leg told by its letter and by a pattern: plain for L1, hatched for L2, halves for both. */
export function LegMark({ leg }: { leg: 'L1' | 'L2' | 'both' }) {
  return (
    <span className={styles.leg} data-leg={leg}>
      {leg === 'both' ? '240' : leg}
    </span>
  )
}
