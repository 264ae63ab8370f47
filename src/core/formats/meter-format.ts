import type { DateOrder } from './written-time'

/** How a meter's program wrote its table: told from the first lines, confirmed by a person. */

export const columnKinds = [
  'ignore',
  'time',
  'date',
  'clock',
  'elapsed s',
  'elapsed h',
  'W',
  'kW',
  'VA',
  'A',
  'A peak',
  'V',
  'PF',
  'Wh total',
  'kWh total',
  'Wh each row',
] as const
export type ColumnKind = (typeof columnKinds)[number]

export interface MeterFormat {
  delimiter: string
  decimal: '.' | ','
  /** rows before the figures begin */
  headerRows: number
  columns: ColumnKind[]
  dateOrder: DateOrder
  /** of the circuit: for a column of amps alone, V */
  volts: number
  /** where only amps or volt-amps are given */
  powerFactor: number
}

/** Said of a file that is none. */
export const wantedOfMeter = 'wanted is a table with a time and W, A or a counter of Wh, one reading a row'
