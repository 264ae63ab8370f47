import { type Field, fieldsOf } from '../field'
import { shown } from '../units/format'
import { type Equipment, type EquipmentKind, equipmentKinds } from './index'

const kept = new Set(['kind', 'version'])

/** The fields of a kind in the order a datasheet gives them, as its schema names them. */
export function equipmentFields(kind: EquipmentKind): readonly Field[] {
  const known = fieldsByKind.get(kind)
  if (known) return known
  const fields = fieldsOf(equipmentKinds[kind]).filter(f => !kept.has(f.key))
  fieldsByKind.set(kind, fields)
  return fields
}
const fieldsByKind = new Map<EquipmentKind, readonly Field[]>()

const text = (field: Field, value: unknown): string => {
  if (value === undefined || value === null) return ''
  if (Array.isArray(value))
    return field.of.length
      ? value.map(row => rowText(field.of, row)).join('; ')
      : value.map(v => text({ ...field, kind: 'text' }, v)).join(', ')
  if (typeof value === 'object') return rowText(field.of, value)
  if (field.options.length) return field.options.find(o => o.value === value)?.name ?? String(value)
  return typeof value === 'number' || typeof value === 'boolean' ? shown(value, field.unit) : String(value)
}

/** One row of a list in a line: `TT-30`, `5-20 × 4`, `at most 2, 3,400 Wh each`. */
const rowText = (fields: readonly Field[], row: unknown): string =>
  fields
    .flatMap(f => {
      const value: unknown = row !== null && typeof row === 'object' ? Reflect.get(row, f.key) : undefined
      if (value === undefined) return []
      if (f.key === 'count') return value === 1 ? [] : [`× ${String(value)}`]
      const said = text(f, value)
      return [f.unit === 'text' || f.key === 'type' ? said : `${f.title.toLowerCase()} ${said}`]
    })
    .join(', ')

/** One fact of an item as a sheet prints it; empty where nobody has said it. */
export const factText = (item: Equipment, field: Field): string => text(field, Reflect.get(item, field.key))

export interface ComparedRow {
  title: string
  values: string[]
  differs: boolean
}

/** Up to four items fact by fact, in the order of their datasheets; a fact that a kind lacks is empty. */
export function compareEquipment(items: readonly Equipment[]): ComparedRow[] {
  const fields = new Map<string, Field>()
  for (const item of items)
    for (const field of equipmentFields(item.kind)) {
      const key = `${field.key} ${field.title}`
      if (!fields.has(key) && !['id', 'name'].includes(field.key)) fields.set(key, field)
    }
  return [...fields.values()]
    .map(field => {
      const values = items.map(item => {
        const own = equipmentFields(item.kind).find(f => f.key === field.key && f.title === field.title)
        return own ? factText(item, own) : ''
      })
      return { title: field.title, values, differs: new Set(values).size > 1 }
    })
    .filter(row => row.values.some(Boolean))
}

/** What of an item stands in a list, in a line. */
export function headlineOf(item: Equipment): string {
  const tell = (keys: readonly string[]) =>
    equipmentFields(item.kind)
      .filter(f => keys.includes(f.key) && factText(item, f))
      .map(f => {
        const said = factText(item, f)
        if (f.key === 'voltage') return `${said} V`
        // “51.2 V of one”, not “51.2 V volts of one”
        return f.unit === 'text' ? said : `${said} ${f.title.toLowerCase().replace(/^volts /, '')}`
      })
      .join(' · ')
  return tell([
    'continuousW',
    'energyWh',
    'packWh',
    'voltage',
    'unitV',
    'unitAh',
    'stcW',
    'inputW',
    'positions',
    'circuits',
    'inputA',
    'type',
    'from',
    'to',
    'lengthFt',
    'ratingA',
    'fits',
    'batteries',
  ])
}

/** Whether every word asked for is in what an item says of itself. */
export function findEquipment(items: readonly Equipment[], asked: string): Equipment[] {
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return [...items]
  return items.filter(item => {
    const said = `${item.kind} ${item.name} ${headlineOf(item)} ${item.notes ?? ''}`.toLowerCase()
    return words.every(w => said.includes(w))
  })
}
