import type { Equipment } from '@/core/equipment'
import type {
  Adapter,
  Cord,
  Inlet,
  Interlock,
  ManagedPanel,
  TransferSwitch,
} from '@/core/equipment/hookup-kinds'
import type {
  Autotransformer,
  Bank,
  Combiner,
  Generator,
  Inverter,
  Module,
  Station,
  VehicleOutlet,
} from '@/core/equipment/source-kinds'
import { expansionKey, type Stock } from '@/core/search/stock'

/** The demo firm's catalogue. All made up: the figures are plausible and belong to no real device. */

const station = (facts: Omit<Station, 'kind' | 'version'>): Station => ({
  kind: 'station',
  version: 1,
  chemistry: 'lfp',
  chargeAboveC: 0,
  dischargeAboveC: -20,
  ratedFor: 'indoors',
  document: `Datasheet ${facts.name}, made up for the demo`,
  ...facts,
})

export const rill6 = station({
  id: 'rill-6',
  name: 'Rill 6',
  continuousW: 600,
  surgeW: 1100,
  energyWh: 540,
  voltage: '120',
  idleW: 7,
  efficiencyFraction: 0.86,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [{ type: '5-15', count: 2 }],
  solar: { count: 1, minV: 12, maxV: 30, maxW: 150 },
  passThrough: 'not stated',
  weightLb: 15,
  price: 420,
})

export const sluice22 = station({
  id: 'sluice-22',
  name: 'Sluice 22',
  continuousW: 2200,
  surgeW: 4200,
  energyWh: 1900,
  voltage: '120',
  idleW: 16,
  efficiencyFraction: 0.89,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [
    { type: 'TT-30', count: 1 },
    { type: '5-20', count: 4 },
  ],
  expansion: { most: 3, energyWh: 1900, weightLb: 45, price: 1100 },
  acInputW: 1500,
  chargeModes: [
    { name: 'Fast', acW: 1500, solarW: 300, totalW: 1600 },
    { name: 'Gentle', acW: 500 },
  ],
  solar: { count: 1, minV: 12, maxV: 80, maxA: 15, maxW: 900 },
  passThrough: 'forbidden on a bonded neutral',
  passThroughScope: 'from any supply',
  inputNeutral: 'joined',
  weightLb: 62,
  price: 1700,
})

export const brook15 = station({
  id: 'brook-15',
  name: 'Brook 15',
  continuousW: 1500,
  surgeW: 2800,
  energyWh: 1350,
  voltage: '120',
  idleW: 12,
  efficiencyFraction: 0.88,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [{ type: '5-20', count: 4 }],
  acInputW: 900,
  solar: { count: 1, minV: 12, maxV: 60, maxW: 400 },
  passThrough: 'not stated',
  weightLb: 36,
  price: 980,
})

const sluice22b = station({
  ...sluice22,
  id: 'sluice-22b',
  name: 'Sluice 22B',
  surgeW: 4000,
  neutral: 'bonded',
  groundFaultOutlets: true,
  expansion: undefined,
  passThrough: 'not stated',
  document: 'Datasheet Sluice 22B, made up for the demo',
})

export const weirgate36 = station({
  id: 'weirgate-36',
  name: 'Weirgate 36',
  continuousW: 3600,
  surgeW: 6500,
  energyWh: 3400,
  voltage: '120',
  idleW: 26,
  efficiencyFraction: 0.9,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [
    { type: 'L5-30', count: 1 },
    { type: '5-20', count: 4 },
  ],
  expansion: { most: 2, energyWh: 3400, weightLb: 74, price: 1900 },
  startsLockedRotorA: 62,
  acInputW: 1800,
  solar: { count: 2, minV: 11, maxV: 60, maxA: 15, maxW: 800 },
  chargeModes: [
    { name: 'Fast', acW: 1800, solarW: 400, totalW: 2000 },
    { name: 'Quiet', acW: 600 },
  ],
  passThrough: 'not stated',
  weightLb: 104,
  price: 2700,
})

export const spate64 = station({
  id: 'spate-64',
  name: 'Spate 64',
  continuousW: 6400,
  legW: 3200,
  surgeW: 11_500,
  energyWh: 5100,
  voltage: '120/240',
  idleW: 45,
  efficiencyFraction: 0.91,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [
    { type: '14-50', count: 1 },
    { type: 'L14-30', count: 1 },
  ],
  expansion: { most: 4, energyWh: 5100, weightLb: 110, price: 2900 },
  startsLockedRotorA: 74,
  acInputW: 'not stated',
  solar: { count: 2, minV: 60, maxV: 140, maxA: 14 },
  passThrough: 'not stated',
  weightLb: 180,
  price: 5200,
})

/** An older unit that a customer owns; its sheet is short. */
export const eddy12 = station({
  id: 'eddy-12',
  name: 'Eddy 12',
  continuousW: 1500,
  surgeW: 3000,
  startsLockedRotorA: 'not stated',
  energyWh: 1260,
  voltage: '120',
  chemistry: 'nmc',
  chargeAboveC: 0,
  dischargeAboveC: -10,
  idleW: 22,
  efficiencyFraction: 0.84,
  neutral: 'floating',
  groundFaultOutlets: false,
  outlets: [{ type: '5-20', count: 3 }],
  acInputW: 250,
  passThrough: 'not stated',
  weightLb: 41,
  notes: 'No longer sold; found on jobs.',
})

const stations: Station[] = [rill6, brook15, sluice22, sluice22b, eddy12, weirgate36, spate64]

const sheet = (name: string) => `Datasheet ${name}, made up for the demo`

export const cascade: Bank = {
  kind: 'bank',
  id: 'cascade-48-280',
  name: 'Cascade 48-280',
  version: 1,
  document: sheet('Cascade 48-280'),
  unitV: 51.2,
  unitAh: 280,
  chemistry: 'lfp',
  depthFraction: 0.9,
  mostSeries: 1,
  mostParallel: 6,
  maxDischargeA: 160,
  surgeA: 280,
  maxChargeA: 140,
  chargeAboveC: 0,
  dischargeAboveC: -20,
  ratedFor: 'indoors',
  weightLb: 268,
  price: 3300,
}

export const millrace8: Inverter = {
  kind: 'inverter',
  id: 'millrace-8',
  name: 'Millrace 8',
  version: 1,
  document: sheet('Millrace 8'),
  continuousW: 8000,
  legW: 4500,
  surgeW: 15_000,
  startsLockedRotorA: 'not stated',
  batteryV: 48,
  idleW: 62,
  efficiencyFraction: 0.93,
  fullLoadEfficiencyFraction: 0.89,
  ownTransfer: true,
  transferA: 50,
  transferSeconds: 0.02,
  neutral: 'floating',
  inputNeutral: 'joined',
  chargeW: 5000,
  solar: { count: 1, minV: 120, maxV: 430, maxA: 18, maxW: 7000 },
  ratedFor: 'indoors',
  weightLb: 92,
  price: 3900,
}

export const estuaryOutlet: VehicleOutlet = {
  kind: 'vehicle-outlet',
  id: 'estuary-outlet',
  name: 'Estuary outlet',
  version: 1,
  continuousW: 1700,
  surgeW: 1900,
  packWh: 66_000,
  idleW: 90,
  efficiencyFraction: 0.86,
  outlets: [{ type: '5-20', count: 1 }],
  neutral: 'not stated',
  groundFaultOutlets: false,
  resetsByHand: true,
  notes: 'The owner keeps a reserve to drive away. Resets by hand after a trip.',
}

export const freshet18: Generator = {
  kind: 'generator',
  id: 'freshet-18',
  name: 'Freshet 18',
  version: 1,
  document: sheet('Freshet 18'),
  continuousW: 1800,
  surgeW: 2200,
  outlets: [{ type: '5-20', count: 2 }],
  WhPerGallon: 5100,
  tankGallons: 1.1,
  neutral: 'floating',
  loudDb: 57,
  weightLb: 48,
  price: 1050,
  notes: 'Inverter type.',
}

export const ripple410: Module = {
  kind: 'solar-module',
  id: 'ripple-410',
  name: 'Ripple 410',
  version: 1,
  document: sheet('Ripple 410'),
  stcW: 410,
  vocV: 37.4,
  vmpV: 31.2,
  iscA: 13.9,
  vocPctPerC: -0.27,
  folding: false,
  weightLb: 47,
  price: 190,
}

export const ripple200: Module = {
  kind: 'solar-module',
  id: 'ripple-200-f',
  name: 'Ripple 200 F',
  version: 1,
  document: sheet('Ripple 200 F'),
  stcW: 200,
  vocV: 24.2,
  vmpV: 20.1,
  iscA: 10.5,
  vocPctPerC: -0.3,
  folding: true,
  weightLb: 17,
  price: 340,
}

export const weirgateCombiner: Combiner = {
  kind: 'combiner',
  id: 'weirgate-combiner',
  name: 'Weirgate combiner',
  version: 1,
  document: sheet('Weirgate combiner'),
  pairs: ['weirgate-36'],
  synchronises: true,
  batteries: 'apart',
  neutral: 'joined',
  outlets: [{ type: 'L14-30', count: 1 }],
  weightLb: 9,
  price: 420,
}

const plainY: Combiner = {
  kind: 'combiner',
  id: 'fork-y',
  name: 'Fork Y adapter',
  version: 1,
  pairs: [],
  synchronises: false,
  batteries: 'apart',
  outlets: [{ type: 'L14-30', count: 1 }],
  price: 65,
  notes: 'Two plugs to one L14-30: each leg from its own unit, nothing synchronises them.',
}

export const tailrace5k: Autotransformer = {
  kind: 'autotransformer',
  id: 'tailrace-5k',
  name: 'Tailrace 5k',
  version: 1,
  document: sheet('Tailrace 5k'),
  continuousW: 5000,
  idleW: 38,
  efficiencyFraction: 0.94,
  inrushA: 18,
  neutral: 'joined',
  plug: '5-20',
  outlets: [{ type: 'L14-30', count: 1 }],
  weightLb: 36,
  price: 560,
}

const riffle = (positions: number, inputA: number, price: number): TransferSwitch => ({
  kind: 'transfer-switch',
  id: `riffle-${positions}`,
  name: `Riffle ${positions}`,
  version: 1,
  document: sheet(`Riffle ${positions}`),
  positions,
  positionLimitsA: Array.from({ length: positions }, (_, i) => (i < 2 ? 30 : i < 4 ? 20 : 15)),
  // leads of 10 AWG at the first pair, which one handle throws; 12 AWG elsewhere, which take 20 A at most
  positionDetails: Array.from({ length: positions }, (_, i) => ({
    position: i + 1,
    mostA: i < 2 ? 30 : 20,
    leadSize: i < 2 ? ('10' as const) : ('12' as const),
    ...(i === 0 && { bridge: 'handle' as const }),
  })),
  inputA,
  volts: '120/240',
  switchesNeutral: false,
  whipIn: 18,
  inlet: inputA > 20 ? 'L14-30' : 'L14-20',
  ratedFor: 'indoors',
  weightLb: 9 + positions / 2,
  price,
})
export const riffle6 = riffle(6, 30, 330)
export const riffle10 = riffle(10, 30, 460)

export const riffle1n: TransferSwitch = {
  kind: 'transfer-switch',
  id: 'riffle-1n',
  name: 'Riffle 1N',
  version: 1,
  document: sheet('Riffle 1N'),
  positions: 1,
  positionLimitsA: [15],
  inputA: 15,
  volts: '120',
  switchesNeutral: true,
  inlet: '5-15',
  ratedFor: 'indoors',
  weightLb: 3,
  price: 145,
}

export const braid12: ManagedPanel = {
  kind: 'managed-panel',
  id: 'braid-12',
  name: 'Braid 12',
  version: 1,
  document: sheet('Braid 12'),
  inputA: 80,
  circuits: 12,
  circuitLimitA: 30,
  sheds: true,
  transferSeconds: 1,
  ratedFor: 'indoors',
  weightLb: 31,
  price: 2900,
  notes: 'Meters every circuit and sheds by priority, automatic.',
}

const cord = (
  id: string,
  name: string,
  [from, to]: [string, Cord['to']],
  size: Cord['size'],
  lengthFt: number,
  ratingA: number,
  price: number,
): Cord => ({ kind: 'cord', id, name, version: 1, from, to, size, lengthFt, ratingA, listed: true, price })

export const inletL1430: Inlet = {
  kind: 'inlet',
  id: 'sill-l14-30',
  name: 'Sill L14-30',
  version: 1,
  type: 'L14-30',
  ratingA: 30,
  ratedFor: 'wet',
  price: 68,
}
export const inlet520: Inlet = {
  ...inletL1430,
  id: 'sill-5-20',
  name: 'Sill 5-20',
  type: '5-20',
  ratingA: 20,
  price: 42,
}
const inlets: Inlet[] = [
  inlet520,
  { ...inletL1430, id: 'sill-tt-30', name: 'Sill TT-30', type: 'TT-30', ratingA: 30, price: 55 },
  { ...inletL1430, id: 'sill-l14-20', name: 'Sill L14-20', type: 'L14-20', ratingA: 20, price: 58 },
  inletL1430,
  { ...inletL1430, id: 'sill-ss2-50', name: 'Sill SS2-50', type: 'SS2-50', ratingA: 50, price: 110 },
]

export const adapterTied: Adapter = {
  kind: 'adapter',
  id: 'braid-tt30-l1430',
  name: 'Bridge TT-30 to L14-30',
  version: 1,
  from: 'TT-30',
  to: 'L14-30',
  ratingA: 30,
  listed: true,
  price: 48,
  notes: 'Ties both hots of the L14-30 to the one of the TT-30.',
}
const adapters: Adapter[] = [
  adapterTied,
  {
    ...adapterTied,
    id: 'bridge-520-l1430',
    name: 'Bridge 5-20 to L14-30',
    from: '5-20',
    ratingA: 20,
    notes: 'Ties both hots.',
  },
  {
    ...adapterTied,
    id: 'bridge-1450-l1430',
    name: 'Bridge 14-50 to L14-30',
    from: '14-50',
    breakerA: 30,
    price: 96,
    notes: 'With a 30 A breaker of its own.',
  },
]

export const interlockW: Interlock = {
  kind: 'interlock',
  id: 'sluicegate-w',
  name: 'Sluicegate W',
  version: 1,
  fits: ['Weirline W-24', 'Weirline W-30', 'Weirline W-32', 'Weirline W-40'],
  mostBreakerA: 60,
  listed: true,
  price: 74,
}
export const interlockG: Interlock = {
  ...interlockW,
  id: 'sluicegate-g',
  name: 'Sluicegate G',
  fits: ['Gauge G-8', 'Gauge G-12', 'Gauge G-20'],
  price: 62,
}

export const cordL1430 = cord('tow-l14-30-25', 'Tow L14-30, 25 ft', ['L14-30', 'L14-30'], '10', 25, 30, 95)
export const cord520 = cord('tow-5-20-25', 'Tow 5-20, 25 ft', ['5-20', '5-20'], '12', 25, 20, 44)
const cords: Cord[] = [
  cord('tow-5-15-12', 'Tow 5-15, 12 ft', ['5-15', '5-15'], '14', 12, 15, 18),
  cord520,
  cord('tow-tt-30-25', 'Tow TT-30, 25 ft', ['TT-30', 'TT-30'], '10', 25, 30, 82),
  cord('tow-l14-20-25', 'Tow L14-20, 25 ft', ['L14-20', 'L14-20'], '12', 25, 20, 70),
  cordL1430,
  cord('tow-ss2-50-20', 'Tow 14-50 to SS2-50, 20 ft', ['14-50', 'SS2-50'], '6', 20, 50, 190),
]

export const catalogue: Equipment[] = [
  ...stations,
  cascade,
  millrace8,
  {
    kind: 'charger',
    id: 'freshet-charger-25',
    name: 'Lade 25',
    version: 1,
    inputW: 1400,
    batteryV: 51.2,
    efficiencyFraction: 0.92,
    weightLb: 8,
    price: 380,
  },
  estuaryOutlet,
  freshet18,
  ripple200,
  ripple410,
  weirgateCombiner,
  plainY,
  tailrace5k,
  ...cords,
  ...adapters,
  ...inlets,
  interlockW,
  interlockG,
  riffle(4, 20, 260),
  riffle6,
  riffle10,
  riffle1n,
  braid12,
]

/** What stands in the demo firm's store-room. */
export const stock: Stock = {
  'rill-6': 2,
  'brook-15': 3,
  'sluice-22': 2,
  [expansionKey('sluice-22')]: 2,
  'weirgate-36': 2,
  [expansionKey('weirgate-36')]: 1,
  'weirgate-combiner': 1,
  'spate-64': 1,
  'millrace-8': 1,
  'cascade-48-280': 2,
  'freshet-18': 1,
  'ripple-200-f': 4,
  'ripple-410': 6,
  'tailrace-5k': 1,
  'riffle-6': 2,
  'riffle-10': 1,
  'riffle-1n': 1,
  'sill-l14-30': 4,
  'sill-tt-30': 1,
  'sluicegate-w': 2,
  'sluicegate-g': 0,
}
