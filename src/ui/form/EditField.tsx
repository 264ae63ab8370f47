import { InputAdornment, TextField } from '@mui/material'
import { useId, useState } from 'react'
import type * as z from 'zod'
import type { Fault } from '@/core/outcome'
import { typedNumber } from '@/core/typed-number'

interface Props<T> {
  label: string
  value: string
  /** the typed text as a value, or why it cannot be one; it is told the unit that stands beside it */
  read: (text: string, unit?: string) => { value: T } | { problem: string }
  onCommit: (value: T) => Fault[]
  unit?: string
  help?: string
  autoFocus?: boolean
  inputMode?: 'decimal' | 'text'
}

/** A field that saves itself when left: a wrong entry stays as typed, with what to do about it beneath. */
export function EditField<T>({
  label,
  value,
  read,
  onCommit,
  unit,
  help,
  autoFocus,
  inputMode = 'text',
}: Props<T>) {
  const id = useId()
  const [text, setText] = useState(value)
  const [problem, setProblem] = useState<string | null>(null)
  // taken over while drawing, not after it: what is typed at once is never overwritten
  const [known, setKnown] = useState(value)
  if (known !== value) {
    setKnown(value)
    setText(value)
    setProblem(null)
  }

  const commit = () => {
    if (text === value) return setProblem(null)
    const got = read(text, unit)
    if ('problem' in got) return setProblem(got.problem)
    const [fault] = onCommit(got.value)
    setProblem(fault ? fault.message : null)
  }
  const typing = (next: string) => {
    setText(next)
    if (problem === null) return
    const got = read(next, unit)
    setProblem('problem' in got ? got.problem : null)
  }
  return (
    <TextField
      id={id}
      label={label}
      value={text}
      autoFocus={autoFocus}
      error={problem !== null}
      helperText={problem ? `${label} ${problem}` : help}
      onChange={e => typing(e.target.value)}
      onBlur={commit}
      onKeyDown={e => {
        if (e.key === 'Enter') commit()
        if (e.key === 'Escape' && text !== value) {
          e.stopPropagation()
          setText(value)
          setProblem(null)
        }
      }}
      slotProps={{
        input: unit ? { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } : {},
        htmlInput: { inputMode, autoComplete: 'off' },
      }}
    />
  )
}

interface FigureProps {
  label: string
  /** undefined: not known, or by itself; shown empty */
  value: number | undefined
  schema: z.ZodType<number>
  unit?: string
  /** a fraction that is shown and typed per cent */
  percent?: boolean
  help?: string
  onCommit: (value: number) => Fault[]
  /** the field was emptied; without it a figure is needed */
  onEmpty?: () => Fault[]
}

/** A figure that saves itself when left. */
export function EditFigure({
  value,
  schema,
  percent = false,
  unit = percent ? '%' : undefined,
  onCommit,
  onEmpty,
  ...field
}: FigureProps) {
  const read = readNumber(schema, percent ? 0.01 : 1)
  return (
    <EditField<number | null>
      {...field}
      {...(unit !== undefined && { unit })}
      inputMode="decimal"
      value={value === undefined ? '' : String(percent ? Number((value * 100).toPrecision(12)) : value)}
      read={(text, unit) => {
        if (text.trim() === '' && onEmpty) return { value: null }
        const got = read(text, unit)
        return 'problem' in got ? { problem: perCent(got.problem) } : got
      }}
      onCommit={next => (next === null ? (onEmpty?.() ?? []) : onCommit(next))}
    />
  )
}

/** What is wrong with a fraction, as it is typed. */
const perCent = (problem: string) =>
  problem.replace(
    /from ([\d.]+) to ([\d.]+) \(a fraction\)/,
    (_, low, high) => `from ${Number(low) * 100} to ${Number(high) * 100} %`,
  )

const firstProblem = (error: z.ZodError) => error.issues[0]?.message ?? 'cannot be taken'

/** Reads text by a schema of one line. */
export const readText =
  (schema: z.ZodType<string>) =>
  (text: string): { value: string } | { problem: string } => {
    const parsed = schema.safeParse(text)
    return parsed.success ? { value: parsed.data } : { problem: firstProblem(parsed.error) }
  }

/** Reads a number as people type it by a schema, after scaling what is typed (per cent → fraction: 0.01). */
export const readNumber =
  (schema: z.ZodType<number>, scale = 1) =>
  (text: string, unit?: string): { value: number } | { problem: string } => {
    const typed = typedNumber(text, unit)
    if ('problem' in typed) return typed
    const { value } = typed
    // 45 % is 0.45, not 0.45000000000000001: scaled on the decimal digits
    const scaled = scale === 1 ? value : Number((value * scale).toPrecision(12))
    const parsed = schema.safeParse(scaled)
    return parsed.success ? { value: parsed.data } : { problem: firstProblem(parsed.error) }
  }
