import { Alert } from '@mui/material'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { changeTold, type LoadRow } from '@/core/assess/loads-overview'
import { type Plate, plateSchema } from '@/core/loads/nameplate'
import { type PlateKey, plateKeys, plateUnits } from '@/core/loads/plate'
import { derivation } from '@/core/loads/plate-figures'
import { plateIn } from '@/core/loads/plate-text'
import { fail, fault, type Outcome, parseWith } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults, Save } from '../form/Form'
import { LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

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

type Values = Record<PlateKey, number | string> & { text: string }

const typedOf = (plate: Plate, kept?: Values): Values => ({
  ...(Object.fromEntries(
    plateKeys.map(k => {
      const value = plate[k] ?? kept?.[k] ?? ''
      return [k, typeof value === 'number' ? Number(value.toPrecision(4)) : value]
    }),
  ) as Record<PlateKey, number | string>),
  text: kept?.text ?? plate.text ?? '',
})

/** The nameplate as it is printed, or field by field; what it comes to stands beside it before it is taken. */
export function PlateTab({ row }: { row: LoadRow }) {
  const { load, circuitId, volts } = row
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const [told, setTold] = useState<string | null>(null)
  const read = ({ text, ...figures }: Values): Outcome<Plate> => {
    const given = Object.entries(figures).filter(([, value]) => value !== '')
    if (!given.length) return fail(fault('$', 'Enter at least one figure of the plate.'))
    return parseWith(plateSchema, {
      ...Object.fromEntries(
        given.map(([k, v]) => [k, k === 'codeLetter' ? String(v).trim().toUpperCase() : v]),
      ),
      ...(text.trim() && { text: text.trim() }),
    })
  }
  const sheet = useSheet<Values, Plate>({
    values: typedOf(load.plate ?? {}),
    keep: `spillway.plate.${load.id}`,
    read,
    save: plate => {
      const before = store.getState().job
      const refused = act({
        op: 'takePlate',
        circuitId,
        loadId: load.id,
        newLoadId: load.id,
        name: load.name,
        plate,
        on: today(),
      })
      if (!refused.length) setTold(changeTold(before, store.getState().job, load.id))
      return refused
    },
  })
  const { control, getValues, reset } = sheet.form
  const parsed = read(useWatch({ control }) as Values)
  const reading = parsed.ok ? derivation(parsed.value, volts) : null
  const find = () => {
    const now = getValues()
    reset(typedOf(plateIn(now.text), now), { keepDefaultValues: true })
  }
  const lines = reading && [
    ['Running', reading.runningW, 'W'] as const,
    ['Running, apparent', reading.runningVA, 'VA'] as const,
    ['Running current', reading.runningA, 'A'] as const,
    ['Power factor', reading.powerFactor, 'fraction'] as const,
    ['Locked rotor', reading.lockedRotorA, 'A'] as const,
  ]
  return (
    <Form sheet={sheet}>
      <LineField
        name="text"
        label="As printed"
        placeholder="115 V 60 Hz 1 PH, RLA 7.8, LRA 38, MCA 10.4, MAX FUSE 15"
        help="Type it as it stands there: the figures are found in it"
        most={400}
        onDone={find}
      />
      <Columns least={170}>
        {plateKeys.map(key =>
          key === 'codeLetter' ? (
            <LineField key={key} name={key} label={labels[key]} />
          ) : (
            <NumberField
              key={key}
              name={key}
              label={labels[key]}
              sign={bare.includes(key) ? undefined : unitOf(key)}
              odd={reading?.impossible.find(i => i.key === key)?.message}
            />
          ),
        )}
      </Columns>
      {lines && (
        <section aria-label="What it comes to">
          <h3>What it comes to</h3>
          <DataTable
            label="What the plate comes to"
            rows={lines.filter(([, got]) => got)}
            columns={[
              { head: '', names: true, cell: ([label]) => label },
              { head: '', figure: true, cell: ([, got, unit]) => got && quantity(got.value, unit) },
              { head: '', cell: ([, got]) => <Quiet>{got?.how}</Quiet> },
            ]}
          />
          {reading.notes.map(n => (
            <Quiet key={n}>{n}</Quiet>
          ))}
        </section>
      )}
      <OtherFaults />
      {told && <Alert role="status">{told}</Alert>}
      <Row>
        <Save>Take the nameplate</Save>
        {load.plate && <Quiet component="span">read on {load.plate.on}</Quiet>}
      </Row>
    </Form>
  )
}
