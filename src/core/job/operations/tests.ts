import * as z from 'zod'
import { plural } from '../../units/format'
import { type TestEntry, testEntrySchema, testsSchema } from '../test-log'
import { operation } from './operation'

/** What was proven, in the order in which it comes. */

const said: Record<TestEntry['kind'], string> = {
  read: 'tested',
  mended: 'mended at',
  'left out': 'left out',
  note: 'noted at',
  appointment: 'made an appointment for',
  remark: 'wrote down a remark at',
  inspected: 'wrote down the result of',
}

export const testOperations = {
  /** what is there already, by its id, is not written twice */
  recordTests: operation(
    'recordTests',
    {
      entries: z
        .array(testEntrySchema)
        .min(1, 'must hold an entry')
        .max(400, 'must hold at most 400 entries'),
      /** the test in words, for the history */
      about: testEntrySchema.options[0].shape.test,
    },
    {
      apply:
        ({ entries }) =>
        draft => {
          const known = new Set(draft.tests?.log.map(e => e.id))
          const came = entries.filter(
            (e, n) => !known.has(e.id) && entries.findIndex(o => o.id === e.id) === n,
          )
          if (came.length) draft.tests = { ...draft.tests, log: [...(draft.tests?.log ?? []), ...came] }
        },
      describe: (_, { entries, about }) => {
        const [first] = entries
        return entries.length === 1 && first
          ? `${said[first.kind]} ${about}`
          : `wrote down ${plural(entries.length, 'test entry', 'test entries')}: ${about}`
      },
    },
  ),
  /** the made-up house behind the simulated instruments; null: none */
  standInHouse: operation(
    'standInHouse',
    { house: testsSchema.shape.simulated.unwrap().nullable() },
    {
      apply:
        ({ house }) =>
        draft => {
          const { simulated: _, ...tests } = draft.tests ?? { log: [] }
          draft.tests = house ? { ...tests, simulated: house } : tests
        },
      describe: (_, { house }) =>
        house ? 'put a made-up house behind the simulated instruments' : 'took the made-up house away',
    },
  ),
}
