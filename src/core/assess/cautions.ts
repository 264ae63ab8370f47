import { pairsToAvoid } from '../checks/power'
import { methodOf } from '../hookup/method'
import { reachedPanels, servesWhole } from '../job/panels'
import { arrangementNames, opposed } from '../source/arrangement'
import { sentenceStart, together } from '../units/format'
import type { Evaluated } from './evaluated'
import { named, supplyOf } from './needs'

export interface Caution {
  text: string
  article?: string
}

/** The cautions that apply to this job, the gravest first. They print with every sheet. */
export function cautionsFor({ job, needs, figures }: Evaluated): Caution[] {
  const found: Caution[] = []
  const supply = supplyOf(job)
  const method = methodOf(job.hookup.method)
  if (method.transfer !== 'unplugging')
    found.push({
      text: 'Never feed a panel from a source without a transfer switch or a listed interlock: it feeds the street and can kill.',
      article: 'NEC 702.5',
    })
  found.push({
    text: 'A main breaker that is off leaves its line side live. The battery is a second supply: prove dead at both before touching.',
    article: 'NEC 110.25, 702.7',
  })
  found.push({
    text: 'Exactly one neutral-to-ground bond in the whole system. Never interrupt the equipment ground.',
    article: 'NEC 250.24, 250.30',
  })
  if (supply?.throughPanel && supply.arrangement === 'one-leg') {
    // what the source never reaches is not told to stay off
    const reached = reachedPanels(job)
    const whole = servesWhole(job)
    const twoPole = needs.filter(
      n =>
        n.volts === 240 &&
        !n.feeds &&
        (whole ? reached.has(n.panel.id) && !n.circuit.lockedOff : n.circuit.picked),
    )
    if (twoPole.length)
      found.push({
        text: `Every two-pole breaker stays off on battery, or its load links the legs: ${together(twoPole.map(named))}.`,
      })
  }
  if (job.brief.medical === 'yes')
    found.unshift({
      text: 'Someone here depends on a powered device. Optional standby power is no life support: have a second way.',
      article: 'NEC 702.2',
    })
  if (supply?.throughPanel && !opposed(supply.arrangement))
    found.push({
      text: `${sentenceStart(arrangementNames[supply.arrangement])}: no 240 V anywhere.${supply.arrangement === 'tied' ? ' Shared neutrals add instead of cancelling.' : ''}`,
      article: supply.arrangement === 'tied' ? 'NEC 210.4; 710.15(C) where article 710 applies' : undefined,
    })
  const pairs = pairsToAvoid({ figures })
  if (pairs.length)
    found.push({
      text: `Not at the same time: ${together(pairs.map(([a, b]) => `${a.load.name} with ${b.load.name}`))}.`,
    })
  const byHand = figures.loads.filter(l => l.load.byHand)
  if (byHand.length > 1) found.push({ text: `One at a time: ${together(byHand.map(l => l.load.name))}.` })
  if (figures.loads.some(l => l.load.nature === 'compressor'))
    found.push({ text: 'Switching over: leave refrigerators and other compressors off for five minutes.' })
  found.push({
    text: 'A generator, if one charges the battery, runs outdoors only, away from openings: carbon monoxide.',
  })
  return found
}
