import { useWatch } from 'react-hook-form'
import type { Field } from '@/core/field'
import { sizesOf } from '@/core/units/tables/conductors'
import { Quiet } from '../common/pieces'
import { AwgLadder } from './AwgLadder'
import { Check } from './Check'
import { Choice } from './Choice'
import styles from './Fields.module.css'
import { CheckField, LineField } from './inputs'
import { ListInput } from './ListInput'
import { NumberInput } from './NumberInput'
import { Options } from './Options'
import { RowsInput } from './RowsInput'
import { useField } from './useField'

/** The fields of an object, as its schema names and orders them. */
export function Fields({ fields, at }: { fields: readonly Field[]; at?: string }) {
  return (
    <div className={styles.fields}>
      {fields.map(field => (
        <FieldInput key={field.key} field={field} name={at ? `${at}.${field.key}` : field.key} />
      ))}
    </div>
  )
}

/** One of the fields by its key, where it stands among them. */
export function FieldNamed({ fields, name }: { fields: readonly Field[]; name: string }) {
  const field = fields.find(f => f.key === name)
  return field && <FieldInput field={field} name={name} />
}

interface Props {
  field: Field
  name: string
  /** in a row of a list: no room for ladders and radios */
  tight?: boolean
  onPaste?: (text: string) => boolean
}

const mostRadios = 4

/** One field of a form, by what its schema says of it. */
export function FieldInput(props: Props) {
  const { field, name, tight } = props
  const label =
    field.optional && field.default === undefined && !tight ? `${field.title} (optional)` : field.title
  switch (field.kind) {
    case 'number':
    case 'whole':
      return <Figure {...props} label={label} />
    case 'choice':
      return <Chosen {...props} label={label} />
    case 'yes-no':
      return (
        <div className={styles.wide}>
          <CheckField name={name} label={field.title} />
          {field.description && <Quiet>{field.description}</Quiet>}
        </div>
      )
    case 'pair':
      return (
        <fieldset className={styles.group}>
          <legend>{field.title}</legend>
          <div className={styles.fields}>
            {[0, 1].map(n => (
              <Figure
                key={n}
                name={`${name}.${n}`}
                field={field}
                label={`${field.row} ${n + 1}`.trim()}
                tight
              />
            ))}
          </div>
        </fieldset>
      )
    case 'group':
      return (
        <fieldset className={styles.group}>
          <legend>{label}</legend>
          <Fields fields={field.of} at={name} />
        </fieldset>
      )
    case 'rows':
      return (
        <RowsInput
          field={field}
          name={name}
          cell={(f, at, paste) => <FieldInput key={f.key} field={f} name={at} tight onPaste={paste} />}
        />
      )
    case 'list':
      return (
        <div className={styles.wide}>
          <ListInput name={name} field={field} />
        </div>
      )
    case 'text':
      return field.among.length ? (
        <Among {...props} label={label} />
      ) : (
        <div className={field.lines ? styles.wide : undefined}>
          <LineField
            name={name}
            label={label}
            onPaste={props.onPaste}
            {...(field.lines && { lines: field.lines, most: 2000 })}
          />
        </div>
      )
  }
}

type Labelled = Props & { label: string }

function Figure({ field, name, label, tight, onPaste }: Labelled) {
  const { value, set, leave, id, problem, ref } = useField(name, field.title)
  const silent = value === 'not stated'
  const number = (
    <NumberInput
      id={id}
      inputRef={ref}
      label={label}
      unit={field.unit}
      value={silent ? '' : value}
      onChange={next => set(next ?? '')}
      onLeave={leave}
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
      <Check label="not stated" checked={silent} onChange={checked => set(checked ? 'not stated' : '')} />
    </div>
  ) : (
    number
  )
}

function Chosen({ field, name, label, tight }: Labelled) {
  const { value, set, id, problem } = useField(name, field.title)
  const chosen = value === '' || value === undefined ? field.default : value
  const options = field.options.map(o => ({ value: o.value, label: o.name }))
  const none = field.optional && field.default === undefined
  if (!tight && options.length <= mostRadios && !none)
    return (
      <div className={styles.wide}>
        <Options
          id={id}
          label={field.title}
          value={chosen}
          options={options}
          onChange={set}
          help={field.description}
          problem={problem}
        />
      </div>
    )
  return (
    <Choice
      id={id}
      label={label}
      value={String(chosen ?? '')}
      help={problem ?? (tight ? undefined : field.description)}
      options={[
        ...(none || chosen === undefined ? [{ value: '', label: none ? 'not said' : '' }] : []),
        ...options.map(o => ({ ...o, value: String(o.value) })),
      ]}
      onChange={next => set(options.find(o => String(o.value) === next)?.value ?? '')}
    />
  )
}

/** A text that the tables know; of conductors, those made of the metal chosen beside it. */
function Among({ field, name, label, tight }: Labelled) {
  const { value, set, id, problem } = useField(name, field.title)
  const metal: unknown = useWatch({ name: name.replace(/[^.]*$/, 'material') })
  const made: readonly string[] = sizesOf('al')
  const wire = field.unit === 'AWG'
  const sizes = wire && metal === 'al' ? field.among.filter(size => made.includes(size)) : field.among
  const text = typeof value === 'string' ? value : ''
  if (wire && !tight)
    return (
      <div className={styles.wide}>
        <AwgLadder
          name={id}
          label={field.title}
          value={text || undefined}
          sizes={sizes}
          onChange={size => set(size ?? '')}
          optional={field.optional}
          problem={problem}
        />
      </div>
    )
  return (
    <Choice
      id={id}
      label={wire ? `${field.title}, AWG` : label}
      value={text}
      help={problem}
      options={[
        { value: '', label: field.optional ? 'none' : '' },
        ...[...new Set([...sizes, ...(text ? [text] : [])])],
      ]}
      onChange={set}
    />
  )
}
