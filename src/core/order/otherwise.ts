import type { SimpleOperation } from '../job/operations'
import type { Job } from '../job/schema'
import { changeId, type PlannedChange, toPlan } from '../plan/change'
import { conductorSizeSchema } from '../units/tables/conductors'

/** What of a change can have been done in another way, beside words. */
export const otherwiseKeys = {
  breakerA: { label: 'Breaker, A', whole: true },
  space: { label: 'Space, or position of the switch', whole: true },
  lengthFt: { label: 'Length, ft', whole: false },
  size: { label: 'Wire, AWG', whole: false },
} as const
export type OtherwiseKey = keyof typeof otherwiseKeys
export type OtherwiseFacts = Partial<Record<OtherwiseKey, string | number>>

type Of<K extends PlannedChange['kind']> = Extract<PlannedChange, { kind: K }>
interface Row<K extends PlannedChange['kind']> {
  /** as it is planned */
  facts: (change: Of<K>, job: Job) => OtherwiseFacts
  /** the plan as it was done: the hook-up where the change follows from it, else the change itself */
  take: (change: Of<K>, facts: OtherwiseFacts, job: Job) => SimpleOperation[]
}

const num = (value: string | number | undefined) => (typeof value === 'number' ? value : undefined)
const given = <T extends object>(facts: T): Partial<T> =>
  Object.fromEntries(Object.entries(facts).filter(([, v]) => v !== undefined)) as Partial<T>

const moved = (
  circuitId: string | undefined,
  facts: OtherwiseFacts,
  panelId: string | undefined,
): SimpleOperation[] => {
  const space = num(facts.space)
  return circuitId === undefined || space === undefined
    ? []
    : [{ op: 'planMove', circuitId, toPosition: space, ...(panelId && { toPanelId: panelId }) }]
}
const placed = (job: Job, circuitId: string, position: number | undefined): SimpleOperation[] => {
  const { positions = [] } = job.hookup
  const was = positions.find(p => p.circuitId === circuitId)
  if (!was || position === undefined) return []
  // who stood there trades places
  const now = positions.map(p =>
    p.circuitId === circuitId
      ? { ...p, position }
      : p.position === position
        ? { ...p, position: was.position }
        : p,
  )
  return [{ op: 'setPositions', positions: now }]
}

/** A row for each kind of change whose figures may differ; the rest is told in words. */
const rows: { [K in PlannedChange['kind']]?: Row<K> } = {
  backfeed: {
    facts: ({ breakerA, space }) => ({ breakerA, ...(space !== undefined && { space }) }),
    take: ({ heldDown, breakerA, space }, facts) => [
      {
        op: 'setHookup',
        facts: {
          backfed: {
            heldDown,
            breakerA,
            ...(space !== undefined && { space }),
            ...given({ breakerA: num(facts.breakerA), space: num(facts.space) }),
          },
        },
      },
    ],
  },
  exchange: {
    facts: ({ breakerA }) => given({ breakerA }),
    take: ({ origin: _, built: __, ...change }, { breakerA }) => [
      toPlan({ ...change, ...given({ breakerA: num(breakerA) }) }),
    ],
  },
  add: {
    facts: ({ circuit }) => ({ breakerA: circuit.breakerA, space: circuit.position }),
    take: ({ origin, built: _, ...change }, facts, job) =>
      origin === 'hook-up'
        ? [
            {
              op: 'setHookup',
              facts: {
                newPanel: {
                  ...job.hookup.newPanel,
                  ...given({ feederA: num(facts.breakerA), feederSpace: num(facts.space) }),
                },
              },
            },
          ]
        : [
            toPlan({
              ...change,
              circuit: {
                ...change.circuit,
                ...given({ breakerA: num(facts.breakerA), position: num(facts.space) }),
              },
            }),
          ],
  },
  'position-breaker': {
    facts: ({ breakerA }) => ({ breakerA }),
    take: ({ position }, { breakerA }, job) => {
      const A = num(breakerA)
      const positions = (job.hookup.positions ?? []).map(p =>
        p.position === position && A !== undefined ? { ...p, breakerA: A } : p,
      )
      return [{ op: 'setPositions', positions }]
    },
  },
  lead: {
    facts: ({ position }) => ({ space: position }),
    take: ({ circuitId }, facts, job) => placed(job, circuitId, num(facts.space)),
  },
  move: {
    facts: ({ places }) => (places.length === 1 && places[0] ? { space: places[0].position } : {}),
    take: ({ places }, facts) => moved(places[0]?.circuitId, facts, places[0]?.panelId),
  },
  land: {
    facts: ({ places }) => (places.length === 1 && places[0] ? { space: places[0].position } : {}),
    take: ({ places }, facts) => moved(places[0]?.circuitId, facts, places[0]?.panelId),
  },
  run: {
    facts: ({ runId }, job) => {
      const run = job.hookup.runs?.find(r => r.id === runId)
      return run ? { lengthFt: run.lengthFt, size: run.size } : {}
    },
    take: ({ runId }, facts, job) => {
      const run = job.hookup.runs?.find(r => r.id === runId)
      const size = conductorSizeSchema.safeParse(facts.size)
      return run
        ? [
            {
              op: 'putRun',
              run: {
                ...run,
                ...given({ lengthFt: num(facts.lengthFt), size: size.success ? size.data : undefined }),
              },
            },
          ]
        : []
    },
  },
}

const rowOf = (change: PlannedChange) => rows[change.kind] as Row<PlannedChange['kind']> | undefined

/** The figures of a change that may have come out otherwise, as they are planned. */
export const otherwiseFacts = (job: Job, id: string): OtherwiseFacts => {
  const change = job.planned.find(c => changeId(c) === id)
  return (change && rowOf(change)?.facts(change, job)) ?? {}
}

/** What makes the plan what was done: nothing where no figure differs. */
export function otherwiseOperations(job: Job, id: string, facts: OtherwiseFacts): SimpleOperation[] {
  const change = job.planned.find(c => changeId(c) === id)
  const was = otherwiseFacts(job, id)
  const keys = Object.keys(facts) as OtherwiseKey[]
  if (!change || keys.every(k => facts[k] === was[k])) return []
  return rowOf(change)?.take(change, facts, job) ?? []
}
