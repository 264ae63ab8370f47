import { useWatch } from 'react-hook-form'
import { changeTold, type LoadRow } from '@/core/assess/loads-overview'
import { startSchema } from '@/core/loads/load'
import { start } from '@/core/loads/start'
import { parseWith } from '@/core/outcome'
import { Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults, Save } from '../form/Form'
import { DayField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { Told } from './Told'

/** A clamp meter with inrush hold: the highest current of a start from rest. */
export function ClampForm({ row, onTold }: { row: LoadRow; onTold: (told: string) => void }) {
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const { load, circuitId, volts } = row
  const read = ({ inrushA }: { inrushA: { value: number | string; on: string } }) =>
    parseWith(startSchema, {
      method: 'inrush',
      inrushA: {
        ...(inrushA.value !== '' && { value: inrushA.value }),
        from: 'metered',
        ...(inrushA.on && { on: inrushA.on }),
        document: 'clamp meter, inrush hold',
      },
    })
  const sheet = useSheet({
    values: { inrushA: { value: '' as number | string, on: today() } },
    keep: `spillway.clamp.${load.id}`,
    read,
    save: measured => {
      const before = store.getState().job
      const refused = act({ op: 'takeStart', circuitId, loadId: load.id, start: measured })
      if (!refused.length) onTold(changeTold(before, store.getState().job, load.id))
      return refused
    },
  })
  const amps = useWatch({ control: sheet.form.control, name: 'inrushA.value' })
  const said =
    typeof amps === 'number' && amps > 0 ? start.compute({ method: 'inrush', inrushA: amps, volts }) : null
  return (
    <Form sheet={sheet}>
      <Quiet>
        Around the hot alone, inrush hold on, from rest: after minutes of standing still for a compressor.
        Several starts; enter the highest.
      </Quiet>
      <Columns>
        <NumberField name="inrushA.value" label="Highest inrush" unit="A" autoFocus />
        <DayField name="inrushA.on" label="Date" />
      </Columns>
      <OtherFaults />
      <Told said={said} />
      <Row>
        <Save>Take the inrush</Save>
      </Row>
    </Form>
  )
}
