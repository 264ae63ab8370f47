import { Button } from '@mui/material'
import { Plus, X } from 'lucide-react'
import type { ReactNode } from 'react'
import { useFormContext } from 'react-hook-form'
import type { Field } from '@/core/field'
import { plural } from '@/core/units/format'
import { Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import styles from './Fields.module.css'
import { useField, useIdOf } from './useField'

interface Props {
  field: Field
  name: string
  /** one field of one row */
  cell: (field: Field, name: string, onPaste: (text: string) => boolean) => ReactNode
}

/** More rows than this are kept and computed with, but not drawn as fields. */
const drawn = 12

/** Free text takes twice the room of a number; more than four fields stand in two lines. */
const columnsOf = (fields: readonly Field[]) =>
  fields.length > 4
    ? '1.15fr 1.2fr 1.2fr 0.8fr'
    : fields
        .map(f => (f.kind === 'text' && !f.among.length ? '2fr' : f.kind === 'choice' ? '1.3fr' : '1fr'))
        .join(' ')

/** A list of like things, a row each. Cells copied from a spreadsheet can be pasted from any row on. */
export function RowsInput({ field, name, cell }: Props) {
  const { value, problem } = useField(name, field.title)
  const { setValue, getValues } = useFormContext()
  const idOf = useIdOf()
  const rows: unknown[] = Array.isArray(value) ? value : []
  const put = (next: (now: unknown[]) => unknown[]) => {
    const now: unknown = getValues(name)
    setValue(name, next(Array.isArray(now) ? now : []), { shouldDirty: true })
  }
  const add = () => {
    put(now => {
      const last = now.at(-1)
      return [...now, last !== null && typeof last === 'object' ? { ...last } : {}]
    })
    const first = idOf(`${name}.${rows.length}.${field.of[0]?.key ?? ''}`)
    requestAnimationFrame(() => document.getElementById(first)?.focus())
  }
  const paste = (n: number) => (text: string) => {
    // one line without tabs is no table, and pasted as text
    if (!/[\t\n\r]/.test(text.trim())) return false
    void import('./paste').then(({ pastedRows }) => {
      const pasted = pastedRows(text, field.of)
      if (pasted.length) put(now => [...now.slice(0, n), ...pasted, ...now.slice(n + pasted.length)])
    })
    return true
  }
  return (
    <fieldset className={styles.group}>
      <legend>{field.title}</legend>
      {rows.slice(0, drawn).map((_, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no names of their own, and are only added and removed
        <div key={n} className={styles.row}>
          <b>{n + 1}</b>
          <div style={{ gridTemplateColumns: columnsOf(field.of) }}>
            {field.of.map(f => cell(f, `${name}.${n}.${f.key}`, paste(n)))}
          </div>
          <Tool
            label={`Remove ${field.row.toLowerCase()} ${n + 1}`}
            onClick={() => put(now => now.filter((_, at) => at !== n))}
            icon={X}
          />
        </div>
      ))}
      <Row>
        <Button size="small" variant="outlined" startIcon={<Plus size={16} aria-hidden />} onClick={add}>
          {field.row}
        </Button>
        <Quiet component="span">
          {rows.length > drawn
            ? `and ${plural(rows.length - drawn, 'more row')}, all counted`
            : 'or paste rows from a spreadsheet'}
        </Quiet>
        {rows.length > drawn && (
          <Button size="small" onClick={() => put(now => now.slice(0, 1))}>
            Keep the first only
          </Button>
        )}
      </Row>
      {problem && <Quiet sx={{ color: 'error.main' }}>{problem}</Quiet>}
    </fieldset>
  )
}
