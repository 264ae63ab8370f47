import { outOf100 } from '../outage/words'
import { plural, quantity } from '../units/format'
import type { EstimateDocument, Option } from './document'
import { difference, moneyText } from './money'

/** What a price rests on, for whoever pays it. */
export const basisText = ({ basis, unpriced }: Pick<Option, 'basis' | 'unpriced'>): string =>
  basis === 'wiring plan'
    ? `From the wiring plan of your house${unpriced.length ? `; ${plural(unpriced.length, 'part')} at the usual range until the price is asked` : ''}.`
    : 'From the usual ranges of this way of connecting: nobody has seen your panel yet. It becomes a price after a visit.'

/** How long, and how surely, in a few words: for options beside each other. */
export function lastsText({ promise: { chance, hours, middleH } }: Pick<Option, 'promise'>): string {
  if (chance === null || middleH === null) return 'cannot be said yet'
  const whole = `all ${quantity(hours, 'h')} in ${outOf100(chance)} of 100 outages`
  return chance >= 0.5 ? whole : `about ${quantity(Math.round(middleH * 2) / 2, 'h')}; ${whole}`
}

/** What is still to be settled before it is built; null where nothing is. */
export const unsettledText = ({ unsettled }: Pick<Option, 'unsettled'>): string | null =>
  unsettled
    ? `${plural(unsettled, 'point')} of our own checks must be settled before this is built; the price may change with ${unsettled > 1 ? 'them' : 'it'}.`
    : null

/** What a change order comes to, in a sentence; null for an estimate. */
export function changeText({ changeOf, options: [now] }: EstimateDocument): string | null {
  if (!changeOf || !now) return null
  const by = now.total.low - changeOf.was.low
  return `Changes “${changeOf.option}”, accepted on ${changeOf.acceptedOn} at ${moneyText(changeOf.was)}: ${by === 0 ? 'the price stays' : `${difference(by)}, to ${moneyText(now.total)}`}.`
}

/** A line of a change, in words: what it was, what it is, and by how much. */
export function changeLine({ was, now }: NonNullable<EstimateDocument['changeOf']>['lines'][number]): string {
  if (!was) return `new: ${now ? moneyText(now) : ''}`
  if (!now) return `no longer: ${difference(-was.low)}`
  return `${moneyText(was)} before, ${moneyText(now)} now: ${difference(now.low - was.low)}`
}

export const headOf = ({ number, version, changeOf }: EstimateDocument): string =>
  `${changeOf ? 'Change order' : 'Estimate'} ${number}${version > 1 ? `, version ${version}` : ''}`
