import { toNestErrors } from '@hookform/resolvers'
import { useEffect, useState } from 'react'
import {
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
  useForm,
} from 'react-hook-form'
import type { Fault, Outcome } from '@/core/outcome'
import { whoHere } from '../common/who'

/** `links[2].ratingA` as the form names it: `links.2.ratingA`; what concerns the whole is `root`. */
const nameOf = (path: string) =>
  path === '$' ? 'root' : path.replace(/\[(\d+)\]/g, '.$1').replace(/^\./, '')

/** The faults as errors of the form, those of one field together. */
function errorsOf(faults: readonly Fault[]): Record<string, { type: string; message: string }> {
  const told = new Map<string, string>()
  for (const { path, message } of faults) {
    const name = nameOf(path)
    const before = told.get(name)
    told.set(name, before ? `${before}\n${message}` : message)
  }
  return Object.fromEntries([...told].map(([name, message]) => [name, { type: 'schema', message }]))
}

/** What came of a save: nothing, a sentence, or what is wrong at which field. */
export type Said = readonly Fault[] | string | null

interface Asked<V extends FieldValues, T> {
  values: V
  /** what was typed as the schema takes it, or its faults; their paths are the names of the fields */
  read: (values: V) => Outcome<T>
  save: (value: T) => Said | Promise<Said>
  /** once saved */
  done?: (value: T) => void
  /** a name under which what was typed outlives a reload of the page */
  keep?: string
}

export interface Sheet<V extends FieldValues = FieldValues> {
  form: UseFormReturn<V>
  submit: () => Promise<void>
}

/** A form that is taken as a whole. What was typed stays until it could be saved. */
export function useSheet<V extends FieldValues, T>({
  values,
  read,
  save,
  done,
  keep,
}: Asked<V, T>): Sheet<V> {
  const [asked] = useState(values)
  const resolver: Resolver<V, unknown, V> = (typed, _, options) => {
    const outcome = read(typed)
    if (outcome.ok) return { values: typed, errors: {} }
    return { values: {}, errors: toNestErrors(errorsOf(outcome.faults), options) }
  }
  const form = useForm<V>({ defaultValues: asked as DefaultValues<V>, resolver })
  // half typed by one, it is nobody else’s to finish, a hold point least of all
  const key = keep && `${keep} ${whoHere()}`.trim()
  useKept(form, key)
  const submit = form.handleSubmit(async typed => {
    const outcome = read(typed)
    if (!outcome.ok) return
    const said = await save(outcome.value)
    const faults = typeof said === 'string' ? [{ path: '$', message: said }] : (said ?? [])
    for (const [name, error] of Object.entries(errorsOf(faults))) form.setError(name as FieldPath<V>, error)
    if (faults.length) return
    if (key) sessionStorage.removeItem(key)
    done?.(outcome.value)
  })
  return { form, submit: () => submit() }
}

/** Keeps what is typed over a reload of the page, on this device and for this tab. */
function useKept<V extends FieldValues>(form: UseFormReturn<V>, keep: string | undefined): void {
  useEffect(() => {
    if (!keep) return
    const was = sessionStorage.getItem(keep)
    if (was) form.reset(JSON.parse(was), { keepDefaultValues: true })
    return form.subscribe({
      formState: { values: true },
      callback: ({ values }) => sessionStorage.setItem(keep, JSON.stringify(values)),
    })
  }, [form, keep])
}
