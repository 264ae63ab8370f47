'use client'
import Button from '@mui/material/Button'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { fieldsOf } from '@/core/field'
import { type Run, runSchema } from '@/core/hookup/design'
import { plural, quantity } from '@/core/units/format'
import { conductorName } from '@/core/units/tables/conductors'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'

const FactsDialog = dynamic(() => import('../common/FactsDialog').then(m => m.FactsDialog))

const usual: Omit<Run, 'id' | 'name'> = {
  breakerA: 30,
  material: 'cu',
  size: '10',
  insulationC: 75,
  conductors: 3,
  currentCarrying: 3,
  deratingKnown: false,
  groundSize: '10',
  lengthFt: 10,
}

/** Conductors, conduit and boxes as far as they are known; each run is checked. */
export function RunsCard() {
  const runs = useWorkspace(s => s.job.hookup.runs)
  const act = useWorkspace(s => s.act)
  const [open, setOpen] = useState<Partial<Run> | null>(null)
  const next = `r${(runs ?? []).reduce((most, r) => Math.max(most, Number(r.id.slice(1)) || 0), 0) + 1}`
  return (
    <section className={styles.card} aria-label="Runs">
      <div className={styles.titled}>
        <h2>Runs: conductors, conduit, boxes</h2>
        <Button
          size="small"
          startIcon={<Plus size={16} aria-hidden />}
          onClick={() => setOpen({ id: next, ...usual })}
        >
          Run
        </Button>
      </div>
      {runs?.length ? (
        <div className={styles.scroll}>
          <table className={styles.runs}>
            <thead>
              <tr>
                <th scope="col">Run</th>
                <th scope="col">Breaker</th>
                <th scope="col">Conductors</th>
                <th scope="col">Ground</th>
                <th scope="col">Conduit</th>
                <th scope="col">Length</th>
                <th scope="col">
                  <span className={styles.srOnly}>Change</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {runs.map(run => (
                <tr key={run.id} id={`run-${run.id}`}>
                  <th scope="row">{run.name}</th>
                  <td>{run.breakerA} A</td>
                  <td>
                    {run.conductors} × {conductorName(run.size, run.material)}, {run.currentCarrying} carrying
                  </td>
                  <td>{run.groundSize ? `${run.groundSize} AWG` : 'not said'}</td>
                  <td>{run.conduit ? `${run.tradeSize} ${run.conduit}` : 'none'}</td>
                  <td>{quantity(run.lengthFt, 'ft')}</td>
                  <td className={styles.runTools}>
                    <Button size="small" onClick={() => setOpen(run)}>
                      Change
                    </Button>
                    <Button size="small" onClick={() => act({ op: 'removeRun', runId: run.id })}>
                      Take out
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <p className={styles.quiet}>
          No run is entered yet. {plural(0, 'run')} checked: ampacity, derating, conduit, boxes and grounds
          wait for them.
        </p>
      )}
      {open && (
        <FactsDialog
          title={open.name ?? 'New run'}
          schema={runSchema}
          fields={fieldsOf(runSchema).filter(f => f.key !== 'id')}
          draft={{ ...open }}
          save="Keep"
          onSave={value => act({ op: 'putRun', run: runSchema.parse(value) })}
          onClose={() => setOpen(null)}
        />
      )}
    </section>
  )
}
