'use client'
import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useRouter } from 'next/navigation'
import { type FormEvent, useState } from 'react'
import type { Fault } from '@/core/outcome'
import { entryExamples } from '@/core/panel/entry'
import { call } from '../api'
import styles from './NewJobDialog.module.css'

const panelSizes = [4, 6, 8, 12, 16, 20, 24, 30, 32, 40, 42, 54, 60, 66, 72, 84]
const mains = [60, 100, 125, 150, 200, 225, 400]

/** Opens a job with its name, place and panel. The server judges; what was typed stays. */
export function NewJobDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter()
  const [facts, setFacts] = useState({ title: '', place: '', spaces: 30, mainA: 200, directory: '' })
  const [faults, setFaults] = useState<Fault[]>([])
  const [message, setMessage] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)

  const submit = async (event: FormEvent) => {
    event.preventDefault()
    setBusy(true)
    const answer = await call<{ id: string }>('/api/jobs', 'POST', facts)
    setBusy(false)
    if (answer.ok) return router.push(`/jobs/${answer.data.id}/${facts.directory.trim() ? 'panel' : 'ask'}`)
    setFaults(answer.faults)
    setMessage(answer.faults.length ? null : `${answer.message} What you typed stays here; try again.`)
  }
  const problem = (path: keyof typeof facts) => faults.find(f => f.path === path)?.message
  const field = (path: 'title' | 'place', label: string, help: string) => (
    <TextField
      label={label}
      value={facts[path]}
      error={problem(path) !== undefined}
      helperText={problem(path) ? `${label} ${problem(path)}` : help}
      onChange={e => setFacts({ ...facts, [path]: e.target.value })}
      autoFocus={path === 'title'}
    />
  )
  const choice = (path: 'spaces' | 'mainA', label: string, values: number[], unit: string) => (
    <TextField
      select
      label={label}
      value={facts[path]}
      error={problem(path) !== undefined}
      helperText={problem(path)}
      onChange={e => setFacts({ ...facts, [path]: Number(e.target.value) })}
    >
      {values.map(v => (
        <MenuItem key={v} value={v}>
          {v} {unit}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="new-job-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="new-job-title">New job</DialogTitle>
        <DialogContent className={styles.fields}>
          {message && <Alert severity="error">{message}</Alert>}
          {field('title', 'Name', 'Call the customer by the place')}
          {field('place', 'Place', 'What kind of house, where')}
          {choice('spaces', 'Panel', panelSizes, 'spaces')}
          {choice('mainA', 'Main', mains, 'A')}
          <TextField
            label="Breakers, if you have their directory"
            multiline
            minRows={3}
            maxRows={8}
            value={facts.directory}
            error={problem('directory') !== undefined}
            helperText={
              problem('directory')
                ? faults.map(f => (f.path === 'directory' ? <span key={f.message}>{f.message}</span> : null))
                : 'A line each, or a table pasted with its headings: more can follow on the panel'
            }
            placeholder={entryExamples
              .slice(0, 2)
              .map(([line]) => line)
              .join('\n')}
            slotProps={{ inputLabel: { shrink: true }, formHelperText: { className: styles.lines } }}
            onChange={e => setFacts({ ...facts, directory: e.target.value })}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" loading={busy}>
            Open the job
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
