'use client'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import { type Mark, markSchema, type Photo, type Plate, plateSchema } from '@/core/ask/evidence'
import { aboutText } from '@/core/job/about'
import { circuitOf } from '@/core/job/panels'
import { plateIn } from '@/core/loads/plate-text'
import { parseWith } from '@/core/outcome'
import { enter, readEntry } from '@/core/panel/entry'
import { typedNumber } from '@/core/typed-number'
import { EditField, readText } from '../common/EditField'
import { today } from '../common/today'
import { shownPanel, useWorkspace, useWorkspaceStore } from '../workspace/store'
import { AboutChoice } from './AboutChoice'
import styles from './PhotosView.module.css'

interface Props {
  photo: Photo
  mark: Mark
  number: number
  open: boolean
  onOpen: () => void
  onPut: (mark: Mark) => void
}

/** One mark: what it shows, what is written there, and its way into the job. */
export function MarkCard({ photo, mark, number, open, onOpen, onPut }: Props) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  if (!open)
    return (
      <li>
        <button type="button" className={styles.markLine} onClick={onOpen}>
          <b>{number}</b> <span>{mark.text || aboutText(job, mark.about)}</span>
        </button>
      </li>
    )
  return (
    <li className={styles.markCard}>
      <h3>Mark {number}</h3>
      <AboutChoice label="Shows" about={mark.about} onChange={about => onPut({ ...mark, about })} />
      <EditField
        key={`text of ${mark.id}`}
        label="As it is written there"
        value={mark.text}
        read={readText(markSchema.shape.text)}
        onCommit={text => {
          onPut({ ...mark, text })
          return []
        }}
      />
      {mark.about.kind === 'panel' && <EnterBreaker mark={mark} panelId={mark.about.panelId} onPut={onPut} />}
      {(mark.about.kind === 'circuit' || mark.about.kind === 'load') && (
        <TakePlate key={mark.text} mark={mark} about={mark.about} onPut={onPut} />
      )}
      <Button size="small" onClick={() => act({ op: 'removeMark', photoId: photo.id, markId: mark.id })}>
        Remove this mark
      </Button>
    </li>
  )
}

/** A breaker read off the picture, typed as in the survey. */
function EnterBreaker({ mark, panelId, onPut }: Pick<Props, 'mark' | 'onPut'> & { panelId: string }) {
  const store = useWorkspaceStore()
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!text.trim()) return
    const { job, act } = store.getState()
    const entered = enter(job, [readEntry(text)], () => crypto.randomUUID(), [], panelId)
    const [refused] = entered.refused
    if (refused) return setProblem(refused.why)
    const [fault] = act({
      op: 'enterBreakers',
      label: entered.done[0] ?? 'a breaker',
      operations: entered.operations,
    })
    if (fault) return setProblem(fault.message)
    if (entered.lastId)
      onPut({ ...mark, about: { kind: 'circuit', circuitId: entered.lastId }, text: text.trim() })
  }
  return (
    <form onSubmit={submit}>
      <TextField
        label="Enter it as a breaker"
        placeholder="7 20 kitchen counter"
        value={text}
        error={problem !== null}
        helperText={problem ?? 'space, rating, label; Enter puts it in'}
        onChange={e => {
          setText(e.target.value)
          setProblem(null)
        }}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { autoComplete: 'off', maxLength: 200 } }}
      />
    </form>
  )
}

const fields = [
  ['volts', 'V'],
  ['amps', 'A'],
  ['watts', 'W'],
  ['horsepower', 'hp'],
  ['lockedRotorA', 'LRA, A'],
] as const

/** A nameplate read off the picture, put on the load with its provenance. */
function TakePlate({
  mark,
  about,
  onPut,
}: Pick<Props, 'mark' | 'onPut'> & { about: Extract<Mark['about'], { kind: 'circuit' | 'load' }> }) {
  const job = useWorkspace(s => s.job)
  const panel = useWorkspace(shownPanel)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const found = circuitOf(job, about.circuitId)
  const load = about.kind === 'load' ? found?.circuit.loads.find(l => l.id === about.loadId) : undefined
  const read = plateIn(mark.text)
  const [values, setValues] = useState<Record<string, string>>(() =>
    Object.fromEntries(
      fields.flatMap(([key]) => (read[key] === undefined ? [] : [[key, String(read[key])]])),
    ),
  )
  const [name, setName] = useState(load?.name ?? '')
  const [problem, setProblem] = useState<string | null>(null)
  if (!found) return null
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const figures: Record<string, number> = {}
    for (const [key, unit] of fields) {
      const text = values[key]?.trim()
      if (!text) continue
      const typed = typedNumber(text, unit)
      if ('problem' in typed) return setProblem(`${unit}: “${text}” is no number`)
      figures[key] = typed.value
    }
    if (!Object.keys(figures).length) return setProblem('Fill in at least one figure of the plate')
    // what else stands on it (RLA, MCA, MOP …) is taken too; the fields here go before it
    const others = Object.fromEntries(
      Object.entries(read).filter(([key]) => !fields.some(([field]) => field === key)),
    )
    const parsed = parseWith<Plate>(plateSchema, { ...others, ...figures })
    if (!parsed.ok) return setProblem(`${parsed.faults[0]?.path} ${parsed.faults[0]?.message}`)
    if (!name.trim()) return setProblem('Name the load')
    const loadId = load?.id ?? crypto.randomUUID()
    const [fault] = act({
      op: 'takePlate',
      circuitId: found.circuit.id,
      loadId: load?.id ?? null,
      newLoadId: loadId,
      name: name.trim(),
      plate: parsed.value,
      on: today(),
    })
    if (fault) return setProblem(`${fault.path} ${fault.message}`)
    onPut({ ...mark, about: { kind: 'load', circuitId: found.circuit.id, loadId } })
    say(
      `Nameplate taken over for ${name.trim()}, ${found.panel === panel ? '' : found.panel.name}`.replace(
        /, $/,
        '',
      ),
    )
  }
  return (
    <form className={styles.plate} onSubmit={submit} noValidate>
      <h4>Nameplate</h4>
      <TextField label="Load" value={name} onChange={e => setName(e.target.value)} />
      <div className={styles.figures}>
        {fields.map(([key, unit]) => (
          <TextField
            key={key}
            label={unit}
            value={values[key] ?? ''}
            onChange={e => {
              setValues({ ...values, [key]: e.target.value })
              setProblem(null)
            }}
            slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
          />
        ))}
      </div>
      {problem && <p role="alert">{problem}</p>}
      <Button type="submit" variant="outlined" size="small">
        Put on the load
      </Button>
    </form>
  )
}
