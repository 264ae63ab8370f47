'use client'
import { plural } from '@/core/units/format'
import { useWorkspace } from './store'
import styles from './Workspace.module.css'

/** Whether what stands on the screen is also in the database. */
export function SaveState() {
  const saving = useWorkspace(s => s.saving)
  const pending = useWorkspace(s => s.pending.length)
  const revision = useWorkspace(s => s.revision)
  const text =
    saving === 'waiting'
      ? `Not saved: ${plural(pending, 'change')} kept here, trying again`
      : pending
        ? 'Saving'
        : 'Saved'
  return (
    <output
      className={styles.save}
      data-state={saving === 'waiting' ? 'waiting' : pending ? 'saving' : 'saved'}
    >
      {text}
      {text === 'Saved' && <span className={styles.wide}>, revision {revision}</span>}
    </output>
  )
}
