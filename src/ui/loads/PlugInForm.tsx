'use client'
import Button from '@mui/material/Button'
import { Plus } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import type { LoadRow } from '@/core/job/loads-overview'
import { type Log, logSchema } from '@/core/loads/log'
import { worked } from '@/core/loads/log-of'
import { type Fault, fault, parseWith } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { useScale } from '../bench/units'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { FormField, numberTyped, OtherFaults, temperatureTyped } from './fields'
import styles from './Loads.module.css'

interface Reading {
  hours: string
  kWh: string
}
interface Draft {
  name: string
  on: string
  readings: Reading[]
  runningW: string
  idleW: string
  VA: string
  powerFactor: string
  highestW: string
  outdoorC: string
}

/** The counter as it stands at each look: spans are what it went up by in between. */
function spansOf(readings: readonly Reading[]): { spans: unknown[]; faults: Fault[] } {
  const faults: Fault[] = []
  let before = { h: 0, kWh: 0 }
  const spans = readings.flatMap((r, n) => {
    const hours = numberTyped(r.hours)
    const kWh = numberTyped(r.kWh)
    if (hours === undefined && kWh === undefined && n > 0) return []
    if (typeof hours !== 'number' || hours <= before.h) {
      faults.push(
        fault(
          `readings[${n}].hours`,
          before.h
            ? `must be a number above the ${before.h} h of the reading before`
            : 'must be a number of hours, such as 24',
        ),
      )
      return []
    }
    if (typeof kWh !== 'number' || kWh < before.kWh) {
      faults.push(
        fault(
          `readings[${n}].kWh`,
          before.kWh
            ? `must be a number, not below the ${before.kWh} kWh before: the counter adds up`
            : 'must be a number of kWh, such as 1.32',
        ),
      )
      return []
    }
    const span = { hours: hours - before.h, energyWh: (kWh - before.kWh) * 1000 }
    before = { h: hours, kWh }
    return [span]
  })
  return { spans, faults }
}

/** A plug-in meter as it is read: elapsed time, kWh, watts while it runs and while it idles. */
export function PlugInForm({ row, onTake }: { row: LoadRow; onTake: (log: Log) => Fault[] }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const person = useWorkspace(s => s.person)
  const degrees = useScale('C')
  const { load } = row
  const [draft, setDraft] = useState<Draft>({
    name: 'plug-in meter',
    on: today(),
    readings: [{ hours: '', kWh: '' }],
    runningW: '',
    idleW: '0',
    VA: '',
    powerFactor: '',
    highestW: '',
    outdoorC: '',
  })
  const [faults, setFaults] = useState<Fault[]>([])
  const put = (change: Partial<Draft>) => setDraft({ ...draft, ...change })
  const { spans, faults: unread } = spansOf(draft.readings)
  const W = numberTyped(draft.runningW)
  const VA = numberTyped(draft.VA)
  const factor =
    numberTyped(draft.powerFactor) ??
    (typeof W === 'number' && typeof VA === 'number' && VA > 0 ? Math.min(1, W / VA) : undefined)
  const optional = (key: string, value: number | string | undefined) =>
    value === undefined ? {} : { [key]: value }
  const log = {
    id: 'new',
    name: draft.name,
    kind: 'plug-in meter',
    by: person,
    on: draft.on,
    spans,
    ...optional('runningW', W),
    idleW: numberTyped(draft.idleW) ?? 0,
    ...optional('powerFactor', factor),
    ...optional('highestW', numberTyped(draft.highestW)),
    ...optional('outdoorC', temperatureTyped(draft.outdoorC, degrees)),
  }
  const parsed = parseWith(logSchema, log)
  const said = parsed.ok && !unread.length ? worked(parsed.value) : null

  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (unread.length) return setFaults(unread)
    if (!parsed.ok) return setFaults(parsed.faults)
    const refused = onTake({ ...parsed.value, id: crypto.randomUUID() })
    setFaults(refused)
    if (!refused.length) put({ readings: [{ hours: '', kWh: '' }] })
  }
  return (
    <form className={styles.form} onSubmit={submit} noValidate>
      {draft.readings.map((r, n) => (
        // readings have no name of their own: they are told by their place
        // biome-ignore lint/suspicious/noArrayIndexKey: rows are only ever added at the end
        <div key={n} className={styles.fields}>
          <FormField
            label={n ? `Elapsed time, reading ${n + 1}` : 'Elapsed time'}
            unit="h"
            value={r.hours}
            faults={faults}
            path={`readings[${n}].hours`}
            onChange={hours =>
              put({ readings: draft.readings.map((o, i) => (i === n ? { ...o, hours } : o)) })
            }
          />
          <FormField
            label={n ? `Counter, reading ${n + 1}` : 'Counter'}
            unit="kWh"
            help={n ? undefined : 'as it stands, since it was set to nothing'}
            value={r.kWh}
            faults={faults}
            path={`readings[${n}].kWh`}
            onChange={kWh => put({ readings: draft.readings.map((o, i) => (i === n ? { ...o, kWh } : o)) })}
          />
        </div>
      ))}
      <div className={styles.tools}>
        <Button
          size="small"
          startIcon={<Plus size={16} />}
          onClick={() => put({ readings: [...draft.readings, { hours: '', kWh: '' }] })}
        >
          A later reading
        </Button>
        <span className={styles.quiet}>two or more show how far the days differ</span>
      </div>
      <div className={styles.fields}>
        <FormField
          label="While it runs"
          unit="W"
          value={draft.runningW}
          faults={faults}
          path="runningW"
          onChange={runningW => put({ runningW })}
        />
        <FormField
          label="While it idles"
          unit="W"
          value={draft.idleW}
          faults={faults}
          path="idleW"
          onChange={idleW => put({ idleW })}
        />
        <FormField
          label="Volt-amps"
          unit="VA"
          value={draft.VA}
          faults={faults}
          path="VA"
          onChange={next => put({ VA: next })}
        />
        <FormField
          label="Power factor"
          value={draft.powerFactor}
          faults={faults}
          path="powerFactor"
          onChange={powerFactor => put({ powerFactor })}
        />
        <FormField
          label="Highest"
          unit="W"
          value={draft.highestW}
          faults={faults}
          path="highestW"
          onChange={highestW => put({ highestW })}
        />
        <FormField
          label="Outdoors meanwhile"
          unit={degrees.symbol}
          help={load.weather ? 'needed: it follows the weather' : 'where the weather matters'}
          value={draft.outdoorC}
          faults={faults}
          path="outdoorC"
          onChange={outdoorC => put({ outdoorC })}
        />
        <FormField
          label="Date"
          type="date"
          value={draft.on}
          faults={faults}
          path="on"
          onChange={on => put({ on })}
        />
        <FormField
          label="Name of the log"
          type="text"
          value={draft.name}
          faults={faults}
          path="name"
          onChange={name => put({ name })}
        />
      </div>
      <OtherFaults
        faults={faults}
        shown={['readings', 'runningW', 'idleW', 'VA', 'powerFactor', 'highestW', 'outdoorC', 'on', 'name']}
      />
      {said && (
        <p className={styles.told}>
          {said.answer} Was {quantity(row.drawn.dailyWh, 'Wh')} a day ({row.from}).{' '}
          <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(said.working)}>
            Show the working
          </Button>
        </p>
      )}
      <div className={styles.tools}>
        <Button type="submit" variant="contained">
          Take the readings
        </Button>
      </div>
    </form>
  )
}
