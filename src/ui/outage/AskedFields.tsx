'use client'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useEffect } from 'react'
import * as z from 'zod'
import { seasonSchema } from '@/core/loads/season'
import { conditionsOf, outageSchema } from '@/core/outage/asked'
import { hourText, quantity } from '@/core/units/format'
import { Columns } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, readNumber } from '../form/EditField'
import { useScale, useUnitChoice } from '../form/units'
import { useWorkspace } from '../workspace/store'

const usualHours = [8, 24, 36, 72, 96]
const { hours, reserveFraction, startFraction, deratingFraction, outdoorC } = outageSchema.shape

/** 17, 17:30 or 5 pm as an hour of the day; nothing for any. */
function readHour(text: string): { value: number | null } | { problem: string } {
  if (text.trim() === '') return { value: null }
  const [, h = '', m = '0', half] = /^\s*(\d{1,2})(?::(\d{2}))?\s*(am|pm)?\s*$/i.exec(text) ?? []
  const hour = half ? (Number(h) % 12) + (half.toLowerCase() === 'pm' ? 12 : 0) : Number(h)
  return h === '' || hour > 23 || Number(m) > 59
    ? { problem: 'must be an hour of the day, such as 17 or 17:30' }
    : { value: hour + Number(m) / 60 }
}
const percent = (fraction: number) => String(Number((fraction * 100).toPrecision(12)))

/** A fraction's problem in per cent, as it is typed. */
const readPercent = (schema: typeof reserveFraction, low: number, high: number) => (text: string) => {
  const got = readNumber(schema, 0.01)(text)
  return 'problem' in got && got.problem.includes('fraction')
    ? { problem: `must be from ${low} to ${high} %` }
    : got
}

/** How long it has to last, what is kept back, and under which sky. */
export function AskedFields() {
  const outage = useWorkspace(s => s.job.outage)
  const act = useWorkspace(s => s.act)
  const set = (facts: Partial<typeof outage>, clear?: ('beginsH' | 'season' | 'outdoorC')[]) =>
    act({ op: 'setOutage', facts, ...(clear && { clear }) })
  const asked = useWorkspace(
    s => conditionsOf({ ...s.job, outage: { ...s.job.outage, season: undefined } }).season,
  )
  const { temperature, setTemperature } = useUnitChoice()
  const degrees = useScale('C')
  useEffect(() => {
    void useUnitChoice.persist.rehydrate()
  }, [])
  const readDegrees = (text: string) => {
    const got = readNumber(z.number())(text)
    if ('problem' in got) return got
    const parsed = outdoorC.safeParse(Number(degrees.read(got.value).toPrecision(6)))
    return parsed.success
      ? { value: parsed.data ?? null }
      : { problem: `must be from ${degrees.shown(-50)} to ${degrees.shown(50)} ${degrees.symbol}` }
  }
  return (
    <Columns component="section" least={300} aria-label="What is asked">
      <div>
        <EditField
          label="Hours to last"
          value={String(outage.hours)}
          unit="h"
          inputMode="decimal"
          read={readNumber(hours)}
          onCommit={value => set({ hours: value })}
        />
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
      <EditField
        label="Kept in reserve"
        value={percent(outage.reserveFraction)}
        unit="%"
        inputMode="decimal"
        help="Of the store, for the outage that lasts longer"
        read={readPercent(reserveFraction, 0, 90)}
        onCommit={value => set({ reserveFraction: value })}
      />
      <EditField
        label="Charge when it begins"
        value={percent(outage.startFraction)}
        unit="%"
        inputMode="decimal"
        read={readPercent(startFraction, 5, 100)}
        onCommit={value => set({ startFraction: value })}
      />
      <EditField
        label="Capacity left after cold and age"
        value={percent(outage.deratingFraction)}
        unit="%"
        inputMode="decimal"
        help="Below freezing, and after years, less"
        read={readPercent(deratingFraction, 30, 100)}
        onCommit={value => set({ deratingFraction: value })}
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
        options={[
          { value: '', label: asked ? `as asked: ${asked}` : 'not said' },
          ...seasonSchema.options.map(value => ({ value, label: value })),
        ]}
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
