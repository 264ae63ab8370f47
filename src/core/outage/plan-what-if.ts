import type { Job } from '../job/schema'
import type { Load } from '../loads/load'
import type { Outcome } from '../outcome'
import { type Plan, planOf, usualCloud } from './plan'
import type { WhatIf } from './what-if'

/** A kettle at seven in the morning: 1,500 W for four minutes, by hand, on the first picked 120 V circuit. */
const kettle: Load = {
  id: 'what-if-kettle',
  name: 'Kettle at 7:00',
  runningW: { value: 1500, from: 'typical value' },
  powerFactor: { value: 1, from: 'typical value' },
  // at seven, and at no other hour
  dutyFraction: { value: 4 / 1440, from: 'assumed' },
  idleW: { value: 0, from: 'typical value' },
  nature: 'plain',
  byHand: false,
  needsBond: false,
  pattern: { kind: 'event', timesPerDay: 1, minutes: 4, fromH: 7, toH: 8 },
}

/** The plan of a job under a what-if. A weather file's year is moved too: the job itself does not say how. */
export function planWhatIf(job: Job, whatIf: WhatIf, stepS = 60): Outcome<Plan> {
  return planOf(withWhatIf(job, whatIf), {
    stepS,
    ...(job.outage.weather && {
      // a temperature that is said for the outage moves the year already
      yearColderC: job.outage.outdoorC === undefined ? whatIf.colderC : 0,
      yearCloudierFraction: whatIf.cloudierFraction,
    }),
  })
}

/**
 * The job under a what-if. A store that stands outdoors or in the cold is colder too; more batteries are expansion units of
 * every unit that takes them, or strings of its bank; the reserve stays below the charge at the beginning.
 */
function withWhatIf(job: Job, whatIf: WhatIf): Job {
  const { colderC, cloudierFraction, moreExpansions, reserveFraction, beginsH, season } = whatIf
  const { outage, source } = job
  let panels = job.panels
  if (whatIf.kettle) {
    const on = panels.flatMap(p => p.circuits).find(c => c.picked && c.poles === 1)
    panels = panels.map(p => ({
      ...p,
      circuits: p.circuits.map(c => (c === on ? { ...c, loads: [...c.loads, kettle] } : c)),
    }))
  }
  const coldest = source?.stands?.coldestC
  const outdoorC = outage.outdoorC
  return {
    ...job,
    panels,
    outage: {
      ...outage,
      ...(outdoorC !== undefined && colderC !== 0 && { outdoorC: outdoorC - colderC }),
      ...(cloudierFraction !== 0 && {
        cloudFraction: Math.max(0, Math.min(1, usualCloud(job) + cloudierFraction)),
      }),
      ...(reserveFraction !== undefined && {
        reserveFraction: Math.min(reserveFraction, outage.startFraction - 0.01),
      }),
      ...(beginsH !== undefined && { beginsH }),
      ...(season && { season }),
    },
    ...(source && {
      source: {
        ...source,
        units: source.units.map(u => {
          const { equipment, bank } = u
          if (!moreExpansions) return u
          if (equipment.kind === 'station')
            return {
              ...u,
              expansionUnits: Math.max(
                0,
                Math.min(equipment.expansion?.most ?? 0, u.expansionUnits + moreExpansions),
              ),
            }
          return bank
            ? {
                ...u,
                bank: {
                  ...bank,
                  parallel: Math.max(
                    1,
                    Math.min(bank.equipment.mostParallel, bank.parallel + moreExpansions),
                  ),
                },
              }
            : u
        }),
        ...(coldest !== undefined &&
          colderC !== 0 &&
          source.stands && { stands: { ...source.stands, coldestC: coldest - colderC } }),
      },
    }),
  }
}
