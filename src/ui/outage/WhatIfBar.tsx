import { Button, Slider } from '@mui/material'
import { memo, useId } from 'react'
import { seasonSchema } from '@/core/loads/season'
import { asItIs, isAsItIs, type WhatIf } from '@/core/outage/what-if'
import { figure, hourText } from '@/core/units/format'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Check } from '../form/Check'
import { Choice } from '../form/Choice'
import { useUnitChoice } from '../form/units'
import { useWorkspace } from '../workspace/store'

interface Props {
  value: WhatIf
  onChange: (value: WhatIf) => void
}

/** What could be otherwise: each answers while it is dragged. Nothing is kept with the job. */
export const WhatIfBar = memo(function WhatIfBar({ value, onChange }: Props) {
  const outage = useWorkspace(s => s.job.outage)
  const { temperature } = useUnitChoice()
  const degrees = (C: number) => (temperature === 'F' ? `${figure(C * 1.8)} °F` : `${figure(C)} °C`)
  const set = (facts: Partial<WhatIf>) => onChange({ ...value, ...facts })
  const reserve = value.reserveFraction ?? outage.reserveFraction
  const begins = value.beginsH ?? outage.beginsH ?? 18
  return (
    <Card id="what-if" title="What if">
      <Columns least={230} sx={{ columnGap: 4 }}>
        <Knob
          label="Colder by"
          text={degrees(value.colderC)}
          why={
            outage.outdoorC === undefined && !outage.weather
              ? 'takes an outdoor temperature or a weather file, below'
              : null
          }
          value={value.colderC}
          min={-10}
          max={20}
          step={1}
          onChange={colderC => set({ colderC })}
        />
        <Knob
          label="Cloudier by"
          text={`${figure(value.cloudierFraction * 100)} %`}
          value={value.cloudierFraction * 100}
          min={-50}
          max={50}
          step={5}
          onChange={percent => set({ cloudierFraction: percent / 100 })}
        />
        <Knob
          label="Batteries more"
          text={value.moreExpansions > 0 ? `+${value.moreExpansions}` : String(value.moreExpansions)}
          value={value.moreExpansions}
          min={-2}
          max={4}
          step={1}
          onChange={moreExpansions => set({ moreExpansions })}
        />
        <Knob
          label="Reserve"
          text={`${figure(reserve * 100)} %`}
          value={reserve * 100}
          min={0}
          max={60}
          step={5}
          onChange={percent => set({ reserveFraction: percent / 100 })}
        />
        <Knob
          label="Beginning"
          text={value.beginsH === undefined && outage.beginsH === undefined ? 'any hour' : hourText(begins)}
          value={begins}
          min={0}
          max={23.5}
          step={0.5}
          onChange={beginsH => set({ beginsH })}
        />
        <Row>
          <Choice
            label="Season"
            value={value.season ?? ''}
            options={[{ value: '', label: 'as planned' }, ...seasonSchema.options]}
            onChange={season => {
              const parsed = seasonSchema.safeParse(season)
              onChange(parsed.success ? { ...value, season: parsed.data } : { ...value, season: undefined })
            }}
          />
          <Check
            label="A kettle at 7:00"
            checked={value.kettle}
            onChange={checked => set({ kettle: checked })}
          />
          {!isAsItIs(value) && (
            <Button variant="outlined" onClick={() => onChange(asItIs)}>
              As it is again
            </Button>
          )}
        </Row>
      </Columns>
    </Card>
  )
})

interface KnobProps {
  label: string
  text: string
  value: number
  min: number
  max: number
  step: number
  why?: string | null
  onChange: (value: number) => void
}

function Knob({ label, text, value, min, max, step, why = null, onChange }: KnobProps) {
  const id = useId()
  return (
    <div>
      <Row sx={{ justifyContent: 'space-between' }}>
        <span id={id}>{label}</span>
        <strong>{why ? '–' : text}</strong>
      </Row>
      {why ? (
        <Quiet>{why}</Quiet>
      ) : (
        <Slider
          aria-labelledby={id}
          value={value}
          min={min}
          max={max}
          step={step}
          getAriaValueText={() => text}
          onChange={(_, next) => onChange(next as number)}
        />
      )}
    </div>
  )
}
