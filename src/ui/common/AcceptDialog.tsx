'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import type { Finding } from '@/core/checks/finding'
import { acceptanceSchema } from '@/core/job/schema'
import { parseWith } from '@/core/outcome'
import { useWorkspace } from '../workspace/store'
import { today } from './today'

/** A finding accepted by a named person for a reason: it stays listed, and prints. */
export function AcceptDialog({ finding, onClose }: { finding: Finding; onClose: () => void }) {
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  const [by, setBy] = useState(person)
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const read = parseWith(acceptanceSchema, {
      key: finding.key,
      by,
      reason,
      on: today(),
    })
    if (!read.ok) return setWrong(Object.fromEntries(read.faults.map(f => [f.path, f.message])))
    const [fault] = act({ op: 'acceptFinding', acceptance: read.value })
    if (fault) return setWrong({ reason: fault.message })
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <form onSubmit={submit} noValidate>
        <DialogTitle>Accept this finding</DialogTitle>
        <DialogContent style={{ display: 'grid', gap: 12, paddingTop: 8 }}>
          <p style={{ margin: 0 }}>{finding.sentence}</p>
          <TextField
            label="Accepted by"
            value={by}
            onChange={e => setBy(e.target.value)}
            error={Boolean(wrong.by)}
            helperText={wrong.by && `Accepted by ${wrong.by}`}
          />
          <TextField
            label="Reason"
            value={reason}
            autoFocus
            multiline
            minRows={2}
            onChange={e => setReason(e.target.value.replace(/\n/g, ' '))}
            error={Boolean(wrong.reason)}
            helperText={
              wrong.reason ? `Reason ${wrong.reason}` : 'It stays listed and prints in the hand-over.'
            }
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Accept
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
