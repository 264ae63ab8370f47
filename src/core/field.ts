import type * as z from 'zod'
import type { UnitOfMeasure, WorkingValue } from './working'
import { sourced } from './working'

declare module 'zod' {
  interface GlobalMeta {
    unit?: UnitOfMeasure
    /** what to call each value of a choice */
    names?: Readonly<Record<string, string>>
    /** what one row of a list is called */
    row?: string
    /** of a text: what the tables know, thinnest first; anything else is answered with a fault */
    among?: readonly string[]
    /** of a text: over so many lines */
    lines?: number
  }
}

interface More {
  lines?: number
  names?: Readonly<Record<string, string>>
  row?: string
  among?: readonly string[]
  description?: string
}

/** A schema with the name and unit that a person reads. They show in the working, on the bench and in the JSON Schema. */
export const labelled = <S extends z.ZodType>(
  schema: S,
  title: string,
  unit: UnitOfMeasure = 'text',
  more: More = {},
): S => schema.meta({ title, unit, ...more })

export type FieldKind = 'number' | 'whole' | 'yes-no' | 'choice' | 'text' | 'list' | 'pair' | 'group' | 'rows'

/** One key of a calculator's input or output, as its schema describes it. */
export interface Field {
  key: string
  title: string
  unit: UnitOfMeasure
  kind: FieldKind
  optional: boolean
  description?: string
  /** of a choice: its values and what to call them */
  options: { value: string | number; name: string }[]
  /** of a group or of the rows of a list: the keys of each */
  of: Field[]
  row: string
  /** of a text: what to offer */
  among: readonly string[]
  /** of a text: so many lines at first; missing: one */
  lines?: number
  default?: unknown
  /** of a number: that the datasheet is silent is an answer too */
  notStated?: boolean
}

const known = new WeakMap<z.ZodType, Field[]>()

/** The keys of an object schema, in order; of a union, those of the variant that `input` is (the first, if of none). */
export function fieldsOf(schema: z.ZodType, input?: unknown): Field[] {
  const def = definition(schema)
  if (def.type === 'union') {
    const variants = def.options.map(o => fieldsOf(o as z.ZodType))
    const [first] = variants
    const tags = variants.flatMap(v => v[0]?.options ?? [])
    const value =
      first?.[0] && input !== null && typeof input === 'object' && Reflect.get(input, first[0].key)
    const [tag, ...rest] = variants.find(v => v[0]?.options[0]?.value === value) ?? first ?? []
    return tag ? [{ ...tag, options: tags }, ...rest] : []
  }
  const before = known.get(schema)
  if (before) return before
  const fields =
    def.type === 'object'
      ? Object.entries(def.shape).map(([key, value]) => fieldOf(key, value as z.ZodType))
      : []
  known.set(schema, fields)
  return fields
}

const definition = (schema: z.ZodType) => (schema as unknown as z.core.$ZodTypes)._zod.def

function fieldOf(key: string, schema: z.ZodType): Field {
  const field: Field = {
    key,
    title: key,
    unit: 'text',
    kind: 'text',
    optional: false,
    options: [],
    of: [],
    row: '',
    among: [],
  }
  let at = schema
  let meta: z.GlobalMeta = {}
  for (;;) {
    meta = { ...at.meta(), ...meta }
    const def = definition(at)
    if (def.type === 'default') {
      field.default = def.defaultValue
      field.optional = true
    } else if (def.type === 'optional') field.optional = true
    else if (def.type !== 'nullable') break
    at = def.innerType as z.ZodType
  }
  const { title, unit, description, names, row, among, lines } = meta
  Object.assign(field, {
    ...(title && { title }),
    ...(unit && { unit }),
    ...(description && { description }),
    ...(row && { row }),
    ...(lines && { lines }),
    ...(among && { among }),
  })
  const def = definition(at)
  const choice = (values: readonly unknown[]) => {
    field.kind = 'choice'
    field.options = values
      .filter(v => typeof v === 'string' || typeof v === 'number')
      .map(value => ({ value, name: names?.[value] ?? String(value) }))
  }
  switch (def.type) {
    case 'number':
      field.kind = 'format' in def ? 'whole' : 'number'
      break
    case 'union':
      // a number, or the word that the datasheet is silent
      if (def.options.some(o => definition(o as z.ZodType).type === 'number')) {
        field.kind = 'number'
        field.notStated = true
      }
      break
    case 'boolean':
      field.kind = 'yes-no'
      break
    case 'enum':
      choice(Object.values(def.entries))
      break
    case 'literal':
      choice(def.values)
      break
    case 'object':
      field.kind = 'group'
      field.of = fieldsOf(at)
      break
    case 'tuple':
      field.kind = 'pair'
      break
    case 'array': {
      const element = def.element as z.ZodType
      field.of = fieldsOf(element)
      field.kind = field.of.length ? 'rows' : 'list'
      break
    }
  }
  return field
}

const mostRows = 24

const nameOf = (field: Field, value: unknown) =>
  field.options.find(o => o.value === value)?.name ?? String(value)

/** One row of a list in a line: `12 AWG, count 6`. */
function rowText(
  fields: readonly Field[],
  row: unknown,
  shown: (value: number, unit: UnitOfMeasure) => string,
): string {
  return fields
    .flatMap(f => {
      const value = row !== null && typeof row === 'object' ? Reflect.get(row, f.key) : undefined
      if (value === undefined) return []
      if (typeof value === 'number' && f.kind !== 'choice')
        return [f.unit === 'count' ? `× ${value}` : shown(value, f.unit)]
      return [f.unit === 'AWG' ? `${value} AWG` : nameOf(f, value)]
    })
    .join(', ')
}

/** The inputs of a working, from the schema's names and units; each with where it came from, where that is known. */
export function inputsOf(
  fields: readonly Field[],
  input: object,
  sources: object | undefined,
  shown: (value: number, unit: UnitOfMeasure) => string,
): WorkingValue[] {
  return fields.flatMap((f): WorkingValue[] => {
    const value: unknown = Reflect.get(input, f.key)
    if (value === undefined) return []
    const from = sourced(sources && Reflect.get(sources, f.key))
    const about = { label: f.title, unit: f.unit, ...from }
    if (f.kind === 'group') return [{ ...about, value: rowText(f.of, value, shown), unit: 'text' }]
    if (Array.isArray(value)) {
      if (f.kind !== 'rows')
        return [{ ...about, value: value.map(v => shown(v, f.unit)).join(', ') || 'none', unit: 'text' }]
      if (value.length > mostRows || !value.length)
        return [{ ...about, value: value.length ? `${value.length} ${f.row}s` : 'none', unit: 'text' }]
      return value.map((row, n) => ({
        ...about,
        label: `${f.row || f.title} ${n + 1}`,
        value: rowText(f.of, row, shown),
        unit: 'text' as const,
      }))
    }
    if (typeof value === 'string' || f.kind === 'choice') return [{ ...about, value: nameOf(f, value) }]
    if (typeof value === 'number' || typeof value === 'boolean') return [{ ...about, value }]
    return []
  })
}
