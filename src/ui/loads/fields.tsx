'use client'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import type { Fault } from '@/core/outcome'
import { typedNumber } from '@/core/typed-number'
import type { Scale } from '../bench/units'

/** The number typed, or the text itself, so that the schema says what is wrong with it; nothing where it is empty. */
export function numberTyped(text: string, unit?: string): number | string | undefined {
  if (text.trim() === '') return undefined
  const typed = typedNumber(text, unit)
  return 'value' in typed ? typed.value : text
}

/** A temperature as typed in the person’s degrees, °C; the text where it is no number. */
export function temperatureTyped(text: string, scale: Scale): number | string | undefined {
  const typed = numberTyped(text, scale.symbol)
  return typeof typed === 'number' ? Number(scale.read(typed).toPrecision(6)) : typed
}

interface Props {
  label: string
  value: string
  onChange: (text: string) => void
  unit?: string
  help?: string
  faults: readonly Fault[]
  /** where the faults of this field begin */
  path: string
  type?: 'text' | 'date' | 'number'
  autoFocus?: boolean
  /** left, or Enter pressed in it */
  onDone?: () => void
}

/** A field of a form that is taken as a whole: what was typed stays, with what is wrong beneath. */
export function FormField({
  label,
  value,
  onChange,
  unit,
  help,
  faults,
  path,
  type = 'number',
  autoFocus,
  onDone,
}: Props) {
  const fault = faults.find(
    f => f.path === path || f.path.startsWith(`${path}.`) || f.path.startsWith(`${path}[`),
  )
  return (
    <TextField
      label={label}
      value={value}
      autoFocus={autoFocus}
      type={type === 'date' ? 'date' : 'text'}
      error={fault !== undefined}
      helperText={fault ? `${label} ${fault.message}` : help}
      onChange={e => onChange(e.target.value)}
      onBlur={onDone}
      onKeyDown={e => {
        if (e.key === 'Enter') onDone?.()
      }}
      slotProps={{
        ...(type === 'date' && { inputLabel: { shrink: true } }),
        htmlInput: { inputMode: type === 'number' ? 'decimal' : 'text', autoComplete: 'off' },
        input: unit ? { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } : {},
      }}
    />
  )
}

/** Faults that no field of the form shows. */
export function OtherFaults({ faults, shown }: { faults: readonly Fault[]; shown: readonly string[] }) {
  return (
    <>
      {faults
        .filter(
          f =>
            !shown.some(
              path => f.path === path || f.path.startsWith(`${path}.`) || f.path.startsWith(`${path}[`),
            ),
        )
        .map(f => (
          <p key={f.path + f.message} role="alert">
            {f.path === '$' ? '' : `${f.path} `}
            {f.message}
          </p>
        ))}
    </>
  )
}
