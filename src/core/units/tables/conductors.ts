import * as z from 'zod'
import { labelled } from '../../field'

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
export const materialName = { cu: 'copper', al: 'aluminum' } as const satisfies Record<Material, string>

/** Rated temperature of an insulation or a termination, °C. */
export type TemperatureC = 60 | 75 | 90

/** One conductor size. Null: the table gives no figure. */
export interface ConductorRow {
  size: ConductorSize
  /** NEC chapter 9, table 8 */
  circularMils: number
  /** NEC 310.16: 30 °C ambient, up to three current-carrying conductors */
  ampacityA: { cu: Record<TemperatureC, number>; al: Record<TemperatureC, number> | null }
  /** NEC chapter 9, table 8: stranded, direct current, 75 °C, copper uncoated */
  ohmPerKft: Record<Material, number | null>
  /** NEC chapter 9, table 5: THHN/THWN-2 */
  areaIn2: number
  /** NEC 240.4(D) */
  smallConductorA: Record<Material, number | null>
  /** NEC 314.16(B) */
  boxIn3: number | null
}

export const conductors: readonly ConductorRow[] = [
  {
    size: '14',
    circularMils: 4110,
    ampacityA: { cu: { 60: 15, 75: 20, 90: 25 }, al: null },
    ohmPerKft: { cu: 3.14, al: null },
    areaIn2: 0.0097,
    smallConductorA: { cu: 15, al: null },
    boxIn3: 2,
  },
  {
    size: '12',
    circularMils: 6530,
    ampacityA: { cu: { 60: 20, 75: 25, 90: 30 }, al: { 60: 15, 75: 20, 90: 25 } },
    ohmPerKft: { cu: 1.98, al: 3.25 },
    areaIn2: 0.0133,
    smallConductorA: { cu: 20, al: 15 },
    boxIn3: 2.25,
  },
  {
    size: '10',
    circularMils: 10380,
    ampacityA: { cu: { 60: 30, 75: 35, 90: 40 }, al: { 60: 25, 75: 30, 90: 35 } },
    ohmPerKft: { cu: 1.24, al: 2.04 },
    areaIn2: 0.0211,
    smallConductorA: { cu: 30, al: 25 },
    boxIn3: 2.5,
  },
  {
    size: '8',
    circularMils: 16510,
    ampacityA: { cu: { 60: 40, 75: 50, 90: 55 }, al: { 60: 35, 75: 40, 90: 45 } },
    ohmPerKft: { cu: 0.778, al: 1.28 },
    areaIn2: 0.0366,
    smallConductorA: { cu: null, al: null },
    boxIn3: 3,
  },
  {
    size: '6',
    circularMils: 26240,
    ampacityA: { cu: { 60: 55, 75: 65, 90: 75 }, al: { 60: 40, 75: 50, 90: 55 } },
    ohmPerKft: { cu: 0.491, al: 0.808 },
    areaIn2: 0.0507,
    smallConductorA: { cu: null, al: null },
    boxIn3: 5,
  },
  {
    size: '4',
    circularMils: 41740,
    ampacityA: { cu: { 60: 70, 75: 85, 90: 95 }, al: { 60: 55, 75: 65, 90: 75 } },
    ohmPerKft: { cu: 0.308, al: 0.508 },
    areaIn2: 0.0824,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '3',
    circularMils: 52620,
    ampacityA: { cu: { 60: 85, 75: 100, 90: 115 }, al: { 60: 65, 75: 75, 90: 85 } },
    ohmPerKft: { cu: 0.245, al: 0.403 },
    areaIn2: 0.0973,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '2',
    circularMils: 66360,
    ampacityA: { cu: { 60: 95, 75: 115, 90: 130 }, al: { 60: 75, 75: 90, 90: 100 } },
    ohmPerKft: { cu: 0.194, al: 0.319 },
    areaIn2: 0.1158,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '1',
    circularMils: 83690,
    ampacityA: { cu: { 60: 110, 75: 130, 90: 145 }, al: { 60: 85, 75: 100, 90: 115 } },
    ohmPerKft: { cu: 0.154, al: 0.253 },
    areaIn2: 0.1562,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '1/0',
    circularMils: 105600,
    ampacityA: { cu: { 60: 125, 75: 150, 90: 170 }, al: { 60: 100, 75: 120, 90: 135 } },
    ohmPerKft: { cu: 0.122, al: 0.201 },
    areaIn2: 0.1855,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '2/0',
    circularMils: 133100,
    ampacityA: { cu: { 60: 145, 75: 175, 90: 195 }, al: { 60: 115, 75: 135, 90: 150 } },
    ohmPerKft: { cu: 0.0967, al: 0.159 },
    areaIn2: 0.2223,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '3/0',
    circularMils: 167800,
    ampacityA: { cu: { 60: 165, 75: 200, 90: 225 }, al: { 60: 130, 75: 155, 90: 175 } },
    ohmPerKft: { cu: 0.0766, al: 0.126 },
    areaIn2: 0.2679,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
  {
    size: '4/0',
    circularMils: 211600,
    ampacityA: { cu: { 60: 195, 75: 230, 90: 260 }, al: { 60: 150, 75: 180, 90: 205 } },
    ohmPerKft: { cu: 0.0608, al: 0.1 },
    areaIn2: 0.3237,
    smallConductorA: { cu: null, al: null },
    boxIn3: null,
  },
]

const rows = new Map<string, ConductorRow>(conductors.map(r => [r.size, r]))

/** A size as the calculators take it: any text, so that a size the table lacks is answered on its own key. */
export const sizeSchema = labelled(z.string(), 'Size', 'AWG', { among: conductorSizes })
export const metal = labelled(materialSchema, 'Metal', 'text', { names: materialName })

/** The row of a size; null where the table has no such size, or the metal is not made in it. */
export function conductorRow(size: string, material: Material = 'cu'): ConductorRow | null {
  const row = rows.get(size)
  return row?.ampacityA[material] ? row : null
}

/** The sizes a metal comes in, thinnest first. */
export const sizesOf = (material: Material): ConductorSize[] =>
  conductors.filter(r => r.ampacityA[material]).map(r => r.size)

/** Amps of NEC 310.16 at a column; null where the metal has no such size. */
export const tableAmpacityA = (material: Material, size: string, column: TemperatureC): number | null =>
  rows.get(size)?.ampacityA[material]?.[column] ?? null

/**
 * What a conductor may carry at ordinary terminations: the smaller of the 60 °C column (NEC 110.14(C)(1)(a), 310.16)
 * and the small-conductor limit (240.4(D)), in amps; null where the metal has no such size.
 */
export function ordinaryAmpacityA(material: Material, size: string): number | null {
  const columnA = tableAmpacityA(material, size, 60)
  if (columnA === null) return null
  return Math.min(columnA, rows.get(size)?.smallConductorA[material] ?? Infinity)
}

/** `12 AWG copper` */
export const conductorName = (size: string, material: Material) => `${size} AWG ${materialName[material]}`

/** What to say of a size the table or the metal does not have. */
export const noSuchSize = (material?: Material) =>
  `is not a size ${material ? `that ${materialName[material]} has` : 'of the table'}: one of ${(material ? sizesOf(material) : conductorSizes).join(', ')}`
