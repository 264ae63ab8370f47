import { aboutText, plural, together } from '../units/format'
import type { HoldStand } from './stand'
import type { WorkOrder } from './task'

/** How long power is off, what of it matters most, and what preparing first saves. */
export function offText({ offMinutes, offUnpreparedMinutes, dark, waiting }: WorkOrder): string {
  if (!offMinutes) return 'No power has to be off.'
  const cold = dark.filter(d => d.cold)
  const longest = dark[0]
  return [
    `Power off for about ${aboutText(offMinutes)}${cold.length ? `, refrigerators included (${together(cold.map(d => d.name))})` : ''}.`,
    ...(waiting.length && longest && longest.minutes > offMinutes
      ? [
          `${plural(waiting.length, 'circuit')} behind the inverter: dark for about ${aboutText(longest.minutes)}, until it is up.`,
        ]
      : []),
    ...(offUnpreparedMinutes > offMinutes
      ? [
          `All that can be prepared comes first: with everything done in the dark it would be ${aboutText(offUnpreparedMinutes)}.`,
        ]
      : []),
  ].join(' ')
}

/** What stands at a hold point, in one line: by whom, what was read, with what; or that somebody went on without it, and why. */
export function holdText({ hold, evidence, judged, skipped }: HoldStand): string {
  if (skipped) return `Gone on without: ${skipped.by}, ${skipped.why}`
  const readings = evidence?.readings ?? []
  return [
    evidence?.by,
    ...readings.map(r => `${hold.readings.find(a => a.key === r.key)?.name ?? r.key} ${r.value}`),
    evidence?.simulated && 'from the simulated meter: it proves nothing in a house',
    evidence?.tool,
    evidence?.with && `seen by ${evidence.with}`,
    evidence?.photoId ? 'photograph' : evidence?.text,
    judged.text,
  ]
    .filter(Boolean)
    .join(' · ')
}
