'use client'
import type { Delivered } from '@/core/source/delivers'
import { useWorkspace } from '../workspace/store'
import styles from './SourceView.module.css'

/** What the source delivers: energy, power, and what its settings do to each other. Every figure opens its working. */
export function DeliversCard() {
  const delivers = useWorkspace(s => s.evaluation.delivers)
  if (!delivers) return null
  return (
    <section className={styles.group} aria-label="What it delivers">
      <h2>What it delivers</h2>
      <Rows title="Energy" rows={delivers.energy} />
      <Rows title="Power" rows={delivers.power} />
      {delivers.mind.length > 0 && (
        <ul className={styles.mind} aria-label="What to mind">
          {delivers.mind.map(m => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
    </section>
  )
}

/** Lines of what is delivered or taken; a figure with a working is a button. */
export function Rows({ title, rows }: { title: string; rows: readonly Delivered[] }) {
  const showWorking = useWorkspace(s => s.showWorking)
  if (!rows.length) return null
  return (
    <table className={styles.rows}>
      <caption>{title}</caption>
      <tbody>
        {rows.map(({ label, value, note, working }) => (
          <tr key={label + value}>
            <th scope="row">
              {label}
              {note && <small>{note}</small>}
            </th>
            <td>
              {working ? (
                <button type="button" className={styles.figure} onClick={() => showWorking(working)}>
                  {value}
                </button>
              ) : (
                value
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
