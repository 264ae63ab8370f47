'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { useWorkspace } from '../workspace/store'
import styles from './Loads.module.css'

/** Circuit by circuit, or the whole house by its utility. */
export function LoadsTabs() {
  const id = useWorkspace(s => s.id)
  const path = usePathname()
  const tabs = [
    [`/jobs/${id}/loads`, 'By circuit'],
    [`/jobs/${id}/loads/utility`, 'Utility data'],
  ] as const
  return (
    <nav className={styles.tabs} aria-label="Loads">
      {tabs.map(([href, label]) => (
        <Link key={href} href={href} prefetch={false} aria-current={path === href ? 'page' : undefined}>
          {label}
        </Link>
      ))}
      <Link href="/loads" prefetch={false}>
        Library
      </Link>
    </nav>
  )
}
