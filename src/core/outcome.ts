import type * as z from 'zod'
import { boundsFault } from './bounds'
import type { Fault } from './fault'

export type { Fault } from './fault'

/** Errors a person can act on are values. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; faults: Fault[] }

export const ok = <T>(value: T): Outcome<T> => ({ ok: true, value })
export const fail = (...faults: Fault[]): { ok: false; faults: Fault[] } => ({ ok: false, faults })
export const fault = (path: string, message: string): Fault => ({ path, message })

/** `['links', 2, 'ratingA']` → `links[2].ratingA`; the empty path is `$`. */
export function pathText(path: readonly PropertyKey[]): string {
  const text = path.reduce<string>(
    (before, key) =>
      typeof key === 'number' ? `${before}[${key}]` : before ? `${before}.${String(key)}` : String(key),
    '',
  )
  return text || '$'
}

function valueAt(raw: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (at, key) => (at !== null && typeof at === 'object' ? Reflect.get(at, key) : undefined),
    raw,
  )
}

function typeMessage(raw: unknown, path: readonly PropertyKey[], expected: string): string {
  const got = valueAt(raw, path)
  if (got === undefined) return 'is missing'
  if (got === null) return `must be ${withArticle(expected)}, not null: leave the key out instead`
  if (typeof got === 'number')
    return `must be ${expected === 'number' ? 'a finite number' : withArticle(expected)}`
  return `must be ${withArticle(expected)}, not ${withArticle(Array.isArray(got) ? 'list' : typeof got)}`
}

const kindNames: Record<string, string> = { int: 'whole number', array: 'list', record: 'object' }
function withArticle(kind: string): string {
  const name = kindNames[kind] ?? kind
  return `${/^[aeio]/.test(name) ? 'an' : 'a'} ${name}`
}

const listed = (values: readonly unknown[]) => values.map(v => JSON.stringify(v)).join(', ')

/** More faults than these help nobody: the rest is counted. */
const mostFaults = 50
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most)}…` : text)

/** At most fifty faults, each of a length that a screen shows; the last says how many more there are. */
export function bounded(faults: readonly Fault[], more = 0): Fault[] {
  const left = faults.length - mostFaults + more
  // the fifty and their last word stay as they are
  if (left === 1 && /^has [\d,]+ more faults/.test(faults.at(-1)?.message ?? '')) return [...faults]
  return [
    ...faults.slice(0, mostFaults).map(f => fault(cut(f.path, 200), cut(f.message, 500))),
    ...(left > 0 ? [fault('$', `has ${left.toLocaleString('en-US')} more faults like these`)] : []),
  ]
}

/** Zod's issues in Spillway's words: one fault for each place, unknown keys one by one; at most fifty. */
export function faultsOf(error: z.ZodError, raw: unknown, base: readonly PropertyKey[] = []): Fault[] {
  const [first, rest] = [error.issues.slice(0, mostFaults), error.issues.length - mostFaults]
  return bounded(issueFaults(first, raw, base), Math.max(0, rest))
}

function issueFaults(
  issues: readonly z.core.$ZodIssue[],
  raw: unknown,
  base: readonly PropertyKey[],
): Fault[] {
  return issues.flatMap(issue => {
    const path = [...base, ...issue.path]
    switch (issue.code) {
      case 'unrecognized_keys':
        return issue.keys.map(key => fault(pathText([...path, key]), 'is not a key that belongs here'))
      case 'invalid_type':
        return fault(pathText(path), typeMessage(raw, issue.path, issue.expected))
      case 'invalid_value': {
        const missing = valueAt(raw, issue.path) === undefined
        const values = `${issue.values.length > 1 ? 'one of ' : ''}${listed(issue.values)}`
        return fault(pathText(path), missing ? `is missing: give ${values}` : `must be ${values}`)
      }
      case 'invalid_union': {
        if ('discriminator' in issue && issue.discriminator) {
          const options = 'options' in issue && Array.isArray(issue.options) ? issue.options : []
          const choice = options.length ? `must be one of ${listed(options)}` : 'is not a known kind'
          return fault(pathText(path), choice)
        }
        return fault(pathText(path), issue.message)
      }
      default:
        return fault(pathText(path), issue.message)
    }
  })
}

/** Parses at the door: the value, or its faults with their paths. What is out of all bounds is not gone through. */
export function parseWith<T>(schema: z.ZodType<T>, raw: unknown): Outcome<T> {
  const out = boundsFault(schema, raw)
  if (out) return fail(out)
  const parsed = schema.safeParse(raw)
  return parsed.success ? ok(parsed.data) : { ok: false, faults: faultsOf(parsed.error, raw) }
}
