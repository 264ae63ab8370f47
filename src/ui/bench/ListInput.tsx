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

const textOf = (value: unknown, words: boolean) =>
  Array.isArray(value) ? value.join(words ? ', ' : '  ') : ''

/** Several in one field: numbers with blanks between them, words with commas. */
export function ListInput({ id, field, value, onChange, problem }: Props) {
  const scale = useScale(field.unit)
  const words = field.unit === 'text'
  const [text, setText] = useState(() => textOf(value, words))
  const known = useRef(value)
  useEffect(() => {
    if (known.current === value) return
    known.current = value
    setText(textOf(value, words))
  }, [value, words])
  const take = (typed: string) => {
    setText(typed)
    const parts = typed
      .split(words ? /[;,\n]+/ : /[\s;,]+/)
      .map(p => p.trim())
      .filter(Boolean)
    const next = words ? parts : parts.map(p => (Number.isFinite(Number(p)) ? Number(p) : p))
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
        helperText={
          problem ?? (words ? 'several, with commas between them' : 'several, with blanks between them')
        }
        slotProps={{
          input: { endAdornment: <InputAdornment position="end">{scale.symbol}</InputAdornment> },
          htmlInput: { inputMode: 'text', autoComplete: 'off' },
        }}
      />
    </div>
  )
}
