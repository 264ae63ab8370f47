import { Alert, Button } from '@mui/material'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import * as z from 'zod'
import type { LoadRow } from '@/core/assess/loads-overview'
import type { Log } from '@/core/loads/log'
import { logOf, worked } from '@/core/loads/log-of'
import type { Corrections, Segmentation } from '@/core/loads/segment'
import { type Fault, fail, fault } from '@/core/outcome'
import { figure, plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Choice } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { Form, OtherFaults, Save } from '../form/Form'
import { LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { HoursChart } from './HoursChart'
import { Told } from './Told'
import { TraceChart } from './TraceChart'
import type { MeterSeries } from './useMeterSeries'

interface Typed {
  name: string
  outdoorC: number | string
}

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
  const [corrections, setCorrections] = useState<Corrections>({})
  const { about, segmentation: found, seen } = series
  const logTyped = ({ name: title, outdoorC }: Typed) =>
    found && about
      ? logOf(found, {
          id: crypto.randomUUID(),
          name: title,
          kind,
          on: about.dated ? new Date(about.startClockS * 1000).toISOString().slice(0, 10) : today(),
          by: person,
          volts: row.volts,
          ...(typeof outdoorC === 'number' && { outdoorC }),
        })
      : fail(fault('$', 'Nothing is read yet.'))
  const sheet = useSheet<Typed, Log>({
    values: { name: name.replace(/\.(csv|txt|tsv)$/i, ''), outdoorC: '' },
    read: typed =>
      typeof typed.outdoorC === 'string' && typed.outdoorC
        ? fail(fault('outdoorC', 'must be a number of degrees'))
        : logTyped(typed),
    save: onTake,
  })
  const log = logTyped(useWatch({ control: sheet.form.control }) as Typed)
  if (!about || !found || !seen) return null

  const correct = (next: Corrections) => {
    setCorrections(next)
    series.correct(next)
  }
  /** A figure set right by hand; emptied, what was found counts again. */
  const corrected = (key: 'onAboveW' | 'shortestS') => {
    const set = (value?: number) => {
      const { [key]: _, ...rest } = corrections
      correct(value === undefined ? rest : { ...rest, [key]: value })
      return []
    }
    return { value: corrections[key], schema: anySize, onCommit: set, onEmpty: set }
  }
  const said = log.ok ? worked(log.value) : null
  return (
    <Form sheet={sheet}>
      <Quiet>
        {about.rows.toLocaleString('en-US')} readings over {quantity(about.lastS / 3600, 'h')}, one every{' '}
        {figure(found.stepS)} s; told apart in {figure(series.ms ?? 0)} ms.
        {found.gaps.length > 0 && ` ${plural(found.gaps.length, 'gap')}, not counted.`}{' '}
        {about.warnings.join(' ')}
      </Quiet>
      <TraceChart
        about={about}
        found={found}
        seen={seen}
        leftOut={corrections.leaveOut ?? []}
        onLook={series.look}
        onLeaveOut={(fromS, toS) =>
          correct({ ...corrections, leaveOut: [...(corrections.leaveOut ?? []), { fromS, toS }] })
        }
        onPutBack={() => correct({ ...corrections, leaveOut: [] })}
      />
      <Columns>
        <EditFigure
          label="Runs above"
          unit="W"
          help={`found: ${quantity(found.onAboveW, 'W')}`}
          {...corrected('onAboveW')}
        />
        <Choice
          label="Running levels"
          value={corrections.levels ? (`${corrections.levels}` as const) : 'auto'}
          options={levelChoices}
          onChange={v => {
            const { levels: _, ...rest } = corrections
            correct(v === 'auto' ? rest : { ...rest, levels: v === '1' ? 1 : v === '2' ? 2 : 3 })
          }}
        />
        <EditFigure
          label="Shortest run"
          unit="s"
          help="shorter ones are passed over"
          {...corrected('shortestS')}
        />
      </Columns>
      <Found found={found} />
      <Columns>
        <LineField name="name" label="Name of the log" />
        <NumberField
          name="outdoorC"
          label="Outdoors meanwhile"
          unit="C"
          help={row.load.weather ? 'needed: it follows the weather' : 'where the weather matters'}
        />
      </Columns>
      <OtherFaults />
      {!log.ok && <Alert>{log.faults.map(f => f.message).join(' ')}</Alert>}
      <Told said={said} row={row} />
      <Row>
        <Save>Take into the load</Save>
        <Button onClick={series.stop}>Close the series</Button>
      </Row>
    </Form>
  )
}

const anySize = z.number().min(0, 'must not be negative')

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
    <Columns least={340}>
      <DataTable
        label="What was found"
        rows={lines}
        columns={[
          { head: '', names: true, cell: ([label]) => label },
          { head: '', cell: ([, text]) => text },
        ]}
      />
      <HoursChart duty={found.dutyByHour} />
    </Columns>
  )
}
