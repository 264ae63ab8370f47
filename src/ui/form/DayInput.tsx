import { AdapterDateFns } from '@mui/x-date-pickers/AdapterDateFns'
import { DatePicker } from '@mui/x-date-pickers/DatePicker'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { isValid, lightFormat, parseISO } from 'date-fns'
import type { ReactNode } from 'react'

interface Props {
  label: string
  /** YYYY-MM-DD, or nothing */
  value: string
  onChange: (day: string) => void
  help?: ReactNode
  wrong?: boolean
}

/** A day, typed or chosen; what is half typed is not one yet. */
export function DayInput({ label, value, onChange, help, wrong = false }: Props) {
  const day = value ? parseISO(value) : null
  return (
    <LocalizationProvider dateAdapter={AdapterDateFns}>
      <DatePicker
        label={label}
        format="yyyy-MM-dd"
        value={day && isValid(day) ? day : null}
        onChange={next => onChange(next && isValid(next) ? lightFormat(next, 'yyyy-MM-dd') : '')}
        slotProps={{ textField: { size: 'small', fullWidth: true, helperText: help, error: wrong } }}
      />
    </LocalizationProvider>
  )
}
