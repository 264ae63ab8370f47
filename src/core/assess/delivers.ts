import { methodOf } from '../hookup/method'
import type { Job } from '../job/schema'
import { opposed } from '../source/arrangement'
import { solarInputOf, voltsOf } from '../source/design'
import {
  arraysWorked,
  chargerEfficiencyFraction,
  chargeW,
  modeOf,
  recordLowOf,
  refillWorked,
} from '../source/inputs'
import { limitWords, outletsOf, ratingOf } from '../source/output'
import { acInputOf, capacityOf, chemistryOf, deratingWorking, storeOf } from '../source/store'
import { plural, quantity } from '../units/format'
import { receptacles } from '../units/tables/receptacles'
import type { Working } from '../working'
import type { Figures } from './balance'

/** One thing a source delivers or takes, in words, with the working where there is one. */
export interface Delivered {
  label: string
  value: string
  note?: string
  working?: Working
}

export interface Delivers {
  energy: Delivered[]
  power: Delivered[]
  inputs: Delivered[]
  /** what settings do to each other, and what a sheet is silent about */
  mind: string[]
}

/** What the source of a job delivers, takes, and needs to be told: every line from the same figures as the balance. */
export function deliversOf(
  job: Job,
  figures: Pick<Figures, 'output' | 'run' | 'meanLoadW'>,
): Delivers | null {
  const { source, outage } = job
  const { output, run } = figures
  if (!source || !output) return null
  const store = storeOf(source, outage.deratingFraction)
  const low = recordLowOf(job)
  const energy: Delivered[] = [
    ...source.units.map((u, n) => ({
      label: source.units.length > 1 ? `${u.equipment.name}, unit ${n + 1}` : u.equipment.name,
      value: quantity(capacityOf(u), 'Wh'),
      note: [
        u.expansionUnits ? `with ${plural(u.expansionUnits, 'expansion unit')}` : '',
        u.bank
          ? `${u.bank.series * u.bank.parallel} × ${u.bank.equipment.name}, at its depth of discharge`
          : '',
        chemistryOf(u) ?? '',
        u.owned ? 'owned' : '',
      ]
        .filter(Boolean)
        .join(', '),
    })),
    {
      label: 'Left by cold and age',
      value: quantity(store.deratingFraction, 'fraction'),
      working: deratingWorking(source, outage.deratingFraction),
    },
    ...(run
      ? [
          {
            label: 'Usable, down to the reserve',
            value: quantity(run.usableWh, 'Wh'),
            note:
              run.strandedWh > 1
                ? `${quantity(run.strandedWh, 'Wh')} more are stranded`
                : `reserve ${quantity(outage.reserveFraction, 'fraction')}`,
            working: run.working,
          },
        ]
      : []),
  ]
  const outlets = outletsOf(source)
  const first = source.units[0]?.equipment
  const power: Delivered[] = [
    {
      label: 'Whole, less than three hours',
      value: quantity(output.totalW, 'W'),
      note: `limited by ${limitWords(output, source)}`,
    },
    {
      label: 'Whole, for hours',
      value: quantity(output.lasting.totalW, 'W'),
      note: `limited by ${limitWords(output, source, output.lasting.limitedBy)}`,
    },
    ...(opposed(source.arrangement) || source.arrangement === 'independent'
      ? (['L1', 'L2'] as const).map(leg => ({
          label: leg,
          value: quantity(output.legW[leg], 'W'),
          note:
            output.lasting.legW[leg] < output.legW[leg]
              ? `${quantity(output.lasting.legW[leg], 'W')} for hours`
              : 'for hours too',
        }))
      : []),
    { label: 'Surge, whole', value: quantity(output.surgeW, 'W') },
    ...(output.legSurgeW === output.surgeW
      ? []
      : [{ label: 'Surge, one leg', value: quantity(output.legSurgeW, 'W') }]),
    ...outlets.map(o => {
      const amps = Math.min(o.limitA ?? Infinity, receptacles[o.type].amps)
      const hots = receptacles[o.type].hots
      const ratedW = first ? ratingOf(first)[hots === 2 ? 'W' : 'legW'] : 0
      return {
        label: `Outlet ${o.type}${o.count > 1 ? ` × ${o.count}` : ''}`,
        value: quantity(
          Math.min(0.8 * amps * 120 * hots, ratedW * (source.arrangement === 'combined' ? 2 : 1)),
          'W',
        ),
        note: `${amps} A, at 80 % for hours on end`,
      }
    }),
  ]
  const charging = chargeW(job)
  const refilled = refillWorked(job, figures.meanLoadW)
  const capacity = store.capacityWh
  const inputs: Delivered[] = [
    ...(charging
      ? [
          {
            label: 'From AC, empty to full',
            value: quantity(capacity / (charging * chargerEfficiencyFraction), 'h'),
            note: `${quantity(charging, 'W')} at the input, a tenth lost (assumed)`,
          },
        ]
      : []),
    ...(refilled && source.generator
      ? [
          {
            label: `From the ${source.generator.equipment.name}, reserve to full, carrying the house`,
            value: quantity(refilled.result.hours, 'h'),
            note:
              refilled.result.gallons === null
                ? ''
                : `${quantity(refilled.result.gallons, 'gal')}; ${quantity(source.generator.gallons, 'gal')} kept`,
            working: refilled.working,
          },
        ]
      : []),
    ...source.units.flatMap((u, n) => {
      const port = solarInputOf(u.equipment)
      return port
        ? [
            {
              label: `Solar input of the ${u.equipment.name}${source.units.length > 1 ? `, unit ${n + 1}` : ''}${port.count > 1 ? ` × ${port.count}` : ''}`,
              value: `${quantity(port.minV, 'V')} to ${quantity(port.maxV, 'V')}`,
              note: [
                port.maxA ? `${quantity(port.maxA, 'A')} at most` : '',
                port.maxW ? quantity(port.maxW, 'W') : '',
              ]
                .filter(Boolean)
                .join(', '),
            },
          ]
        : []
    }),
    ...arraysWorked(job).map(({ array, worked, modeW }) => ({
      label: `${array.series} × ${array.parallel} ${array.module.name}`,
      value: quantity(Math.min(worked.result.inputW, modeW ?? Infinity), 'W'),
      note: `${quantity(worked.result.coldVocV, 'V')} open at ${quantity(low.C, 'C')}${low.said ? '' : ' (assumed)'}, ${quantity(worked.result.hotVmpV, 'V')} hot; full in ${quantity(capacity / Math.max(1, Math.min(worked.result.inputW, modeW ?? Infinity)), 'h')} of full sun`,
      working: worked.working,
    })),
  ]
  return { energy, power, inputs, mind: mindOf(job) }
}

function mindOf(job: Job): string[] {
  const { source } = job
  if (!source) return []
  const method = methodOf(job.hookup.method)
  return source.units.flatMap(u => {
    const { equipment } = u
    const mode = modeOf(job, u)
    const said: string[] = []
    if (mode?.solarW !== undefined)
      said.push(
        `${equipment.name}: in the charge mode ${mode.name} solar is cut to ${quantity(mode.solarW, 'W')}.`,
      )
    if (equipment.kind === 'station' && equipment.chargeModes && !mode)
      said.push(
        `${equipment.name}: its charge mode is not chosen; ${equipment.chargeModes.map(m => `${m.name} takes ${quantity(m.acW, 'W')}${m.solarW === undefined ? '' : ` and cuts solar to ${quantity(m.solarW, 'W')}`}`).join(', ')}.`,
      )
    if (
      equipment.kind === 'station' &&
      equipment.passThrough === 'forbidden on a bonded neutral' &&
      method.neutral === 'hots-only'
    )
      said.push(`${equipment.name}: no AC input while its output is tied to the house.`)
    if (equipment.kind === 'vehicle-outlet' && equipment.resetsByHand)
      said.push(`${equipment.name}: after a trip somebody goes out and resets it by hand.`)
    if (
      acInputOf(equipment) === undefined &&
      equipment.kind !== 'vehicle-outlet' &&
      equipment.kind !== 'generator'
    )
      said.push(`${equipment.name}: what its AC input takes is not stated.`)
    if ('startsLockedRotorA' in equipment && typeof equipment.startsLockedRotorA !== 'number')
      said.push(`${equipment.name}: which motors it starts is not stated; its surge is what is judged.`)
    if (voltsOf(equipment) === '120' && source.arrangement === 'one-leg')
      said.push(`${equipment.name}: 120 V on ${source.liveLeg} alone.`)
    return said
  })
}
