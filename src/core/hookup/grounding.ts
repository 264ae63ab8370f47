import { reachedPanels, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { methodOf } from './method'

/** A place where neutral and ground are joined while the source runs. */
export interface Bond {
  at: 'house' | 'unit' | 'plug' | 'panel'
  where: string
}

/** Neutral and ground as they stand while the source runs. */
export interface Grounding {
  /** leaves the house’s bond in force, switches the neutral too, or never meets the house */
  neutral: 'unknown' | 'hots-only' | 'switched' | 'stand-alone'
  bonds: Bond[]
  ground: 'continuous' | 'interrupted' | 'not said'
  /** a unit whose outlets are protected against ground faults */
  groundFaultUnit: string | null
  /** a unit of which nobody knows whether it is bonded */
  unknownUnit: string | null
}

/** What the hook-up does to the neutral: the device chosen says it, else the method’s nature. */
export function neutralOf(job: Pick<Job, 'hookup'>): Grounding['neutral'] {
  const { method, switch: device } = job.hookup
  const usual = methodOf(method).neutral
  return methodOf(method).transfer === 'switch' && device
    ? device.switchesNeutral
      ? 'switched'
      : 'hots-only'
    : usual
}

/** Whether the neutral of a unit is joined to its ground. */
const neutralIn = (unit: NonNullable<Job['source']>['units'][number]['equipment']) =>
  unit.neutral ?? 'not stated'

/**
 * The bonds that are in force while the source runs: of the house where only hots are switched, of each unit that is
 * bonded inside, of a bonding plug, of a panel fed from another that joins the two. Exactly one is right (NEC 250.24, 250.30).
 */
export function groundingOf(job: Job): Grounding {
  const { source, hookup } = job
  const neutral = neutralOf(job)
  const units = source?.units.map(u => u.equipment) ?? []
  const meetsHouse = neutral === 'hots-only'
  const reached = reachedPanels(job)
  const bonds: Bond[] = [
    ...(meetsHouse ? [{ at: 'house' as const, where: 'the service of the house' }] : []),
    ...units
      .filter(u => neutralIn(u) === 'bonded')
      .map(u => ({ at: 'unit' as const, where: `inside the ${u.name}` })),
    ...(hookup.bondingPlug ? [{ at: 'plug' as const, where: 'the bonding plug' }] : []),
    ...(meetsHouse
      ? job.panels
          .filter(p => p.supply === 'fed from another panel' && p.neutralBonded && reached.has(p.id))
          .map(p => ({ at: 'panel' as const, where: p.name }))
      : []),
  ]
  return {
    neutral,
    bonds,
    ground: hookup.ground ?? 'not said',
    groundFaultUnit: units.find(u => 'groundFaultOutlets' in u && u.groundFaultOutlets)?.name ?? null,
    unknownUnit: units.find(u => neutralIn(u) === 'not stated')?.name ?? null,
  }
}

/** Where neutral and ground stand, in a sentence. */
export function groundingText(job: Job): string {
  const { neutral, bonds } = groundingOf(job)
  if (neutral === 'unknown') return 'Not to be said before the hook-up is chosen.'
  const count = bonds.length === 1 ? 'One bond' : bonds.length ? `${bonds.length} bonds` : 'No bond'
  const where = bonds.map(b => b.where).join(' and ')
  const does = {
    'hots-only': `only hots are switched, so ${tiedPanel(job).name} keeps the house’s bond`,
    switched: 'the neutral is switched too, so the source stands by itself',
    'stand-alone': 'the source never meets the house',
  }[neutral]
  return `${count}${where ? `: ${where}` : ''}; ${does}.`
}
