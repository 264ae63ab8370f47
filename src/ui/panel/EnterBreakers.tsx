import { Box, Button, Paper, TextField } from '@mui/material'
import { X } from 'lucide-react'
import { type FormEvent, useRef, useState } from 'react'
import { type Entered, enter, entryExamples, type Read, readEntry, type Waiting } from '@/core/job/entry'
import { plural, together } from '@/core/units/format'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Columns, Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

const largestFile = 1_000_000

/** Breakers as they are read aloud, a line each; a directory pasted or read from a file comes in as one change. */
export function EnterBreakers({ panelId, onClose }: { panelId: string; onClose: () => void }) {
  const store = useWorkspaceStore()
  const id = useWorkspace(s => s.id)
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const [refused, setRefused] = useState<Entered['refused']>([])
  const waiting = useRef<Waiting[]>([])
  const field = useRef<HTMLInputElement>(null)

  /** Enters what was read, as one change; what was refused comes back. */
  const put = (reads: readonly Read[]): Entered['refused'] => {
    const { job, act, select } = store.getState()
    const entered = enter(job, reads, () => crypto.randomUUID(), waiting.current, panelId)
    const { operations, done, refused: not, lastId } = entered
    const [only] = done
    const label = done.length === 1 && only ? only : plural(done.length, 'breaker')
    const faults = operations.length ? act({ op: 'enterBreakers', label, operations }) : []
    if (faults.length) return [{ text: '', why: together(faults.map(f => f.message)) }, ...not]
    waiting.current = entered.waiting
    if (lastId) select(lastId, false)
    const spaces = entered.waiting.map(w => String(w.with.name))
    setSaid(
      [
        ...(done.length > 1 ? [`${plural(done.length, 'breaker')} entered.`] : only ? [`${only}.`] : []),
        ...(spaces.length ? [`A pair waits for ${together(spaces)}.`] : []),
      ].join(' '),
    )
    return not
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!text.trim()) return
    const [not] = put([readEntry(text)])
    setProblem(not?.why ?? null)
    if (!not) setText('')
  }
  const takeAll = async (all: string) => {
    setProblem(null)
    // tables are seldom pasted: what reads them comes when it is needed
    const { readDirectory } = await import('@/core/formats/directory')
    setRefused(put(readDirectory(all)))
  }
  const takeFile = async (file: File) => {
    if (file.size > largestFile)
      return setProblem(`${file.name} is larger than ${largestFile / 1e6} MB: that is no panel directory`)
    await takeAll(await file.text())
  }
  return (
    <Paper
      component="section"
      variant="outlined"
      aria-label="Enter breakers"
      sx={{ mb: 1.5, p: 2, borderTop: 5, borderTopColor: 'water.live' }}
    >
      <Row component="form" onSubmit={submit} sx={{ alignItems: 'flex-start' }}>
        <TextField
          inputRef={field}
          sx={{ flex: '1 1 300px' }}
          autoFocus
          label="Enter breakers, a line each"
          placeholder="7 20 kitchen counter"
          value={text}
          error={problem !== null}
          helperText={
            problem ?? (said || 'Enter puts it in; paste a whole directory, or rows of a spreadsheet')
          }
          onChange={e => {
            setText(e.target.value)
            setProblem(null)
          }}
          onPaste={e => {
            const pasted = e.clipboardData.getData('text')
            if (!/[\r\n]/.test(pasted.trim())) return
            e.preventDefault()
            void takeAll(pasted)
          }}
          onKeyDown={e => {
            if (e.key !== 'Escape') return
            e.stopPropagation()
            if (text) setText('')
            else onClose()
          }}
          slotProps={{
            inputLabel: { shrink: true },
            htmlInput: { autoComplete: 'off', autoCapitalize: 'off', maxLength: 200 },
            formHelperText: { role: 'status' },
          }}
        />
        <FileButton
          what="Panel directory"
          accept=".csv,.txt,text/csv,text/plain"
          variant="outlined"
          onFiles={([file]) => takeFile(file)}
        >
          From a file
        </FileButton>
        <Button variant="outlined" href={`/api/jobs/${id}/directory?panel=${encodeURIComponent(panelId)}`}>
          Save as CSV
        </Button>
        <Tool label="Close the entry" onClick={onClose} icon={X} />
      </Row>
      <Columns component="dl" least={220} sx={{ gap: '2px 16px', mt: 1 }}>
        {entryExamples.map(([line, means]) => (
          <div key={line}>
            <dt>
              <b>{line}</b>
            </dt>
            <Quiet component="dd">{means}</Quiet>
          </div>
        ))}
      </Columns>
      {refused.length > 0 && (
        <Problem>
          <b>{plural(refused.length, 'line')} not entered. Mend one at a time:</b>
          <Box component="ul" sx={{ maxHeight: 200, overflowY: 'auto' }}>
            {refused.map((r, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two lines may be the same, and the list is only shortened
              <li key={n}>
                {r.text && <code>{r.text}</code>} {r.why}
                {r.text && (
                  <Button
                    size="small"
                    onClick={() => {
                      setText(r.text)
                      setProblem(r.why)
                      setRefused(refused.filter((_, at) => at !== n))
                      field.current?.focus()
                    }}
                  >
                    Mend
                  </Button>
                )}
              </li>
            ))}
          </Box>
        </Problem>
      )}
    </Paper>
  )
}
