import { inVolts, noVolts } from './legs'
import { asked, cause, type Proof, seen, setUp, test, wayIn } from './scene'
import type { Asked, Test } from './tests'

/** Utility and source can never both be on: tried, both ways; and what sticks out of the wall is dead on an ordinary day. */
export function manualTests(p: Proof): Test[] {
  if (!p.carried) return []
  const backfed = p.house.handles.find(h => h.id === 'backfed')
  const positions = p.house.handles.filter(h => h.kind === 'position')
  const probe = { place: 'interlock', at: `in ${p.tied.name}`, points: ['plate'] } as const
  const tries: Asked[] = backfed
    ? [
        seen('over', 'Main on: the backfed breaker', probe, ['cannot be closed', 'closes']),
        seen('back', 'Backfed breaker on: the main', probe, ['cannot be closed', 'closes']),
      ]
    : []
  const throws: Asked[] = positions.length
    ? [
        seen(
          'throws',
          'Every position, thrown slowly',
          { place: 'switch', at: 'at the switch', points: ['positions'] },
          ['line, off, source: never two at once', 'one of them touches both'],
        ),
      ]
    : []
  return [
    ...(tries.length || throws.length
      ? [
          test(
            {
              id: 'apart:tried',
              group: 'manual',
              text: backfed ? 'The interlock, both ways' : 'The positions, thrown slowly',
              lines: ['By hand, with force that a hurried person would use. No tape, no tool.'],
              setUp: setUp(p, 'utility', ['Cord out: nothing can be fed while it is tried.']),
              asks: [...tries, ...throws],
              causes: [
                cause(
                  'interlock-idle',
                  backfed
                    ? 'The plate does not hold: wrong part, not fastened, or the cover is off.'
                    : 'A contact of the switch is welded or miswired.',
                  backfed
                    ? 'The listed part for this panel, fastened to its cover, the cover on.'
                    : 'Exchange the switch.',
                ),
              ],
              panelId: p.tied.id,
              cite: ['702.5', '408.36(D)'],
            },
            wayIn(p),
          ),
        ]
      : []),
    ...(p.joined === 'inlet'
      ? [
          test(
            {
              id: 'pins',
              group: 'manual',
              text: 'Pins of the inlet dead on the utility',
              lines: ['An ordinary day: cord out, everything on the utility. Read at the pins.'],
              setUp: setUp(p, 'utility', ['On the utility, as on an ordinary day; cord out.']),
              asks: [
                ...p.legs.map(leg =>
                  asked(
                    `${leg}–G`,
                    `${leg} pin to ground`,
                    'V',
                    'tester',
                    { place: 'inlet', at: 'at the pins of the inlet', points: [leg, 'G'] },
                    noVolts,
                  ),
                ),
                asked(
                  'known',
                  'The tester on a live outlet, afterwards',
                  'V',
                  'tester',
                  { place: 'known', at: 'at an outlet that is known to be live', points: ['H', 'N'] },
                  inVolts(),
                ),
              ],
              causes: [
                cause(
                  'pins-live',
                  'A lead of the source side is landed on the utility’s side.',
                  'Main off, prove dead, follow the leads of switch or breaker one by one.',
                ),
              ],
              panelId: p.tied.id,
              cite: ['702.5', '406.7'],
            },
            wayIn(p),
          ),
        ]
      : []),
  ]
}
