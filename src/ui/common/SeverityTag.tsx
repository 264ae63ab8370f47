import type { Severity } from '@/core/checks/finding'
import styles from './SeverityTag.module.css'

const words: Record<Severity, string> = { stop: 'Stop', fix: 'Fix', mind: 'Mind', ask: 'Ask' }

/** A severity as a word in its own frame: filled, double, single or dotted, so that colour is not needed. */
export function SeverityTag({ severity, count }: { severity: Severity; count?: number }) {
  return (
    <span className={`${styles.tag} ${styles[severity]}`}>
      {count !== undefined && count !== 1 ? `${count} ` : ''}
      {words[severity]}
    </span>
  )
}
