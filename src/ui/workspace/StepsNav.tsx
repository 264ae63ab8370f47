import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { useEffect, useRef } from 'react'
import { severities } from '@/core/checks/finding'
import { SeverityTag } from '../common/SeverityTag'
import styles from './StepsNav.module.css'
import { useWorkspace } from './store'
import { findingsOf, groups } from './views'

/**
 * The steps of the work as stations along a stream, by the part of the work they belong to; each says what is still wrong or
 * unknown there. Where the stream runs across a narrow screen, the step at hand is brought into sight.
 */
export function StepsNav() {
  const id = useWorkspace(s => s.id)
  const findings = useWorkspace(s => s.evaluation.findings)
  const now = usePathname().split('/')[3]
  const nav = useRef<HTMLElement>(null)
  useEffect(() => {
    const here = now && nav.current?.querySelector('[aria-current=page]')
    // down a wide screen the stream stands as it is: the page does not move for it
    const across = nav.current && nav.current.scrollWidth > nav.current.clientWidth
    if (here && across) here.scrollIntoView({ inline: 'center', block: 'nearest' })
  }, [now])
  return (
    <nav aria-label="Steps of the job" className={`${styles.nav} no-print`} ref={nav}>
      <ol>
        {groups.map(({ name, views }) => (
          <li key={name} className={styles.group}>
            <span className={styles.part} id={`part-${name}`}>
              {name}
            </span>
            <ol aria-labelledby={`part-${name}`}>
              {views.map(({ key, label, help }) => {
                const here = now === key
                const mine = key === 'findings' ? [] : findingsOf(key, findings)
                const worst = severities.find(s => mine.some(f => f.severity === s))
                return (
                  <li key={key} className={styles.step} data-here={here}>
                    <Link
                      href={`/jobs/${id}/${key}`}
                      prefetch={false}
                      aria-current={here ? 'page' : undefined}
                      title={help}
                    >
                      <span className={styles.label}>{label}</span>
                      <span className={styles.state}>
                        {worst && (
                          <SeverityTag
                            severity={worst}
                            count={mine.filter(f => f.severity === worst).length}
                          />
                        )}
                        {key === 'findings' && <b>{findings.length}</b>}
                      </span>
                    </Link>
                  </li>
                )
              })}
            </ol>
          </li>
        ))}
      </ol>
    </nav>
  )
}
