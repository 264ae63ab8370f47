import { named } from '../assess/needs'
import { asked, expected, ours, type Proof, seen, setUp, test, wayIn } from './scene'
import type { Test } from './tests'

const mostMin = 15

/** The outage, played: there, everything as on the card, and back. */
export function drillTests(p: Proof): Test[] {
  if (!p.job.source || !p.served.length) return []
  const at = { place: 'drill', at: 'at the panel' } as const
  const minutes = expected('min', 0, mostMin, {
    formula: 'who lives here does it, card in hand',
    tolerance: `at most ${mostMin} min, ${ours}: longer, and the card is not clear`,
    doubtTo: 60,
  })
  return [
    test(
      {
        id: 'drill',
        group: 'drill',
        text: 'Outage drill',
        lines: [
          'Main off, without a word of help: who lives here follows the card.',
          `Alive: ${p.served.map(named).join(', ')}. What the card keeps off, off.`,
          ...(p.job.brief.medical === 'yes'
            ? [
                `${p.job.brief.medicalWhat || 'The medical device'} runs on its second way meanwhile: optional standby is no life support.`,
              ]
            : []),
        ],
        setUp: setUp(p, 'source', ['As in an outage.'], {
          on: p.loads.filter(l => !l.load.byHand).map(l => l.load.id),
        }),
        asks: [
          seen('alive', 'What must live', { ...at, points: ['lives'] }, [
            'all of it',
            'something stayed dark',
          ]),
          seen('off', 'What must stay off', { ...at, points: ['stays off'] }, [
            'stayed off',
            'something came on',
          ]),
          asked('there', 'To the source, in', 'min', 'watch', { ...at, points: ['there'] }, minutes),
          asked('back', 'Back to the utility, in', 'min', 'watch', { ...at, points: ['back'] }, minutes),
        ],
        panelId: p.tied.id,
        restsOn: ['legs'],
        cite: ['702.5'],
      },
      [wayIn(p), p.served.map(n => n.circuit.id)],
    ),
  ]
}
