import { Alert } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { type ColumnKind, columnKinds, type MeterFormat } from '@/core/formats/meter-format'
import type { Guess } from '@/core/formats/meter-guess'
import { fail, fault, type Outcome, ok } from '@/core/outcome'
import { DataTable } from '../common/DataTable'
import { Columns, Row } from '../common/pieces'
import { Form, OtherFaults, Save } from '../form/Form'
import { ChoiceField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'

const kindNames: Record<ColumnKind, string> = {
  ignore: 'not needed',
  time: 'date and time',
  date: 'date',
  clock: 'time of day',
  'elapsed s': 'elapsed, s',
  'elapsed h': 'elapsed, h',
  W: 'power, W',
  kW: 'power, kW',
  VA: 'apparent power, VA',
  A: 'current, A',
  'A peak': 'inrush hold, A',
  V: 'voltage, V',
  PF: 'power factor',
  'Wh total': 'counter, Wh',
  'kWh total': 'counter, kWh',
  'Wh each row': 'energy of the row, Wh',
}
const kinds = columnKinds.map(value => ({ value, label: kindNames[value] }))
const times: readonly ColumnKind[] = ['time', 'clock', 'elapsed s', 'elapsed h']
const figures: readonly ColumnKind[] = ['W', 'kW', 'VA', 'A', 'Wh total', 'kWh total', 'Wh each row']

type Typed = Omit<MeterFormat, 'volts' | 'powerFactor'> & {
  volts: number | string
  powerFactor: number | string
}

const needsVolts = (columns: readonly ColumnKind[]) =>
  columns.includes('A') && !columns.some(k => ['W', 'kW', 'VA', 'V'].includes(k))

/** What was recognised in a file, column by column, for the person to confirm or set right. */
export function ColumnsForm({
  name,
  guess,
  onRead,
}: {
  name: string
  guess: Guess
  onRead: (format: MeterFormat) => void
}) {
  const read = (typed: Typed): Outcome<MeterFormat> => {
    const has = (wanted: readonly ColumnKind[]) => typed.columns.some(k => wanted.includes(k))
    if (!has(times)) return fail(fault('$', 'Say which column is the time.'))
    if (!has(figures)) return fail(fault('$', 'Say which column is watts, amps or energy.'))
    const { volts: V, powerFactor: PF } = typed
    const asked = needsVolts(typed.columns)
    if (asked && !(typeof V === 'number' && V > 0))
      return fail(fault('volts', 'must be a number above 0: amps alone make no watts'))
    if (asked && !(typeof PF === 'number' && PF > 0 && PF <= 1))
      return fail(fault('powerFactor', 'must be above 0 and at most 1'))
    return ok({
      ...typed,
      volts: typeof V === 'number' ? V : guess.format.volts,
      powerFactor: typeof PF === 'number' ? PF : 1,
    })
  }
  const sheet = useSheet<Typed, MeterFormat>({
    values: { ...guess.format, powerFactor: 1 },
    read,
    save: format => {
      onRead(format)
      return null
    },
  })
  const columns = useWatch({ control: sheet.form.control, name: 'columns' })
  return (
    <section aria-label="Columns">
      <Form sheet={sheet}>
        <h3>{name}: is it read right?</h3>
        {guess.unsure.map(u => (
          <Alert key={u}>{u}</Alert>
        ))}
        <DataTable
          label={`The first rows of ${name}`}
          rows={guess.sample}
          idOf={r => r.join('|')}
          sx={{ '& th': { minWidth: 130 } }}
          columns={columns.map((_, c) => ({
            head: (
              <>
                {guess.names[c] || `column ${c + 1}`}
                <ChoiceField name={`columns.${c}`} label={`Column ${c + 1}`} options={kinds} />
              </>
            ),
            cell: (r: readonly string[]) => r[c],
          }))}
        />
        <Columns>
          <ChoiceField
            name="decimal"
            label="Decimals"
            options={[
              { value: '.', label: 'point: 1.5' },
              { value: ',', label: 'comma: 1,5' },
            ]}
          />
          {columns.some(k => k === 'time' || k === 'date') && (
            <ChoiceField
              name="dateOrder"
              label="Dates"
              options={[
                { value: 'ymd', label: 'year first' },
                { value: 'mdy', label: 'month first' },
                { value: 'dmy', label: 'day first' },
              ]}
            />
          )}
          {needsVolts(columns) && (
            <>
              <NumberField name="volts" label="Volts" unit="V" />
              <NumberField name="powerFactor" label="Power factor" />
            </>
          )}
        </Columns>
        <OtherFaults />
        <Row>
          <Save>Read the file</Save>
        </Row>
      </Form>
    </section>
  )
}
