import type { Draft } from 'immer'
import * as z from 'zod'
import { hookupSchema, positionSchema, runSchema } from '../../hookup/design'
import { changeId, changeSchema } from '../../plan/change'
import { line } from '../../quantity'
import { sourceSchema } from '../../source/design'
import type { Job } from '../schema'
import { assign, clearing, idSchema, operation, put } from './operation'
import { leavePositions } from './reach'

/** How the source meets the house. */

/** What an earlier design asked for goes with it, unless it was built. */
function leaveDesign(job: Draft<Job>) {
  job.planned = job.planned.filter(c => c.origin !== 'design' || c.built)
}

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
        'newPanel',
        'landings',
        'path',
        'positions',
      ]),
    },
    {
      apply:
        ({ facts, clear }) =>
        job => {
          if (facts.method !== undefined && facts.method !== job.hookup.method) leaveDesign(job)
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
      /** what it asks to be done to the house beside: locks, devices at first outlets */
      changes: z.array(changeSchema).max(200).optional(),
    },
    {
      apply:
        ({ source, hookup, changes = [] }) =>
        job => {
          job.source = source
          job.hookup = hookup
          leavePositions(job)
          leaveDesign(job)
          const there = new Set(job.planned.map(changeId))
          job.planned.push(...changes.filter(c => !there.has(changeId(c))))
        },
      describe: (_, { name }) => `took up the design ${name}`,
    },
  ),
}
