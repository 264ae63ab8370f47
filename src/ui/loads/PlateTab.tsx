'use client'
import Button from '@mui/material/Button'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import { type FormEvent, useState } from 'react'
import { type Plate, plateSchema } from '@/core/ask/evidence'
import { changeTold, type LoadRow } from '@/core/job/loads-overview'
import { type PlateKey, plateKeys, plateUnits } from '@/core/loads/plate'
import { derivation } from '@/core/loads/plate-figures'
import { plateIn } from '@/core/loads/plate-text'
import { type Fault, parseWith } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { today } from '../common/today'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { numberTyped } from './fields'
import styles from './Loads.module.css'

const labels: Record<PlateKey, string> = {
  volts: 'Volts',
  amps: 'Amps',
  watts: 'Watts',
  VA: 'Volt-amps',
  horsepower: 'Horsepower',
  powerFactor: 'Power factor',
  ratedLoadA: 'RLA, rated load',
  lockedRotorA: 'LRA, locked rotor',
  codeLetter: 'Code letter',
  minCircuitA: 'MCA, minimum circuit',
  maxBreakerA: 'MOP, maximum breaker',
  hz: 'Frequency',
  phase: 'Phase',
}
const unitOf = (key: PlateKey) => plateUnits[key].split(' ')[0] ?? ''
const bare: readonly PlateKey[] = ['powerFactor', 'codeLetter', 'phase']

type Typed = Partial<Record<PlateKey, string>>
const typedOf = (plate: Plate): Typed =>
  Object.fromEntries(
    plateKeys.flatMap(k =>
      plate[k] === undefined
        ? []
        : [[k, typeof plate[k] === 'number' ? String(Number(plate[k].toPrecision(4))) : String(plate[k])]],
    ),
  )
const figureOf = (key: PlateKey, text: string): number | string =>
  key === 'codeLetter' ? text.trim().toUpperCase() : (numberTyped(text, unitOf(key)) ?? text)

/** The nameplate as it is printed, or field by field; what it comes to stands beside it before it is taken. */
export function PlateTab({ row }: { row: LoadRow }) {
  const { load, circuitId, volts } = row
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const [text, setText] = useState(load.plate?.text ?? '')
  const [typed, setTyped] = useState<Typed>(() => typedOf(load.plate ?? {}))
  const [faults, setFaults] = useState<Fault[]>([])
  const [told, setTold] = useState<string | null>(null)
  const given = Object.fromEntries(
    plateKeys.flatMap(k => (typed[k]?.trim() ? [[k, figureOf(k, typed[k])]] : [])),
  )
  const parsed = parseWith(plateSchema, { ...given, ...(text.trim() && { text: text.trim() }) })
  const reading = parsed.ok && Object.keys(given).length ? derivation(parsed.value, volts) : null
  const find = () => setTyped({ ...typed, ...typedOf(plateIn(text)) })

  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!parsed.ok) return setFaults(parsed.faults)
    if (!Object.keys(given).length)
      return setFaults([{ path: '$', message: 'Enter at least one figure of the plate.' }])
    const before = store.getState().job
    const refused = act({
      op: 'takePlate',
      circuitId,
      loadId: load.id,
      newLoadId: load.id,
      name: load.name,
      plate: parsed.value,
      on: today(),
    })
    setFaults(refused)
    if (!refused.length) setTold(changeTold(before, store.getState().job, load.id))
  }
  const lines = reading && [
    ['Running', reading.runningW, 'W'] as const,
    ['Running, apparent', reading.runningVA, 'VA'] as const,
    ['Running current', reading.runningA, 'A'] as const,
    ['Power factor', reading.powerFactor, 'fraction'] as const,
    ['Locked rotor', reading.lockedRotorA, 'A'] as const,
  ]
  return (
    <form className={styles.form} onSubmit={submit} noValidate>
      <TextField
        label="As printed"
        value={text}
        placeholder="115 V 60 Hz 1 PH, RLA 7.8, LRA 38, MCA 10.4, MAX FUSE 15"
        helperText="Type it as it stands there: the figures are found in it"
        onChange={e => setText(e.target.value)}
        onBlur={find}
        onKeyDown={e => {
          if (e.key !== 'Enter') return
          e.preventDefault()
          find()
        }}
      />
      <div className={styles.fields}>
        {plateKeys.map(key => {
          const fault = faults.find(f => f.path === key)
          const odd = reading?.impossible.find(i => i.key === key)
          return (
            <TextField
              key={key}
              label={labels[key]}
              value={typed[key] ?? ''}
              error={fault !== undefined || odd !== undefined}
              helperText={fault ? `${labels[key]} ${fault.message}` : odd?.message}
              onChange={e => setTyped({ ...typed, [key]: e.target.value })}
              slotProps={{
                inputLabel: { shrink: true },
                htmlInput: { inputMode: key === 'codeLetter' ? 'text' : 'decimal', autoComplete: 'off' },
                input: bare.includes(key)
                  ? {}
                  : { endAdornment: <InputAdornment position="end">{unitOf(key)}</InputAdornment> },
              }}
            />
          )
        })}
      </div>
      {lines && (
        <section aria-label="What it comes to" className={styles.scroll}>
          <h3>What it comes to</h3>
          <table className={styles.table}>
            <tbody>
              {lines.map(
                ([label, got, unit]) =>
                  got && (
                    <tr key={label}>
                      <th scope="row">{label}</th>
                      <td className={styles.num}>{quantity(got.value, unit)}</td>
                      <td className={styles.quiet}>{got.how}</td>
                    </tr>
                  ),
              )}
            </tbody>
          </table>
          {reading.notes.map(n => (
            <p key={n} className={styles.quiet}>
              {n}
            </p>
          ))}
        </section>
      )}
      {faults
        .filter(f => !plateKeys.some(k => k === f.path))
        .map(f => (
          <p key={f.path} role="alert" className={styles.alert}>
            {f.path === '$' ? '' : `${f.path} `}
            {f.message}
          </p>
        ))}
      {told && (
        <p className={styles.told} role="status">
          {told}
        </p>
      )}
      <div className={styles.tools}>
        <Button type="submit" variant="contained">
          Take the nameplate
        </Button>
        {load.plate && <span className={styles.quiet}>read on {load.plate.on}</span>}
      </div>
    </form>
  )
}
