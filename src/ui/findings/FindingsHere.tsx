'use client'
import { FindingCard } from '../common/FindingCard'
import { useWorkspace } from '../workspace/store'
import { findingsOf, type ViewKey } from '../workspace/views'
import styles from './FindingsView.module.css'

/** The findings that are mended on this screen. */
export function FindingsHere({ view }: { view: ViewKey }) {
  const findings = useWorkspace(s => s.evaluation.findings)
  const mine = findingsOf(view, findings)
  if (!mine.length) return null
  return (
    <section className={styles.list} aria-label="Findings here">
      {mine.map(f => (
        <FindingCard key={f.id + f.sentence} finding={f} here />
      ))}
    </section>
  )
}
