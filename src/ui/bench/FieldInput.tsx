'use client'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { memo } from 'react'
import type { Field } from '@/core/field'
import { sizesOf } from '@/core/units/tables/conductors'
import { Choice } from '../common/Choice'
import { AwgLadder } from './AwgLadder'
import {
  type Change,
  type Draft,
  idOf,
  type Path,
  type Problems,
  problemAt,
  problemsUnder,
  valueAt,
} from './draft'
import styles from './Fields.module.css'
import { ListInput } from './ListInput'
import { NumberInput } from './NumberInput'
import { Radios } from './Radios'
import { RowsInput } from './RowsInput'

export interface FormProps {
  draft: Draft
  problems: Problems
  /** always the same function: a field is drawn anew only when something of its own changes */
  onChange: Change
}

/** The fields of an object, as its schema names and orders them. */
export function Fields({ fields, at = [], ...form }: FormProps & { fields: readonly Field[]; at?: Path }) {
  return (
    <div className={styles.fields}>
      {fields.map(field => (
        <FieldInput key={field.key} field={field} path={[...at, field.key]} {...form} />
      ))}
    </div>
  )
}

interface Props extends FormProps {
  field: Field
  path: Path
  /** in a row of a list: no room for ladders and radios */
  tight?: boolean
  onPaste?: (text: string) => boolean
}

const mostRadios = 4

const metalBeside = (draft: Draft, path: Path) => valueAt(draft, [...path.slice(0, -1), 'material'])

const unchanged = (a: Props, b: Props) =>
  a.field === b.field &&
  a.onChange === b.onChange &&
  idOf(a.path) === idOf(b.path) &&
  valueAt(a.draft, a.path) === valueAt(b.draft, b.path) &&
  problemsUnder(a.problems, a.path) === problemsUnder(b.problems, b.path) &&
  (a.field.unit !== 'AWG' || metalBeside(a.draft, a.path) === metalBeside(b.draft, b.path))

export const FieldInput = memo(OneField, unchanged)

function OneField({ field, path, draft, problems, onChange, tight = false, onPaste }: Props) {
  const value = valueAt(draft, path)
  const problem = problemAt(problems, path)
  const set = (next: unknown) => onChange(path, next)
  const id = idOf(path)
  const label = field.optional && field.default === undefined ? `${field.title} (optional)` : field.title
  const form = { draft, problems, onChange }
  switch (field.kind) {
    case 'number':
    case 'whole': {
      const silent = value === 'not stated'
      const number = (
        <NumberInput
          id={id}
          label={tight ? field.title : label}
          unit={field.unit}
          value={silent ? undefined : value}
          onChange={set}
          whole={field.kind === 'whole'}
          usual={field.default}
          help={tight ? undefined : field.description}
          problem={problem}
          onPaste={onPaste}
        />
      )
      return field.notStated ? (
        <div className={styles.stated}>
          {number}
          <FormControlLabel
            control={
              <Checkbox checked={silent} onChange={e => set(e.target.checked ? 'not stated' : undefined)} />
            }
            label="not stated"
          />
        </div>
      ) : (
        number
      )
    }
    case 'choice': {
      const chosen = value ?? field.default
      if (!tight && field.options.length <= mostRadios && (!field.optional || field.default !== undefined))
        return (
          <div className={styles.wide}>
            <Radios
              name={id}
              label={field.title}
              value={chosen}
              options={field.options}
              onChange={set}
              help={field.description}
              problem={problem}
            />
          </div>
        )
      const none = field.optional && field.default === undefined
      return (
        <Choice
          id={id}
          label={tight ? field.title : label}
          value={String(chosen ?? '')}
          help={problem ?? (tight ? undefined : field.description)}
          options={[
            ...(none || chosen === undefined ? [{ value: '', label: none ? 'not said' : '' }] : []),
            ...field.options.map(o => ({ value: String(o.value), label: o.name })),
          ]}
          onChange={next => set(field.options.find(o => String(o.value) === next)?.value)}
        />
      )
    }
    case 'yes-no':
      return (
        <div className={styles.wide}>
          <FormControlLabel
            control={
              <Checkbox
                id={id}
                checked={(value ?? field.default) === true}
                onChange={e => set(e.target.checked)}
              />
            }
            label={field.title}
          />
          {field.description && <p className={styles.help}>{field.description}</p>}
        </div>
      )
    case 'pair':
      return (
        <fieldset className={`${styles.group} ${styles.wide}`}>
          <legend>{field.title}</legend>
          <div className={styles.fields}>
            {[0, 1].map(n => (
              <NumberInput
                key={n}
                id={idOf([...path, n])}
                label={`${field.row} ${n + 1}`.trim()}
                unit={field.unit}
                value={valueAt(draft, [...path, n])}
                onChange={next => {
                  const pair = Array.isArray(value) ? [...value] : []
                  pair[n] = next ?? ''
                  set(pair)
                }}
                problem={problemAt(problems, [...path, n])}
              />
            ))}
          </div>
        </fieldset>
      )
    case 'group':
      return (
        <fieldset className={`${styles.group} ${styles.wide}`}>
          <legend>{label}</legend>
          <Fields fields={field.of} at={path} {...form} />
          {problem && <p className={styles.problem}>{problem}</p>}
        </fieldset>
      )
    case 'rows':
      return (
        <RowsInput
          field={field}
          path={path}
          draft={draft}
          onChange={onChange}
          problem={problem}
          cell={(f, at, paste) => (
            <FieldInput key={f.key} field={f} path={at} tight onPaste={paste} {...form} />
          )}
        />
      )
    case 'list':
      return (
        <ListInput id={id} field={field} value={value} onChange={set} problem={listProblem(problems, path)} />
      )
    case 'text': {
      if (!field.among.length)
        return (
          <TextField
            id={id}
            label={tight ? field.title : label}
            value={typeof value === 'string' ? value : ''}
            onChange={e => set(e.target.value === '' && field.optional ? undefined : e.target.value)}
            className={problem ? styles.amiss : undefined}
            helperText={problem}
            slotProps={{ htmlInput: { autoComplete: 'off', maxLength: 200 }, inputLabel: { shrink: true } }}
            onPaste={e => {
              if (onPaste?.(e.clipboardData.getData('text'))) e.preventDefault()
            }}
          />
        )
      const sizes = field.unit === 'AWG' ? sizesFor(field, draft, path) : field.among
      if (field.unit === 'AWG' && !tight)
        return (
          <div className={styles.wide}>
            <AwgLadder
              name={id}
              label={field.title}
              value={value}
              sizes={sizes}
              onChange={set}
              optional={field.optional}
              problem={problem}
            />
          </div>
        )
      return (
        <Choice
          id={id}
          label={field.unit === 'AWG' ? `${field.title}, AWG` : tight ? field.title : label}
          value={typeof value === 'string' ? value : ''}
          help={problem}
          options={[
            { value: '', label: field.optional ? 'none' : '' },
            ...[...new Set([...sizes, ...(typeof value === 'string' && value ? [value] : [])])].map(v => ({
              value: v,
              label: v,
            })),
          ]}
          onChange={next => set(next === '' ? undefined : next)}
        />
      )
    }
  }
}

/** The sizes on offer: those the table has, of the metal chosen beside it. */
function sizesFor(field: Field, draft: Draft, path: Path): readonly string[] {
  if (metalBeside(draft, path) !== 'al') return field.among
  const made: readonly string[] = sizesOf('al')
  return field.among.filter(size => made.includes(size))
}

function listProblem(problems: Problems, path: Path): string | undefined {
  const [key] = path
  return [...problems].find(([at]) => at === key || at.startsWith(`${String(key)}[`))?.[1]
}
