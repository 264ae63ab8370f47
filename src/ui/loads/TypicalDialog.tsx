'use client'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import { type FormEvent, useState } from 'react'
import { library } from '@/core/loads/library'
import { loadGroups, type Typical, typicalSchema } from '@/core/loads/typical'
import { type Fault, parseWith } from '@/core/outcome'
import { call } from '../api'
import { Choice } from '../common/Choice'
import { FormField, numberTyped, OtherFaults } from './fields'
import styles from './Loads.module.css'
import type { FirmTypical } from './useLibrary'

interface Props {
  typical: Typical | null
  /** of the firm's own, 0 where ours stands or it is new */
  version: number
  onChanged: (loads: FirmTypical[]) => void
  onClose: () => void
}

const blank: Typical = {
  id: '',
  name: '',
  group: 'outlets and comfort',
  volts: 120,
  runningW: { low: 0, likely: 0, high: 0 },
  powerFactor: 1,
  idleW: 0,
  duty: { winter: 0.3, between: 0.3, summer: 0.3 },
  dutyUnsure: 0.4,
  nature: 'plain',
  pattern: { kind: 'cycling' },
  byHand: false,
  deferrable: false,
  needsBond: false,
  words: '',
}

const percent = (text: string) => {
  const typed = numberTyped(text)
  return typeof typed === 'number' ? Number((typed / 100).toPrecision(12)) : typed
}
const shownPercent = (fraction: number) => String(Number((100 * fraction).toPrecision(6)))

/** A typical load of the firm: what is changed here stands in place of ours, for this firm alone. */
export function TypicalDialog({ typical, version, onChanged, onClose }: Props) {
  const was = typical ?? blank
  const [text, setText] = useState({
    name: was.name,
    low: String(was.runningW.low || ''),
    likely: String(was.runningW.likely || ''),
    high: String(was.runningW.high || ''),
    powerFactor: String(was.powerFactor),
    idleW: String(was.idleW),
    winter: shownPercent(was.duty.winter),
    between: shownPercent(was.duty.between),
    summer: shownPercent(was.duty.summer),
    unsure: shownPercent(was.dutyUnsure),
    startLow: was.start ? String(was.start.low) : '',
    start: was.start ? String(was.start.likely) : '',
    startHigh: was.start ? String(was.start.high) : '',
    words: was.words,
  })
  const [kind, setKind] = useState({
    group: was.group,
    volts: was.volts,
    nature: was.nature,
    byHand: was.byHand,
    deferrable: was.deferrable,
    needsBond: was.needsBond,
  })
  const [faults, setFaults] = useState<Fault[]>([])
  const [busy, setBusy] = useState(false)
  const ours = library.some(t => t.id === was.id)
  const put = (key: keyof typeof text) => (value: string) => setText({ ...text, [key]: value })

  const send = async (body: unknown) => {
    setBusy(true)
    const answer = await call<{ loads: FirmTypical[] }>('/api/loads', 'POST', body)
    setBusy(false)
    if (answer.ok) onChanged(answer.data.loads)
    else setFaults(answer.faults.length ? answer.faults : [{ path: '$', message: answer.message }])
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const { start: _, ...rest } = was
    const likely = numberTyped(text.start)
    const made = {
      ...rest,
      ...kind,
      id:
        was.id ||
        text.name
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .replace(/^-|-$/g, '')
          .slice(0, 40) ||
        'load',
      name: text.name,
      runningW: {
        low: numberTyped(text.low) ?? numberTyped(text.likely),
        likely: numberTyped(text.likely),
        high: numberTyped(text.high) ?? numberTyped(text.likely),
      },
      powerFactor: numberTyped(text.powerFactor),
      idleW: numberTyped(text.idleW) ?? 0,
      duty: { winter: percent(text.winter), between: percent(text.between), summer: percent(text.summer) },
      dutyUnsure: percent(text.unsure) ?? 0,
      ...(likely !== undefined && {
        start: {
          low: numberTyped(text.startLow) ?? likely,
          likely,
          high: numberTyped(text.startHigh) ?? likely,
        },
      }),
      words: text.words,
    }
    const parsed = parseWith(typicalSchema, made)
    if (!parsed.ok) return setFaults(parsed.faults)
    void send({ act: 'put', typical: parsed.value, version })
  }
  const field = (label: string, key: keyof typeof text, path: string, unit?: string, help?: string) => (
    <FormField
      label={label}
      value={text[key]}
      onChange={put(key)}
      faults={faults}
      path={path}
      {...(unit && { unit })}
      {...(help && { help })}
      {...(key === 'name' || key === 'words' ? { type: 'text' as const } : {})}
    />
  )
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="typical-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="typical-title">{typical ? typical.name : 'New typical load'}</DialogTitle>
        <DialogContent className={`${styles.form} ${styles.dialog}`}>
          <div className={styles.fields} style={{ paddingTop: 8 }}>
            {field('Name', 'name', 'name')}
            <Choice
              label="Group"
              value={kind.group}
              options={loadGroups.map(value => ({ value, label: value }))}
              onChange={group => setKind({ ...kind, group })}
            />
            <Choice
              label="Volts"
              value={kind.volts}
              options={[
                { value: 120, label: '120 V' },
                { value: 240, label: '240 V' },
              ]}
              onChange={volts => setKind({ ...kind, volts })}
            />
            <Choice
              label="Motor"
              value={kind.nature}
              options={[
                { value: 'plain', label: 'no motor' },
                { value: 'motor', label: 'motor' },
                { value: 'compressor', label: 'compressor' },
              ]}
              onChange={nature => setKind({ ...kind, nature })}
            />
          </div>
          <div className={styles.fields}>
            {field('Running, likely', 'likely', 'runningW.likely', 'W')}
            {field('at least', 'low', 'runningW.low', 'W')}
            {field('at most', 'high', 'runningW.high', 'W')}
            {field('Idle', 'idleW', 'idleW', 'W')}
            {field('Power factor', 'powerFactor', 'powerFactor')}
            {field('Start', 'start', 'start.likely', '× running', 'empty: none to speak of')}
            {field('Start, at least', 'startLow', 'start.low', '×')}
            {field('Start, at most', 'startHigh', 'start.high', '×')}
          </div>
          <div className={styles.fields}>
            {field('Runs in winter', 'winter', 'duty.winter', '%')}
            {field('in spring and autumn', 'between', 'duty.between', '%')}
            {field('in summer', 'summer', 'duty.summer', '%')}
            {field('give or take', 'unsure', 'dutyUnsure', '%')}
            {field('Other words for it', 'words', 'words')}
          </div>
          <div className={styles.tools}>
            {(
              [
                ['byHand', 'Switched by a person, one at a time'],
                ['deferrable', 'Can wait some hours'],
                ['needsBond', 'A burner that proves its flame through ground'],
              ] as const
            ).map(([key, label]) => (
              <FormControlLabel
                key={key}
                control={
                  <Checkbox
                    checked={kind[key]}
                    onChange={e => setKind({ ...kind, [key]: e.target.checked })}
                  />
                }
                label={label}
              />
            ))}
          </div>
          <OtherFaults
            faults={faults}
            shown={['name', 'runningW', 'idleW', 'powerFactor', 'start', 'duty', 'dutyUnsure', 'words']}
          />
        </DialogContent>
        <DialogActions>
          {version > 0 && (
            <Button
              color="error"
              disabled={busy}
              sx={{ mr: 'auto' }}
              onClick={() => void send({ act: 'drop', id: was.id, version })}
            >
              {ours ? 'Back to the usual figures' : 'Remove'}
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={busy}>
            Keep for the firm
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
