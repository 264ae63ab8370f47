import { Button } from '@mui/material'
import { useState } from 'react'
import { outageSchema } from '@/core/ask/outage-asked'
import { type Shedding, sheddingPolicies, usualShedding } from '@/core/ask/shedding'
import { methodOf } from '@/core/hookup/method'
import { readHours, readSpans } from '@/core/outage/hours-text'
import { FileButton } from '../common/FileButton'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { useWeatherFile } from './useWeatherFile'

const { latitudeDeg, cloudFraction, heedFraction, restartMinutes } = outageSchema.shape
const figures = { latitudeDeg, cloudFraction, heedFraction, restartMinutes }
const anyShare = heedFraction.unwrap()
const policyNames: Record<Shedding['policy'], string> = {
  none: 'never',
  'by tier': 'by tier, as the store falls',
  'by schedule': 'by schedule: tiers 2 and 3 at set hours only',
  'by hand': 'by hand, when somebody looks',
}

/** How the outage is lived through: what is let go, who resets, and under which sky. */
export function LivedThrough() {
  const outage = useWorkspace(s => s.job.outage)
  const sheds = useWorkspace(s => Boolean(methodOf(s.job.hookup.method).sheds))
  const act = useWorkspace(s => s.act)
  const set = (facts: Partial<typeof outage>, clear?: (keyof typeof figures | 'weather' | 'shedding')[]) =>
    act({ op: 'setOutage', facts, ...(clear && { clear }) })
  const known = (key: keyof typeof figures) => ({
    value: outage[key],
    schema: figures[key].unwrap(),
    onCommit: (value: number) => set({ [key]: value }),
    onEmpty: () => set({}, [key]),
  })
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
        {shedding.policy === 'by tier' &&
          ([3, 2] as const).map(tier => (
            <EditFigure
              key={tier}
              label={tier === 3 ? '“May go” off below' : '“Should run” off below'}
              value={shedding[`tier${tier}BelowFraction`] ?? usualShedding[`tier${tier}BelowFraction`]}
              percent
              schema={anyShare}
              onCommit={value => shed({ [`tier${tier}BelowFraction`]: value })}
              onEmpty={() => shed({ [`tier${tier}BelowFraction`]: undefined })}
            />
          ))}
        {shedding.policy === 'by hand' && (
          <EditField
            label="Somebody looks at"
            value={(shedding.atH ?? usualShedding.atH).join(', ')}
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
        <EditFigure
          label="Large loads wait for each other"
          percent
          help="Of the times people switch one on; empty: 90 %"
          {...known('heedFraction')}
        />
        <EditFigure
          label="Until somebody has reset a trip"
          unit="min"
          help="Empty: by whether somebody is at home"
          {...known('restartMinutes')}
        />
        <EditFigure
          label="Latitude"
          unit="° north"
          help={outage.weather ? 'The weather file has its own' : 'For the sun; empty: 41°'}
          {...known('latitudeDeg')}
        />
        <EditFigure
          label="Sky that is cloudy"
          percent
          help={outage.weather ? 'The weather file has its own' : 'Empty: by the season'}
          {...known('cloudFraction')}
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
