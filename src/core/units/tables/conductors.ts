import * as z from 'zod'

/** One conductor size. Ampacity by insulation temperature: NEC 310.16; small-conductor limit: NEC 240.4(D). */
export interface ConductorRow {
  size: ConductorSize
  cu60A: number
  al60A: number | null
  smallConductorCuA: number | null
  smallConductorAlA: number | null
}

export const conductorSizes = [
  '14',
  '12',
  '10',
  '8',
  '6',
  '4',
  '3',
  '2',
  '1',
  '1/0',
  '2/0',
  '3/0',
  '4/0',
] as const
export const conductorSizeSchema = z.enum(conductorSizes)
export type ConductorSize = z.infer<typeof conductorSizeSchema>
export const materialSchema = z.enum(['cu', 'al'])
export type Material = z.infer<typeof materialSchema>

/** NEC 310.16 (30 °C ambient, up to three current-carrying conductors) and 240.4(D). */
export const conductors: readonly ConductorRow[] = [
  { size: '14', cu60A: 15, al60A: null, smallConductorCuA: 15, smallConductorAlA: null },
  { size: '12', cu60A: 20, al60A: 15, smallConductorCuA: 20, smallConductorAlA: 15 },
  { size: '10', cu60A: 30, al60A: 25, smallConductorCuA: 30, smallConductorAlA: 25 },
  { size: '8', cu60A: 40, al60A: 35, smallConductorCuA: null, smallConductorAlA: null },
  { size: '6', cu60A: 55, al60A: 40, smallConductorCuA: null, smallConductorAlA: null },
  { size: '4', cu60A: 70, al60A: 55, smallConductorCuA: null, smallConductorAlA: null },
  { size: '3', cu60A: 85, al60A: 65, smallConductorCuA: null, smallConductorAlA: null },
  { size: '2', cu60A: 95, al60A: 75, smallConductorCuA: null, smallConductorAlA: null },
  { size: '1', cu60A: 110, al60A: 85, smallConductorCuA: null, smallConductorAlA: null },
  { size: '1/0', cu60A: 125, al60A: 100, smallConductorCuA: null, smallConductorAlA: null },
  { size: '2/0', cu60A: 145, al60A: 115, smallConductorCuA: null, smallConductorAlA: null },
  { size: '3/0', cu60A: 165, al60A: 130, smallConductorCuA: null, smallConductorAlA: null },
  { size: '4/0', cu60A: 195, al60A: 150, smallConductorCuA: null, smallConductorAlA: null },
]

/**
 * What a conductor may carry at ordinary terminations: the smaller of the 60 °C column (NEC 110.14(C)(1)(a), 310.16)
 * and the small-conductor limit (240.4(D)), in amps; null where the metal has no such size.
 */
export function ordinaryAmpacityA(material: Material, size: string): number | null {
  const row = conductors.find(r => r.size === size)
  const columnA = material === 'cu' ? row?.cu60A : row?.al60A
  if (!row || columnA == null) return null
  return Math.min(columnA, (material === 'cu' ? row.smallConductorCuA : row.smallConductorAlA) ?? Infinity)
}
