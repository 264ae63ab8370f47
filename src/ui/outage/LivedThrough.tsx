'use client'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { methodOf } from '@/core/hookup/method'
import { outageSchema } from '@/core/outage/asked'
import { type Shedding, sheddingPolicies, usualShedding } from '@/core/outage/shedding'
import { within } from '@/core/quantity'
import { FileButton } from '../common/FileButton'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, readNumber } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { useWeatherFile } from './useWeatherFile'

const { latitudeDeg, restartMinutes } = outageSchema.shape
const policyNames: Record<Shedding['policy'], string> = {
  none: 'never',
  'by tier': 'by tier, as the store falls',
  'by schedule': 'by schedule: tiers 2 and 3 at set hours only',
  'by hand': 'by hand, when somebody looks',
}
const percent = (fraction: number) => String(Number((fraction * 100).toPrecision(6)))
const hoursText = (hours: readonly number[]) => hours.join(', ')

function readPercent(text: string): { value: number | null } | { problem: string } {
  if (text.trim() === '') return { value: null }
  return readNumber(within(0, 1, '(0 to 100 %)'), 0.01)(text, '%')
}

function readHours(text: string): { value: number[] } | { problem: string } {
  const hours = text
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map(Number)
  return hours.length > 0 && hours.length <= 12 && hours.every(h => h >= 0 && h < 24)
    ? { value: hours }
    : { problem: 'must be one to twelve hours of the day, such as 7, 12, 18' }
}

/** Spans as people write them: 6-9, 17-22. */
function readSpans(text: string): { value: { fromH: number; toH: number }[] } | { problem: string } {
  const spans = text
    .split(/[,;]+/)
    .map(s => /^\s*(\d{1,2}(?:\.\d+)?)\s*(?:-|–|to)\s*(\d{1,2}(?:\.\d+)?)\s*$/.exec(s))
    .map(m => (m ? { fromH: Number(m[1]), toH: Number(m[2]) } : null))
  return spans.length > 0 && spans.length <= 6 && spans.every(s => s && s.fromH <= 24 && s.toH <= 24)
    ? { value: spans.filter(s => s !== null) }
    : { problem: 'must be one to six spans of hours, such as 6-9, 17-22' }
}

/** How the outage is lived through: what is let go, who resets, and under which sky. */
export function LivedThrough() {
  const outage = useWorkspace(s => s.job.outage)
  const sheds = useWorkspace(s => Boolean(methodOf(s.job.hookup.method).sheds))
  const act = useWorkspace(s => s.act)
  const set = (
    facts: Partial<typeof outage>,
    clear?: ('latitudeDeg' | 'cloudFraction' | 'heedFraction' | 'restartMinutes' | 'weather' | 'shedding')[],
  ) => act({ op: 'setOutage', facts, ...(clear && { clear }) })
  const shedding: Shedding = outage.shedding ?? { policy: sheds ? 'by tier' : 'none' }
  const shed = (facts: Partial<Shedding>) => set({ shedding: { ...shedding, ...facts } })
  const [said, setSaid] = useState<string | null>(null)
  const { read, busy } = useWeatherFile()
  const take = async (chosen: File) => {
    const got = await read(chosen)
    if (!got.ok) return setSaid(got.message)
    const faults = set({ weather: got.year })
    setSaid(faults.length ? faults.map(f => f.message).join('; ') : got.notes.join(' '))
  }
  return (
    <Card id="lived-through" title="How it is lived through">
      <Columns least={300}>
        <Choice
          label="Circuits are let go"
          value={shedding.policy}
          options={sheddingPolicies.map(value => ({ value, label: policyNames[value] }))}
          onChange={policy => shed({ policy })}
          help={
            sheds
              ? 'The managed panel lets them go by itself'
              : 'Without a managed panel somebody has to do it'
          }
        />
        {shedding.policy === 'by tier' && (
          <>
            <EditField
              label="“May go” off below"
              value={percent(shedding.tier3BelowFraction ?? usualShedding.tier3BelowFraction)}
              unit="%"
              inputMode="decimal"
              read={readPercent}
              onCommit={value => shed({ tier3BelowFraction: value ?? undefined })}
            />
            <EditField
              label="“Should run” off below"
              value={percent(shedding.tier2BelowFraction ?? usualShedding.tier2BelowFraction)}
              unit="%"
              inputMode="decimal"
              read={readPercent}
              onCommit={value => shed({ tier2BelowFraction: value ?? undefined })}
            />
          </>
        )}
        {shedding.policy === 'by hand' && (
          <EditField
            label="Somebody looks at"
            value={hoursText(shedding.atH ?? usualShedding.atH)}
            help="Hours of the day"
            read={readHours}
            onCommit={atH => shed({ atH })}
          />
        )}
        {shedding.policy === 'by schedule' && (
          <EditField
            label="Tiers 2 and 3 are on"
            value={(shedding.spans ?? usualShedding.spans).map(s => `${s.fromH}-${s.toH}`).join(', ')}
            help="Spans of hours, such as 6-9, 17-22"
            read={readSpans}
            onCommit={spans => shed({ spans })}
          />
        )}
        <EditField
          label="Large loads wait for each other"
          value={outage.heedFraction === undefined ? '' : percent(outage.heedFraction)}
          unit="%"
          inputMode="decimal"
          help="Of the times people switch one on; empty: 90 %"
          read={readPercent}
          onCommit={value => (value === null ? set({}, ['heedFraction']) : set({ heedFraction: value }))}
        />
        <EditField
          label="Until somebody has reset a trip"
          value={outage.restartMinutes === undefined ? '' : String(outage.restartMinutes)}
          unit="min"
          inputMode="decimal"
          help="Empty: by whether somebody is at home"
          read={text => (text.trim() === '' ? { value: null } : readNumber(restartMinutes.unwrap())(text))}
          onCommit={value => (value === null ? set({}, ['restartMinutes']) : set({ restartMinutes: value }))}
        />
        <EditField
          label="Latitude"
          value={outage.latitudeDeg === undefined ? '' : String(outage.latitudeDeg)}
          unit="° north"
          inputMode="decimal"
          help={outage.weather ? 'The weather file has its own' : 'For the sun; empty: 41°'}
          read={text => (text.trim() === '' ? { value: null } : readNumber(latitudeDeg.unwrap())(text))}
          onCommit={value => (value === null ? set({}, ['latitudeDeg']) : set({ latitudeDeg: value }))}
        />
        <EditField
          label="Sky that is cloudy"
          value={outage.cloudFraction === undefined ? '' : percent(outage.cloudFraction)}
          unit="%"
          inputMode="decimal"
          help={outage.weather ? 'The weather file has its own' : 'Empty: by the season'}
          read={readPercent}
          onCommit={value => (value === null ? set({}, ['cloudFraction']) : set({ cloudFraction: value }))}
        />
        <div>
          <strong>
            Weather: {outage.weather ? outage.weather.name : 'by latitude and season, in closed form'}
          </strong>
          <Row sx={{ my: 1 }}>
            <FileButton
              what="Weather file, EPW or CSV"
              accept=".epw,.csv,.txt"
              variant="outlined"
              onFiles={([chosen]) => take(chosen)}
            >
              {busy ? 'Reading…' : 'Read a weather file'}
            </FileButton>
            {outage.weather && (
              <Button
                variant="outlined"
                onClick={() => {
                  set({}, ['weather'])
                  setSaid(null)
                }}
              >
                Without it
              </Button>
            )}
          </Row>
          <Quiet role={said ? 'status' : undefined}>
            {said ?? 'A year by the hour, EPW or CSV with temperature and sun on the flat'}
          </Quiet>
        </div>
      </Columns>
    </Card>
  )
}
