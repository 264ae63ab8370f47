'use client'
import Button from '@mui/material/Button'
import { useState } from 'react'
import type { LoadRow } from '@/core/job/loads-overview'
import type { Log } from '@/core/loads/log'
import { logOf, worked } from '@/core/loads/log-of'
import type { Corrections, Segmentation } from '@/core/loads/segment'
import { type Fault, fault } from '@/core/outcome'
import { figure, plural, quantity } from '@/core/units/format'
import { useScale } from '../bench/units'
import { Choice } from '../common/Choice'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { FormField, numberTyped, OtherFaults, temperatureTyped } from './fields'
import { HoursChart } from './HoursChart'
import styles from './Loads.module.css'
import { TraceChart } from './TraceChart'
import type { MeterSeries } from './useMeterSeries'

interface Props {
  row: LoadRow
  series: MeterSeries
  name: string
  kind: Log['kind']
  onTake: (log: Log) => Promise<Fault[]>
}

const levelChoices = [
  { value: 'auto', label: 'as found' },
  { value: '1', label: 'one' },
  { value: '2', label: 'two' },
  { value: '3', label: 'three' },
] as const

/** The trace with what was told apart in it; what is wrong is set right here, and the result is taken onto the load. */
export function SeriesResult({ row, series, name, kind, onTake }: Props) {
  const person = useWorkspace(s => s.person)
  const showWorking = useWorkspace(s => s.showWorking)
  const degrees = useScale('C')
  const [corrections, setCorrections] = useState<Corrections>({})
  const [mark, setMark] = useState('')
  const [shortest, setShortest] = useState('')
  const [outdoor, setOutdoor] = useState('')
  const [title, setTitle] = useState(name.replace(/\.(csv|txt|tsv)$/i, ''))
  const [faults, setFaults] = useState<Fault[]>([])
  const { about, segmentation: found, seen } = series
  if (!about || !found || !seen) return null

  const correct = (change: Partial<Corrections>) => {
    const next = { ...corrections, ...change }
    setCorrections(next)
    series.correct(next)
  }
  const setNumber = (text: string, key: 'onAboveW' | 'shortestS') => {
    const typed = numberTyped(text)
    if (typeof typed === 'string' || (typeof typed === 'number' && typed < 0))
      return setFaults([fault(key, 'must be a number, not negative; leave it empty for what was found')])
    setFaults(faults.filter(f => f.path !== key))
    if (typed === corrections[key]) return
    const { [key]: _, ...rest } = corrections
    const next = typed === undefined ? rest : { ...rest, [key]: typed }
    setCorrections(next)
    series.correct(next)
  }
  const on = about.dated ? new Date(about.startClockS * 1000).toISOString().slice(0, 10) : today()
  const outdoorC = temperatureTyped(outdoor, degrees)
  const log = logOf(found, {
    id: 'new',
    name: title,
    kind,
    on,
    by: person,
    volts: row.volts,
    ...(typeof outdoorC === 'number' && { outdoorC }),
  })
  const said = log.ok ? worked(log.value) : null
  const take = async () => {
    if (typeof outdoorC === 'string') return setFaults([fault('outdoorC', 'must be a number of degrees')])
    if (!log.ok) return setFaults(log.faults)
    setFaults(await onTake({ ...log.value, id: crypto.randomUUID() }))
  }
  return (
    <div className={styles.form}>
      <p className={styles.quiet}>
        {about.rows.toLocaleString('en-US')} readings over {quantity(about.lastS / 3600, 'h')}, one every{' '}
        {figure(found.stepS)} s; told apart in {figure(series.ms ?? 0)} ms.
        {found.gaps.length > 0 && ` ${plural(found.gaps.length, 'gap')}, not counted.`}{' '}
        {about.warnings.join(' ')}
      </p>
      <TraceChart
        about={about}
        found={found}
        seen={seen}
        leftOut={corrections.leaveOut ?? []}
        onLook={series.look}
        onLeaveOut={(fromS, toS) => correct({ leaveOut: [...(corrections.leaveOut ?? []), { fromS, toS }] })}
        onPutBack={() => correct({ leaveOut: [] })}
      />
      <div className={styles.fields}>
        <FormField
          onDone={() => setNumber(mark, 'onAboveW')}
          label="Runs above"
          unit="W"
          help={`found: ${quantity(found.onAboveW, 'W')}`}
          value={mark}
          faults={faults}
          path="onAboveW"
          onChange={setMark}
        />
        <Choice
          label="Running levels"
          value={corrections.levels ? (`${corrections.levels}` as const) : 'auto'}
          options={levelChoices}
          onChange={v => {
            const { levels: _, ...rest } = corrections
            const next: Corrections =
              v === 'auto' ? rest : { ...rest, levels: v === '1' ? 1 : v === '2' ? 2 : 3 }
            setCorrections(next)
            series.correct(next)
          }}
        />
        <FormField
          onDone={() => setNumber(shortest, 'shortestS')}
          label="Shortest run"
          unit="s"
          help="shorter ones are passed over"
          value={shortest}
          faults={faults}
          path="shortestS"
          onChange={setShortest}
        />
      </div>
      <Found found={found} />
      <div className={styles.fields}>
        <FormField
          label="Name of the log"
          type="text"
          value={title}
          faults={faults}
          path="name"
          onChange={setTitle}
        />
        <FormField
          label="Outdoors meanwhile"
          unit={degrees.symbol}
          help={row.load.weather ? 'needed: it follows the weather' : 'where the weather matters'}
          value={outdoor}
          faults={faults}
          path="outdoorC"
          onChange={setOutdoor}
        />
      </div>
      <OtherFaults faults={faults} shown={['onAboveW', 'shortestS', 'name', 'outdoorC']} />
      {!log.ok && !faults.length && <OtherFaults faults={log.faults} shown={[]} />}
      {said && (
        <p className={styles.told}>
          {said.answer} Was {quantity(row.drawn.dailyWh, 'Wh')} a day ({row.from}).{' '}
          <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(said.working)}>
            Show the working
          </Button>
        </p>
      )}
      <div className={styles.tools}>
        <Button variant="contained" onClick={() => void take()}>
          Take into the load
        </Button>
        <Button onClick={series.stop}>Close the series</Button>
      </div>
    </div>
  )
}

function Found({ found }: { found: Segmentation }) {
  const lines: [string, string][] = [
    [
      'Energy',
      `${quantity(found.energyWh, 'Wh')} in ${quantity(found.observedH, 'h')}, ${quantity(found.meanW, 'W')} on average`,
    ],
    [
      found.levels.length > 1 ? 'Levels' : 'Running',
      found.levels
        .map(
          l =>
            `${quantity(l.W, 'W')}${found.levels.length > 1 ? ` (${figure(100 * l.shareFraction)} % of the running time)` : ''}`,
        )
        .join(', '),
    ],
    ['Idle', found.continuous ? 'never: it draws all the time' : quantity(found.idleW, 'W')],
    ['Runs', quantity(found.dutyFraction, 'fraction')],
    [
      'Starts',
      `${figure(found.startsPerDay)} a day${found.cycleMinutes === null ? '' : `, every ${figure(found.cycleMinutes)} min`}`,
    ],
    [
      'Highest start',
      found.highestStartA
        ? `${quantity(found.highestStartA, 'A')} by inrush hold`
        : found.highestStartW
          ? `${quantity(found.highestStartW, 'W')}; a reading every ${figure(found.stepS)} s hides the true start`
          : 'none seen',
    ],
  ]
  return (
    <div className={styles.columns}>
      <table className={styles.table} aria-label="What was found">
        <tbody>
          {lines.map(([label, text]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <HoursChart duty={found.dutyByHour} />
    </div>
  )
}
