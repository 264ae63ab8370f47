import { Alert, Button, FormControl, FormLabel } from '@mui/material'
import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useFieldArray, useWatch } from 'react-hook-form'
import { changeTold, type LoadRow } from '@/core/assess/loads-overview'
import { patternDuty } from '@/core/loads/draw'
import { edited } from '@/core/loads/evidence'
import { type Load, loadSchema, patternSchema } from '@/core/loads/load'
import { parseWith } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { Columns, Quiet, Row } from '../common/pieces'
import { Check } from '../form/Check'
import { Form, OtherFaults, Save } from '../form/Form'
import { CheckField, ChoiceField, LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

type Kind = 'cycling' | 'continuous' | 'scheduled' | 'event'
const kinds = [
  { value: 'continuous', label: 'all the time' },
  { value: 'cycling', label: 'on and off by itself' },
  { value: 'scheduled', label: 'at certain hours' },
  { value: 'event', label: 'a few times a day' },
] as const
const dayChoices = ['every day', 'weekdays', 'weekends'] as const
const weathers = [
  { value: 'none', label: 'does not follow the weather' },
  { value: 'heating', label: 'more the colder it is' },
  { value: 'cooling', label: 'more the hotter it is' },
] as const
const tiers = [
  { value: 0, label: 'as its circuit' },
  { value: 1, label: 'must run' },
  { value: 2, label: 'should run' },
  { value: 3, label: 'may go' },
] as const

type Typed = number | string

const figure = (value: number | undefined): Typed => (value === undefined ? '' : Number(value.toPrecision(6)))

function typedOf(load: Load) {
  const p = load.pattern ?? {
    kind: load.dutyFraction.value === 1 ? ('continuous' as const) : ('cycling' as const),
  }
  const event = p.kind === 'event' ? p : null
  const scheduled = p.kind === 'scheduled' ? p : null
  return {
    pattern: {
      kind: p.kind as Kind,
      cycleMinutes: figure(p.kind === 'cycling' && 'cycleMinutes' in p ? p.cycleMinutes : undefined),
      spans: (scheduled?.spans ?? [{ fromH: 18, toH: 22 }]) as { fromH: Typed; toH: Typed }[],
      days: scheduled?.days ?? 'every day',
      timesPerDay: figure(event?.timesPerDay),
      minutes: figure(event?.minutes),
      fromH: figure(event?.fromH),
      toH: figure(event?.toH),
    },
    stages: (load.stages ?? []) as { W: Typed; shareFraction: Typed }[],
    sequence: (load.sequence ?? []) as { name: string; W: Typed; seconds: Typed }[],
    weather: { mode: load.weather?.mode ?? ('none' as const), balanceC: figure(load.weather?.balanceC) },
    dutyFraction: { atC: figure(load.dutyFraction.atC) },
    tier: load.tier ?? 0,
    deferrable: load.deferrable ?? false,
    notWith: load.notWith ?? [],
  }
}
type Values = ReturnType<typeof typedOf>

const given = (facts: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== ''))

function patternOf({ kind, cycleMinutes, spans, days, ...event }: Values['pattern']): unknown {
  if (kind === 'continuous') return { kind }
  if (kind === 'cycling') return { kind, ...given({ cycleMinutes }) }
  return kind === 'scheduled' ? { kind, days, spans: spans.map(given) } : { kind, ...given(event) }
}

/** When a load runs, at which levels, after which start sequence, in which weather; what it must not run with. */
export function PatternTab({ row, onClose }: { row: LoadRow; onClose: () => void }) {
  const { load, circuitId } = row
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const job = useWorkspace(s => s.job)
  const [told, setTold] = useState<string | null>(null)
  const others = job.panels.flatMap(p => p.circuits.flatMap(c => c.loads.filter(l => l.id !== load.id)))
  const metered = load.dutyFraction.from === 'metered'

  /** How long it runs by its pattern alone; null where the pattern does not say. */
  const dutyOf = (pattern: unknown) => {
    const checked = parseWith(patternSchema, pattern)
    return checked.ok ? patternDuty(checked.value) : null
  }
  const read = (typed: Values) => {
    const {
      stages: _,
      sequence: __,
      weather: ___,
      tier: ____,
      deferrable: _____,
      notWith: ______,
      ...rest
    } = load
    const { weather, stages, sequence, tier, deferrable, notWith } = typed
    const { atC } = typed.dutyFraction
    const pattern = patternOf(typed.pattern)
    const own = dutyOf(pattern)
    // a pattern that says how long it runs says it anew, unless a meter knows better
    const duty =
      own !== null && !metered
        ? edited(
            load.dutyFraction,
            own,
            load.dutyFraction.from === 'typical value' ? 'typical value' : 'assumed',
          )
        : load.dutyFraction
    const { atC: _was, ...plain } = duty
    return parseWith(loadSchema, {
      ...rest,
      dutyFraction: weather.mode === 'none' || atC === '' ? plain : { ...plain, atC },
      pattern,
      ...(stages.length && { stages: stages.map(given) }),
      ...(sequence.length && { sequence: sequence.map(given) }),
      ...(weather.mode !== 'none' && { weather: given(weather) }),
      ...(tier && { tier }),
      ...(deferrable && { deferrable }),
      ...(notWith.length && { notWith }),
    })
  }
  const sheet = useSheet<Values, Load>({
    values: typedOf(load),
    read,
    save: next => {
      const before = store.getState().job
      const refused = act({ op: 'putLoad', circuitId, load: next })
      if (!refused.length) setTold(changeTold(before, store.getState().job, load.id))
      return refused
    },
  })
  const { control, setValue } = sheet.form
  const typed = useWatch({ control }) as Values
  const { kind } = typed.pattern
  const own = dutyOf(patternOf(typed.pattern))
  return (
    <Form sheet={sheet}>
      <h3>Hours</h3>
      <Columns>
        <ChoiceField name="pattern.kind" label="It runs" options={kinds} />
        {kind === 'cycling' && (
          <NumberField name="pattern.cycleMinutes" label="From start to start" sign="min" />
        )}
        {kind === 'event' && (
          <>
            <NumberField name="pattern.timesPerDay" label="Times a day" />
            <NumberField name="pattern.minutes" label="Each time" sign="min" />
            <NumberField name="pattern.fromH" label="Not before" unit="h" help="hour of the day" />
            <NumberField name="pattern.toH" label="Not after" unit="h" help="hour of the day" />
          </>
        )}
        {kind === 'scheduled' && <ChoiceField name="pattern.days" label="On" options={dayChoices} />}
      </Columns>
      {kind === 'scheduled' && (
        <Rows name="pattern.spans" blank={{ fromH: 18, toH: 22 }} add="Another span" most={6}>
          {at => (
            <>
              <NumberField name={`${at}.fromH`} label="From" unit="h" />
              <NumberField name={`${at}.toH`} label="To" unit="h" />
            </>
          )}
        </Rows>
      )}
      {own !== null && (
        <Quiet>
          That is {quantity(own, 'fraction')} of the time
          {metered ? `; the meter’s ${quantity(load.dutyFraction.value, 'fraction')} stays in force.` : '.'}
        </Quiet>
      )}
      <h3>Levels</h3>
      <Quiet>
        Lower levels of a two-stage or variable load; the rest of its running time it draws{' '}
        {quantity(load.runningW.value, 'W')}.
      </Quiet>
      <Rows name="stages" blank={{ W: '', shareFraction: '' }} add="A lower level" most={4}>
        {at => (
          <>
            <NumberField name={`${at}.W`} label="Level" unit="W" />
            <NumberField name={`${at}.shareFraction`} label="Of the running time" unit="fraction" />
          </>
        )}
      </Rows>
      <h3>Before it runs</h3>
      <Rows name="sequence" blank={{ name: '', W: '', seconds: '' }} add="A step of the start" most={8}>
        {at => (
          <>
            <LineField name={`${at}.name`} label="Step" />
            <NumberField name={`${at}.W`} label="Draws" unit="W" />
            <NumberField name={`${at}.seconds`} label="For" unit="s" />
          </>
        )}
      </Rows>
      <h3>Weather</h3>
      <Columns>
        <ChoiceField name="weather.mode" label="Weather" options={weathers} />
        {typed.weather.mode !== 'none' && (
          <>
            <NumberField
              name="weather.balanceC"
              label="Needs none at"
              unit="C"
              help="outdoors, where the house holds itself"
            />
            <NumberField name="dutyFraction.atC" label="Its share was read at" unit="C" help="outdoors" />
          </>
        )}
      </Columns>
      <h3>Importance</h3>
      <Columns>
        <ChoiceField name="tier" label="This load" options={tiers} />
        <CheckField name="deferrable" label="Can wait some hours" />
      </Columns>
      {others.length > 0 && (
        <FormControl component="fieldset">
          <FormLabel component="legend">Must not run with</FormLabel>
          <Row spacing={0}>
            {others.map(o => (
              <Check
                key={o.id}
                label={o.name}
                checked={typed.notWith.includes(o.id)}
                onChange={checked =>
                  setValue(
                    'notWith',
                    checked ? [...typed.notWith, o.id] : typed.notWith.filter(i => i !== o.id),
                  )
                }
              />
            ))}
          </Row>
        </FormControl>
      )}
      <OtherFaults />
      {told && <Alert role="status">{told}</Alert>}
      <Row>
        <Save>Keep</Save>
        <Button
          color="error"
          onClick={() => {
            act({ op: 'removeLoad', circuitId, loadId: load.id })
            onClose()
          }}
        >
          Remove this load
        </Button>
      </Row>
    </Form>
  )
}

interface RowsProps {
  name: 'stages' | 'sequence' | 'pattern.spans'
  blank: object
  add: string
  most: number
  /** the fields of the row at this path */
  children: (at: string) => React.ReactNode
}

/** Rows of a form: added at the end, taken away one by one. */
function Rows({ name, blank, add, most, children }: RowsProps) {
  const { fields, append, remove } = useFieldArray({ name })
  return (
    <>
      {fields.map((row, n) => (
        <Columns key={row.id} least={170}>
          {children(`${name}.${n}`)}
          <Button
            size="small"
            startIcon={<Trash2 size={16} />}
            aria-label={`Take row ${n + 1} away`}
            onClick={() => remove(n)}
          >
            Take away
          </Button>
        </Columns>
      ))}
      {fields.length < most && (
        <Row>
          <Button size="small" startIcon={<Plus size={16} />} onClick={() => append(blank)}>
            {add}
          </Button>
        </Row>
      )}
    </>
  )
}
