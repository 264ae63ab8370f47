'use client'
import InputAdornment from '@mui/material/InputAdornment'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { stockSchema } from '@/core/search/stock'
import { readNumber } from '../common/EditField'
import styles from './Equipment.module.css'

interface Props {
  /** what is counted, for those who hear the field */
  name: string
  /** what stands behind the number */
  label?: string
  count: number | undefined
  onCount: (count: number | null) => Promise<{ message: string } | null>
}

/** How many the firm has: saved when left; a wrong entry stays as typed. */
export function StockField({ name, label = 'in stock', count, onCount }: Props) {
  const [text, setText] = useState(count === undefined ? '' : String(count))
  const [problem, setProblem] = useState<string | null>(null)
  const commit = async () => {
    if (text.trim() === (count === undefined ? '' : String(count))) return setProblem(null)
    if (text.trim() === '') return setProblem((await onCount(null))?.message ?? null)
    const got = readNumber(stockSchema.valueType)(text)
    setProblem('value' in got ? ((await onCount(got.value))?.message ?? null) : got.problem)
  }
  return (
    <TextField
      size="small"
      value={text}
      onChange={e => setText(e.target.value)}
      onBlur={() => void commit()}
      onKeyDown={e => e.key === 'Enter' && void commit()}
      error={problem !== null}
      helperText={problem}
      className={styles.count}
      slotProps={{
        input: { endAdornment: <InputAdornment position="end">{label}</InputAdornment> },
        htmlInput: {
          'aria-label': `In stock: ${name}`,
          inputMode: 'numeric',
          autoComplete: 'off',
        },
      }}
    />
  )
}
