import { conditionsOf } from '../ask/outage-asked'
import type { Evaluated } from '../assess/evaluated'
import { derivation } from '../loads/plate-figures'
import { explained } from '../loads/utility'
import { figure, quantity } from '../units/format'
import type { Said } from './finding'

/** What the loads’ own figures say. */

/** A heater’s or cooler’s share of the time stands for the weather it was read in: a mild day understates a hard frost. */
export function loadWeather({ figures }: Evaluated): Said[] {
  return figures.loads.flatMap((l): Said[] => {
    const { scaling } = l.drawn
    if (scaling.kind !== 'not scaled' || l.load.dutyFraction.from === 'assumed') return []
    const outage = scaling.why === 'no outdoor temperature of the outage'
    return [
      {
        id: 'load.weather',
        severity: 'ask',
        sentence: `${l.load.name} on ${l.need.position} follows the weather, and is not scaled for it: there is ${scaling.why}.`,
        why: 'Measured on a mild day, it runs far more in a hard frost or a heat wave.',
        remedy: outage
          ? 'Enter how cold or hot it gets during the outage.'
          : 'Enter what it was outdoors when it was metered, or meter it in harder weather.',
        target: outage ? { view: 'outage', field: 'outdoorC' } : { view: 'loads', field: l.load.id },
        fixes: [],
      },
    ]
  })
}

export function loadSaturated({ job, figures }: Evaluated): Said[] {
  const { outdoorC } = conditionsOf(job)
  return figures.loads.flatMap((l): Said[] => {
    const { scaling } = l.drawn
    if (scaling.kind !== 'weather' || !scaling.saturated) return []
    return [
      {
        id: 'load.saturated',
        severity: 'mind',
        sentence: `${l.load.name} on ${l.need.position} would run without a pause at ${quantity(outdoorC ?? 0, 'C')}.`,
        why: 'It cannot hold the place at its temperature then, and it draws all the time.',
        remedy: 'Tell the customer; plan for one room, or for more heat that needs little power.',
        target: { view: 'loads', field: l.load.id },
        working: scaling.working,
        fixes: [],
      },
    ]
  })
}

export function nameplateImpossible({ needs }: Evaluated): Said[] {
  return needs
    .filter(n => n.circuit.picked)
    .flatMap(n =>
      n.circuit.loads.flatMap((load): Said[] => {
        if (!load.plate) return []
        const [first, ...more] = derivation(load.plate, n.volts).impossible
        if (!first) return []
        return [
          {
            id: 'nameplate.impossible',
            severity: 'ask',
            sentence: `The nameplate of ${load.name} on ${n.position} cannot be read right: ${first.message}`,
            why: more.length
              ? `And ${more.map(m => m.message).join(' ')}`
              : 'A figure misread by one place moves the whole design.',
            remedy: 'Look at the plate or its photograph again.',
            target: { view: 'loads', field: load.id },
            fixes: [],
          },
        ]
      }),
    )
}

export function breakerAbovePlate({ needs }: Evaluated): Said[] {
  return needs.flatMap(n =>
    n.circuit.loads.flatMap((load): Said[] => {
      const most = load.plate?.maxBreakerA
      if (most === undefined || n.circuit.breakerA <= most) return []
      return [
        {
          id: 'breaker.above-plate',
          severity: 'fix',
          sentence: `${n.position} has a ${n.circuit.breakerA} A breaker; the plate of ${load.name} allows at most ${figure(most)} A.`,
          why: 'The equipment’s own protection relies on the breaker ahead of it.',
          remedy: 'Fit a breaker that the plate allows.',
          article: 'NEC 110.3(B), 440.22',
          target: { view: 'panel', circuitIds: [n.circuit.id] },
          fixes: [],
        },
      ]
    }),
  )
}

/** The picked circuits cannot take more than the whole house does. */
export function utilityDoubt({ job, figures }: Evaluated): Said[] {
  if (!job.utility) return []
  const dailyWh = figures.loads.reduce((sum, l) => sum + l.drawn.dailyWh, 0)
  const said = explained(job.utility, dailyWh, conditionsOf(job).season)
  if (said.fraction <= 1) return []
  return [
    {
      id: 'utility.doubt',
      severity: 'ask',
      sentence: said.sentence,
      why: 'A part cannot be larger than the whole: the run time is reckoned on a figure that is off.',
      remedy: 'Meter the largest loads, or look whether the utility’s data are of this house.',
      target: { view: 'loads' },
      fixes: [],
    },
  ]
}
