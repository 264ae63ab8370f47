import type { Evaluated } from '../assess/evaluated'
import type { Said } from './finding'

/** Changes that this house does not bear: the survey turned out otherwise, or what they rest on is gone. */
export function planHindered({ hindered }: Evaluated): Said[] {
  return hindered.map(({ id, text, why, circuitIds }) => ({
    id: 'plan.hindered',
    severity: 'fix',
    sentence: `${text}: planned, and this house does not bear it: ${why}.`,
    why: 'What cannot be done is not reckoned with: every other figure here is that of the house without it.',
    remedy: 'Correct the survey if it is wrong, plan it otherwise, or take it back.',
    target: circuitIds.length ? { view: 'panel', circuitIds } : { view: 'plan', field: id },
    fixes: [{ label: 'Take it back', operations: [{ op: 'dropChanges', ids: [id] }] }],
  }))
}
