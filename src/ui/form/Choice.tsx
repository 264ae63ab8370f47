'use client'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { type ReactNode, useId } from 'react'

interface Props<T extends string | number> {
  label: string
  value: T
  options: readonly { value: T; label: string; disabled?: boolean }[]
  onChange: (value: T) => void
  help?: ReactNode
  id?: string
}

/** One of a few, by name. */
export function Choice<T extends string | number>({ label, value, options, onChange, help, id }: Props<T>) {
  const own = useId()
  return (
    <TextField
      select
      id={id ?? own}
      label={label}
      value={value}
      helperText={help}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={e => {
        const found = options.find(o => String(o.value) === String(e.target.value))
        if (found) onChange(found.value)
      }}
    >
      {options.map(o => (
        <MenuItem key={o.value} value={o.value} disabled={o.disabled}>
          {o.label}
        </MenuItem>
      ))}
    </TextField>
  )
}
