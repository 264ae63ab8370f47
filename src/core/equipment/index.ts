import * as z from 'zod'
import {
  adapterSchema,
  cordSchema,
  inletSchema,
  interlockSchema,
  managedPanelSchema,
  transferSwitchSchema,
} from './hookup-kinds'
import {
  autotransformerSchema,
  bankSchema,
  chargerSchema,
  combinerSchema,
  generatorSchema,
  inverterSchema,
  moduleSchema,
  stationSchema,
  vehicleOutletSchema,
} from './source-kinds'

/** The schema of each kind, in the order of the path from the source to the circuits. */
export const equipmentKinds = {
  station: stationSchema,
  bank: bankSchema,
  inverter: inverterSchema,
  charger: chargerSchema,
  'vehicle-outlet': vehicleOutletSchema,
  generator: generatorSchema,
  'solar-module': moduleSchema,
  combiner: combinerSchema,
  autotransformer: autotransformerSchema,
  cord: cordSchema,
  adapter: adapterSchema,
  inlet: inletSchema,
  interlock: interlockSchema,
  'transfer-switch': transferSwitchSchema,
  'managed-panel': managedPanelSchema,
} as const

/** The firm's catalogue: every kind keeps its own facts; names carry their unit. */
export const equipmentSchema = z.discriminatedUnion('kind', [
  stationSchema,
  bankSchema,
  inverterSchema,
  chargerSchema,
  vehicleOutletSchema,
  generatorSchema,
  moduleSchema,
  combinerSchema,
  autotransformerSchema,
  cordSchema,
  adapterSchema,
  inletSchema,
  interlockSchema,
  transferSwitchSchema,
  managedPanelSchema,
])
export type Equipment = z.infer<typeof equipmentSchema>
export type EquipmentKind = Equipment['kind']
export const kindIds = Object.keys(equipmentKinds) as [EquipmentKind, ...EquipmentKind[]]

/** What one of a kind is called. */
export const kindName: Record<EquipmentKind, string> = {
  station: 'station',
  bank: 'battery',
  inverter: 'inverter',
  charger: 'charger',
  'vehicle-outlet': 'vehicle outlet',
  generator: 'generator',
  'solar-module': 'solar module',
  combiner: 'combiner',
  autotransformer: 'autotransformer',
  cord: 'cord',
  adapter: 'adapter',
  inlet: 'inlet',
  interlock: 'interlock',
  'transfer-switch': 'transfer switch',
  'managed-panel': 'managed panel',
}

/** The items of one kind. */
export const ofKind = <K extends EquipmentKind>(
  items: readonly Equipment[],
  kind: K,
): Extract<Equipment, { kind: K }>[] =>
  items.filter((item): item is Extract<Equipment, { kind: K }> => item.kind === kind)
