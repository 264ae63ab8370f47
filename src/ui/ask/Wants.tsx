'use client'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import TextField from '@mui/material/TextField'
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import type { Want } from '@/core/ask/brief'
import { likelyWants } from '@/core/ask/questions'
import { placeText } from '@/core/job/panels'
import { plural } from '@/core/units/format'
import { useWorkspace } from '../workspace/store'
import styles from './AskView.module.css'

/** What must live, in order of importance; what the answers make likely is offered. */
export function Wants() {
  const brief = useWorkspace(s => s.job.brief)
  const act = useWorkspace(s => s.act)
  const [name, setName] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const job = useWorkspace(s => s.job)
  const { wants } = brief
  const circuits = job.panels.flatMap(panel =>
    panel.circuits.map(c => ({
      id: c.id,
      picked: c.picked,
      name: `${placeText(job, panel, c)} ${c.label || 'unlabelled'}`,
    })),
  )
  const unpicked = circuits
    .filter(c => !c.picked && wants.some(w => w.circuitIds.includes(c.id)))
    .map(c => c.id)
  const set = (next: Want[]) => {
    const [fault] = act({ op: 'answerBrief', answers: { wants: next } })
    setProblem(fault ? `What must live ${fault.message}` : null)
    return !fault
  }
  const add = (what: string) => set([...wants, { id: crypto.randomUUID(), name: what, circuitIds: [] }])
  const swap = (a: number, b: number) => {
    const next = [...wants]
    const [x, y] = [next[a], next[b]]
    if (!x || !y) return
    next[a] = y
    next[b] = x
    set(next)
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (name.trim() && add(name.trim())) setName('')
  }
  return (
    <div className={styles.wants}>
      <p>
        <b>What must stay alive, the most important first?</b>
      </p>
      <ol aria-label="What must live">
        {wants.map((w, i) => (
          <li key={w.id}>
            <span>
              {w.name}
              <select
                aria-label={`Circuit that carries ${w.name}`}
                value={w.circuitIds[0] ?? ''}
                onChange={e =>
                  set(
                    wants.map(o =>
                      o === w ? { ...w, circuitIds: e.target.value ? [e.target.value] : [] } : o,
                    ),
                  )
                }
              >
                <option value="">circuit not known yet</option>
                {circuits.map(c => (
                  <option key={c.id} value={c.id}>
                    {c.name}
                  </option>
                ))}
              </select>
            </span>
            <IconButton
              aria-label={`${w.name}: more important`}
              disabled={i === 0}
              onClick={() => swap(i, i - 1)}
            >
              <ArrowUp size={17} aria-hidden />
            </IconButton>
            <IconButton
              aria-label={`${w.name}: less important`}
              disabled={i === wants.length - 1}
              onClick={() => swap(i, i + 1)}
            >
              <ArrowDown size={17} aria-hidden />
            </IconButton>
            <IconButton
              aria-label={`Take ${w.name} off the list`}
              onClick={() => set(wants.filter(o => o !== w))}
            >
              <X size={17} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ol>
      {unpicked.length > 0 && (
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            act(...unpicked.map(circuitId => ({ op: 'selectCircuit' as const, circuitId, picked: true })))
          }
        >
          Pick {plural(unpicked.length, 'circuit')} of this list
        </Button>
      )}
      <form onSubmit={submit}>
        <TextField
          label="Add to the list"
          value={name}
          error={problem !== null}
          helperText={problem}
          onChange={e => setName(e.target.value)}
          slotProps={{ htmlInput: { autoComplete: 'off', maxLength: 60 } }}
        />
        <Button type="submit" variant="outlined">
          Add
        </Button>
      </form>
      <div className={styles.likely}>
        {likelyWants(brief).map(what => (
          <Button
            key={what}
            size="small"
            startIcon={<Plus size={15} aria-hidden />}
            onClick={() => add(what)}
          >
            {what}
          </Button>
        ))}
      </div>
    </div>
  )
}
