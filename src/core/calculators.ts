import { distance } from 'fastest-levenshtein'
import type { Calculator } from './calculator'
import { cordChain } from './hookup/cord-chain'
import { intervalDemand } from './loads/interval-demand'
import { loadLog } from './loads/load-log'
import { panelDemand } from './loads/panel-demand'
import { start } from './loads/start'
import { weatherScale } from './loads/weather-scale'
import { capacityTest } from './readings/capacity-test'
import { outletReadings } from './readings/outlet-readings'
import { splitReadings } from './readings/split-readings'
import { bank } from './source/bank'
import { legs } from './source/legs'
import { refill } from './source/refill'
import { runtime } from './source/runtime'
import { solarString } from './source/solar-string'
import { twoBatteries } from './source/two-batteries'
import { ampacity } from './wiring/ampacity'
import { boxFill } from './wiring/box-fill'
import { conduitFill } from './wiring/conduit-fill'
import { equipmentGround } from './wiring/equipment-ground'
import { sharedNeutral } from './wiring/shared-neutral'
import { voltageDrop } from './wiring/voltage-drop'

/** Every calculator of the bench, room by room. */
// biome-ignore lint/suspicious/noExplicitAny: each keeps its own input and output types; the registry only runs them from raw input
export const calculators: readonly Calculator<any, any>[] = [
  ampacity,
  conduitFill,
  equipmentGround,
  voltageDrop,
  boxFill,
  sharedNeutral,
  cordChain,
  start,
  loadLog,
  weatherScale,
  intervalDemand,
  panelDemand,
  runtime,
  twoBatteries,
  bank,
  capacityTest,
  refill,
  solarString,
  legs,
  outletReadings,
  splitReadings,
]

/** The calculators whose names come nearest, for a mistyped one. */
export function nearestNames(name: string, most = 3): string[] {
  return calculators
    .map(c => ({ name: c.name, steps: distance(name, c.name) }))
    .sort((a, b) => a.steps - b.steps)
    .slice(0, most)
    .map(c => c.name)
}

const words = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}./-]+/gu) ?? []
/** Words that every question has. */
const idle = new Set([
  'what',
  'how',
  'does',
  'do',
  'is',
  'it',
  'the',
  'a',
  'an',
  'of',
  'for',
  'my',
  'i',
  'this',
  'to',
  'in',
  'on',
])

/** How well a word is met: begun is enough from two letters on, one slip is forgiven from five letters on. */
function meets(word: string, known: readonly string[]): number {
  if (known.includes(word)) return 3
  if (word.length > 1 && known.some(k => k.startsWith(word))) return 2
  return word.length > 4 && known.some(k => distance(k, word) === 1) ? 1 : 0
}

/** The calculators that answer a question as a person asks it, best first; all of them for an empty one. */
export function findCalculators(
  asked: string,
): readonly Pick<(typeof calculators)[number], 'name' | 'question' | 'topic'>[] {
  const wanted = words(asked).filter((w, _, all) => !idle.has(w) || all.every(x => idle.has(x)))
  if (!wanted.length) return calculators
  const scored = calculators.map(c => {
    const known = words([c.name, c.question, ...c.asked].join(' '))
    const met = wanted.map(w => meets(w, known))
    const phrase = c.asked.some(a => a.toLowerCase() === asked.trim().toLowerCase().replace(/[?.]$/, ''))
      ? 10
      : 0
    return { c, all: met.every(Boolean), score: phrase + met.reduce((a, b) => a + b, 0) }
  })
  const whole = scored.filter(s => s.all)
  return (whole.length ? whole : scored.filter(s => s.score > 0))
    .sort((a, b) => b.score - a.score)
    .map(s => s.c)
}
