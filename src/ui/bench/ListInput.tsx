'use client'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import { useEffect, useRef, useState } from 'react'
import type { Field } from '@/core/field'
import styles from './Fields.module.css'
import { useScale } from './units'

interface Props {
  id: string
  field: Field
  value: unknown
  onChange: (value: unknown) => void
  problem?: string
}

const textOf = (value: unknown) => (Array.isArray(value) ? value.join('  ') : '')

/** Several numbers in one field, blanks or semicolons between them. */
export function ListInput({ id, field, value, onChange, problem }: Props) {
  const scale = useScale(field.unit)
  const [text, setText] = useState(() => textOf(value))
  const known = useRef(value)
  useEffect(() => {
    if (known.current === value) return
    known.current = value
    setText(textOf(value))
  }, [value])
  const take = (typed: string) => {
    setText(typed)
    const parts = typed.split(/[\s;,]+/).filter(Boolean)
    const next = parts.map(p => (Number.isFinite(Number(p)) ? Number(p) : p))
    known.current = next
    onChange(next)
  }
  return (
    <div className={styles.wide}>
      <TextField
        id={id}
        label={field.title}
        value={text}
        onChange={e => take(e.target.value)}
        className={problem ? styles.amiss : undefined}
        helperText={problem ?? 'several, with blanks between them'}
        slotProps={{
          input: { endAdornment: <InputAdornment position="end">{scale.symbol}</InputAdornment> },
          htmlInput: { inputMode: 'text', autoComplete: 'off' },
        }}
      />
    </div>
  )
}
