import { TextField as MuiTextField } from '@mui/material'
import dynamic from 'next/dynamic'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { UnitOfMeasure } from '@/core/working'
import { useAwake } from '../common/awake'
import { Check } from './Check'
import { Choice, type Option } from './Choice'
import { NumberInput } from './NumberInput'
import { saidOf, useField } from './useField'

interface Named {
  /** the path of its value in the form */
  name: string
  label: string
  help?: ReactNode
  autoFocus?: boolean
}

interface LineProps extends Named {
  most?: number
  placeholder?: string
  /** several lines, so many at first */
  lines?: number
  type?: 'email' | 'password'
  /** what a browser may fill in, in its own words */
  autoComplete?: string
  /** Enter, or leaving the field */
  onDone?: () => void
  /** true where it was taken for more than a text */
  onPaste?: (text: string) => boolean
}

/** What somebody typed, or their browser filled in, before the page’s script came: it would be gone with its coming. */
function useTypedBefore(id: string, set: (text: string) => void): void {
  const awake = useAwake()
  const [typed] = useState(() => {
    if (awake || typeof document === 'undefined') return null
    const line = document.getElementById(id)
    const is = line instanceof HTMLInputElement || line instanceof HTMLTextAreaElement
    return is && line.value !== line.defaultValue ? line.value : null
  })
  const taken = useRef(false)
  useEffect(() => {
    if (typed === null || taken.current) return
    taken.current = true
    set(typed)
  }, [typed, set])
}

/** A text in words. */
export function LineField({
  name,
  label,
  help,
  autoFocus,
  most = 200,
  placeholder,
  lines,
  type,
  autoComplete = 'off',
  onDone,
  onPaste,
}: LineProps) {
  const { value, set, leave, id, problem, ref } = useField(name, label)
  useTypedBefore(id, set)
  return (
    <MuiTextField
      id={id}
      name={name}
      inputRef={ref}
      label={label}
      value={typeof value === 'string' ? value : ''}
      autoFocus={autoFocus}
      placeholder={placeholder}
      type={type}
      error={problem !== undefined}
      helperText={saidOf(label, problem) ?? help}
      multiline={lines !== undefined}
      minRows={lines}
      maxRows={8}
      onChange={e => set(e.target.value)}
      onPaste={e => onPaste?.(e.clipboardData.getData('text')) && e.preventDefault()}
      onBlur={() => {
        leave()
        onDone?.()
      }}
      onKeyDown={e => {
        if (e.key !== 'Enter' || !onDone) return
        e.preventDefault()
        onDone()
      }}
      slotProps={{
        htmlInput: { autoComplete, maxLength: most },
        ...(placeholder && { inputLabel: { shrink: true } }),
      }}
    />
  )
}

interface FigureProps extends Named {
  unit?: UnitOfMeasure
  /** what stands behind the figure, where it is more than its unit */
  sign?: string
  whole?: boolean
  usual?: unknown
  /** odd beside the others, though it can be read */
  odd?: string
}

/** A number with its unit, in the person’s own measure; what is no number stays as typed. */
export function NumberField({
  name,
  label,
  help,
  autoFocus,
  unit = 'text',
  sign,
  whole,
  usual,
  odd,
}: FigureProps) {
  const { value, set, leave, id, problem, ref } = useField(name, label)
  return (
    <NumberInput
      id={id}
      inputRef={ref}
      label={label}
      unit={unit}
      sign={sign}
      value={value}
      whole={whole}
      usual={usual}
      help={odd ?? help}
      problem={problem}
      autoFocus={autoFocus}
      onChange={next => set(next ?? '')}
      onLeave={leave}
    />
  )
}

interface ChoiceProps<T extends string | number> extends Named {
  options: readonly Option<T>[]
}

/** One of a few, by name. */
export function ChoiceField<T extends string | number>({ name, label, help, options }: ChoiceProps<T>) {
  const { value, set, id, problem } = useField(name, label)
  return (
    <Choice
      id={id}
      label={label}
      value={(value ?? '') as T}
      options={options}
      help={saidOf(label, problem) ?? help}
      onChange={set}
    />
  )
}

/** Yes or no. */
export function CheckField({ name, label }: Named) {
  const { value, set, id } = useField(name, label)
  return <Check id={id} label={label} checked={value === true} onChange={checked => set(checked)} />
}

const DayInput = dynamic(() => import('./DayInput').then(m => m.DayInput), {
  loading: () => <MuiTextField disabled label=" " />,
})

/** A day of the calendar, YYYY-MM-DD. */
export function DayField({ name, label, help }: Named) {
  const { value, set, problem } = useField(name, label)
  return (
    <DayInput
      label={label}
      value={typeof value === 'string' ? value : ''}
      onChange={set}
      help={saidOf(label, problem) ?? help}
      wrong={problem !== undefined}
    />
  )
}
