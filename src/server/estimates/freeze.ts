import { dayIn, daysAfter } from '@/core/day'
import { changesBetween, type EstimateDocument, optionOf } from '@/core/estimate/document'
import type { Draft } from '@/core/estimate/draft'
import { priced } from '@/core/estimate/priced'
import type { OptionMade } from '@/core/estimate/shown'
import { type Terms, usualTerms } from '@/core/estimate/terms'
import type { Job } from '@/core/job/schema'
import { inLanguage } from '@/core/languages'
import type { Currency } from '@/core/money-names'
import { type Fault, fail, fault, type Outcome, ok } from '@/core/outcome'
import type { Freezing } from './repository'

/** What is frozen, of a draft with its options worked out. Faults: what keeps it from being sent. */
export function frozenOf(
  job: Pick<Job, 'title' | 'place'>,
  { firm, zone, at, currency = 'USD' }: { firm: string; zone: string; at: Date; currency?: Currency },
  draft: Draft,
  made: readonly OptionMade[],
  terms: Terms,
  { number, version, accepted }: Freezing,
): Outcome<EstimateDocument> {
  const faults: Fault[] = []
  // texts of ours are said in the customer’s language; the firm’s own stand as it wrote them
  const say = inLanguage(draft.language ?? 'en')
  const said = (key: 'exclusions' | 'payment' | 'closing') =>
    terms[key] === usualTerms[key] ? say(`offer.usual.${key}`) : terms[key]
  const on = dayIn(zone, at)
  if (!draft.options.length) faults.push(fault('options', 'are none: add one, then send it'))
  if (accepted && draft.options.length > 1)
    faults.push(fault('options', 'are several: a change order has one, what is to be built now'))
  const options = draft.options.flatMap(({ id, name }) => {
    const one = made.find(m => m.id === id)
    if (!one) return []
    const price = priced(one.costs, terms, draft.taxPlace)
    if (!price.lines.length)
      faults.push(fault('options', `“${name}” costs nothing: choose a source and a way of connecting first`))
    return [optionOf({ id, name }, one, price, one.promise, one.stops.length, draft.language)]
  })
  if (faults.length) return fail(...faults)
  const was = accepted?.document.options.find(o => o.id === accepted.acceptance.option.id)
  const [now] = options
  const changes = was && now ? changesBetween(was, now) : []
  if (accepted && !changes.length)
    return fail(fault('options', 'are as they were accepted: there is nothing to order otherwise'))
  return ok({
    format: 1,
    ...(draft.language && { language: draft.language }),
    ...(currency !== 'USD' && { currency }),
    number,
    version,
    firm,
    title: job.title,
    place: job.place,
    on,
    validUntil: daysAfter(on, terms.validDays),
    intro: draft.intro || terms.intro,
    exclusions: said('exclusions'),
    payment: said('payment'),
    closing: said('closing'),
    options,
    ...(accepted &&
      was && {
        changeOf: {
          version: accepted.document.version,
          option: was.name,
          acceptedOn: dayIn(zone, new Date(accepted.acceptance.at)),
          was: was.total,
          lines: changes,
        },
      }),
  })
}
