'use client'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import * as z from 'zod'
import { edited } from '@/core/loads/evidence'
import {
  type Figure,
  type Load,
  loadSchema,
  type MotorType,
  motorTypes,
  startFigure,
} from '@/core/loads/load'
import { type Fault, parseWith } from '@/core/outcome'
import { type Origin, origins } from '@/core/working'
import { Choice } from '../common/Choice'
import { readNumber } from '../common/EditField'
import { useWorkspace } from '../workspace/store'
import styles from './LoadDialog.module.css'

const fromOptions = origins.map(value => ({ value, label: value === 'job' ? 'set on this job' : value }))
const startMethods = [
  { value: 'none', label: 'none to speak of, or not known' },
  { value: 'inrush', label: 'measured inrush (A)' },
  { value: 'locked-rotor', label: 'locked-rotor amps (A)' },
  { value: 'multiple', label: 'a multiple of running' },
] as const
type StartMethod = (typeof startMethods)[number]['value']
const natures: { value: Load['nature']; label: string }[] = [
  { value: 'plain', label: 'no motor' },
  { value: 'motor', label: 'motor' },
  { value: 'compressor', label: 'compressor' },
]

/** What stands in the fields: as typed, so that a wrong entry stays to be mended. */
interface Draft {
  name: string
  runningW: string
  runningFrom: Origin
  powerFactor: string
  dutyPercent: string
  dutyFrom: Origin
  idleW: string
  nature: Load['nature']
  motorType: MotorType | ''
  connection: NonNullable<Load['connection']> | ''
  startMethod: StartMethod
  startValue: string
  startFrom: Origin
  byHand: boolean
  needsBond: boolean
}

function draftOf(load: Load | null): Draft {
  const start = load?.start
  const given =
    start?.method === 'inrush'
      ? start.inrushA
      : start?.method === 'locked-rotor'
        ? start.lockedRotorA
        : start?.multiple
  return {
    name: load?.name ?? '',
    runningW: load ? String(load.runningW.value) : '',
    runningFrom: load?.runningW.from ?? 'nameplate',
    powerFactor: String(load?.powerFactor.value ?? 1),
    dutyPercent: load ? String(Number((load.dutyFraction.value * 100).toPrecision(12))) : '100',
    dutyFrom: load?.dutyFraction.from ?? 'assumed',
    idleW: String(load?.idleW.value ?? 0),
    nature: load?.nature ?? 'plain',
    motorType: load?.motorType ?? '',
    connection: load?.connection ?? '',
    startMethod: start?.method ?? 'none',
    startValue: given ? String(given.value) : '',
    startFrom: given?.from ?? 'nameplate',
    byHand: load?.byHand ?? false,
    needsBond: load?.needsBond ?? false,
  }
}

const anyNumber = z.number()
/** The number typed, or what was typed itself: the schema then says what is wrong with it. */
function typed(text: string, scale = 1): number | string {
  const got = readNumber(anyNumber, scale)(text)
  return 'value' in got ? got.value : text
}

function loadOf(draft: Draft, was: Load | null): unknown {
  const kept = (figure: Figure | undefined, value: number | string, from: Origin) =>
    figure && typeof value === 'number' ? edited(figure, value, from) : { value, from }
  const given = { value: typed(draft.startValue), from: draft.startFrom }
  const known = was?.start && startFigure(was.start)
  const same =
    was?.start?.method === draft.startMethod && known?.value === given.value && known.from === given.from
  const start = same
    ? was?.start
    : draft.startMethod === 'inrush'
      ? { method: 'inrush', inrushA: given }
      : draft.startMethod === 'locked-rotor'
        ? {
            method: 'locked-rotor',
            lockedRotorA: given,
            ...(was?.start?.method === 'locked-rotor' && was.start.softStartFraction
              ? { softStartFraction: was.start.softStartFraction }
              : {}),
          }
        : draft.startMethod === 'multiple'
          ? { method: 'multiple', multiple: given }
          : undefined
  const { start: _, motorType: __, connection: ___, ...rest } = was ?? {}
  return {
    ...rest,
    id: was?.id ?? crypto.randomUUID(),
    name: draft.name,
    runningW: kept(was?.runningW, typed(draft.runningW), draft.runningFrom),
    powerFactor: kept(was?.powerFactor, typed(draft.powerFactor), was?.powerFactor.from ?? 'typical value'),
    dutyFraction: kept(was?.dutyFraction, typed(draft.dutyPercent, 0.01), draft.dutyFrom),
    idleW: kept(was?.idleW, typed(draft.idleW), was?.idleW.from ?? 'assumed'),
    nature: draft.nature,
    ...(draft.motorType && draft.nature !== 'plain' && { motorType: draft.motorType }),
    ...(draft.connection && { connection: draft.connection }),
    ...(start && { start }),
    byHand: draft.byHand,
    needsBond: draft.needsBond,
  }
}

interface Props {
  circuitId: string
  load: Load | null
  onClose: () => void
}

export function LoadDialog({ circuitId, load, onClose }: Props) {
  const act = useWorkspace(s => s.act)
  const [draft, setDraft] = useState(() => draftOf(load))
  const [faults, setFaults] = useState<Fault[]>([])
  const put = (change: Partial<Draft>) => setDraft({ ...draft, ...change })

  const submit = (event: FormEvent) => {
    event.preventDefault()
    const parsed = parseWith(loadSchema, loadOf(draft, load))
    if (!parsed.ok) return setFaults(parsed.faults)
    const refused = act({ op: 'putLoad', circuitId, load: parsed.value })
    if (refused.length) setFaults(refused)
    else onClose()
  }
  const remove = () => {
    if (load) act({ op: 'removeLoad', circuitId, loadId: load.id })
    onClose()
  }
  const text = (
    key: 'name' | 'runningW' | 'powerFactor' | 'dutyPercent' | 'idleW' | 'startValue',
    label: string,
    path: string,
    unit?: string,
  ) => {
    const fault = faults.find(f => f.path.startsWith(path))
    return (
      <TextField
        label={label}
        value={draft[key]}
        autoFocus={key === 'name'}
        error={fault !== undefined}
        helperText={fault && `${label} ${fault.message}`}
        onChange={e => put({ [key]: e.target.value })}
        slotProps={{
          input: unit ? { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } : {},
          htmlInput: { inputMode: key === 'name' ? 'text' : 'decimal', autoComplete: 'off' },
        }}
      />
    )
  }
  const other = faults.filter(f => !/^(name|runningW|powerFactor|dutyFraction|idleW|start)/.test(f.path))
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="load-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="load-title">{load ? load.name : 'Add a load'}</DialogTitle>
        <DialogContent className={styles.fields}>
          {text('name', 'Name', 'name')}
          <div className={styles.pair}>
            {text('runningW', 'Running', 'runningW', 'W')}
            <Choice
              label="Running, from"
              value={draft.runningFrom}
              options={fromOptions}
              onChange={runningFrom => put({ runningFrom })}
            />
            {text('dutyPercent', 'Runs', 'dutyFraction', '% of the time')}
            <Choice
              label="Share of time, from"
              value={draft.dutyFrom}
              options={fromOptions}
              onChange={dutyFrom => put({ dutyFrom })}
            />
            {text('powerFactor', 'Power factor', 'powerFactor')}
            {text('idleW', 'Idle', 'idleW', 'W')}
          </div>
          <div className={styles.pair}>
            <Choice
              label="Motor"
              value={draft.nature}
              options={natures}
              onChange={nature => put({ nature })}
            />
            {draft.nature !== 'plain' && (
              <Choice
                label="Which motor"
                value={draft.motorType}
                options={[
                  { value: '', label: 'not said' },
                  ...motorTypes.map(value => ({ value, label: value === 'unknown' ? 'not known' : value })),
                ]}
                onChange={motorType => put({ motorType })}
                help="a soft starter suits compressors and three-wire motors"
              />
            )}
            <Choice
              label="Connected"
              value={draft.connection}
              options={[
                { value: '', label: 'not said' },
                { value: 'plug', label: 'by a plug' },
                { value: 'hard-wired', label: 'wired in' },
                { value: 'unknown', label: 'not known' },
              ]}
              onChange={connection => put({ connection })}
            />
          </div>
          <Choice
            label="Start"
            value={draft.startMethod}
            options={startMethods}
            onChange={startMethod => put({ startMethod })}
          />
          {draft.startMethod !== 'none' && (
            <div className={styles.pair}>
              {text('startValue', 'Start figure', 'start', draft.startMethod === 'multiple' ? '×' : 'A')}
              <Choice
                label="Start, from"
                value={draft.startFrom}
                options={fromOptions}
                onChange={startFrom => put({ startFrom })}
              />
            </div>
          )}
          <FormControlLabel
            control={<Checkbox checked={draft.byHand} onChange={e => put({ byHand: e.target.checked })} />}
            label="Switched by a person, one such load at a time"
          />
          <FormControlLabel
            control={
              <Checkbox checked={draft.needsBond} onChange={e => put({ needsBond: e.target.checked })} />
            }
            label="A burner that proves its flame through ground"
          />
          {other.map(f => (
            <p key={f.path} role="alert">
              {f.path} {f.message}
            </p>
          ))}
        </DialogContent>
        <DialogActions>
          {load && (
            <Button color="error" onClick={remove} className={styles.remove}>
              Remove
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Keep
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
