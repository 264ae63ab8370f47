import { evaluate } from '@/core/assess/evaluate'
import { standingOf } from '@/core/handover/standing'
import { applyOperation, type Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import type { Visit } from '@/core/job/visits'

const apply = (job: Job, operation: Operation): Job => {
  const outcome = applyOperation(job, operation)
  if (!outcome.ok) throw new Error(outcome.faults.map(f => `${f.path}: ${f.message}`).join('; '))
  return outcome.value
}

/** A house that was handed over, an outage that was lived through in it, and a yearly test with what somebody had bought meanwhile. */
export function livedIn(job: Job, by: string): Job {
  const unit = job.source?.units[0]
  const handed = apply(job, {
    op: 'setHandOver',
    facts: {
      on: '2026-02-17',
      phone: '555 0142',
      where: { source: 'on the shelf beside the heater' },
      warranties: unit
        ? [{ unitId: unit.id, serial: 'R6-20418', from: '2026-02-17', until: '2031-02-16' }]
        : [],
    },
  })
  const { headline } = evaluate(handed)
  const visit = (id: string, facts: Omit<Visit, 'id' | 'by' | 'before'>): Operation => ({
    op: 'openVisit',
    visit: { id, by, before: standingOf(handed, 1), ...facts },
  })
  const outage = apply(
    handed,
    visit('seed-outage', {
      kind: 'outage',
      on: '2026-11-02',
      text: 'Wind, trees on the line. The heater ran on and off through the night.',
      lived: { hours: 5.5, carried: 'all of it', predictedH: headline.hoursHad },
      closedOn: '2026-11-02',
    }),
  )
  const year = apply(
    outage,
    visit('seed-year', { kind: 'yearly test', on: '2027-02-16', text: 'A lamp was bought; it hangs on 3.' }),
  )
  const lamp = year.panels.flatMap(p => p.circuits).find(c => c.id === 'c3')
  const changed = lamp
    ? apply(year, { op: 'editCircuit', circuitId: lamp.id, facts: { label: `${lamp.label}, reading lamp` } })
    : year
  return apply(changed, {
    op: 'closeVisit',
    id: 'seed-year',
    done: 'Switched over and back in 4 minutes; charged to full; label of 3 printed anew.',
    on: '2027-02-16',
  })
}
