'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import { type Fault, parseWith } from '@/core/outcome'
import { legOf, occupancy, spaceName } from '@/core/panel/positions'
import { breakerRatings, type Circuit, circuitSchema } from '@/core/panel/schema'
import { Choice } from '../common/Choice'
import { shownPanel, useWorkspace } from '../workspace/store'
import styles from './LoadDialog.module.css'

interface Props {
  space: number
  half: 'a' | 'b' | undefined
  onClose: () => void
}

const kinds = {
  one: { poles: 1, label: 'one-pole, 120 V' },
  two: { poles: 2, label: 'two-pole, 240 V' },
  upper: { poles: 1, half: 'a', label: 'tandem, upper half' },
  lower: { poles: 1, half: 'b', label: 'tandem, lower half' },
  outer: { poles: 2, half: 'a', label: 'quad, outer pair' },
  inner: { poles: 2, half: 'b', label: 'quad, inner pair' },
} as const satisfies Record<string, { poles: 1 | 2; half?: 'a' | 'b'; label: string }>
type Kind = keyof typeof kinds

/** Puts a breaker into a free place; a blank label is allowed, as directories are. */
export function AddBreakerDialog({ space, half, onClose }: Props) {
  const panel = useWorkspace(shownPanel)
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const [label, setLabel] = useState('')
  const [breakerA, setBreakerA] = useState(20)
  const [kind, setKind] = useState<Kind>(half === 'a' ? 'upper' : half === 'b' ? 'lower' : 'one')
  const [faults, setFaults] = useState<Fault[]>([])
  const below = space + 2
  const roomBelow = below <= panel.spaces && !occupancy(panel.circuits).has(below)
  const name = spaceName(panel, space)
  const unusable = panel.unusable.includes(space)

  const submit = (event: FormEvent) => {
    event.preventDefault()
    const { poles, ...halved } = kinds[kind]
    const circuit: Circuit = {
      id: crypto.randomUUID(),
      position: space,
      poles,
      ...('half' in halved && { half: halved.half }),
      breakerA,
      label,
      purpose: 'loads',
      neutral: { kind: 'unknown' },
      protection: 'none',
      tier: 3,
      picked: false,
      loads: [],
    }
    const parsed = parseWith(circuitSchema, circuit)
    if (!parsed.ok) return setFaults(parsed.faults)
    const refused = act({ op: 'addCircuit', panelId: panel.id, circuit: parsed.value })
    if (refused.length) return setFaults(refused)
    select(circuit.id, false)
    onClose()
  }
  const setUsable = (usable: boolean) => {
    const now = panel.unusable.filter(s => s !== space)
    const refused = act({
      op: 'setPanel',
      panelId: panel.id,
      facts: { unusable: usable ? now : [...now, space].sort((a, b) => a - b) },
    })
    if (refused.length) return setFaults(refused)
    onClose()
  }
  const labelFault = faults.find(f => f.path === 'label')
  const options = (Object.keys(kinds) as Kind[])
    .filter(k => half === undefined || ('half' in kinds[k] && kinds[k].half === half))
    .map(value => {
      const two = kinds[value].poles === 2 && half === undefined
      return {
        value,
        label: two && !roomBelow ? `${kinds[value].label} (no room below)` : kinds[value].label,
        disabled: two && !roomBelow,
      }
    })
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="add-breaker">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="add-breaker">
          {unusable
            ? `Space ${name}`
            : `Breaker at ${name}${half?.toUpperCase() ?? ''}, ${legOf(panel, space)}`}
        </DialogTitle>
        <DialogContent className={styles.fields}>
          {unusable ? (
            <p>This space is marked as one that cannot be used.</p>
          ) : (
            <>
              <TextField
                label="Label"
                value={label}
                autoFocus
                error={labelFault !== undefined}
                helperText={
                  labelFault
                    ? `Label ${labelFault.message}`
                    : 'As the directory has it; blank if it says nothing'
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
                <Choice label="Kind" value={kind} options={options} onChange={setKind} />
              </div>
            </>
          )}
          {faults
            .filter(f => f !== labelFault)
            .map(f => (
              <p key={f.path + f.message} role="alert">
                Not added: it {f.message}
              </p>
            ))}
        </DialogContent>
        <DialogActions>
          {half === undefined && (
            <Button onClick={() => setUsable(unusable)} sx={{ marginRight: 'auto' }}>
              {unusable ? 'It can be used' : 'Cannot be used'}
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          {!unusable && (
            <Button type="submit" variant="contained">
              Add
            </Button>
          )}
        </DialogActions>
      </form>
    </Dialog>
  )
}
