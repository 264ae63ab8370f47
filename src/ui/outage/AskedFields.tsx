import { ToggleButton, ToggleButtonGroup } from '@mui/material'
import * as z from 'zod'
import { conditionsOf, outageSchema } from '@/core/ask/outage-asked'
import { seasonSchema } from '@/core/loads/season'
import { readHour } from '@/core/outage/hours-text'
import { hourText, quantity } from '@/core/units/format'
import { Columns } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readNumber } from '../form/EditField'
import { useChosenUnits, useScale, useUnitChoice } from '../form/units'
import { useWorkspace } from '../workspace/store'

const usualHours = [8, 24, 36, 72, 96]
const { shape } = outageSchema

/** How long it has to last, what is kept back, and under which sky. */
export function AskedFields() {
  const outage = useWorkspace(s => s.job.outage)
  const act = useWorkspace(s => s.act)
  const set = (facts: Partial<typeof outage>, clear?: ('beginsH' | 'season' | 'outdoorC')[]) =>
    act({ op: 'setOutage', facts, ...(clear && { clear }) })
  const figure = (key: 'hours' | 'reserveFraction' | 'startFraction' | 'deratingFraction') => ({
    value: outage[key],
    schema: shape[key],
    onCommit: (value: number) => set({ [key]: value }),
  })
  const asked = useWorkspace(
    s => conditionsOf({ ...s.job, outage: { ...s.job.outage, season: undefined } }).season,
  )
  const { temperature, setTemperature } = useUnitChoice()
  const degrees = useScale('C')
  useChosenUnits()
  const readDegrees = (text: string) => {
    const got = readNumber(z.number())(text)
    if ('problem' in got) return got
    const parsed = shape.outdoorC.safeParse(Number(degrees.read(got.value).toPrecision(6)))
    return parsed.success
      ? { value: parsed.data ?? null }
      : { problem: `must be from ${degrees.shown(-50)} to ${degrees.shown(50)} ${degrees.symbol}` }
  }
  return (
    <Columns component="section" least={300} aria-label="What is asked">
      <div>
        <EditFigure label="Hours to last" unit="h" {...figure('hours')} />
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Usual lengths"
          value={outage.hours}
          onChange={(_, h: number | null) => h && set({ hours: h })}
          sx={{ mt: 1, flexWrap: 'wrap' }}
        >
          {usualHours.map(h => (
            <ToggleButton key={h} value={h}>
              {quantity(h, 'h')}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </div>
      <EditFigure
        label="Kept in reserve"
        percent
        help="Of the store, for the outage that lasts longer"
        {...figure('reserveFraction')}
      />
      <EditFigure label="Charge when it begins" percent {...figure('startFraction')} />
      <EditFigure
        label="Capacity left after cold and age"
        percent
        help="Below freezing, and after years, less"
        {...figure('deratingFraction')}
      />
      <EditField
        label="Begins at"
        value={outage.beginsH === undefined ? '' : hourText(outage.beginsH)}
        help="Hour of the day, such as 17 or 17:30; empty: any"
        read={readHour}
        onCommit={value => (value === null ? set({}, ['beginsH']) : set({ beginsH: value }))}
      />
      <Choice
        label="Season"
        value={outage.season ?? ''}
        options={[{ value: '', label: asked ? `as asked: ${asked}` : 'not said' }, ...seasonSchema.options]}
        onChange={value => {
          const season = seasonSchema.safeParse(value)
          if (season.success) set({ season: season.data })
          else set({}, ['season'])
        }}
      />
      <div>
        <EditField
          label="Coldest or hottest outdoors"
          value={
            outage.outdoorC === undefined ? '' : String(Number(degrees.shown(outage.outdoorC).toPrecision(6)))
          }
          unit={degrees.symbol}
          inputMode="decimal"
          help="Heating and cooling are scaled to it"
          read={text => (text.trim() === '' ? { value: null } : readDegrees(text))}
          onCommit={value => (value === null ? set({}, ['outdoorC']) : set({ outdoorC: value }))}
        />
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Degrees"
          value={temperature}
          onChange={(_, t: 'F' | 'C' | null) => t && setTemperature(t)}
          sx={{ mt: 1 }}
        >
          {(['F', 'C'] as const).map(t => (
            <ToggleButton key={t} value={t}>
              °{t}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </div>
    </Columns>
  )
}
