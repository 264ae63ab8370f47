import { Stack, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useUnitChoice } from '../form/units'

/** Feet or metres, °F or °C: for typing and reading; nothing is rounded by it. */
export function UnitToggles() {
  const { length, temperature, setLength, setTemperature } = useUnitChoice()
  return (
    <Stack direction="row" spacing={1} sx={{ ml: 'auto' }}>
      <Toggle label="Lengths in" value={length} of={{ ft: 'ft', m: 'm' }} onChange={setLength} />
      <Toggle
        label="Temperatures in"
        value={temperature}
        of={{ F: '°F', C: '°C' }}
        onChange={setTemperature}
      />
    </Stack>
  )
}

interface Props<T extends string> {
  label: string
  value: T
  of: Readonly<Record<T, string>>
  onChange: (value: T) => void
}

function Toggle<T extends string>({ label, value, of, onChange }: Props<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label={label}
      value={value}
      onChange={(_, next: T | null) => next && onChange(next)}
    >
      {(Object.keys(of) as T[]).map(o => (
        <ToggleButton key={o} value={o}>
          {of[o]}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}
