import type * as z from 'zod'
import type { Fault } from './fault'

/** A document deeper, or with more values, than anything of ours: it is refused before it is gone through. */
const mostDepth = 40
const mostValues = 5_000_000
/** Keys of one object: no schema of ours has as many, and a record of our own holds as many at most. */
const mostKeys = 2000

type Def = z.core.$ZodTypes['_zod']['def']

const definition = (schema: unknown): Def => (schema as z.core.$ZodTypes)._zod.def

/** What a schema says of a list’s length, where it says so. */
function mostOf(schema: unknown): number | null {
  for (const check of definition(schema).checks ?? []) {
    const def = (check as z.core.$ZodCheck)._zod.def
    if (def.check === 'max_length' && 'maximum' in def) return Number(def.maximum)
  }
  return null
}

interface Place {
  value: unknown
  schema: unknown
  path: PropertyKey[]
}

/**
 * Whether a value is out of all bounds of what a schema describes: a list longer than its schema allows, too deep, too many
 * keys or values. Lengths are looked at before elements, so that a million empty panels cost nothing. Null when it is within.
 */
export function boundsFault(schema: z.ZodType, raw: unknown): Fault | null {
  const stack: Place[] = [{ value: raw, schema, path: [] }]
  let values = 0
  for (let at = stack.pop(); at; at = stack.pop()) {
    const { value, path } = at
    if (++values > mostValues)
      return { path: '$', message: `holds more than ${mostValues.toLocaleString('en-US')} values` }
    if (value === null || typeof value !== 'object') continue
    if (path.length > mostDepth)
      return { path: textOf(path.slice(0, 8)), message: `goes deeper than ${mostDepth} levels` }
    const inside = bare(at.schema, value)
    if (Array.isArray(value)) {
      const most = inside ? mostOf(inside) : null
      if (most !== null && value.length > most)
        return {
          path: textOf(path),
          message: `must hold at most ${most.toLocaleString('en-US')}, not ${value.length.toLocaleString('en-US')}`,
        }
      if (value.length > mostValues) return { path: textOf(path), message: `holds ${value.length} entries` }
      const element = inside && elementOf(inside)
      for (let n = value.length - 1; n >= 0; n--) {
        const one: unknown = value[n]
        if (one !== null && typeof one === 'object')
          stack.push({ value: one, schema: element, path: [...path, n] })
        else values++
      }
      continue
    }
    const keys = Object.keys(value)
    if (keys.length > mostKeys)
      return {
        path: textOf(path),
        message: `has ${keys.length.toLocaleString('en-US')} keys: at most ${mostKeys.toLocaleString('en-US')} are read`,
      }
    for (const key of keys) {
      const one: unknown = Reflect.get(value, key)
      if (one !== null && typeof one === 'object')
        stack.push({ value: one, schema: inside && keyOf(inside, key), path: [...path, key] })
      else values++
    }
  }
  return null
}

/** The schema itself, out of what is wrapped round it; of a union told by a key, the one that the value names. */
function bare(schema: unknown, value: object): unknown {
  let at = schema
  for (let n = 0; at && n < 20; n++) {
    const def = definition(at)
    if (def.type === 'optional' || def.type === 'nullable' || def.type === 'default' || def.type === 'catch')
      at = def.innerType
    else if (def.type === 'pipe') at = def.in
    else if (def.type === 'union') {
      const fits = def.options.filter(o => suits(o, value))
      if (fits.length !== 1) return null
      at = fits[0]
    } else return at
  }
  return null
}

/** Whether an option of a union can be meant: a list for a list; an object whose literals agree. */
function suits(option: unknown, value: object): boolean {
  const def = definition(option)
  if (def.type === 'array' || def.type === 'tuple') return Array.isArray(value)
  if (def.type !== 'object') return def.type === 'union' || def.type === 'record'
  if (Array.isArray(value)) return false
  return Object.entries(def.shape).every(([key, inner]) => {
    const own = definition(inner)
    return own.type !== 'literal' || own.values.some(v => v === Reflect.get(value, key))
  })
}

function elementOf(schema: unknown): unknown {
  const def = definition(schema)
  return def.type === 'array' ? def.element : null
}

function keyOf(schema: unknown, key: string): unknown {
  const def = definition(schema)
  if (def.type === 'object') return Object.hasOwn(def.shape, key) ? def.shape[key] : null
  return def.type === 'record' ? def.valueType : null
}

const textOf = (path: readonly PropertyKey[]) =>
  path.reduce<string>(
    (before, key) =>
      typeof key === 'number'
        ? `${before}[${key}]`
        : `${before}${before ? '.' : ''}${String(key).slice(0, 60)}`,
    '',
  ) || '$'
