import { conditionsOf } from '../ask/outage-asked'
import { imagined } from '../first/imagined'
import type { Job } from '../job/schema'
import { simulate } from '../outage/chance'
import { planOf } from '../outage/plan'
import { outOf100 } from '../outage/words'
import { quantity, together } from '../units/format'
import type { Promised } from './promised'

const draws = 200

/** A length of time as people say it. */
export function lengthText(hours: number): string {
  if (hours <= 6) return `for ${quantity(hours, 'h')}`
  if (hours <= 14) return `through the night (${quantity(hours, 'h')})`
  if (hours <= 24) return `for a day and a night (${quantity(hours, 'h')})`
  const days = hours / 24
  const said =
    Math.abs(days - Math.round(days)) < 0.05
      ? `${Math.round(days)} days`
      : `${Math.floor(days)} and a half days`
  if (Math.abs(days - 1.5) < 0.05) return `for a day and a half (${quantity(hours, 'h')})`
  return Math.abs(days * 2 - Math.round(days * 2)) < 0.1
    ? `for ${said} (${quantity(hours, 'h')})`
    : `for ${quantity(hours, 'h')}`
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
    sentence: sentenceOf(job, keeps, leaves, chance, middleH),
    cautions: cautionsOf(job),
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
  job: Job,
  keeps: readonly string[],
  leaves: readonly string[],
  chance: number | null,
  middleH: number | null,
): string {
  const not = leaves.length
    ? ` It does not feed ${together(leaves.slice(0, 6))}${leaves.length > 6 ? ' and more' : ''}.`
    : ''
  if (chance === null || middleH === null || !keeps.length)
    return `How long it lasts cannot be said yet.${not}`
  const shown = keeps.slice(0, 8)
  const what = `${together(shown)}${keeps.length > shown.length ? ` and ${keeps.length - shown.length} more` : ''}`
  const long = lengthText(job.outage.hours)
  const { season, outdoorC } = conditionsOf(job)
  const like = `outages like this${season ? ` in ${season}` : ''}${outdoorC === undefined ? '' : ` at ${quantity(outdoorC, 'C')} outdoors`}`
  const of100 = chance <= 0 ? 'in none' : `in ${outOf100(chance)} of 100`
  // what seldom lasts is told by how long it does
  const often =
    chance >= 1
      ? `${long} in all of ${draws} simulated ${like}`
      : chance >= 0.5
        ? `${long} ${of100} ${like}`
        : `for ${quantity(middleH >= 10 ? Math.floor(middleH) : Math.floor(middleH * 2) / 2, 'h')} or more in half of ${draws} simulated ${like}; for all ${quantity(job.outage.hours, 'h')} ${of100}`
  return `Keeps ${what} alive ${often}.${not}`.slice(0, 600)
}

function cautionsOf({ brief, source }: Job): string[] {
  const generator = source?.generator ?? source?.units.find(u => u.equipment.kind === 'generator')
  return [
    ...(brief.medical === 'yes' ||
    brief.wants.some(w => ['oxygen', 'cpap', 'medicine'].includes(w.thing ?? ''))
      ? ['For a medical device keep a second way: a spare cylinder, a battery of its own, a place to go.']
      : []),
    ...(generator
      ? [
          'It counts on somebody who starts the generator and fills it. It runs outdoors only, away from windows and doors: its exhaust kills.',
        ]
      : []),
    ...(source?.arrays?.length
      ? ['It counts on the sun of such days: under snow or long cloud it lasts less.']
      : []),
  ]
}
