import { InputAdornment, TextField } from '@mui/material'
import { type ReactNode, type Ref, useState } from 'react'
import { typedNumber } from '@/core/typed-number'
import type { UnitOfMeasure } from '@/core/working'
import { type Scale, useScale } from './units'
import { saidOf } from './useField'

interface Props {
  id: string
  label: string
  unit: UnitOfMeasure
  sign?: string
  value: unknown
  /** a number, the text that is none, or nothing */
  onChange: (value: number | string | undefined) => void
  onLeave?: () => void
  whole?: boolean
  usual?: unknown
  help?: ReactNode
  problem?: string
  autoFocus?: boolean
  inputRef?: Ref<HTMLInputElement>
  onPaste?: (text: string) => boolean
}

const textOf = (value: unknown, scale: Scale) =>
  typeof value === 'number' ? String(scale.shown(value)) : typeof value === 'string' ? value : ''

/** The next round step up or down: tens for 140, hundreds for 3,600, ones for a count. */
function nudged(value: number, by: 1 | -1, whole: boolean): number {
  const size = Math.abs(value)
  const step = whole ? 1 : 10 ** Math.max(-3, Math.floor(Math.log10(size || 1)) - 1)
  return Number((value + by * step).toPrecision(12))
}

/** A number with its unit, answered while it is typed. Arrow up and down step it. */
export function NumberInput(props: Props) {
  const { id, label, unit, value, onChange, whole = false, usual, help, problem, onPaste } = props
  const scale = useScale(unit)
  const sign = props.sign ?? scale.symbol
  const unitTyped = scale.symbol || props.sign
  const [text, setText] = useState(() => textOf(value, scale))
  // a value that was not typed here is taken over while drawing; what is typed stays as it was typed
  const [known, setKnown] = useState({ value, scale })
  if (known.value !== value || known.scale !== scale) {
    setKnown({ value, scale })
    setText(textOf(value, scale))
  }
  const take = (typed: string) => {
    setText(typed)
    const got = typedNumber(typed, unitTyped)
    const next = typed.trim() === '' ? '' : 'value' in got ? scale.read(got.value) : typed
    setKnown({ value: next, scale })
    onChange(next === '' ? undefined : next)
  }
  return (
    <TextField
      id={id}
      label={label}
      value={text}
      autoFocus={props.autoFocus}
      inputRef={props.inputRef}
      error={problem !== undefined}
      helperText={saidOf(label, problem) ?? help}
      placeholder={typeof usual === 'number' ? `${scale.shown(usual)} unless said` : undefined}
      onChange={e => take(e.target.value)}
      onBlur={props.onLeave}
      onFocus={e => e.target.select()}
      onPaste={e => onPaste?.(e.clipboardData.getData('text')) && e.preventDefault()}
      onKeyDown={e => {
        if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return
        e.preventDefault()
        const got = typedNumber(text, unitTyped)
        take(String(nudged('value' in got ? got.value : 0, e.key === 'ArrowUp' ? 1 : -1, whole)))
      }}
      slotProps={{
        input: sign ? { endAdornment: <InputAdornment position="end">{sign}</InputAdornment> } : {},
        htmlInput: { inputMode: 'decimal', autoComplete: 'off' },
        inputLabel: { shrink: true },
      }}
    />
  )
}
