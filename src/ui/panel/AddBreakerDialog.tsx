'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import { breakerRatings, type Circuit, circuitSchema } from '@/core/job/schema'
import { type Fault, parseWith } from '@/core/outcome'
import { legOf, occupancy } from '@/core/panel/positions'
import { Choice } from '../common/Choice'
import { useWorkspace } from '../workspace/store'
import styles from './LoadDialog.module.css'

/** Puts a breaker into a free space; a blank label is allowed, as directories are. */
export function AddBreakerDialog({ space, onClose }: { space: number; onClose: () => void }) {
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const circuits = useWorkspace(s => s.job.panel.circuits)
  const spaces = useWorkspace(s => s.job.panel.spaces)
  const [label, setLabel] = useState('')
  const [breakerA, setBreakerA] = useState(20)
  const [poles, setPoles] = useState<1 | 2>(1)
  const [faults, setFaults] = useState<Fault[]>([])
  const roomBelow = space + 2 <= spaces && !occupancy(circuits).has(space + 2)

  const submit = (event: FormEvent) => {
    event.preventDefault()
    const circuit: Circuit = {
      id: crypto.randomUUID(),
      position: space,
      poles,
      breakerA,
      label,
      neutral: { kind: 'unknown' },
      protection: 'none',
      tier: 3,
      picked: false,
      loads: [],
    }
    const parsed = parseWith(circuitSchema, circuit)
    if (!parsed.ok) return setFaults(parsed.faults)
    const refused = act({ op: 'addCircuit', circuit: parsed.value })
    if (refused.length) return setFaults(refused)
    select(circuit.id, false)
    onClose()
  }
  const labelFault = faults.find(f => f.path === 'label')
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="add-breaker">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="add-breaker">
          Breaker at {space}, {legOf(space)}
        </DialogTitle>
        <DialogContent className={styles.fields}>
          <TextField
            label="Label"
            value={label}
            autoFocus
            error={labelFault !== undefined}
            helperText={
              labelFault ? `Label ${labelFault.message}` : 'As the directory has it; blank if it says nothing'
            }
            onChange={e => setLabel(e.target.value)}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
          />
          <div className={styles.pair}>
            <Choice
              label="Breaker"
              value={breakerA}
              options={breakerRatings.map(value => ({ value, label: `${value} A` }))}
              onChange={setBreakerA}
            />
            <Choice
              label="Poles"
              value={poles}
              options={[
                { value: 1, label: 'one, 120 V' },
                {
                  value: 2,
                  label: roomBelow ? 'two, 240 V' : `two (${space + 2} is not free)`,
                  disabled: !roomBelow,
                },
              ]}
              onChange={value => setPoles(value === 2 ? 2 : 1)}
            />
          </div>
          {faults
            .filter(f => f !== labelFault)
            .map(f => (
              <p key={f.path} role="alert">
                {f.path} {f.message}
              </p>
            ))}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Add
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
