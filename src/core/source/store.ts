import { chemistryFacts, factsOfChemistry } from '../equipment/chemistries'
import { told } from '../equipment/facts'
import type { Bank, UnitEquipment } from '../equipment/source-kinds'
import { plural, quantity } from '../units/format'
import type { Provenance, Working } from '../working'
import type { Source, Supplied, Unit } from './design'

/** The energy of one unit: its own, its expansions', its bank's, as labelled, Wh. Nothing for a generator. */
export function capacityOf(unit: Unit): number {
  const { equipment, bank } = unit
  switch (equipment.kind) {
    case 'station':
      return equipment.energyWh + unit.expansionUnits * (equipment.expansion?.energyWh ?? 0)
    case 'vehicle-outlet':
      return equipment.packWh
    case 'inverter':
      return bank
        ? bank.equipment.unitV * bank.equipment.unitAh * bank.series * bank.parallel * depthOf(bank.equipment)
        : 0
    case 'generator':
      return 0
  }
}

const depthOf = (bank: Bank) => bank.depthFraction ?? chemistryFacts[bank.chemistry].depthFraction

/**
 * What a fast discharge leaves of an inverter's bank, as the `bank` calculator has it: Peukert's law over 20 hours, never
 * above the rated capacity. 1 for anything else.
 */
export function rateFraction(unit: Unit, batteryW: number): number {
  const { bank } = unit
  if (!bank || batteryW <= 0) return 1
  const dischargeA = batteryW / (bank.equipment.unitV * bank.series)
  const capacityAh = bank.equipment.unitAh * bank.parallel
  return Math.min(
    1,
    (capacityAh / (dischargeA * ratedHours)) ** (chemistryFacts[bank.equipment.chemistry].peukert - 1),
  )
}
const ratedHours = 20

const defaultEfficiency = 0.88
/**
 * A unit's own draw while on (W) and how much of the battery's energy reaches the outlet. `lossPerW2` bends that with the
 * load: battery W = idleW + W ÷ efficiency + lossPerW2 × W², through the efficiency that the datasheet gives at full load.
 */
export function lossesOf(unit: UnitEquipment): {
  idleW: number
  efficiencyFraction: number
  lossPerW2: number
  assumed: boolean
} {
  if (unit.kind === 'generator') return { idleW: 0.1, efficiencyFraction: 1, lossPerW2: 0, assumed: false }
  const efficiencyFraction = unit.efficiencyFraction ?? defaultEfficiency
  const full = unit.kind === 'vehicle-outlet' ? undefined : unit.fullLoadEfficiencyFraction
  return {
    idleW: unit.idleW ?? 60,
    efficiencyFraction,
    lossPerW2: full === undefined ? 0 : Math.max(0, 1 / full - 1 / efficiencyFraction) / unit.continuousW,
    assumed: unit.idleW === undefined || unit.efficiencyFraction === undefined,
  }
}

/** What cold leaves of a capacity, by chemistry: straight lines through what its row has at 0 °C and −20 °C, an assumption. */
export function coldFraction(chemistry: string | undefined, coldestC: number | undefined): number {
  if (coldestC === undefined || coldestC >= 25) return 1
  const { atZero, atMinus20 } = factsOfChemistry(chemistry) ?? chemistryFacts.lfp
  if (coldestC >= 0) return atZero + ((1 - atZero) * coldestC) / 25
  return Math.max(0.2, atZero + ((atZero - atMinus20) * coldestC) / 20)
}

export const chemistryOf = (unit: Unit): string | undefined =>
  unit.bank?.equipment.chemistry ??
  (unit.equipment.kind === 'station'
    ? (unit.equipment.chemistry ?? 'lfp')
    : unit.equipment.kind === 'vehicle-outlet'
      ? 'nmc'
      : undefined)

/** What is left of a unit’s label: as tested, else what age is taken to leave. */
export const leftOf = (unit: Unit, source: Source): number =>
  unit.capacity?.value ?? source.stands?.agedFraction ?? 1

/** What cold and age leave, over all units: by the energy of each. */
export function deratingOf(source: Source): { fraction: number; coldFraction: number; agedFraction: number } {
  const sum = (of: (u: Unit) => number) => source.units.reduce((total, u) => total + capacityOf(u) * of(u), 0)
  const all = sum(() => 1)
  const cold = (u: Unit) => coldFraction(chemistryOf(u), source.stands?.coldestC)
  const agedFraction = all ? sum(u => leftOf(u, source)) / all : 1
  return {
    fraction: all ? sum(u => cold(u) * leftOf(u, source)) / all : agedFraction,
    coldFraction: all ? sum(cold) / all : 1,
    agedFraction,
  }
}

/** What the source's stores hold and lose, all together. */
export interface Store {
  /** each unit's labelled energy, in order, Wh */
  unitsWh: number[]
  capacityWh: number
  /** what cold, age and the figure of the outage leave */
  deratingFraction: number
  /** of it what the average draw leaves of a bank */
  rateFraction: number
  idleW: number
  efficiencyFraction: number
  /** each leg drains its own battery */
  apart: boolean
  /** the autotransformer's own draw, W */
  transformerIdleW: number
}

/** `meanW`, what the loads draw on average, decides what a bank gives of its capacity. */
export function storeOf(source: Source, outageDerating: number, meanW = 0): Store {
  const losses = source.units.map(u => lossesOf(u.equipment))
  const through = source.arrangement === 'autotransformer' ? source.autotransformer : undefined
  const unitsWh = source.units.map(capacityOf)
  const efficiencyFraction =
    (losses.reduce((sum, l) => sum + l.efficiencyFraction, 0) / losses.length) *
    (through?.efficiencyFraction ?? 1)
  const all = unitsWh.reduce((a, b) => a + b, 0)
  const share = 1 / Math.max(1, source.units.length)
  const left = source.units.reduce((sum, u, n) => {
    const drawnW = (losses[n]?.idleW ?? 0) + (meanW * share) / efficiencyFraction
    return sum + (unitsWh[n] ?? 0) * (meanW > 0 ? rateFraction(u, drawnW) : 1)
  }, 0)
  const rate = all > 0 ? left / all : 1
  return {
    unitsWh,
    capacityWh: all,
    deratingFraction: outageDerating * deratingOf(source).fraction * rate,
    rateFraction: rate,
    idleW: losses.reduce((sum, l) => sum + l.idleW, 0),
    efficiencyFraction,
    apart:
      source.arrangement === 'independent' ||
      (source.arrangement === 'combined' && source.combiner?.batteries !== 'shared'),
    transformerIdleW: through ? through.idleW / (losses[0]?.efficiencyFraction ?? 1) : 0,
  }
}

/** The units in a line: `two Weirgate 36 with 2 expansion units each`, `Millrace 8 on 4 Cascade 48-280`. */
export function sourceName(source: Source): string {
  const [first] = source.units
  if (!first) return 'no source'
  const same = source.units.every(u => u.equipment.id === first.equipment.id)
  const one = (u: Unit) => {
    const cells = u.bank ? u.bank.series * u.bank.parallel : 0
    return `${u.equipment.name}${u.bank ? ` on ${cells > 1 ? `${cells} ` : ''}${u.bank.equipment.name}` : ''}${
      u.expansionUnits ? ` with ${plural(u.expansionUnits, 'expansion unit')}` : ''
    }`
  }
  return same && source.units.length > 1
    ? `${numbers[source.units.length] ?? source.units.length} ${one(first)}${first.expansionUnits ? ' each' : ''}`
    : source.units.map(one).join(' and ')
}
const numbers = ['no', 'one', 'two', 'three', 'four']

export const catalogueOf = (source: Source): Provenance => ({
  from: 'catalogue',
  document: source.units.map(u => `${u.equipment.name}, version ${u.equipment.version}`).join('; '),
})

/** What cold and age leave of the capacity, opened. */
export function deratingWorking(source: Source, outageDerating: number, rate = 1): Working {
  const { coldFraction: cold, agedFraction: aged, fraction } = deratingOf(source)
  const tested = source.units.find(u => u.capacity)?.capacity
  return {
    title: 'What is left of the capacity',
    formula: [
      `left = figure of the outage × what cold leaves × what age leaves${rate < 1 ? ' × what the draw leaves' : ''}`,
    ],
    inputs: [
      { label: 'Figure of the outage', value: outageDerating, unit: 'fraction', provenance: { from: 'job' } },
      {
        label: `Cold${source.stands?.coldestC === undefined ? ', not said' : ` at ${quantity(source.stands.coldestC, 'C')}`}`,
        value: cold,
        unit: 'fraction',
        provenance: { from: 'assumed' },
      },
      {
        label: tested ? 'Age, by its capacity test' : 'Age',
        value: aged,
        unit: 'fraction',
        provenance: tested ?? { from: source.stands?.agedFraction ? 'job' : 'assumed' },
      },
      ...(rate < 1
        ? [
            {
              label: 'The draw: Peukert’s law over 20 h, at the average of the loads',
              value: rate,
              unit: 'fraction' as const,
              provenance: { from: 'assumed' as const },
            },
          ]
        : []),
    ],
    steps: [{ label: 'Left', value: outageDerating * fraction * rate, unit: 'fraction' }],
    references: rate < 1 ? ['Peukert’s law'] : [],
    notCovered: [
      rate < 1
        ? 'A capacity test replaces all of them.'
        : 'How fast it is discharged; a capacity test replaces all three.',
    ],
  }
}

/** What a unit takes from AC while it charges, W; undefined where the datasheet is silent. */
export const acInputOf = (unit: UnitEquipment): number | undefined =>
  unit.kind === 'station' ? told(unit.acInputW) : unit.kind === 'inverter' ? told(unit.chargeW) : undefined

export interface StorePoint {
  hour: number
  levelWh: number
}

/**
 * The store over the outage at the average draw: a straight fall from the charge at the start to the reserve, then level.
 * `batteryW` in W; hours and Wh out. Ends at the hours asked or where the reserve is reached, whichever is later.
 */
export function storeOverTime(
  job: Supplied,
  run: { hours: number; batteryW: number },
): { capacityWh: number; reserveWh: number; points: StorePoint[] } {
  const { source, outage } = job
  const store = source && storeOf(source, outage.deratingFraction)
  const capacityWh = store ? store.capacityWh * store.deratingFraction : 0
  const startWh = capacityWh * outage.startFraction
  const reserveWh = Math.min(capacityWh * outage.reserveFraction, startWh)
  const end = Math.max(outage.hours, run.hours)
  const at = (hour: number): StorePoint => ({
    hour,
    levelWh: Math.max(reserveWh, startWh - hour * run.batteryW),
  })
  const hours = run.hours < end ? [0, run.hours, end] : [0, end]
  return { capacityWh, reserveWh, points: hours.map(at) }
}
