import { produce } from 'immer'
import type { Field } from '@/core/field'
import { type Fault, pathText } from '@/core/outcome'

/** What stands in the form: the input as typed. A number that is none yet stays as its text. */
export type Draft = Record<string, unknown>
export type Path = readonly (string | number)[]

export function valueAt(draft: unknown, path: Path): unknown {
  return path.reduce<unknown>(
    (at, key) => (at !== null && typeof at === 'object' ? Reflect.get(at, key) : undefined),
    draft,
  )
}

const isEmpty = (value: unknown) =>
  value !== null && typeof value === 'object' && !Array.isArray(value) && !Object.keys(value).length

/** The draft with a value set, or left out when it is undefined; a group that this empties goes with it. */
export function withValue(draft: Draft, path: Path, value: unknown): Draft {
  return produce(draft, root => {
    let at: object = root
    const way: { holder: object; key: string | number }[] = []
    for (const key of path.slice(0, -1)) {
      way.push({ holder: at, key })
      const inner: unknown = Reflect.get(at, key)
      if (inner !== null && typeof inner === 'object') at = inner
      else {
        Reflect.set(at, key, {})
        at = Reflect.get(at, key)
      }
    }
    const last = path.at(-1)
    if (last === undefined) return
    if (value !== undefined) Reflect.set(at, last, value)
    else Reflect.deleteProperty(at, last)
    for (const { holder, key } of way.reverse())
      if (typeof key === 'string' && isEmpty(Reflect.get(holder, key))) Reflect.deleteProperty(holder, key)
  })
}

/** The same form with its numbers and texts gone; choices stay. */
export function emptied(fields: readonly Field[], draft: Draft): Draft {
  const kept = fields.flatMap((f): [string, unknown][] => {
    const value = draft[f.key]
    if (value === undefined) return []
    if (f.kind === 'choice' || f.kind === 'yes-no') return [[f.key, value]]
    if (f.kind === 'rows') return [[f.key, [{}]]]
    if (f.kind === 'group') {
      const inner = emptied(f.of, value as Draft)
      return Object.keys(inner).length ? [[f.key, inner]] : []
    }
    return []
  })
  return Object.fromEntries(kept)
}

/** What is wrong, by the path of the field it is said at. */
export type Problems = ReadonlyMap<string, string>

const missing = /^is missing/

/** What the form still waits for, and what is wrong, in the words on the screen instead of the keys of the contract. */
export function sorted(faults: readonly Fault[], fields: readonly Field[], draft: Draft) {
  const titles = new Map<string, string>()
  const collect = (list: readonly Field[]) => {
    for (const f of list) {
      if (!titles.has(f.key)) titles.set(f.key, f.title)
      collect(f.of)
    }
  }
  collect(fields)
  const keys = [...titles.keys()].filter(k => /[A-Z]/.test(k))
  const named = keys.length ? new RegExp(`\\b(${keys.join('|')})\\b`, 'g') : /$^/
  const problems = new Map<string, string>()
  const waiting: string[] = []
  const wrong: string[] = []
  for (const { path, message } of faults) {
    const keyed = path.split(/[.[\]]+/).filter(Boolean)
    const last = keyed.findLast(k => titles.has(k))
    const row = keyed.find(k => /^\d+$/.test(k))
    const title = `${last ? (titles.get(last) ?? last) : ''}${row && last ? ` (${Number(row) + 1})` : ''}`
    const typed = valueAt(draft, keyed)
    const said =
      typeof typed === 'string' && message.includes('a number')
        ? 'must be a number, such as 36 or 2.5'
        : message.replace(named, key => `“${titles.get(key)}”`)
    if (missing.test(message)) {
      if (!waiting.includes(title)) waiting.push(title)
    } else {
      problems.set(path, said)
      wrong.push(title ? `${title} ${said}.` : `This ${said}.`)
    }
  }
  return { problems, waiting, wrong }
}

export const problemAt = (problems: Problems, path: Path) => problems.get(pathText(path))

/** Everything wrong at a path or below it, as one text: whether it changed is all that matters. */
export function problemsUnder(problems: Problems, path: Path): string {
  const at = pathText(path)
  return [...problems]
    .flatMap(([where, said]) => (where.startsWith(at) ? [`${where} ${said}`] : []))
    .join('\n')
}

/** A new value, or what to make of the one that stands there now. */
export type Next = unknown | ((now: unknown) => unknown)
export type Change = (path: Path, next: Next) => void

export const changed = (draft: Draft, path: Path, next: Next): Draft =>
  withValue(draft, path, typeof next === 'function' ? next(valueAt(draft, path)) : next)

/** The path as an id of the document. */
export const idOf = (path: Path) => `in-${path.join('-')}`
