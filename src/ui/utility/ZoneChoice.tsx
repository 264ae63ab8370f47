import { Autocomplete, TextField } from '@mui/material'

interface Props {
  label: string
  /** an IANA name */
  value: string
  onChange: (zone: string) => void
}

/** Whose clocks: any zone that the platform knows, by typing a piece of its name. */
export function ZoneChoice({ label, value, onChange }: Props) {
  return (
    <Autocomplete
      disableClearable
      autoHighlight
      size="small"
      sx={{ width: 240 }}
      options={[...new Set([value, ...Intl.supportedValuesOf('timeZone')])].sort()}
      groupBy={zone => zone.split('/')[0] ?? ''}
      getOptionLabel={zone => zone.replaceAll('_', ' ')}
      value={value}
      onChange={(_, zone) => onChange(zone)}
      renderInput={field => <TextField {...field} label={label} />}
    />
  )
}
