import type { Field } from '@/core/field'
import type { Fault } from '@/core/outcome'

/** What stands in the form: the input as typed. A number that is none yet stays as its text; an empty field is `''`. */
export type Draft = Record<string, unknown>

const isRecord = (value: unknown): value is Draft =>
  value !== null && typeof value === 'object' && !Array.isArray(value)

const isEmpty = (field: Field, value: unknown) =>
  value === undefined ||
  value === null ||
  // a text that may be empty is one; any other field is left out instead
  (value === '' && (field.kind !== 'text' || field.optional || field.among.length > 0))

/** The form's values as its schema takes them: what is empty is left out, and a group that this empties goes with it. */
export function pruned(fields: readonly Field[], values: Draft): Draft {
  const kept = { ...values }
  for (const field of fields) {
    const value = kept[field.key]
    if (isEmpty(field, value)) delete kept[field.key]
    else if (field.kind === 'group' && isRecord(value)) {
      const inner = pruned(field.of, value)
      if (Object.keys(inner).length) kept[field.key] = inner
      else delete kept[field.key]
    } else if (field.kind === 'rows' && Array.isArray(value))
      kept[field.key] = value.map(row =>
        isRecord(row) && field.of.some(f => isEmpty(f, row[f.key])) ? pruned(field.of, row) : row,
      )
  }
  return kept
}

/** The same form with its numbers and texts gone; choices stay. */
export function emptied(fields: readonly Field[], draft: Draft): Draft {
  return Object.fromEntries(
    fields.map((f): [string, unknown] => {
      const value = draft[f.key]
      if (f.kind === 'choice' || f.kind === 'yes-no') return [f.key, value ?? '']
      if (f.kind === 'rows') return [f.key, [{}]]
      if (f.kind === 'group') return [f.key, emptied(f.of, isRecord(value) ? value : {})]
      return [f.key, f.kind === 'list' || f.kind === 'pair' ? [] : '']
    }),
  )
}

/** What is wrong, by the path of the field it is said at. */
export type Problems = ReadonlyMap<string, string>

const missing = /^is missing/

function valueAt(draft: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>(
    (at, key) => (at !== null && typeof at === 'object' ? Reflect.get(at, key) : undefined),
    draft,
  )
}

/** The same faults in the words on the screen instead of the keys of the contract. */
export function worded(faults: readonly Fault[], fields: readonly Field[], draft: Draft): Fault[] {
  const titles = titlesOf(fields)
  const keys = [...titles.keys()].filter(k => /[A-Z]/.test(k))
  const named = keys.length ? new RegExp(`\\b(${keys.join('|')})\\b`, 'g') : /$^/
  return faults.map(({ path, message }) => ({
    path,
    message:
      typeof valueAt(draft, keysOf(path)) === 'string' && message.includes('a number')
        ? 'must be a number, such as 36 or 2.5'
        : message.replace(named, key => `“${titles.get(key)}”`),
  }))
}

const keysOf = (path: string) => path.split(/[.[\]]+/).filter(Boolean)

function titlesOf(fields: readonly Field[], titles = new Map<string, string>()): Map<string, string> {
  for (const f of fields) {
    if (!titles.has(f.key)) titles.set(f.key, f.title)
    titlesOf(f.of, titles)
  }
  return titles
}

/** What the form still waits for, and what is wrong and where. */
export function sorted(faults: readonly Fault[], fields: readonly Field[], draft: Draft) {
  const titles = titlesOf(fields)
  const problems = new Map<string, string>()
  const waiting: string[] = []
  const wrong: string[] = []
  for (const { path, message } of worded(faults, fields, draft)) {
    const keyed = keysOf(path)
    const last = keyed.findLast(k => titles.has(k))
    const row = keyed.find(k => /^\d+$/.test(k))
    const title = `${last ? (titles.get(last) ?? last) : ''}${row && last ? ` (${Number(row) + 1})` : ''}`
    if (missing.test(message)) {
      if (!waiting.includes(title)) waiting.push(title)
    } else {
      problems.set(path, message)
      wrong.push(title ? `${title} ${message}.` : `This ${message}.`)
    }
  }
  return { problems, waiting, wrong }
}
