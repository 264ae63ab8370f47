import { groundingOf } from '../../assess/grounding'
import { capacityOf } from '../../source/store'
import { quantity } from '../../units/format'
import { tell } from './draft'
import type { Site } from './site'

/** Usual limits of storage, where the residential code or the storage standard is adopted as printed. */
const mostUnitWh = 20_000
const mostGarageWh = 80_000
const mostClosetWh = 40_000

/** Bonds and electrode, and where storage and switch may stand: what the sheet must say and no conductor shows. */
export function advised(site: Site) {
  const { source } = site.job
  if (!source) return
  const grounding = groundingOf(site.job)
  if (grounding.neutral === 'switched')
    tell(
      site.draft,
      'The source’s neutral is switched with its hots: it is a separately derived system, with one bond, at the source (NEC 250.30). Carried or on wheels, it needs no electrode of its own (250.34); wired for good, its electrode conductor goes to the electrodes of the building (250.66: 8 AWG copper with hots up to 2 AWG). A device that leaves the neutral joined avoids all of it, where its instructions allow.',
    )
  else if (grounding.neutral === 'hots-only')
    tell(
      site.draft,
      'The source’s neutral stays joined to the house’s: the bond at the service is the only one, and the electrode of the house serves both (NEC 250.24, 250.30).',
    )
  const fixed = source.units.filter(u => u.equipment.kind === 'inverter' && u.bank)
  if (!fixed.length) return
  const Wh = fixed.reduce((sum, u) => sum + capacityOf(u), 0)
  tell(
    site.draft,
    `Storage of ${quantity(Wh, 'Wh')}: ask your authority what it has adopted. Usual are at most ${quantity(mostUnitWh, 'Wh')} a unit, ${quantity(mostClosetWh, 'Wh')} in a utility closet and ${quantity(mostGarageWh, 'Wh')} in a garage or on an outside wall, 3 ft between units and from doors and windows, none in bedrooms or on the way out, guarded against vehicles, and a smoke or heat alarm in the same room.`,
  )
  tell(
    site.draft,
    'Before everything that may be worked on while live: 30 in wide, 36 in deep, 6½ ft high, kept free (NEC 110.26).',
  )
}
