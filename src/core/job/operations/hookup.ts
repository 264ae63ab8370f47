import * as z from 'zod'
import { hookupSchema, positionSchema, runSchema } from '../../hookup/design'
import { type Circuit, circuitSchema } from '../../panel/schema'
import { line } from '../../quantity'
import { sourceSchema } from '../../source/design'
import { assign, clearing, idSchema, operation, put } from './operation'
import { leavePositions } from './reach'

/** How the source meets the house. */

export const hookupOperations = {
  setHookup: operation(
    'setHookup',
    {
      facts: hookupSchema.partial(),
      clear: clearing([
        'panelId',
        'whip',
        'switch',
        'managed',
        'interlock',
        'inlet',
        'backfed',
        'ground',
        'neutrals',
        'sourceNeutral',
        'exists',
        'secondSwitch',
        'intercepts',
        'movedPlaces',
        'path',
        'positions',
      ]),
    },
    {
      apply:
        ({ facts, clear }) =>
        job => {
          assign(job.hookup, facts)
          for (const key of clear ?? []) delete job.hookup[key]
        },
      describe: () => 'changed the hook-up',
    },
  ),
  setPositions: operation(
    'setPositions',
    { positions: z.array(positionSchema).max(84) },
    {
      apply:
        ({ positions }) =>
        job => {
          job.hookup.positions = positions
        },
      describe: () => 'set the switch positions',
    },
  ),
  putRun: operation(
    'putRun',
    { run: runSchema },
    {
      apply:
        ({ run }) =>
        job => {
          job.hookup.runs = put(job.hookup.runs, run)
        },
      describe: (_, { run }) => `set the run ${run.name}`,
    },
  ),
  removeRun: operation(
    'removeRun',
    { runId: idSchema },
    {
      apply:
        ({ runId }) =>
        job => {
          job.hookup.runs = job.hookup.runs?.filter(r => r.id !== runId)
        },
      describe: (before, { runId }) =>
        `removed the run ${before.hookup.runs?.find(r => r.id === runId)?.name ?? ''}`.trim(),
    },
  ),
  /** a design that was searched: source and hook-up at once */
  adoptDesign: operation(
    'adoptDesign',
    {
      name: line(200, 1),
      source: sourceSchema,
      hookup: hookupSchema,
      /** circuits that are to be locked off, or guarded at their first outlet, with it */
      circuits: z
        .array(
          z.strictObject({
            circuitId: idSchema,
            facts: circuitSchema.pick({ lockedOff: true, outletProtection: true }),
          }),
        )
        .max(200)
        .optional(),
    },
    {
      apply:
        ({ source, hookup, circuits }) =>
        job => {
          job.source = source
          job.hookup = hookup
          leavePositions(job)
          for (const { circuitId, facts } of circuits ?? [])
            for (const circuit of job.panels.flatMap(p => p.circuits))
              if (circuit.id === circuitId) assign<Circuit>(circuit, facts)
        },
      describe: (_, { name }) => `took up the design ${name}`,
    },
  ),
}
