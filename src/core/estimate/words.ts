import { inLanguage, type Language, type Sayer } from '../languages'
import { quantity } from '../units/format'
import type { EstimateDocument, Option } from './document'
import { difference, moneyText } from './money'

/** Out of a hundred; never all or none unless every draw said so. */
export function shareText(say: Sayer, fraction: number): string {
  const n = Math.round(fraction * 100)
  if (n === 100 && fraction < 1) return say('offer.share.over')
  if (n === 0 && fraction > 0) return say('offer.share.under')
  return String(n)
}

/** What a price rests on, for whoever pays it. */
export const basisText = (
  { basis, unpriced }: Pick<Option, 'basis' | 'unpriced'>,
  language: Language = 'en',
): string => {
  const say = inLanguage(language)
  return basis === 'wiring plan' ? say('offer.basis.plan', { n: unpriced.length }) : say('offer.basis.ranges')
}

/** How long, and how surely, in a few words: for options beside each other. */
export function lastsText(
  { promise: { chance, hours, middleH } }: Pick<Option, 'promise'>,
  language: Language = 'en',
): string {
  const say = inLanguage(language)
  if (chance === null || middleH === null) return say('offer.unknown')
  const whole = say('offer.whole', { hours: quantity(hours, 'h'), share: shareText(say, chance) })
  return chance >= 0.5
    ? whole
    : say('offer.about', { middle: quantity(Math.round(middleH * 2) / 2, 'h'), whole })
}

/** What is still to be settled before it is built; null where nothing is. */
export const unsettledText = (
  { unsettled }: Pick<Option, 'unsettled'>,
  language: Language = 'en',
): string | null => (unsettled ? inLanguage(language)('offer.unsettled', { n: unsettled }) : null)

/** What a change order comes to, in a sentence; null for an estimate. */
export function changeText({ changeOf, options: [now], language = 'en' }: EstimateDocument): string | null {
  if (!changeOf || !now) return null
  const by = now.total.low - changeOf.was.low
  return inLanguage(language)(`offer.change.${by === 0 ? 'stays' : 'by'}`, {
    option: changeOf.option,
    on: changeOf.acceptedOn,
    was: moneyText(changeOf.was),
    by: difference(by),
    now: moneyText(now.total),
  })
}

/** A line of a change, in words: what it was, what it is, and by how much. */
export function changeLine(
  { was, now }: NonNullable<EstimateDocument['changeOf']>['lines'][number],
  language: Language = 'en',
): string {
  const say = inLanguage(language)
  if (!was) return say('offer.change.new', { now: now ? moneyText(now) : '' })
  if (!now) return say('offer.change.gone', { by: difference(-was.low) })
  return say('offer.change.line', {
    was: moneyText(was),
    now: moneyText(now),
    by: difference(now.low - was.low),
  })
}

export const headOf = ({ number, version, changeOf, language = 'en' }: EstimateDocument): string =>
  inLanguage(language)(`offer.${changeOf ? 'changeOrder' : 'estimate'}`, { number, version: String(version) })
