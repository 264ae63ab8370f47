import { createContext, useContext, useMemo } from 'react'
import { createStore, type StoreApi, useStore } from 'zustand'
import type { Evaluation } from '@/core/assess/evaluate'
import type { JobRecord, Others, Revision } from '@/core/assess/record'
import type { House } from '@/core/job/as-planned'
import { happened } from '@/core/job/happened'
import type { Operation } from '@/core/job/operations'
import { circuitOf, circuitsOf, tiedPanel } from '@/core/job/panels'
import type { Job } from '@/core/job/schema'
import type { Fault } from '@/core/outcome'
import type { Panel } from '@/core/panel/schema'
import type { Working } from '@/core/working'
import { call, faultLine } from '../api'
import type { Pending } from './record'
import { keepUnsaved, leftBehind, nothingLeft, putAside } from './unsaved'

export type Engine = typeof import('./engine')

interface Conflict {
  record: JobRecord
  since: Revision[]
  others: Others
}

/** A job as this machine had it last, with what was not saved yet. */
export interface Kept {
  job: Job
  revision: number
  pending: Pending[]
}

export interface WorkspaceState {
  id: string
  /** who acts here, as it stands in the record */
  person: string
  job: Job
  evaluation: Evaluation
  /** the revision that the server last confirmed */
  revision: number
  /** what undo takes back and redo brings back once everything that waits is written, the next first */
  undos: readonly string[]
  redos: readonly string[]
  pending: Pending[]
  saving: 'idle' | 'sending' | 'waiting'
  conflict: Conflict | null
  /** one line for the person: something changed or went wrong outside a field */
  notice: string | null
  /** the panel that is shown; null: the one the source is tied to */
  panelId: string | null
  /** which picture of the house is shown */
  house: House
  /** the breaker that is being moved, and the space it is held over */
  moving: { id: string; to: number | null } | null
  selectedId: string | null
  detailsOpen: boolean
  working: Working | null
  /** whether the engine is here */
  live: boolean
  /** whether what others write is heard as it comes */
  heard: boolean
  /** who else looks at the job just now */
  others: readonly string[]
  /** how many acts wait for it */
  early: number

  /**
   * Applies operations here at once, as one or several undoable changes; the faults, when refused. Before the engine is
   * here they wait for it, and are told if it refuses them.
   */
  act: (...operations: Operation[]) => Fault[]
  back: (kind: 'undo' | 'redo') => void
  /** Fetches the engine; an answer that fails to come is asked for again. */
  start: () => Promise<void>
  resolve: (choice: 'mine-on-top' | 'theirs') => void
  /** Takes up what earlier pages of this device could not save. */
  takeUp: () => Promise<void>
  /** Takes up what this machine kept of the job, where it is as new as the page or newer. */
  restore: (kept: Kept) => void
  /** Takes over what others wrote, when nothing is waiting here. */
  refresh: () => Promise<void>
  showPanel: (panelId: string) => void
  showHouse: (house: House) => void
  move: (circuitId: string | null) => void
  aim: (space: number) => void
  select: (circuitId: string | null, open?: boolean) => void
  showWorking: (working: Working | null) => void
  say: (notice: string | null) => void
}

/** Keeps on this device what waits; a device without room keeps nothing, and the page says so before it is left. */
function keep(id: string, revision: number, pending: readonly Pending[]) {
  keepUnsaved(id, { revision, pending: [...pending] }).catch(() => {})
}

/**
 * Applies pending changes on top of what others wrote; what cannot be applied any more is told. A step back or forth stays
 * behind: it meant what stood before.
 */
function onTop(
  { applyOperation }: Engine,
  job: Job,
  pending: readonly Pending[],
): { job: Job; kept: Pending[]; lost: string[] } {
  let now = job
  const kept: Pending[] = []
  const lost: string[] = []
  for (const change of pending) {
    if (change.kind !== 'do') continue
    const outcome = applyOperation(now, change.operation)
    if (outcome.ok) {
      now = outcome.value
      kept.push({ ...change, id: crypto.randomUUID() })
    } else lost.push(`${change.sentence} (${outcome.faults.map(faultLine).join('; ')})`)
  }
  return { job: now, kept, lost }
}

/** How a job looks with what waits to be written; what a step back or forth comes to, only the server knows. */
function shownWith({ applyOperation }: Engine, job: Job, pending: readonly Pending[]): Job {
  return pending.reduce((now, change) => {
    const outcome = change.kind === 'do' ? applyOperation(now, change.operation) : null
    return outcome?.ok ? outcome.value : now
  }, job)
}

type Ways = Pick<WorkspaceState, 'undos' | 'redos'>

/** The ways back and forth after a change: what does not exist is never asked for. */
function waysAfter({ undos, redos }: Ways, change: Pending): Ways {
  if (change.kind === 'do')
    // what happened in the field is taken back there, not undone
    return happened(change.operation)
      ? { undos: [], redos: [] }
      : { undos: [change.sentence, ...undos], redos: [] }
  const [from, to] = change.kind === 'undo' ? [undos, redos] : [redos, undos]
  const [next, ...rest] = from
  if (next === undefined) return { undos, redos }
  return change.kind === 'undo'
    ? { undos: rest, redos: [next, ...to] }
    : { undos: [next, ...to], redos: rest }
}

const waysOf = ({ undos, redos }: Ways, pending: readonly Pending[]): Ways =>
  pending.reduce(waysAfter, { undos, redos })

const evaluated = (engine: Engine, job: Job) => ({ job, evaluation: engine.evaluate(job) })
/** What is written down of the work, and a photograph of it, changes no figure. */
const unfigured: ReadonlySet<string> = new Set(['work', 'photos'])
const sameFigures = (a: Job, b: Job) =>
  [...Object.keys(a), ...Object.keys(b)].every(
    key => unfigured.has(key) || Reflect.get(a, key) === Reflect.get(b, key),
  )
const gatherMs = 60
const firstWaitMs = 1000
const judgeMs = 80
const longestWaitMs = 10_000
const diskFull = 507
const warmings = 4

interface Opened {
  record: JobRecord
  /** the job worked out, by the server */
  evaluation: Evaluation
  person: string
  /** where it is here already */
  engine?: Engine
  fetchEngine?: () => Promise<Engine>
}

/** The workspace of one job: edits at once, saves behind, and never drops what was not saved. */
export function createWorkspace({
  record,
  evaluation,
  person,
  engine: here,
  fetchEngine = () => import('./engine'),
}: Opened): StoreApi<WorkspaceState> {
  let timer: ReturnType<typeof setTimeout> | undefined
  let judging: ReturnType<typeof setTimeout> | undefined
  let waitMs = firstWaitMs
  let fetched = here ?? null
  let coming: Promise<void> | null = null
  /** what was done before the engine is here, in its order: what an earlier page kept is taken up before the first tap */
  const waiting: (() => void)[] = []
  /** until it is known what earlier pages left */
  let looking: Promise<unknown> = Promise.resolve()

  const engine = (): Engine => {
    if (!fetched) throw new Error('the engine is used before it is here')
    return fetched
  }

  const store = createStore<WorkspaceState>((set, get) => {
    async function come() {
      for (let ms = firstWaitMs; !fetched; ms = Math.min(ms * 2, longestWaitMs)) {
        fetched = await fetchEngine().catch(() => null)
        if (!fetched) await new Promise(resolve => setTimeout(resolve, ms))
      }
      await looking
      set({ live: true, early: 0 })
      for (const done of waiting.splice(0)) done()
      warm(warmings)
    }
    /** Works a tap out a few times while nobody waits, and forgets it: the first real one finds the engine warm. */
    function warm(times: number) {
      const [circuit] = circuitsOf(get().job)
      if (!times || !circuit || typeof requestIdleCallback === 'undefined') return
      requestIdleCallback(() => {
        const tap = { op: 'selectCircuit', circuitId: circuit.id, picked: !circuit.picked } as const
        const { applyOperation, evaluate } = engine()
        const tapped = applyOperation(get().job, tap)
        if (tapped.ok) evaluate(tapped.value)
        warm(times - 1)
      })
    }
    const start = () => {
      coming ??= come()
      return coming
    }
    /** At once, or as soon as the engine is here. */
    const then = (f: () => void) => {
      if (fetched) return f()
      waiting.push(f)
      void start()
    }

    /** What the server has, with what waits here on top of it. */
    const adopt = (next: JobRecord, pending: Pending[] = []) => ({
      ...evaluated(engine(), shownWith(engine(), next.job, pending)),
      ...waysOf(next, pending),
      revision: next.revision,
      pending,
    })

    /** What a tick in the field builds is judged when it is painted: hands do not wait for figures. */
    const judgeLater = () => {
      clearTimeout(judging)
      judging = setTimeout(() => set({ evaluation: engine().evaluate(get().job) }), judgeMs)
    }

    const queue = (changes: Pending[]) => {
      const pending = [...get().pending, ...changes]
      set({ pending })
      keep(get().id, get().revision, pending)
      if (get().saving === 'idle') {
        // the tap is painted first, and quick taps travel together
        clearTimeout(timer)
        timer = setTimeout(() => void send(), gatherMs)
      }
    }

    async function send(): Promise<void> {
      const { id, revision, pending, saving, conflict } = get()
      if (!pending.length || saving === 'sending' || conflict) return
      clearTimeout(timer)
      set({ saving: 'sending' })
      const sent = pending.slice(0, 100)
      const answer = await call<{ record: JobRecord }>(`/api/jobs/${id}/changes`, 'POST', {
        baseRevision: revision,
        changes: sent.map(({ sentence: _, ...change }) => change),
      })
      if (answer.ok) return written(answer.data.record, sent)
      if (answer.status === 409) return stale(answer.body as Conflict & { applied: string[] })
      // who is signed out, or was too quick, loses nothing: it is sent again
      if (answer.status === 401 || answer.status === 429) {
        if (waitMs === firstWaitMs) set({ notice: answer.message })
        return later()
      }
      if (answer.status === 0 || answer.status >= 500) {
        // a full disk is told: waiting alone does not mend it
        if (answer.status === diskFull && waitMs === firstWaitMs) set({ notice: answer.message })
        return later()
      }
      return refused(
        answer.faults.map(faultLine).join('; ') || answer.message,
        refusedId(answer.body, answer.faults, sent),
      )
    }

    function written(next: JobRecord, sent: Pending[]) {
      waitMs = firstWaitMs
      // what a device kept may have come in before it meanwhile
      const left = get().pending.filter(c => !sent.some(s => s.id === c.id))
      const moved = sent.some(c => c.kind !== 'do')
      set(
        moved
          ? { ...adopt(next, left), saving: 'idle' }
          : { ...waysOf(next, left), revision: next.revision, pending: left, saving: 'idle' },
      )
      keep(next.id, next.revision, left)
      void send()
    }

    function stale({ record: theirs, since, others, applied }: Conflict & { applied: string[] }) {
      const pending = get().pending.filter(c => !applied.includes(c.id))
      set({ pending, saving: 'idle' })
      const rest = mayMerge(theirs.job, others, pending) ? onTop(engine(), theirs.job, pending) : null
      if (rest && !rest.lost.length) {
        set({ ...adopt(theirs, rest.kept), notice: told(since) })
        keep(theirs.id, theirs.revision, rest.kept)
        return void send()
      }
      if (pending.length) set({ conflict: { record: theirs, since, others } })
      else set({ ...adopt(theirs), notice: told(since) })
      keep(theirs.id, get().revision, pending)
    }

    function later() {
      set({ saving: 'waiting' })
      timer = setTimeout(() => {
        set({ saving: 'idle' })
        void send()
      }, waitMs)
      waitMs = Math.min(waitMs * 2, longestWaitMs)
    }

    /** What was refused is left out and told; what else waits stays, and is sent again. */
    async function refused(why: string, changeId: string | null) {
      const answer = await call<{ record: JobRecord }>(`/api/jobs/${get().id}`, 'GET')
      if (!answer.ok) return later()
      const { record: next } = answer.data
      const left = changeId === null ? [] : get().pending.filter(c => c.id !== changeId)
      // what cannot be done without it goes with it
      const rest = onTop(engine(), next.job, left)
      const told = [why, ...rest.lost].join('; ')
      set({ ...adopt(next, rest.kept), saving: 'idle', notice: `Not saved: ${told}` })
      keep(get().id, next.revision, rest.kept)
      void send()
    }

    return {
      id: record.id,
      person,
      job: record.job,
      evaluation,
      revision: record.revision,
      undos: record.undos,
      redos: record.redos,
      pending: [],
      saving: 'idle',
      conflict: null,
      notice: null,
      panelId: null,
      house: evaluation.house ? 'planned' : 'found',
      moving: null,
      selectedId: null,
      detailsOpen: false,
      working: null,
      live: here !== undefined,
      heard: false,
      others: [],
      early: 0,

      start,
      act: (...operations) => {
        if (!fetched) {
          set({ early: get().early + 1 })
          then(() => {
            const faults = get().act(...operations)
            if (faults.length) set({ notice: `Not done: ${faults.map(faultLine).join('; ')}` })
          })
          return []
        }
        const { applyOperation, describeOperation } = fetched
        let { job } = get()
        const changes: Pending[] = []
        for (const operation of operations) {
          const outcome = applyOperation(job, operation)
          if (!outcome.ok) return outcome.faults
          changes.push({
            id: crypto.randomUUID(),
            kind: 'do',
            operation,
            sentence: describeOperation(job, operation),
          })
          job = outcome.value
        }
        const field = operations.every(ofTheWork)
        const now = field ? { job, evaluation: get().evaluation } : evaluated(fetched, job)
        if (field && !sameFigures(get().job, job)) judgeLater()
        // what was planned is shown where it is planned
        const plans = now.evaluation.house !== null && operations.some(planning)
        set({ ...now, ...waysOf(get(), changes), ...(plans && { house: 'planned' }) })
        queue(changes)
        return []
      },
      back: kind =>
        then(() => {
          if (!get()[`${kind}s`].length) return
          const change: Pending = { id: crypto.randomUUID(), kind, sentence: kind }
          set(waysAfter(get(), change))
          queue([change])
        }),
      resolve: choice => {
        const { conflict, pending } = get()
        if (!conflict) return
        const rest =
          choice === 'theirs'
            ? { job: conflict.record.job, kept: [], lost: [] }
            : onTop(engine(), conflict.record.job, pending)
        if (choice === 'theirs') void putAside(record.id, pending)
        set({
          ...adopt(conflict.record, rest.kept),
          conflict: null,
          notice: rest.lost.length
            ? `No longer possible, and left out: ${rest.lost.join('; ')}`
            : choice === 'theirs'
              ? 'Your changes are put aside on this device: History has them.'
              : null,
        })
        keep(conflict.record.id, conflict.record.revision, rest.kept)
        void send()
      },
      takeUp: async () => {
        const found = leftBehind(record.id).catch(() => nothingLeft)
        looking = found
        const { left, taken } = await found
        if (!left.length) return
        const take = () => {
          const { job, pending, revision } = get()
          const had = new Set(pending.map(c => c.id))
          // the server knows them by their ids: what it has written already is not written again
          const came = left.flatMap(l => l.pending).filter(c => !had.has(c.id) && had.add(c.id))
          const all = [...pending, ...came]
          set({
            ...evaluated(engine(), shownWith(engine(), job, came)),
            ...waysOf(get(), came),
            pending: all,
            // a page that a device kept is older than what was confirmed since: never claimed for it
            revision: Math.min(revision, ...left.map(l => l.revision)),
          })
          keep(record.id, get().revision, all)
          void taken()
          void send()
        }
        // before what was done since, which waits for the engine
        if (get().live) take()
        else waiting.unshift(take)
      },
      restore: kept =>
        then(() => {
          if (kept.revision < get().revision) return
          const had = new Set(get().pending.map(c => c.id))
          const here = get().pending.filter(c => !kept.pending.some(k => k.id === c.id))
          const came = kept.pending.filter(c => !had.has(c.id))
          set({
            ...evaluated(engine(), shownWith(engine(), kept.job, here)),
            ...waysOf(get(), came),
            revision: kept.revision,
            pending: [...kept.pending, ...here],
          })
          if (came.length) void send()
        }),
      refresh: async () => {
        const { id, revision, pending } = get()
        if (pending.length) return void send()
        const answer = await call<{ record: JobRecord; since: Revision[] }>(
          `/api/jobs/${id}?since=${revision}`,
          'GET',
        )
        if (!answer.ok || answer.data.record.revision <= get().revision) return
        await start()
        if (get().pending.length) return
        set({ ...adopt(answer.data.record), notice: told(answer.data.since) })
      },
      showPanel: panelId => set({ panelId, moving: null }),
      showHouse: house => set({ house, moving: null }),
      move: id => set({ moving: id === null ? null : { id, to: null } }),
      aim: to => {
        const { moving } = get()
        if (moving && moving.to !== to) set({ moving: { ...moving, to } })
      },
      select: (selectedId, open = false) => {
        const at = shownPanels(get()).find(p => p.circuits.some(c => c.id === selectedId))
        set({ selectedId, detailsOpen: open, ...(at && { panelId: at.id }) })
      },
      showWorking: working => set({ working }),
      say: notice => set({ notice }),
    }
  })

  return store
}

/**
 * Whether changes made here may go on top of others' without asking: when the others are customers, who touch only what
 * they were asked for; or when all that is done here is tracing, and nobody else traced those circuits; or what the field writes down of the work.
 */
function mayMerge(theirs: Job, others: Others, pending: readonly Pending[]): boolean {
  if (!pending.length) return false
  if (others.changes && others.customersOnly) return true
  return pending.every(({ kind, ...change }) => {
    if (kind !== 'do' || !('operation' in change)) return false
    const { operation } = change
    // what happened in the field is added to what others wrote down
    if (operation.op === 'addPhoto' || ofTheWork(operation)) return true
    if (operation.op !== 'traceCircuit') return false
    const traced = circuitOf(theirs, operation.circuitId)?.circuit.traced
    return !traced || traced.by === operation.traced.by || traced.on < operation.traced.on
  })
}

/** The change that was refused: as the server names it, or by its place where a fault of the batch stands. */
function refusedId(body: unknown, faults: readonly Fault[], sent: readonly Pending[]): string | null {
  const named = body !== null && typeof body === 'object' && 'changeId' in body ? body.changeId : null
  if (typeof named === 'string') return named
  const place = faults.map(f => /^changes\[(\d+)\]/.exec(f.path)?.[1]).find(n => n !== undefined)
  return place === undefined ? null : (sent[Number(place)]?.id ?? null)
}

const ofTheWork = (operation: Operation) =>
  happened(operation) || operation.op === 'orderWork' || operation.op === 'recordPrinted'
const planning = ({ op }: Operation) => op === 'planMove' || op === 'planChange' || op === 'applyFix'

/** The panels of the house that is shown. */
export const shownPanels = ({ job, evaluation, house }: WorkspaceState): readonly Panel[] =>
  house === 'planned' ? (evaluation.house?.panels ?? job.panels) : job.panels

/** The panel on the screen. */
export function shownPanel(state: WorkspaceState): Panel {
  const panels = shownPanels(state)
  // the one that the source feeds: as planned it may be a new one
  const [fed] = state.evaluation.reached
  const at = (id: string | null | undefined) => panels.find(p => p.id === id)
  return at(state.panelId) ?? at(fed) ?? tiedPanel(state.job)
}

/** The same panel as the survey found it; the tied one in place of one that is only planned. */
export const foundPanel = ({ job, panelId }: WorkspaceState): Panel =>
  job.panels.find(p => p.id === panelId) ?? tiedPanel(job)

/** How circuits fare in the house that is shown. */
export const shownCircuits = ({ evaluation, house }: WorkspaceState): Evaluation['circuits'] =>
  house === 'found' ? (evaluation.house?.asFound ?? evaluation.circuits) : evaluation.circuits

const told = (since: readonly Revision[]) =>
  since.length
    ? `Updated: ${since.map(r => `${r.person} ${r.sentence}`).join('; ')}`
    : 'Updated to what was saved elsewhere.'

export const WorkspaceContext = createContext<StoreApi<WorkspaceState> | null>(null)

export function useWorkspaceStore(): StoreApi<WorkspaceState> {
  const store = useContext(WorkspaceContext)
  if (!store) throw new Error('a workspace component stands outside its workspace')
  return store
}

export const useWorkspace = <T>(pick: (state: WorkspaceState) => T): T => useStore(useWorkspaceStore(), pick)

/** The job with the house that is shown. */
export function useShownJob(): Job {
  const job = useWorkspace(s => s.job)
  const panels = useWorkspace(shownPanels)
  const alike = useWorkspace(s => s.evaluation.house === null)
  return useMemo(() => (alike ? job : { ...job, panels: [...panels], planned: [] }), [job, panels, alike])
}
