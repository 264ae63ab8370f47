'use client'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import { type RequestState, requestStates } from '@/core/ask/evidence'
import type { Request } from '@/core/ask/requests'
import { saidText } from '@/core/ask/sent'
import { circuitOf } from '@/core/job/panels'
import { Choice } from '../common/Choice'
import { useWorkspace } from '../workspace/store'
import styles from './AskView.module.css'

/** What is asked of the customer and whoever drives out, with what became of each. */
export function RequestList() {
  const requests = useWorkspace(s => s.evaluation.requests)
  const act = useWorkspace(s => s.act)
  const toAsk = requests.filter(r => r.state === 'to ask')
  const put = (r: Request, state: RequestState) =>
    act({ op: 'putRequest', request: { ...r.record, key: r.key, state } })
  return (
    <section aria-label="Requests">
      <div className={styles.head}>
        <h2>What is asked for</h2>
        {toAsk.length > 0 && (
          <Button
            size="small"
            onClick={() =>
              act(
                ...toAsk.map(r => ({
                  op: 'putRequest' as const,
                  request: { ...r.record, key: r.key, state: 'asked' as const },
                })),
              )
            }
          >
            Mark all as asked
          </Button>
        )}
      </div>
      <ul className={styles.list}>
        {requests.map(r => (
          <RequestRow key={r.key} request={r} onState={state => put(r, state)} />
        ))}
      </ul>
      <OwnRequest />
    </section>
  )
}

function RequestRow({ request: r, onState }: { request: Request; onState: (state: RequestState) => void }) {
  const id = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const answer = r.record?.answer
  return (
    <li id={r.key} data-state={r.state} data-request={r.key}>
      <div>
        <b>{r.title}</b>
        <span>{r.why}</span>
        {answer && (
          <span className={styles.answer}>
            {answer.by}, {answer.on}: {saidText(answer)}{' '}
            {answer.file && <a href={`/api/files/${answer.file.id}`}>Save the file</a>}
          </span>
        )}
        {answer?.plate && <UsePlate request={r} />}
        {r.photos.length > 0 && (
          <span className={styles.thumbs}>
            {r.photos.map(p => (
              <a key={p.id} href={`/jobs/${id}/photos#${p.id}`}>
                {/* biome-ignore lint/performance/noImgElement: its bytes come from the database, already small */}
                <img src={`/api/photos/${p.id}?size=thumbnail`} alt={p.name} loading="lazy" />
              </a>
            ))}
          </span>
        )}
      </div>
      <Choice
        label="State"
        value={r.state}
        options={requestStates.map(value => ({ value, label: value }))}
        onChange={onState}
      />
      {r.record?.own && (
        <Button size="small" onClick={() => act({ op: 'removeRequest', key: r.key })}>
          Remove
        </Button>
      )}
    </li>
  )
}

/** What a plate said, put on the load it belongs to, with its provenance. */
function UsePlate({ request: r }: { request: Request }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [, circuitId = '', loadId = ''] = r.key.split(':')
  const load = circuitOf(job, circuitId)?.circuit.loads.find(l => l.id === loadId)
  const { plate, on } = r.record?.answer ?? {}
  if (!load || !plate || !on) return null
  return (
    <Button
      size="small"
      variant="outlined"
      onClick={() => {
        const [fault] = act(
          { op: 'takePlate', circuitId, loadId, newLoadId: loadId, name: load.name, plate, on },
          { op: 'putRequest', request: { ...r.record, key: r.key, state: 'good enough' } },
        )
        say(fault ? `Not taken over: ${fault.message}` : `Taken over for ${load.name}. Undo takes it back.`)
      }}
    >
      Take over for {load.name}
    </Button>
  )
}

function OwnRequest() {
  const act = useWorkspace(s => s.act)
  const [title, setTitle] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!title.trim()) return
    const [fault] = act({
      op: 'putRequest',
      request: {
        key: `own:${crypto.randomUUID()}`,
        state: 'to ask',
        own: { title: title.trim(), why: 'Asked by the installer.' },
      },
    })
    setProblem(fault ? fault.message : null)
    if (!fault) setTitle('')
  }
  return (
    <form className={styles.own} onSubmit={submit}>
      <TextField
        label="Ask for something else"
        value={title}
        error={problem !== null}
        helperText={problem}
        onChange={e => setTitle(e.target.value)}
        slotProps={{ htmlInput: { autoComplete: 'off', maxLength: 80 } }}
      />
      <Button type="submit" variant="outlined">
        Add
      </Button>
    </form>
  )
}
