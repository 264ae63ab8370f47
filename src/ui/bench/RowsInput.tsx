'use client'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import { Plus, X } from 'lucide-react'
import type { CSSProperties, ReactNode } from 'react'
import type { Field } from '@/core/field'
import { plural } from '@/core/units/format'
import { type Change, type Draft, idOf, type Path, valueAt } from './draft'
import styles from './Fields.module.css'
import { pastedRows } from './paste'

interface Props {
  field: Field
  path: Path
  draft: Draft
  onChange: Change
  problem?: string
  /** one field of one row */
  cell: (field: Field, path: Path, onPaste: (text: string) => boolean) => ReactNode
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
export function RowsInput({ field, path, draft, onChange, problem, cell }: Props) {
  const value = valueAt(draft, path)
  const rows: unknown[] = Array.isArray(value) ? value : []
  const put = (next: (now: unknown[]) => unknown[]) =>
    onChange(path, (now: unknown) => next(Array.isArray(now) ? now : []))
  const focus = (n: number) =>
    requestAnimationFrame(() => document.getElementById(idOf([...path, n, field.of[0]?.key ?? '']))?.focus())
  const add = () => {
    put(now => {
      const last = now.at(-1)
      return [...now, last !== null && typeof last === 'object' ? { ...last } : {}]
    })
    focus(rows.length)
  }
  const paste = (n: number) => (text: string) => {
    const pasted = pastedRows(text, field.of)
    if (!pasted.length) return false
    put(now => [...now.slice(0, n), ...pasted, ...now.slice(n + pasted.length)])
    return true
  }
  const columns: CSSProperties & { '--columns': string } = { '--columns': columnsOf(field.of) }
  return (
    <fieldset className={`${styles.group} ${styles.wide}`}>
      <legend>{field.title}</legend>
      <div className={styles.rows}>
        {rows.slice(0, drawn).map((_, n) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: rows have no names of their own, and are only added and removed
            key={n}
            className={styles.row}
            style={columns}
          >
            <b>{n + 1}</b>
            <div>{field.of.map(f => cell(f, [...path, n, f.key], paste(n)))}</div>
            <IconButton
              aria-label={`Remove ${field.row.toLowerCase()} ${n + 1}`}
              onClick={() => put(now => now.filter((_, at) => at !== n))}
            >
              <X size={17} aria-hidden />
            </IconButton>
          </div>
        ))}
        <div className={styles.more}>
          <Button size="small" variant="outlined" startIcon={<Plus size={16} aria-hidden />} onClick={add}>
            {field.row}
          </Button>
          <span>
            {rows.length > drawn
              ? `and ${plural(rows.length - drawn, 'more row')}, all counted`
              : 'or paste rows from a spreadsheet'}
          </span>
          {rows.length > drawn && (
            <Button size="small" onClick={() => put(now => now.slice(0, 1))}>
              Keep the first only
            </Button>
          )}
        </div>
        {problem && <p className={styles.problem}>{problem}</p>}
      </div>
    </fieldset>
  )
}
