import { createContext, useContext } from 'react'
import { type FieldError, useController } from 'react-hook-form'
import { pathText } from '@/core/outcome'
import type { Problems } from './draft'

/** Problems found while one types, in place of those of the last try to save. */
export const LiveProblems = createContext<Problems | null>(null)

/** The fields that stand in the form, by name, with their labels: what is wrong elsewhere is said beneath it. */
export const Standing = createContext<Map<string, string> | null>(null)

/** `links.2.ratingA` as a fault names it: `links[2].ratingA`. */
const pathOf = (name: string) => pathText(name.split('.').map(key => (/^\d+$/.test(key) ? Number(key) : key)))

/** The first thing wrong at a field or below it. */
export function messageOf(error: unknown): string | undefined {
  if (error === null || typeof error !== 'object') return undefined
  const { message } = error as Partial<FieldError>
  if (typeof message === 'string') return message
  for (const [key, inner] of Object.entries(error)) {
    const found = key === 'ref' ? undefined : messageOf(inner)
    if (found) return found
  }
  return undefined
}

/** What the ids of a form's fields begin with: several forms may stand on one page. */
export const FormId = createContext('')
export const useIdOf = () => {
  const form = useContext(FormId)
  return (name: string) => `${form}in-${name.replaceAll('.', '-')}`
}

/** A problem after the name of its field, unless it is a sentence of its own. */
export const saidOf = (label: string, problem: string | undefined) =>
  problem && (/^[a-z]/.test(problem) ? `${label} ${problem}` : problem)

/** One field of the form around it: its value, how to set it, and what is wrong with it. */
export function useField(name: string, label = '') {
  const { field, fieldState } = useController({ name })
  const live = useContext(LiveProblems)
  const idOf = useIdOf()
  useContext(Standing)?.set(name, label)
  return {
    value: field.value as unknown,
    set: field.onChange as (value: unknown) => void,
    ref: field.ref,
    leave: field.onBlur,
    id: idOf(name),
    problem: live ? live.get(pathOf(name)) : messageOf(fieldState.error),
  }
}
