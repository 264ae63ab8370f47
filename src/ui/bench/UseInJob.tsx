import { Alert, Autocomplete, Button, TextField } from '@mui/material'
import { type FormEvent, useEffect, useState } from 'react'
import type { JobListRow, JobRecord } from '@/core/assess/record'
import { usesIn } from '@/core/job/uses'
import { call, faultLine } from '../api'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Quiet } from '../common/pieces'
import { today } from '../common/today'
import { Choice } from '../form/Choice'
import type { Draft } from '../form/draft'
import type { Origin } from './origin'

interface Props {
  calculator: { name: string }
  input: Draft
  answer: string
  from: Origin | null
  onClose: (said: string | null) => void
}

const pauseMs = 200

/** Puts the calculation into a job: kept as it is, or set on a load it says something of. Undoable there. */
export function UseInJob({ calculator, input, answer, from, onClose }: Props) {
  const [asked, setAsked] = useState('')
  const [found, setFound] = useState<JobListRow[]>([])
  const [record, setRecord] = useState<JobRecord | null>(null)
  const [note, setNote] = useState(from?.note ?? '')
  const [chosen, setChosen] = useState(0)
  const [problem, setProblem] = useState<string | null>(null)
  const [newId] = useState(() => crypto.randomUUID().slice(0, 8))

  const read = async (id: string) => {
    const answered = await call<{ record: JobRecord }>(`/api/jobs/${id}`, 'GET')
    if (answered.ok) setRecord(answered.data.record)
    setProblem(answered.ok ? null : answered.message)
    return answered.ok
  }
  const jobId = from?.jobId
  // biome-ignore lint/correctness/useExhaustiveDependencies: read once, when the dialog opens
  useEffect(() => {
    if (jobId) void read(jobId)
  }, [jobId])
  useEffect(() => {
    const timer = setTimeout(async () => {
      const answered = await call<{ rows: JobListRow[] }>(`/api/jobs?q=${encodeURIComponent(asked)}`, 'GET')
      if (answered.ok) setFound(answered.data.rows)
      else setProblem(answered.message)
    }, pauseMs)
    return () => clearTimeout(timer)
  }, [asked])

  const kept = record?.id === jobId ? from?.calculationId : null
  const calculation = { id: kept ?? newId, calculator: calculator.name, note, input }
  const uses = record ? usesIn(record.job, calculation, today()) : []
  const use = uses[chosen]
  const put = async (event: FormEvent) => {
    event.preventDefault()
    if (!record || !use) return setProblem('Choose a job first.')
    const answered = await call(`/api/jobs/${record.id}/changes`, 'POST', {
      baseRevision: record.revision,
      changes: [{ id: crypto.randomUUID(), kind: 'do', operation: use.operation }],
    })
    if (answered.ok)
      return onClose(
        use.operation.op === 'putLoad'
          ? `Set on ${use.label}, in ${record.job.title}.`
          : `Kept with ${record.job.title}.`,
      )
    if (answered.status === 409 && (await read(record.id)))
      return setProblem(
        `Someone changed ${record.job.title} meanwhile; it was read again. Nothing is written yet.`,
      )
    setProblem([answered.message, ...answered.faults.map(faultLine)].join(' '))
  }
  const options =
    record && !found.some(j => j.id === record.id)
      ? [{ id: record.id, title: record.job.title, place: record.job.place }, ...found]
      : found
  return (
    <Popup
      title="Use in a job"
      onClose={() => onClose(null)}
      form={inside => <form onSubmit={put}>{inside}</form>}
      send={
        <Button type="submit" variant="contained">
          {use?.operation.op === 'putLoad' ? 'Set on the load' : 'Keep with the job'}
        </Button>
      }
    >
      <Alert>{answer}</Alert>
      <Autocomplete
        options={options}
        value={options.find(j => j.id === record?.id) ?? null}
        getOptionLabel={j => j.title}
        getOptionKey={j => j.id}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        filterOptions={all => all}
        noOptionsText="No job is called that"
        onInputChange={(_, text, why) => why === 'input' && setAsked(text)}
        onChange={(_, job) => {
          setChosen(0)
          if (job) void read(job.id)
          else setRecord(null)
        }}
        renderOption={({ key, ...props }, j) => (
          <li key={key} {...props}>
            <span>
              {j.title}
              <Quiet>{j.place}</Quiet>
            </span>
          </li>
        )}
        renderInput={params => <TextField {...params} autoFocus={!jobId} label="Job" />}
      />
      {uses.length > 1 && (
        <Choice
          label="As"
          value={chosen}
          options={uses.map((u, n) => ({ value: n, label: u.label }))}
          onChange={setChosen}
          help={use?.help}
        />
      )}
      {use?.operation.op === 'putCalculation' && (
        <TextField
          label="Note (optional)"
          value={note}
          onChange={e => setNote(e.target.value)}
          helperText={uses.length > 1 ? 'which run, which circuit' : use.help}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
      )}
      <Problem>{problem}</Problem>
    </Popup>
  )
}
