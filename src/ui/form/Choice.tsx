import { MenuItem, TextField } from '@mui/material'
import { type ReactNode, useId } from 'react'

/** One of the values to choose from; by itself where it is its own name. */
export type Option<T> = T | { value: T; label: string; disabled?: boolean }

interface Props<T extends string | number> {
  label: string
  value: T
  options: readonly Option<T>[]
  onChange: (value: T) => void
  help?: ReactNode
  id?: string
}

/** One of a few, by name. */
export function Choice<T extends string | number>({ label, value, options, onChange, help, id }: Props<T>) {
  const own = useId()
  const offered = options.map(o =>
    typeof o === 'object' ? o : { value: o, label: String(o), disabled: false },
  )
  return (
    <TextField
      select
      id={id ?? own}
      label={label}
      value={value}
      helperText={help}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={e => {
        const found = offered.find(o => String(o.value) === String(e.target.value))
        if (found) onChange(found.value)
      }}
    >
      {offered.map(o => (
        <MenuItem key={o.value} value={o.value} disabled={o.disabled}>
          {o.label}
        </MenuItem>
      ))}
    </TextField>
  )
}
