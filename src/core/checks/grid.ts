import type { Evaluated } from '../assess/evaluated'
import { methodOf } from '../hookup/method'
import { tiedPanel } from '../job/panels'
import { shortName } from '../source/short-name'
import { together } from '../units/format'
import type { Said } from './finding'

/** Keeping the grid and the source apart. */

export function transferMissing({ job }: Evaluated): Said[] {
  if (methodOf(job.hookup.method).transfer !== 'none') return []
  return [
    {
      id: 'transfer.missing',
      severity: 'stop',
      sentence: `Nothing makes paralleling impossible between the ${job.source ? shortName(job.source) : 'source'} and the utility in ${tiedPanel(job).name}.`,
      why: 'A main left on feeds the street: line workers and neighbours can be killed, the source destroyed.',
      remedy: 'Choose a hook-up with a transfer switch or a listed interlock.',
      article: 'NEC 702.5',
      target: { view: 'hook-up', field: 'method' },
      fixes: [
        {
          label: 'Plan an interlock instead',
          operations: [{ op: 'setHookup', facts: { method: 'interlocked-inlet' } }],
        },
      ],
    },
    {
      id: 'inlet.live',
      severity: 'stop',
      sentence: 'With no interlock the inlet’s pins are live from the panel.',
      why: 'Bare pins at line voltage can be touched by whoever opens the cover.',
      remedy: 'Switch the backfed breaker off, lock it, and plan an interlock before anything else.',
      article: 'NEC 406.7(D)',
      target: { view: 'hook-up', field: 'method' },
      fixes: [],
    },
  ]
}

export function applianceCordJurisdiction({ job }: Evaluated): Said[] {
  if (job.hookup.method !== 'cord-and-plug') return []
  return [
    {
      id: 'appliance-cord.jurisdiction',
      severity: 'mind',
      sentence:
        'The appliance is converted to cord and plug, which some jurisdictions refuse for fixed equipment.',
      why: 'An inspector may have it undone; the appliance’s listing may not cover it.',
      remedy:
        'Ask the authority having jurisdiction, and read the appliance’s instructions, before cutting the whip.',
      article: 'NEC 400.10, 400.12, 422.16',
      target: { view: 'hook-up', field: 'method' },
      fixes: [],
    },
  ]
}

/** A cord takes a plug, and what is wired in has none. */
export function cordHardWired({ job, needs }: Evaluated): Said[] {
  if (job.hookup.method !== 'extension-cords') return []
  const picked = needs
    .filter(n => n.circuit.picked && !n.feeds)
    .flatMap(n => n.circuit.loads.map(load => ({ n, load })))
  const wired = picked.filter(({ load }) => load.connection === 'hard-wired')
  const unsure = picked.filter(({ load }) => load.connection === 'unknown')
  const said = (severity: 'stop' | 'ask', list: typeof picked): Said[] =>
    list.length
      ? [
          {
            id: 'cord.hard-wired',
            severity,
            sentence:
              severity === 'stop'
                ? `${together(list.map(({ n, load }) => `${load.name} on ${n.position}`))} ${list.length > 1 ? 'are' : 'is'} wired in: no cord reaches ${list.length > 1 ? 'them' : 'it'}.`
                : `Whether ${together(list.map(({ n, load }) => `${load.name} on ${n.position}`))} ${list.length > 1 ? 'have plugs' : 'has a plug'} is not known.`,
            why: 'What is made up on site to join a cord to fixed wiring ends in live blades.',
            remedy:
              'Choose a hook-up that feeds its circuit, or have that appliance converted to cord and plug.',
            article: 'NEC 400.12, 422.16',
            target: { view: 'hook-up', field: 'method' },
            fixes: [],
          },
        ]
      : []
  return [...said('stop', wired), ...said('ask', unsure)]
}

export function utilityReturnBlind({ job }: Evaluated): Said[] {
  const { method } = job.hookup
  if ((method !== 'interlocked-inlet' && method !== 'backfeed-unprotected') || job.hookup.utilityTold)
    return []
  return [
    {
      id: 'utility-return.blind',
      severity: 'mind',
      sentence: 'With the main off nothing in the house tells that the utility is back.',
      why: 'People stay on the battery for hours, or switch back too early.',
      remedy: 'Put an indicator ahead of the main, or a drill on the switch-over card.',
      target: { view: 'hook-up', field: 'method' },
      fixes: [
        {
          label: 'Plan an indicator ahead of the main',
          operations: [{ op: 'setHookup', facts: { utilityTold: true } }],
        },
      ],
    },
  ]
}
