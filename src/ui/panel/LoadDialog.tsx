import { Button } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { edited } from '@/core/loads/evidence'
import { type Figure, type Load, loadSchema, motorTypes, startFigure } from '@/core/loads/load'
import { type Fault, fail, parseWith } from '@/core/outcome'
import { type Origin, origins } from '@/core/working'
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
type StartMethod = (typeof startMethods)[number]['value']

/** What stands in the fields, named as the load names it; a figure that was not given is empty. */
function typedOf(load: Load | null) {
  const { start } = load ?? {}
  const given = start && startFigure(start)
  return {
    name: load?.name ?? '',
    runningW: { value: load?.runningW.value ?? ('' as Typed), from: load?.runningW.from ?? 'nameplate' },
    powerFactor: { value: (load?.powerFactor.value ?? 1) as Typed },
    dutyFraction: {
      value: (load?.dutyFraction.value ?? 1) as Typed,
      from: load?.dutyFraction.from ?? 'assumed',
    },
    idleW: { value: (load?.idleW.value ?? 0) as Typed },
    nature: load?.nature ?? 'plain',
    motorType: load?.motorType ?? '',
    connection: load?.connection ?? '',
    method: start?.method ?? ('none' as StartMethod),
    start: { value: given?.value ?? ('' as Typed), from: given?.from ?? 'nameplate' },
    byHand: load?.byHand ?? false,
    needsBond: load?.needsBond ?? false,
  }
}
type Typed = number | string
type Values = ReturnType<typeof typedOf>

const figureKeys = { inrush: 'inrushA', 'locked-rotor': 'lockedRotorA', multiple: 'multiple' } as const

function loadOf(typed: Values, was: Load | null): unknown {
  const kept = (figure: Figure | undefined, { value, from }: { value: Typed; from: Origin }) =>
    figure && typeof value === 'number' ? edited(figure, value, from) : { value, from }
  const { method, motorType, connection, start: given, ...facts } = typed
  const known = was?.start && startFigure(was.start)
  const same = was?.start?.method === method && known?.value === given.value && known.from === given.from
  const start = same
    ? was?.start
    : method !== 'none' && {
        method,
        [figureKeys[method]]: given,
        ...(method === 'locked-rotor' &&
          was?.start?.method === 'locked-rotor' &&
          was.start.softStartFraction && { softStartFraction: was.start.softStartFraction }),
      }
  const { start: _, motorType: __, connection: ___, ...rest } = was ?? {}
  return {
    ...rest,
    ...facts,
    id: was?.id ?? crypto.randomUUID(),
    runningW: kept(was?.runningW, facts.runningW),
    powerFactor: kept(was?.powerFactor, {
      ...facts.powerFactor,
      from: was?.powerFactor.from ?? 'typical value',
    }),
    dutyFraction: kept(was?.dutyFraction, facts.dutyFraction),
    idleW: kept(was?.idleW, { ...facts.idleW, from: was?.idleW.from ?? 'assumed' }),
    ...(motorType && facts.nature !== 'plain' && { motorType }),
    ...(connection && { connection }),
    ...(start && { start }),
  }
}

/** Where a fault of the start stands in the form: its figure, whichever way it was given. */
const asTyped = (fault: Fault): Fault =>
  /^start\b/.test(fault.path) ? { ...fault, path: 'start.value' } : fault

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
      const got = parseWith(loadSchema, loadOf(typed, load))
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
