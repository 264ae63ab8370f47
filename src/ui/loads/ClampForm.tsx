'use client'
import Button from '@mui/material/Button'
import { type FormEvent, useState } from 'react'
import { changeTold, type LoadRow } from '@/core/job/loads-overview'
import { startSchema } from '@/core/loads/load'
import { start } from '@/core/loads/start'
import { type Fault, parseWith } from '@/core/outcome'
import { today } from '../common/today'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { FormField, numberTyped, OtherFaults } from './fields'
import styles from './Loads.module.css'

/** A clamp meter with inrush hold: the highest current of a start from rest. */
export function ClampForm({ row, onTold }: { row: LoadRow; onTold: (told: string) => void }) {
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const showWorking = useWorkspace(s => s.showWorking)
  const { load, circuitId, volts } = row
  const [amps, setAmps] = useState('')
  const [on, setOn] = useState(() => today())
  const [faults, setFaults] = useState<Fault[]>([])
  const typed = numberTyped(amps)
  const parsed = parseWith(startSchema, {
    method: 'inrush',
    inrushA: {
      ...(typed !== undefined && { value: typed }),
      from: 'metered',
      on,
      document: 'clamp meter, inrush hold',
    },
  })
  const said =
    parsed.ok && typeof typed === 'number' ? start.compute({ method: 'inrush', inrushA: typed, volts }) : null
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!parsed.ok) return setFaults(parsed.faults)
    const before = store.getState().job
    const refused = act({ op: 'takeStart', circuitId, loadId: load.id, start: parsed.value })
    setFaults(refused)
    if (!refused.length) onTold(changeTold(before, store.getState().job, load.id))
  }
  return (
    <form className={styles.form} onSubmit={submit} noValidate>
      <p className={styles.quiet}>
        Around the hot alone, inrush hold on, from rest: after minutes of standing still for a compressor.
        Several starts; enter the highest.
      </p>
      <div className={styles.fields}>
        <FormField
          label="Highest inrush"
          unit="A"
          value={amps}
          faults={faults}
          path="inrushA.value"
          onChange={setAmps}
          autoFocus
        />
        <FormField label="Date" type="date" value={on} faults={faults} path="inrushA.on" onChange={setOn} />
      </div>
      <OtherFaults faults={faults} shown={['inrushA.value', 'inrushA.on']} />
      {said && (
        <p className={styles.told}>
          {said.answer}{' '}
          <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(said.working)}>
            Show the working
          </Button>
        </p>
      )}
      <div className={styles.tools}>
        <Button type="submit" variant="contained">
          Take the inrush
        </Button>
      </div>
    </form>
  )
}
