'use client'
import { type Severity, severities } from '@/core/checks/finding'
import { deference } from '@/core/work/deference'
import { FindingCard } from '../common/FindingCard'
import { useWorkspace } from '../workspace/store'
import styles from './FindingsView.module.css'

const meaning: Record<Severity, string> = {
  stop: 'someone can be hurt, equipment destroyed, or it will not work',
  fix: 'against the Code or an instruction',
  mind: 'will annoy or surprise',
  ask: 'a fact is missing',
}

/** Every finding, gravest first. Nothing is hidden. */
export function FindingsView() {
  const findings = useWorkspace(s => s.evaluation.findings)
  return (
    <div className={styles.view}>
      <h1>Findings</h1>
      {!findings.length && (
        <p>The checks find nothing on this job as it stands. That is not a judgement of the installation.</p>
      )}
      {severities.map(severity => {
        const mine = findings.filter(f => f.severity === severity)
        if (!mine.length) return null
        return (
          <section key={severity} className={styles.list} aria-label={severity}>
            <h2>
              {severity} <span>{meaning[severity]}</span>
            </h2>
            {mine.map(f => (
              <FindingCard key={f.id + f.sentence} finding={f} />
            ))}
          </section>
        )
      })}
      <p className={styles.aside}>{deference}</p>
    </div>
  )
}
