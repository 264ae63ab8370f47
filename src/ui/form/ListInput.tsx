import { InputAdornment, TextField } from '@mui/material'
import { useState } from 'react'
import type { Field } from '@/core/field'
import { useScale } from './units'
import { useField } from './useField'

const textOf = (value: unknown, words: boolean) =>
  Array.isArray(value) ? value.join(words ? ', ' : '  ') : ''

/** Several in one field: numbers with blanks between them, words with commas. */
export function ListInput({ name, field }: { name: string; field: Field }) {
  const { value, set, id, problem } = useField(name, field.title)
  const scale = useScale(field.unit)
  const words = field.unit === 'text'
  const [text, setText] = useState(() => textOf(value, words))
  const [known, setKnown] = useState(value)
  if (known !== value) {
    setKnown(value)
    setText(textOf(value, words))
  }
  const take = (typed: string) => {
    setText(typed)
    const parts = typed
      .split(words ? /[;,\n]+/ : /[\s;,]+/)
      .map(p => p.trim())
      .filter(Boolean)
    const next = words ? parts : parts.map(p => (Number.isFinite(Number(p)) ? Number(p) : p))
    setKnown(next)
    set(next)
  }
  return (
    <TextField
      id={id}
      label={field.title}
      value={text}
      onChange={e => take(e.target.value)}
      error={problem !== undefined}
      helperText={
        problem ?? (words ? 'several, with commas between them' : 'several, with blanks between them')
      }
      slotProps={{
        input: { endAdornment: <InputAdornment position="end">{scale.symbol}</InputAdornment> },
        htmlInput: { inputMode: 'text', autoComplete: 'off' },
      }}
    />
  )
}
