import { Button } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { type Load, loadSchema } from '@/core/loads/load'
import { asTyped, loadOf, typedOf } from '@/core/loads/load-typed'
import { motorTypes } from '@/core/loads/motor-types'
import { fail, parseWith } from '@/core/outcome'
import { origins } from '@/core/working'
import { Columns } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { CheckField, ChoiceField, LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { natures } from '../loads/natures'
import { useWorkspace } from '../workspace/store'

const fromOptions = origins.map(value => ({ value, label: value === 'job' ? 'set on this job' : value }))
const startMethods = [
  { value: 'none', label: 'none to speak of, or not known' },
  { value: 'inrush', label: 'measured inrush (A)' },
  { value: 'locked-rotor', label: 'locked-rotor amps (A)' },
  { value: 'multiple', label: 'a multiple of running' },
] as const

interface Props {
  circuitId: string
  load: Load | null
  onClose: () => void
}

export function LoadDialog({ circuitId, load, onClose }: Props) {
  const act = useWorkspace(s => s.act)
  const sheet = useSheet({
    values: typedOf(load),
    read: typed => {
      const got = parseWith(loadSchema, loadOf(typed, load, load?.id ?? crypto.randomUUID()))
      return got.ok ? got : fail(...got.faults.map(asTyped))
    },
    save: next => act({ op: 'putLoad', circuitId, load: next }),
    done: onClose,
  })
  const [nature, method] = useWatch({ control: sheet.form.control, name: ['nature', 'method'] })
  const remove = () => {
    if (load) act({ op: 'removeLoad', circuitId, loadId: load.id })
    onClose()
  }
  return (
    <FormDialog
      sheet={sheet}
      title={load ? load.name : 'Add a load'}
      save="Keep"
      onClose={onClose}
      maxWidth="sm"
      extra={
        load && (
          <Button color="error" onClick={remove}>
            Remove
          </Button>
        )
      }
    >
      <LineField name="name" label="Name" autoFocus />
      <Columns least={250}>
        <NumberField name="runningW.value" label="Running" unit="W" />
        <ChoiceField name="runningW.from" label="Running, from" options={fromOptions} />
        <NumberField name="dutyFraction.value" label="Runs" unit="fraction" sign="% of the time" />
        <ChoiceField name="dutyFraction.from" label="Share of time, from" options={fromOptions} />
        <NumberField name="powerFactor.value" label="Power factor" />
        <NumberField name="idleW.value" label="Idle" unit="W" />
        <ChoiceField name="nature" label="Motor" options={natures} />
        {nature !== 'plain' && (
          <ChoiceField
            name="motorType"
            label="Which motor"
            options={[
              { value: '', label: 'not said' },
              ...motorTypes.map(value => ({ value, label: value === 'unknown' ? 'not known' : value })),
            ]}
            help="a soft starter suits compressors and three-wire motors"
          />
        )}
        <ChoiceField
          name="connection"
          label="Connected"
          options={[
            { value: '', label: 'not said' },
            { value: 'plug', label: 'by a plug' },
            { value: 'hard-wired', label: 'wired in' },
            { value: 'unknown', label: 'not known' },
          ]}
        />
        <ChoiceField name="method" label="Start" options={startMethods} />
        {method !== 'none' && (
          <>
            <NumberField name="start.value" label="Start figure" sign={method === 'multiple' ? '×' : 'A'} />
            <ChoiceField name="start.from" label="Start, from" options={fromOptions} />
          </>
        )}
      </Columns>
      <CheckField name="byHand" label="Switched by a person, one such load at a time" />
      <CheckField name="needsBond" label="A burner that proves its flame through ground" />
    </FormDialog>
  )
}
