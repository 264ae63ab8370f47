'use client'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { type ColumnKind, columnKinds, type Guess, type MeterFormat } from '@/core/formats/meter-csv'
import { Choice } from '../common/Choice'
import { FormField, numberTyped } from './fields'
import styles from './Loads.module.css'

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
  const [format, setFormat] = useState(guess.format)
  const [volts, setVolts] = useState(String(guess.format.volts))
  const [factor, setFactor] = useState('1')
  const has = (wanted: readonly ColumnKind[]) => format.columns.some(k => wanted.includes(k))
  const needsVolts = has(['A']) && !has(['W', 'kW', 'VA', 'V'])
  const V = numberTyped(volts)
  const PF = numberTyped(factor)
  const problem = !has(times)
    ? 'Say which column is the time.'
    : !has(figures)
      ? 'Say which column is watts, amps or energy.'
      : needsVolts && !(typeof V === 'number' && V > 0)
        ? 'Volts must be a number above 0: amps alone make no watts.'
        : needsVolts && !(typeof PF === 'number' && PF > 0 && PF <= 1)
          ? 'The power factor must be above 0 and at most 1.'
          : null
  return (
    <section className={styles.form} aria-label="Columns">
      <h3>{name}: is it read right?</h3>
      {guess.unsure.map(u => (
        <p key={u} className={styles.told}>
          {u}
        </p>
      ))}
      <div className={styles.scroll}>
        <table className={styles.table}>
          <thead>
            <tr>
              {format.columns.map((kind, c) => (
                // columns are told by their place
                // biome-ignore lint/suspicious/noArrayIndexKey: columns never change their order
                <th key={c} scope="col">
                  {guess.names[c] || `column ${c + 1}`}
                  <div>
                    <Choice
                      label={`Column ${c + 1}`}
                      value={kind}
                      options={kinds}
                      onChange={next =>
                        setFormat({ ...format, columns: format.columns.map((k, i) => (i === c ? next : k)) })
                      }
                    />
                  </div>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {guess.sample.map(r => (
              <tr key={r.join('|')}>
                {r.map((cell, c) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: columns never change their order
                  <td key={c}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className={styles.fields}>
        <Choice
          label="Decimals"
          value={format.decimal}
          options={[
            { value: '.', label: 'point: 1.5' },
            { value: ',', label: 'comma: 1,5' },
          ]}
          onChange={decimal => setFormat({ ...format, decimal })}
        />
        {has(['time', 'date']) && (
          <Choice
            label="Dates"
            value={format.dateOrder}
            options={[
              { value: 'ymd', label: 'year first' },
              { value: 'mdy', label: 'month first' },
              { value: 'dmy', label: 'day first' },
            ]}
            onChange={dateOrder => setFormat({ ...format, dateOrder })}
          />
        )}
        {needsVolts && (
          <>
            <FormField label="Volts" unit="V" value={volts} faults={[]} path="volts" onChange={setVolts} />
            <FormField
              label="Power factor"
              value={factor}
              faults={[]}
              path="powerFactor"
              onChange={setFactor}
            />
          </>
        )}
      </div>
      {problem && <p role="alert">{problem}</p>}
      <div className={styles.tools}>
        <Button
          variant="contained"
          disabled={problem !== null}
          onClick={() =>
            onRead({
              ...format,
              volts: typeof V === 'number' ? V : format.volts,
              powerFactor: typeof PF === 'number' ? PF : 1,
            })
          }
        >
          Read the file
        </Button>
      </div>
    </section>
  )
}
