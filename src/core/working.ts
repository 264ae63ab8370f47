import * as z from 'zod'

/** Where a figure came from, best evidence first. */
export const origins = [
  'commissioned',
  'metered',
  'nameplate',
  'utility data',
  'catalogue',
  'typical value',
  'assumed',
  'job',
] as const
export const originSchema = z.enum(origins)
export type Origin = z.infer<typeof originSchema>

/** A figure's provenance: what kind of evidence, of which day, in which document. */
export interface Provenance {
  from: Origin
  on?: string
  document?: string
}

export type UnitOfMeasure =
  | 'W'
  | 'VA'
  | 'A'
  | 'V'
  | 'Wh'
  | 'h'
  | 'ft'
  | 'in2'
  | 'in3'
  | 'C'
  | 'ohm'
  | 'fraction'
  | 'count'
  | 'circuits'
  | 'text'
  | 'AWG'
  | 'connector'
  | 'Ah'
  | 'gal'
  | 'Wh/gal'
  | '%/°C'
  | 'degrees'
  | 'lb'
  | '$'
  | 'in'
  | 's'

/** One value in a working: an input with its provenance, or a step with its arithmetic. */
export interface WorkingValue {
  label: string
  value: number | string | boolean
  unit: UnitOfMeasure
  /** the arithmetic in figures, for a step */
  arithmetic?: string
  provenance?: Provenance
  /** how this value was itself computed */
  working?: Working
}

/** A line of a working: what it is called, its value, and the arithmetic in figures. */
export const step = (
  label: string,
  value: WorkingValue['value'],
  unit: UnitOfMeasure,
  arithmetic?: string,
): WorkingValue => ({ label, value, unit, ...(arithmetic !== undefined && { arithmetic }) })

/** A row that was looked up in a table: which table, which row and column, what stands there. */
export interface TableRow {
  table: string
  row: string
  column?: string
  value: string
}

/** The trace that *Show the working* draws. Made by the core together with the result. */
export interface Working {
  title: string
  /** the formula in words, a line each */
  formula: string[]
  inputs: WorkingValue[]
  steps: WorkingValue[]
  /** the rows of tables that were used */
  rows?: TableRow[]
  /** tables and articles used */
  references: string[]
  /** the trade's rule beside the computation */
  ruleOfThumb?: string
  /** what to know before using the figure */
  notes?: string[]
  /** what the figure does not cover */
  notCovered: string[]
}

/** Provenance (and, where it was computed, the working) of a calculator's inputs, by key. */
export type Sources<I> = I extends unknown
  ? { [K in keyof I]?: Provenance & { label?: string; working?: Working } }
  : never

export const fromJob: Provenance = { from: 'job' }

/** Spreads an input's source over its line in the working: provenance, working and a better label where known. */
export function sourced(source?: Provenance & { label?: string; working?: Working }): Partial<WorkingValue> {
  if (!source) return {}
  const { label, working, ...provenance } = source
  return { ...(working ? { working } : { provenance }), ...(label && { label }) }
}
