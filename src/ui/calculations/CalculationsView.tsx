'use client'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useWorkspace } from '../workspace/store'
import styles from './CalculationsView.module.css'

/** The bench is large, and most visits to a job do not come here: it is fetched with the first calculation shown. */
const CalculationCard = dynamic(() => import('./CalculationCard').then(m => m.CalculationCard), {
  loading: () => <p>Working it out…</p>,
})

/** The calculations kept with the job, each worked out anew. */
export function CalculationsView() {
  const id = useWorkspace(s => s.id)
  const calculations = useWorkspace(s => s.job.calculations)
  return (
    <div className={styles.view}>
      <div className={styles.head}>
        <h1>Calculations</h1>
        <Link href={`/bench?job=${id}`}>Ask the bench</Link>
      </div>
      {calculations.length ? (
        <ul className={styles.list}>
          {calculations.map(c => (
            <li key={c.id}>
              <CalculationCard calculation={c} />
            </li>
          ))}
        </ul>
      ) : (
        <p>
          Nothing is kept here yet. Ask the bench about a run, a conduit or a reading, and use the answer in
          this job: its inputs, answer and working then stand here and on the sheet.
        </p>
      )}
    </div>
  )
}
