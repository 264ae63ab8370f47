import type { ReactNode } from 'react'
import type * as z from 'zod'
import { type Field, fieldsOf } from '@/core/field'
import { fail, parseWith } from '@/core/outcome'
import { type Draft, pruned, worded } from './draft'
import { Fields } from './FieldInput'
import { FormDialog } from './Form'
import { type Said, useSheet } from './useSheet'

interface Props<T> {
  title: string
  schema: z.ZodType<T>
  /** the fields to show, in order; all of the schema if left out */
  fields?: readonly Field[]
  draft: Draft
  save: string
  /** what keeps it from being saved, or nothing */
  onSave: (value: T) => Said | Promise<Said>
  onClose: () => void
  children?: ReactNode
  extra?: ReactNode
}

/** The facts of one thing as its schema names and orders them. What was typed stays until it can be saved. */
export function FactsDialog<T>({
  title,
  schema,
  fields,
  draft,
  save,
  onSave,
  onClose,
  children,
  extra,
}: Props<T>) {
  const shown = fields ?? fieldsOf(schema)
  const sheet = useSheet({
    values: draft,
    read: typed => {
      const got = parseWith(schema, pruned(shown, typed))
      return got.ok ? got : fail(...worded(got.faults, shown, typed))
    },
    save: onSave,
    done: onClose,
  })
  return (
    <FormDialog sheet={sheet} title={title} save={save} onClose={onClose} maxWidth="md" extra={extra}>
      {children}
      <Fields fields={shown} />
    </FormDialog>
  )
}
