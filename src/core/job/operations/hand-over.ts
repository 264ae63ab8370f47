import * as z from 'zod'
import { handOverSchema, visitKinds, visitSchema } from '../visits'
import { operation, put } from './operation'

const { id, done } = visitSchema.shape

/** What is handed over, and who comes back afterwards. */
export const handOverOperations = {
  setHandOver: operation(
    'setHandOver',
    { facts: handOverSchema },
    {
      apply:
        ({ facts }) =>
        draft => {
          draft.handOver = facts
        },
      describe: (_, { facts }) =>
        facts.on ? `handed the house over on ${facts.on}` : 'wrote down what the units’ warranties are',
    },
  ),
  /** a visit, or an outage that was told of; one that is there already is put in its place */
  openVisit: operation(
    'openVisit',
    { visit: visitSchema },
    {
      apply:
        ({ visit }) =>
        draft => {
          draft.visits = put(draft.visits, visit)
        },
      describe: (_, { visit }) => `wrote down a visit: ${visitKinds[visit.kind].name.toLowerCase()}`,
    },
  ),
  closeVisit: operation(
    'closeVisit',
    { id, done, on: z.iso.date('must be a date: YYYY-MM-DD') },
    {
      apply:
        ({ id: visitId, done: text, on }) =>
        draft => {
          const visit = draft.visits?.find(v => v.id === visitId)
          if (!visit) return
          visit.closedOn = on
          if (text) visit.done = text
        },
      describe: () => 'closed a visit',
    },
  ),
}
