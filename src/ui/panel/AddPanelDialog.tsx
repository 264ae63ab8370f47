'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import type { Fault } from '@/core/outcome'
import { positionText } from '@/core/panel/positions'
import { bare, mainsOffered } from '@/core/panel/schema'
import { Choice } from '../common/Choice'
import { useWorkspace } from '../workspace/store'
import styles from './LoadDialog.module.css'

/** Adds a panel, usually one that is fed from a two-pole of another. */
export function AddPanelDialog({ onClose }: { onClose: () => void }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const showPanel = useWorkspace(s => s.showPanel)
  const free = 'BCDEFGHIJ'.split('').find(m => !job.panels.some(p => p.mark === m)) ?? ''
  const [name, setName] = useState('Sub-panel')
  const [mark, setMark] = useState(free)
  const [spaces, setSpaces] = useState(12)
  const [mainA, setMainA] = useState(0)
  const taken = new Set(job.panels.map(p => p.feederId))
  const feeders = job.panels.flatMap(p =>
    p.circuits
      .filter(c => c.poles === 2 && !taken.has(c.id))
      .map(c => ({ value: c.id, label: `${p.name}: ${positionText(p, c)} ${c.label || 'unlabelled'}` })),
  )
  const [feederId, setFeederId] = useState('')
  const [faults, setFaults] = useState<Fault[]>([])
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const id = crypto.randomUUID()
    const panel = {
      ...bare(id, name.trim(), spaces, mainA || undefined),
      mark: mark.trim(),
      supply: 'fed from another panel' as const,
      ...(feederId && { feederId }),
    }
    const refused = act({ op: 'addPanel', panel })
    if (refused.length) return setFaults(refused)
    showPanel(id)
    onClose()
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="add-panel">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="add-panel">Another panel of this job</DialogTitle>
        <DialogContent className={styles.fields}>
          <div className={styles.pair}>
            <TextField label="Name" value={name} autoFocus onChange={e => setName(e.target.value)} />
            <TextField
              label="Mark"
              value={mark}
              helperText="before its positions"
              onChange={e => setMark(e.target.value)}
            />
          </div>
          <div className={styles.pair}>
            <Choice
              label="Spaces"
              value={spaces}
              options={[4, 6, 8, 10, 12, 16, 20, 24, 30, 32, 40, 42].map(value => ({
                value,
                label: `${value}`,
              }))}
              onChange={setSpaces}
            />
            <Choice
              label="Main"
              value={mainA}
              options={[
                { value: 0, label: 'main lugs only' },
                ...mainsOffered.map(value => ({ value, label: `${value} A` })),
              ]}
              onChange={setMainA}
            />
          </div>
          <Choice
            label="Fed by"
            value={feederId}
            options={[{ value: '', label: 'a breaker that is not in this job' }, ...feeders]}
            onChange={setFeederId}
          />
          {faults.map(f => (
            <p key={f.path + f.message} role="alert">
              Not added: {f.path.split('.').at(-1)} {f.message}
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
