'use client'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { Plus, Trash2 } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { changeTold, type LoadRow } from '@/core/job/loads-overview'
import { patternDuty } from '@/core/loads/draw'
import { edited } from '@/core/loads/evidence'
import { type Load, loadSchema, patternSchema } from '@/core/loads/load'
import { type Fault, parseWith } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { useScale } from '../bench/units'
import { Choice } from '../common/Choice'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { FormField, numberTyped, OtherFaults, temperatureTyped } from './fields'
import styles from './Loads.module.css'

type Kind = 'cycling' | 'continuous' | 'scheduled' | 'event'
const kinds = [
  { value: 'continuous', label: 'all the time' },
  { value: 'cycling', label: 'on and off by itself' },
  { value: 'scheduled', label: 'at certain hours' },
  { value: 'event', label: 'a few times a day' },
] as const
const dayChoices = [
  { value: 'every day', label: 'every day' },
  { value: 'weekdays', label: 'weekdays' },
  { value: 'weekends', label: 'weekends' },
] as const
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

interface Draft {
  kind: Kind
  cycleMinutes: string
  spans: { fromH: string; toH: string }[]
  days: 'every day' | 'weekdays' | 'weekends'
  timesPerDay: string
  minutes: string
  fromH: string
  toH: string
  stages: { W: string; percent: string }[]
  sequence: { name: string; W: string; seconds: string }[]
  weather: 'none' | 'heating' | 'cooling'
  balance: string
  at: string
  tier: 0 | 1 | 2 | 3
  deferrable: boolean
  notWith: string[]
}

const text = (value: number | undefined) => (value === undefined ? '' : String(Number(value.toPrecision(6))))

/** When a load runs, at which levels, after which start sequence, in which weather; what it must not run with. */
export function PatternTab({ row, onClose }: { row: LoadRow; onClose: () => void }) {
  const { load, circuitId } = row
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const job = useWorkspace(s => s.job)
  const degrees = useScale('C')
  const [draft, setDraft] = useState<Draft>(() => draftOf(load, c => degrees.shown(c)))
  const [faults, setFaults] = useState<Fault[]>([])
  const [told, setTold] = useState<string | null>(null)
  const put = (change: Partial<Draft>) => setDraft({ ...draft, ...change })
  const others = job.panels.flatMap(p => p.circuits.flatMap(c => c.loads.filter(l => l.id !== load.id)))

  const pattern = patternOf(draft)
  const checked = parseWith(patternSchema, pattern)
  const own = checked.ok ? patternDuty(checked.value) : null
  const metered = load.dutyFraction.from === 'metered'
  const made = (): unknown => {
    const {
      stages: _,
      sequence: __,
      weather: ___,
      tier: ____,
      deferrable: _____,
      notWith: ______,
      ...rest
    } = load
    const atC = temperatureTyped(draft.at, degrees)
    const balanceC = temperatureTyped(draft.balance, degrees)
    const stages = draft.stages.map(s => ({ W: numberTyped(s.W), shareFraction: percent(s.percent) }))
    const sequence = draft.sequence.map(s => ({
      name: s.name,
      W: numberTyped(s.W),
      seconds: numberTyped(s.seconds),
    }))
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
    return {
      ...rest,
      dutyFraction: draft.weather === 'none' || atC === undefined ? plain : { ...plain, atC },
      pattern,
      ...(stages.length && { stages }),
      ...(sequence.length && { sequence }),
      ...(draft.weather !== 'none' && { weather: { mode: draft.weather, balanceC } }),
      ...(draft.tier && { tier: draft.tier }),
      ...(draft.deferrable && { deferrable: true }),
      ...(draft.notWith.length && { notWith: draft.notWith }),
    }
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const parsed = parseWith(loadSchema, made())
    if (!parsed.ok) return setFaults(parsed.faults)
    const before = store.getState().job
    const refused = act({ op: 'putLoad', circuitId, load: parsed.value })
    setFaults(refused)
    if (!refused.length) setTold(changeTold(before, store.getState().job, load.id))
  }
  const field = (
    label: string,
    value: string,
    path: string,
    onChange: (text: string) => void,
    unit?: string,
    help?: string,
  ) => (
    <FormField
      label={label}
      value={value}
      path={path}
      faults={faults}
      onChange={onChange}
      {...(unit && { unit })}
      {...(help && { help })}
    />
  )
  return (
    <form className={styles.form} onSubmit={submit} noValidate>
      <h3>Hours</h3>
      <div className={styles.fields}>
        <Choice label="It runs" value={draft.kind} options={kinds} onChange={kind => put({ kind })} />
        {draft.kind === 'cycling' &&
          field(
            'From start to start',
            draft.cycleMinutes,
            'pattern.cycleMinutes',
            cycleMinutes => put({ cycleMinutes }),
            'min',
          )}
        {draft.kind === 'event' && (
          <>
            {field('Times a day', draft.timesPerDay, 'pattern.timesPerDay', timesPerDay =>
              put({ timesPerDay }),
            )}
            {field('Each time', draft.minutes, 'pattern.minutes', minutes => put({ minutes }), 'min')}
            {field(
              'Not before',
              draft.fromH,
              'pattern.fromH',
              fromH => put({ fromH }),
              'h',
              'hour of the day',
            )}
            {field('Not after', draft.toH, 'pattern.toH', toH => put({ toH }), 'h', 'hour of the day')}
          </>
        )}
        {draft.kind === 'scheduled' && (
          <Choice label="On" value={draft.days} options={dayChoices} onChange={days => put({ days })} />
        )}
      </div>
      {draft.kind === 'scheduled' && (
        <Rows
          rows={draft.spans}
          blank={{ fromH: '18', toH: '22' }}
          add="Another span"
          most={6}
          onChange={spans => put({ spans })}
          draw={(s, n, set) => (
            <>
              {field('From', s.fromH, `pattern.spans[${n}].fromH`, fromH => set({ ...s, fromH }), 'h')}
              {field('To', s.toH, `pattern.spans[${n}].toH`, toH => set({ ...s, toH }), 'h')}
            </>
          )}
        />
      )}
      {own !== null && (
        <p className={styles.quiet}>
          That is {quantity(own, 'fraction')} of the time
          {metered ? `; the meter’s ${quantity(load.dutyFraction.value, 'fraction')} stays in force.` : '.'}
        </p>
      )}
      <h3>Levels</h3>
      <p className={styles.quiet}>
        Lower levels of a two-stage or variable load; the rest of its running time it draws{' '}
        {quantity(load.runningW.value, 'W')}.
      </p>
      <Rows
        rows={draft.stages}
        blank={{ W: '', percent: '' }}
        add="A lower level"
        most={4}
        onChange={stages => put({ stages })}
        draw={(s, n, set) => (
          <>
            {field('Level', s.W, `stages[${n}].W`, W => set({ ...s, W }), 'W')}
            {field(
              'Of the running time',
              s.percent,
              `stages[${n}].shareFraction`,
              next => set({ ...s, percent: next }),
              '%',
            )}
          </>
        )}
      />
      <h3>Before it runs</h3>
      <Rows
        rows={draft.sequence}
        blank={{ name: '', W: '', seconds: '' }}
        add="A step of the start"
        most={8}
        onChange={sequence => put({ sequence })}
        draw={(s, n, set) => (
          <>
            <FormField
              label="Step"
              type="text"
              value={s.name}
              path={`sequence[${n}].name`}
              faults={faults}
              onChange={name => set({ ...s, name })}
            />
            {field('Draws', s.W, `sequence[${n}].W`, W => set({ ...s, W }), 'W')}
            {field('For', s.seconds, `sequence[${n}].seconds`, seconds => set({ ...s, seconds }), 's')}
          </>
        )}
      />
      <h3>Weather</h3>
      <div className={styles.fields}>
        <Choice
          label="Weather"
          value={draft.weather}
          options={weathers}
          onChange={weather => put({ weather })}
        />
        {draft.weather !== 'none' && (
          <>
            {field(
              'Needs none at',
              draft.balance,
              'weather.balanceC',
              balance => put({ balance }),
              degrees.symbol,
              'outdoors, where the house holds itself',
            )}
            {field(
              'Its share was read at',
              draft.at,
              'dutyFraction.atC',
              at => put({ at }),
              degrees.symbol,
              'outdoors',
            )}
          </>
        )}
      </div>
      <h3>Importance</h3>
      <div className={styles.fields}>
        <Choice label="This load" value={draft.tier} options={tiers} onChange={tier => put({ tier })} />
        <FormControlLabel
          control={
            <Checkbox checked={draft.deferrable} onChange={e => put({ deferrable: e.target.checked })} />
          }
          label="Can wait some hours"
        />
      </div>
      {others.length > 0 && (
        <fieldset className={styles.wide}>
          <legend>Must not run with</legend>
          {others.map(o => (
            <FormControlLabel
              key={o.id}
              control={
                <Checkbox
                  size="small"
                  checked={draft.notWith.includes(o.id)}
                  onChange={e =>
                    put({
                      notWith: e.target.checked
                        ? [...draft.notWith, o.id]
                        : draft.notWith.filter(i => i !== o.id),
                    })
                  }
                />
              }
              label={o.name}
            />
          ))}
        </fieldset>
      )}
      <OtherFaults
        faults={faults}
        shown={['pattern', 'stages[', 'sequence', 'weather', 'dutyFraction.atC']}
      />
      {told && (
        <p className={styles.told} role="status">
          {told}
        </p>
      )}
      <div className={styles.tools}>
        <Button type="submit" variant="contained">
          Keep
        </Button>
        <Button
          color="error"
          onClick={() => {
            act({ op: 'removeLoad', circuitId, loadId: load.id })
            onClose()
          }}
        >
          Remove this load
        </Button>
      </div>
    </form>
  )
}

const percent = (typed: string) => {
  const value = numberTyped(typed)
  return typeof value === 'number' ? Number((value / 100).toPrecision(12)) : value
}

function patternOf(d: Draft): unknown {
  const optional = (key: string, typed: string) => (typed.trim() ? { [key]: numberTyped(typed) } : {})
  if (d.kind === 'continuous') return { kind: 'continuous' }
  if (d.kind === 'cycling') return { kind: 'cycling', ...optional('cycleMinutes', d.cycleMinutes) }
  if (d.kind === 'scheduled')
    return {
      kind: 'scheduled',
      days: d.days,
      spans: d.spans.map(s => ({ fromH: numberTyped(s.fromH), toH: numberTyped(s.toH) })),
    }
  return {
    kind: 'event',
    timesPerDay: numberTyped(d.timesPerDay),
    minutes: numberTyped(d.minutes),
    ...optional('fromH', d.fromH),
    ...optional('toH', d.toH),
  }
}

function draftOf(load: Load, shown: (c: number) => number): Draft {
  const p = load.pattern ?? {
    kind: load.dutyFraction.value === 1 ? ('continuous' as const) : ('cycling' as const),
  }
  const event = p.kind === 'event' ? p : null
  const scheduled = p.kind === 'scheduled' ? p : null
  return {
    kind: p.kind,
    cycleMinutes: text(p.kind === 'cycling' && 'cycleMinutes' in p ? p.cycleMinutes : undefined),
    spans: scheduled?.spans.map(s => ({ fromH: text(s.fromH), toH: text(s.toH) })) ?? [
      { fromH: '18', toH: '22' },
    ],
    days: scheduled?.days ?? 'every day',
    timesPerDay: text(event?.timesPerDay),
    minutes: text(event?.minutes),
    fromH: text(event?.fromH),
    toH: text(event?.toH),
    stages: load.stages?.map(s => ({ W: text(s.W), percent: text(100 * s.shareFraction) })) ?? [],
    sequence: load.sequence?.map(s => ({ name: s.name, W: text(s.W), seconds: text(s.seconds) })) ?? [],
    weather: load.weather?.mode ?? 'none',
    balance: text(load.weather ? shown(load.weather.balanceC) : undefined),
    at: text(load.dutyFraction.atC === undefined ? undefined : shown(load.dutyFraction.atC)),
    tier: load.tier ?? 0,
    deferrable: load.deferrable ?? false,
    notWith: load.notWith ?? [],
  }
}

/** Rows of a form: added at the end, taken away one by one. */
function Rows<T>({
  rows,
  blank,
  add,
  most,
  onChange,
  draw,
}: {
  rows: T[]
  blank: T
  add: string
  most: number
  onChange: (rows: T[]) => void
  draw: (row: T, n: number, set: (row: T) => void) => React.ReactNode
}) {
  return (
    <>
      {rows.map((r, n) => (
        // rows have no name of their own, and every field is given its text
        // biome-ignore lint/suspicious/noArrayIndexKey: told by their place
        <div key={n} className={styles.fields}>
          {draw(r, n, next => onChange(rows.map((o, i) => (i === n ? next : o))))}
          <Button
            size="small"
            startIcon={<Trash2 size={16} />}
            aria-label={`Take row ${n + 1} away`}
            onClick={() => onChange(rows.filter((_, i) => i !== n))}
          >
            Take away
          </Button>
        </div>
      ))}
      {rows.length < most && (
        <div className={styles.tools}>
          <Button size="small" startIcon={<Plus size={16} />} onClick={() => onChange([...rows, blank])}>
            {add}
          </Button>
        </div>
      )}
    </>
  )
}
