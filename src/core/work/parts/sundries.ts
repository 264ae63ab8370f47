import { circuitOf } from '../../job/panels'
import type { Job } from '../../job/schema'
import { circuitsOfChange, panelPutUp } from '../../plan/change'
import type { Asked } from './line'

/** What every job of its kind takes along, though no drawing shows it. */
export function sundriesOf(job: Job, asked: readonly Asked[]): Asked[] {
  const mounted = job.planned.filter(
    c => !c.built && (c.kind === 'mount' || c.kind === 'panel' || c.kind === 'intercept'),
  )
  const screws = mounted.length
  const touched = panelsTouched(job).size || 1
  if (!asked.length) return []
  const at = { view: 'plan' as const }
  return [
    {
      key: 'label-sheet',
      kind: 'label',
      name: 'sheet of labels',
      quantity: 1,
      why: 'Circuits, switch positions and the inlet are labelled',
      at,
    },
    {
      key: 'directory-card',
      kind: 'label',
      name: 'circuit directory, printed',
      quantity: touched,
      why: 'The directory of each panel that is touched is told anew (NEC 408.4(A))',
      at,
    },
    ...(screws
      ? [
          {
            key: 'mounting-screws',
            kind: 'sundry' as const,
            name: 'mounting screws with anchors for the wall, set of four',
            quantity: screws,
            why: 'What is mounted on the wall',
            at,
          },
        ]
      : []),
    {
      key: 'tape-vinyl',
      kind: 'sundry',
      name: 'vinyl electrical tape, roll',
      quantity: 1,
      why: 'Taken along',
      at,
    },
  ]
}

/** Panels in which something is done: that a circuit leaves, that one comes to, that is put up. */
export const panelsTouched = (job: Job): Set<string> =>
  new Set(
    job.planned
      .filter(c => !c.built)
      .flatMap(c => [
        ...('panelId' in c ? [c.panelId] : []),
        ...('places' in c ? c.places.map(p => p.panelId) : []),
        ...circuitsOfChange(c).flatMap(id => circuitOf(job, id)?.panel.id ?? []),
        ...(panelPutUp(c) ? [panelPutUp(c)?.id ?? ''] : []),
      ]),
  )
