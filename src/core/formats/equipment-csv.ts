import { type Equipment, type EquipmentKind, equipmentKinds, kindIds } from '../equipment'
import { type Field, fieldsOf } from '../field'
import { type Fault, fail, fault, type Outcome, parseWith } from '../outcome'
import { typedNumber } from '../typed-number'
import { cellsOf, csvOf, unescaped } from './cells'

const mostItems = 500

/** `[{type: TT-30, count: 1}]` as `type=TT-30; count=1`, rows apart by ` | `. What would part them is written `%7C`. */
const packed = (value: unknown) =>
  String(value).replace(/[%|;=]/g, c => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)
const unpacked = (text: string) =>
  text.replace(/%(25|7C|3B|3D)/gi, (_, hex) => String.fromCharCode(Number.parseInt(hex, 16)))
const rowCell = (row: object) =>
  Object.entries(row)
    .map(([key, value]) => `${key}=${packed(value)}`)
    .join('; ')

function flat(item: Equipment): Record<string, string> {
  const out: Record<string, string> = {}
  for (const [key, value] of Object.entries(item)) {
    if (value === undefined) continue
    if (Array.isArray(value))
      out[key] = value.map(v => (typeof v === 'object' && v !== null ? rowCell(v) : packed(v))).join(' | ')
    else if (typeof value === 'object' && value !== null)
      for (const [inner, deep] of Object.entries(value)) out[`${key}.${inner}`] = String(deep)
    else out[key] = String(value)
  }
  return out
}

/** Equipment as a table: a row each, a column for every fact that any has; formulas of spreadsheets are disarmed. */
export function equipmentCsv(items: readonly Equipment[]): string {
  const rows = items.map(flat)
  const columns = [...new Set(['kind', 'id', 'name', ...rows.flatMap(r => Object.keys(r))])]
  return csvOf([columns, ...rows.map(r => columns.map(c => r[c] ?? ''))])
}

/**
 * Equipment from a table as `equipmentCsv` writes it. Nothing is taken when anything is wrong.
 * Faults: `row 3, energyWh` with what to do; more than 500 rows; no column `kind`.
 */
export function readEquipmentCsv(text: string): Outcome<Equipment[]> {
  const [columns = [], ...rows] = cellsOf(text)
  if (!columns.includes('kind'))
    return fail(
      fault(
        '$',
        'has no column “kind”: the first row must name the columns, as a catalogue saved from here does',
      ),
    )
  if (rows.length > mostItems)
    return fail(fault('$', `has ${rows.length} rows; at most ${mostItems} are read at once`))
  return collected(
    rows.map((row, n) => readRow(new Map(columns.map((c, i) => [c, unescaped(row[i] ?? '')])), n + 2)),
  )
}

/** Equipment from JSON: a list of items. Faults name the item and the field. */
export function readEquipmentJson(text: string): Outcome<Equipment[]> {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return fail(fault('$', 'is not whole JSON: the file may be cut short; save it again'))
  }
  if (!Array.isArray(raw))
    return fail(fault('$', 'must be a list of items, as a catalogue saved from here is'))
  if (raw.length > mostItems)
    return fail(fault('$', `has ${raw.length} items; at most ${mostItems} are read at once`))
  return collected(raw.map((item: unknown, n) => readItem(item, `item ${n + 1}`)))
}

function collected(read: Outcome<Equipment>[]): Outcome<Equipment[]> {
  const faults = read.flatMap(r => (r.ok ? [] : r.faults))
  if (faults.length) return fail(...faults.slice(0, 50))
  const items = read.flatMap(r => (r.ok ? [r.value] : []))
  if (!items.length)
    return fail(fault('$', 'holds no equipment: give a row for each item below the names of the columns'))
  const twice = items.find((item, n) => items.findIndex(o => o.id === item.id) !== n)
  return twice ? fail(fault('$', `names ${twice.id} twice: an id stands once`)) : { ok: true, value: items }
}

const kindOf = (value: unknown): EquipmentKind | undefined => kindIds.find(k => k === value)

function readItem(raw: unknown, where: string): Outcome<Equipment> {
  const kind = kindOf(raw !== null && typeof raw === 'object' ? Reflect.get(raw, 'kind') : undefined)
  if (!kind) return fail(fault(`${where}, kind`, `must be one of ${kindIds.join(', ')}`))
  const versioned = { version: 1, ...(raw as object) }
  const read: Outcome<Equipment> = parseWith<Equipment>(equipmentKinds[kind], versioned)
  return read.ok ? read : fail(...read.faults.map(f => fault(`${where}, ${f.path}`, f.message)))
}

function readRow(row: ReadonlyMap<string, string>, line: number): Outcome<Equipment> {
  const kind = kindOf(row.get('kind'))
  if (!kind) return fail(fault(`row ${line}, kind`, `must be one of ${kindIds.join(', ')}`))
  const faults: Fault[] = []
  const item: Record<string, unknown> = { kind }
  const fields = fieldsOf(equipmentKinds[kind])
  for (const [column, typed] of row) {
    if (typed === '' || column === 'kind') continue
    const [key = '', inner] = column.split('.')
    if (key === 'version') {
      item.version = Number(typed)
      continue
    }
    const field = fields.find(f => f.key === key)
    const own = inner === undefined ? field : field?.of.find(f => f.key === inner)
    if (!field || !own)
      faults.push(fault(`row ${line}, ${column}`, `is no fact of a ${kind}: leave the cell empty`))
    else if (inner === undefined) item[key] = factOf(field, typed)
    else item[key] = { ...(item[key] as object | undefined), [inner]: factOf(own, typed) }
  }
  if (faults.length) return fail(...faults)
  return readItem(item, `row ${line}`)
}

/** A figure as a spreadsheet may have rewritten it; what is none stays, for the schema to tell. */
const figureOf = (typed: string): number | string => {
  const read = typedNumber(typed)
  return 'value' in read ? read.value : typed
}

function factOf(field: Field, typed: string): unknown {
  switch (field.kind) {
    case 'number':
    case 'whole':
      return figureOf(typed)
    case 'yes-no':
      return { true: true, yes: true, false: false, no: false }[typed.toLowerCase()] ?? typed
    case 'choice':
      return field.options.find(o => String(o.value) === typed)?.value ?? typed
    case 'list':
      return typed.split('|').map(v => {
        const one = unpacked(v.trim())
        return field.unit !== 'text' && Number.isFinite(Number(one)) ? Number(one) : one
      })
    case 'rows':
      return typed.split('|').map(row =>
        Object.fromEntries(
          row.split(';').map(pair => {
            const [key = '', ...value] = pair.split('=')
            const own = field.of.find(f => f.key === key.trim())
            const one = unpacked(value.join('=').trim())
            return [key.trim(), own ? factOf(own, one) : one]
          }),
        ),
      )
    default:
      return typed
  }
}
