'use client'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import { useEffect, useRef, useState } from 'react'
import { typedNumber } from '@/core/typed-number'
import type { Unit } from '@/core/working'
import styles from './Fields.module.css'
import { type Scale, useScale } from './units'

interface Props {
  id: string
  label: string
  unit: Unit
  value: unknown
  onChange: (value: number | string | undefined) => void
  whole?: boolean
  optional?: boolean
  usual?: unknown
  help?: string
  problem?: string
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
  const [text, setText] = useState(() => textOf(value, scale))
  const known = useRef({ value, scale })
  useEffect(() => {
    if (known.current.value === value && known.current.scale === scale) return
    known.current = { value, scale }
    setText(textOf(value, scale))
  }, [value, scale])

  const take = (typed: string) => {
    setText(typed)
    const got = typedNumber(typed, scale.symbol)
    const next = typed.trim() === '' ? undefined : 'value' in got ? scale.read(got.value) : typed
    known.current = { value: next, scale }
    onChange(next)
  }
  const shown = typeof usual === 'number' ? `${scale.shown(usual)} unless said` : undefined
  return (
    <TextField
      id={id}
      label={label}
      value={text}
      className={problem ? styles.amiss : undefined}
      helperText={problem ? `${label} ${problem}` : help}
      placeholder={shown}
      onChange={e => take(e.target.value)}
      onFocus={e => e.target.select()}
      onPaste={e => onPaste?.(e.clipboardData.getData('text')) && e.preventDefault()}
      onKeyDown={e => {
        if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return
        e.preventDefault()
        const got = typedNumber(text, scale.symbol)
        const at = 'value' in got ? got.value : 0
        take(String(nudged(at, e.key === 'ArrowUp' ? 1 : -1, whole)))
      }}
      slotProps={{
        input: scale.symbol
          ? { endAdornment: <InputAdornment position="end">{scale.symbol}</InputAdornment> }
          : {},
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', 'aria-invalid': problem ? true : undefined },
        inputLabel: { shrink: true },
      }}
    />
  )
}
