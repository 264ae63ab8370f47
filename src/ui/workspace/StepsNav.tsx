'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { severities } from '@/core/checks/finding'
import { SeverityTag } from '../common/SeverityTag'
import styles from './StepsNav.module.css'
import { useWorkspace } from './store'
import { findingsOf, views } from './views'

/** The steps of the work as stations along a stream; each says what is still wrong or unknown there. */
export function StepsNav() {
  const id = useWorkspace(s => s.id)
  const findings = useWorkspace(s => s.evaluation.findings)
  const path = usePathname()
  return (
    <nav aria-label="Steps of the job" className={`${styles.nav} no-print`}>
      <ol>
        {views.map(({ key, label, help }) => {
          const here = path.split('/')[3] === key
          const mine = key === 'findings' ? [] : findingsOf(key, findings)
          const worst = severities.find(s => mine.some(f => f.severity === s))
          return (
            <li key={key} data-here={here}>
              <Link
                href={`/jobs/${id}/${key}`}
                prefetch={false}
                aria-current={here ? 'page' : undefined}
                title={help}
              >
                <span className={styles.label}>{label}</span>
                <span className={styles.state}>
                  {worst && (
                    <SeverityTag severity={worst} count={mine.filter(f => f.severity === worst).length} />
                  )}
                  {key === 'findings' && <b>{findings.length}</b>}
                </span>
              </Link>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
