import { conditionsOf } from '../ask/outage-asked'
import { imagined } from '../first/imagined'
import type { Job } from '../job/schema'
import { inLanguage, type Language, type Sayer } from '../languages'
import { simulate } from '../outage/chance'
import { planOf } from '../outage/plan'
import { quantity, together } from '../units/format'
import type { Promised } from './promised'
import { shareText } from './words'

const draws = 200

/** A length of time as people say it. */
export function lengthText(hours: number, say: Sayer = inLanguage('en')): string {
  const h = quantity(hours, 'h')
  const days = hours / 24
  if (hours <= 6) return say('offer.length.plain', { h })
  if (hours <= 14) return say('offer.length.night', { h })
  if (hours <= 24) return say('offer.length.day', { h })
  if (Math.abs(days - 1.5) < 0.05) return say('offer.length.dayHalf', { h })
  if (Math.abs(days * 2 - Math.round(days * 2)) >= 0.1) return say('offer.length.plain', { h })
  return Math.abs(days - Math.round(days)) < 0.05
    ? say('offer.length.days', { n: Math.round(days), h })
    : say('offer.length.daysHalf', { n: Math.floor(days), h })
}

/** By the simulation of the job, things on imagined circuits where no panel is known. */
export function promiseOf(job: Job, seed = 1): Promised {
  const here = imagined(job)
  const { hours } = job.outage
  const plan = planOf(here, { stepS: 300 })
  const nameOf = namesOf(here)
  const leaves = plan.ok ? plan.value.unserved.map(u => u.name) : []
  const must = plan.ok ? plan.value.circuits.filter(c => c.tier === 1) : []
  // while nothing is said to be a must, everything picked is promised
  const counted = must.length ? must : plan.ok ? plan.value.circuits : []
  const keeps = [...new Set(counted.map(c => nameOf(c.id) ?? c.name))].slice(0, 60)
  const told = plan.ok && counted.length ? simulate(plan.value, { seed, exactly: draws }).chance : null
  const chance = told ? told.lasts.fraction : null
  const middleH = told ? told.hours.middle : null
  return {
    keeps,
    leaves: leaves.map(l => l.slice(0, 80)).slice(0, 60),
    hours,
    chance,
    middleH,
    ...wordsOf(job, { keeps, leaves, chance, middleH }, 'en'),
  }
}

/** The same promise, said in another language. */
export const promiseIn = (language: Language, job: Job, promise: Promised): Promised => ({
  ...promise,
  ...wordsOf(job, promise, language),
})

const wordsOf = (
  job: Job,
  promise: Pick<Promised, 'keeps' | 'leaves' | 'chance' | 'middleH'>,
  language: Language,
): Pick<Promised, 'sentence' | 'cautions'> => {
  const say = inLanguage(language)
  return {
    sentence: sentenceOf(say, job, promise),
    cautions: cautionsOf(job).map(key => say(`offer.caution.${key}`)),
  }
}

/** What a circuit is called by the customer: the want it carries, else its label. */
function namesOf(job: Job): (circuitId: string) => string | null {
  const circuits = job.panels.flatMap(p => p.circuits)
  return id =>
    job.brief.wants.find(w => w.circuitIds.includes(id) || w.id === id)?.name ??
    (circuits.find(c => c.id === id)?.label || null)
}

function sentenceOf(
  say: Sayer,
  { outage, ...job }: Job,
  { keeps, leaves, chance, middleH }: Pick<Promised, 'keeps' | 'leaves' | 'chance' | 'middleH'>,
): string {
  const not = leaves.length
    ? ` ${say('offer.promise.not', { names: leaves.slice(0, 6), more: leaves.length > 6 ? 'yes' : 'no' })}`
    : ''
  if (chance === null || middleH === null || !keeps.length) return `${say('offer.promise.unknown')}${not}`
  const shown = keeps.slice(0, 8)
  const what =
    keeps.length > shown.length
      ? say('offer.promise.more', { names: together(shown), n: keeps.length - shown.length })
      : shown
  const long = lengthText(outage.hours, say)
  const { season, outdoorC } = conditionsOf({ ...job, outage })
  const like = say('offer.promise.like', {
    season: season ?? 'none',
    outdoor: outdoorC === undefined ? 'none' : quantity(outdoorC, 'C'),
  })
  const said = {
    long,
    like,
    draws,
    share: shareText(say, chance),
    hours: quantity(outage.hours, 'h'),
    h: quantity(middleH >= 10 ? Math.floor(middleH) : Math.floor(middleH * 2) / 2, 'h'),
  }
  // what seldom lasts is told by how long it does
  const how = chance >= 1 ? 'all' : chance >= 0.5 ? 'often' : chance > 0 ? 'seldom' : 'never'
  return `${say('offer.promise.keeps', { what, often: say(`offer.promise.${how}`, said) })}${not}`.slice(
    0,
    600,
  )
}

/** What is to be minded, by the keys of its words. */
function cautionsOf({ brief, source }: Job): ('medical' | 'generator' | 'sun')[] {
  const generator = source?.generator ?? source?.units.find(u => u.equipment.kind === 'generator')
  return [
    ...(brief.medical === 'yes' ||
    brief.wants.some(w => ['oxygen', 'cpap', 'medicine'].includes(w.thing ?? ''))
      ? ['medical' as const]
      : []),
    ...(generator ? ['generator' as const] : []),
    ...(source?.arrays?.length ? ['sun' as const] : []),
  ]
}
