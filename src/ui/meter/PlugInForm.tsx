import { Button } from '@mui/material'
import { Plus } from 'lucide-react'
import { Fragment } from 'react'
import { useFieldArray, useWatch } from 'react-hook-form'
import type { LoadRow } from '@/core/assess/loads-overview'
import { type Log, logSchema } from '@/core/loads/log'
import { worked } from '@/core/loads/log-of'
import { type Fault, fail, fault, type Outcome, parseWith } from '@/core/outcome'
import { Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults, Save } from '../form/Form'
import { DayField, LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { Told } from './Told'

type Typed = number | string
interface Reading {
  hours: Typed
  kWh: Typed
}

/** The counter as it stands at each look: spans are what it went up by in between. */
function spansOf(readings: readonly Reading[]): { spans: unknown[]; faults: Fault[] } {
  const faults: Fault[] = []
  let before = { h: 0, kWh: 0 }
  const spans = readings.flatMap((r, n) => {
    const { hours, kWh } = r
    if (hours === '' && kWh === '' && n > 0) return []
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
    const span = { hours: hours - before.h, energyWh: Number(((kWh - before.kWh) * 1000).toPrecision(12)) }
    before = { h: hours, kWh }
    return [span]
  })
  return { spans, faults }
}

const blank = () => ({
  name: 'plug-in meter',
  on: today(),
  readings: [{ hours: '', kWh: '' }] as Reading[],
  runningW: '' as Typed,
  idleW: 0 as Typed,
  VA: '' as Typed,
  powerFactor: '' as Typed,
  highestW: '' as Typed,
  outdoorC: '' as Typed,
})
type Values = ReturnType<typeof blank>

/** A plug-in meter as it is read: elapsed time, kWh, watts while it runs and while it idles. */
export function PlugInForm({ row, onTake }: { row: LoadRow; onTake: (log: Log) => Fault[] }) {
  const person = useWorkspace(s => s.person)
  const { load } = row
  const read = (typed: Values): Outcome<Log> => {
    const { readings, VA, powerFactor, ...facts } = typed
    const { spans, faults } = spansOf(readings)
    if (faults.length) return fail(...faults)
    const W = facts.runningW
    const worked = typeof W === 'number' && typeof VA === 'number' && VA > 0 ? Math.min(1, W / VA) : ''
    const figures = { ...facts, powerFactor: powerFactor === '' ? worked : powerFactor }
    return parseWith(logSchema, {
      idleW: 0,
      ...Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== '')),
      id: crypto.randomUUID(),
      kind: 'plug-in meter',
      by: person,
      spans,
    })
  }
  const sheet = useSheet<Values, Log>({
    values: blank(),
    keep: `spillway.plug-in.${load.id}`,
    read,
    save: onTake,
  })
  const { control } = sheet.form
  const { fields: readings, append } = useFieldArray({ control, name: 'readings' })
  const parsed = read(useWatch({ control }) as Values)
  const said = parsed.ok ? worked(parsed.value) : null
  return (
    <Form sheet={sheet}>
      <Columns>
        {readings.map((r, n) => (
          <Fragment key={r.id}>
            <NumberField
              name={`readings.${n}.hours`}
              label={n ? `Elapsed time, reading ${n + 1}` : 'Elapsed time'}
              unit="h"
            />
            <NumberField
              name={`readings.${n}.kWh`}
              label={n ? `Counter, reading ${n + 1}` : 'Counter'}
              sign="kWh"
              help={n ? undefined : 'as it stands, since it was set to nothing'}
            />
          </Fragment>
        ))}
      </Columns>
      <Row>
        <Button size="small" startIcon={<Plus size={16} />} onClick={() => append({ hours: '', kWh: '' })}>
          A later reading
        </Button>
        <Quiet component="span">two or more show how far the days differ</Quiet>
      </Row>
      <Columns>
        <NumberField name="runningW" label="While it runs" unit="W" />
        <NumberField name="idleW" label="While it idles" unit="W" />
        <NumberField name="VA" label="Volt-amps" unit="VA" />
        <NumberField name="powerFactor" label="Power factor" />
        <NumberField name="highestW" label="Highest" unit="W" />
        <NumberField
          name="outdoorC"
          label="Outdoors meanwhile"
          unit="C"
          help={load.weather ? 'needed: it follows the weather' : 'where the weather matters'}
        />
        <DayField name="on" label="Date" />
        <LineField name="name" label="Name of the log" />
      </Columns>
      <OtherFaults />
      <Told said={said} row={row} />
      <Row>
        <Save>Take the readings</Save>
      </Row>
    </Form>
  )
}
