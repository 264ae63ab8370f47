import { capacityOf, leftOf, lossesOf } from '../source/store'
import { figure, quantity } from '../units/format'
import { asked, cause, type Proof, setUp, test, unitName } from './scene'
import type { Test } from './tests'

/** A steady load that is known: this share of what the unit gives, W. */
const loadShare = 0.4

/** From full to empty into a known load, by a meter; and what the recharge takes. Kept as the unit’s history. */
export const capacityTests = (p: Proof): Test[] =>
  (p.job.source?.units ?? [])
    .filter(u => capacityOf(u) > 0 && u.equipment.kind !== 'vehicle-outlet')
    .map(unit => {
      const name = unitName(p, unit.id)
      const { idleW, efficiencyFraction } = lossesOf(unit.equipment)
      const ratedWh = capacityOf(unit)
      const loadW = 100 * Math.max(1, Math.round((loadShare * unit.equipment.continuousW) / 100))
      const place = (what: string) =>
        ({ place: `capacity ${unit.id}`, at: `at the ${name}`, points: [what] }) as const
      return test(
        {
          id: `capacity:${unit.id}`,
          group: 'capacity',
          text: `Capacity and round trip of the ${name}`,
          lines: [
            `Full, at room temperature. A steady load of about ${quantity(loadW, 'W')} (a heater) through a plug-in meter, until it switches off: about ${figure((ratedWh * 0.9) / loadW)} h.`,
            'Then recharge through the same meter to full. Both meters reset before.',
            'A meter’s file does as well: take the series, and type nothing.',
          ],
          setUp: setUp(p, 'dead', ['The unit by itself, off the house.']),
          asks: [
            asked('loadW', 'Load', 'W', 'plug', place('load')),
            asked('Wh out', 'Delivered', 'Wh', 'plug', place('out')),
            asked('from', 'Charge at the start', '%', 'display', place('from')),
            asked('to', 'Charge at the end', '%', 'display', place('to')),
            asked('Wh back', 'Taken to recharge', 'Wh', 'plug', place('back'), null, { optional: true }),
          ],
          together: [
            {
              by: 'capacity',
              ratedWh,
              idleW,
              efficiencyFraction,
              leftFraction: leftOf(unit, p.job.source ?? { units: [], arrangement: 'tied', liveLeg: 'L1' }),
            },
          ],
          causes: [
            cause(
              `cell-weak:${unit.id}`,
              `The ${name} holds less than its label: a weak cell, or age.`,
              'Charge fully, let it balance for a night, test again; else its warranty. Until then take the measured share over.',
            ),
          ],
          cite: ['110.3(B)'],
        },
        [unit.equipment.id, unit.expansionUnits, unit.bank?.series, unit.bank?.parallel],
      )
    })
