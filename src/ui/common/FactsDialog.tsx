'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { type FormEvent, type ReactNode, useCallback, useState } from 'react'
import type * as z from 'zod'
import { type Field, fieldsOf } from '@/core/field'
import { type Fault, parseWith } from '@/core/outcome'
import { type Change, changed, type Draft, type Problems, sorted } from '../bench/draft'
import { Fields } from '../bench/FieldInput'
import styles from './FactsDialog.module.css'

interface Props<T> {
  title: string
  schema: z.ZodType<T>
  /** the fields to show, in order; all of the schema if left out */
  fields?: readonly Field[]
  draft: Draft
  save: string
  /** what keeps it from being saved, or nothing */
  onSave: (value: T) => Promise<readonly Fault[] | string | null> | readonly Fault[] | string | null
  onClose: () => void
  children?: ReactNode
  extra?: ReactNode
}

/** The facts of one thing as its schema names and orders them. What was typed stays until it can be saved. */
export function FactsDialog<T>({
  title,
  schema,
  fields,
  draft: given,
  save,
  onSave,
  onClose,
  children,
  extra,
}: Props<T>) {
  const [draft, setDraft] = useState<Draft>(given)
  const [faults, setFaults] = useState<readonly Fault[]>([])
  const [trouble, setTrouble] = useState<string | null>(null)
  const onChange: Change = useCallback((path, next) => setDraft(was => changed(was, path, next)), [])
  const shown = fields ?? fieldsOf(schema)
  const { problems, waiting, wrong } = sorted(faults, shown, draft)
  const missing: Problems = new Map([
    ...problems,
    ...faults.filter(f => /^is missing/.test(f.message)).map(f => [f.path, f.message] as const),
  ])
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    const read = parseWith(schema, draft)
    if (!read.ok) return setFaults(read.faults)
    setFaults([])
    const said = await onSave(read.value)
    if (said === null || (Array.isArray(said) && !said.length)) return onClose()
    if (typeof said === 'string') setTrouble(said)
    else setTrouble(said.map(f => f.message).join(' '))
  }
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <form onSubmit={submit} className={styles.form} noValidate>
        <DialogTitle>{title}</DialogTitle>
        <DialogContent className={styles.content}>
          {children}
          <Fields fields={shown} draft={draft} problems={missing} onChange={onChange} />
        </DialogContent>
        <DialogActions className={styles.actions}>
          <p role="alert" className={styles.wrong}>
            {[trouble ?? '', ...wrong, waiting.length ? `Still missing: ${waiting.join(', ')}.` : '']
              .filter(Boolean)
              .join(' ')}
          </p>
          {extra}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            {save}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
