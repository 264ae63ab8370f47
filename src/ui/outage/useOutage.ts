import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Job } from '@/core/job/schema'
import type { OutageAnswer } from '@/core/outage/answer'
import type { Chance, Draws } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import { enough } from '@/core/outage/share'
import type { CourseTrace } from '@/core/outage/trace'
import type { WhatIf } from '@/core/outage/what-if'
import type { Fault } from '@/core/outcome'
import type { Simulation } from '@/workers/desks/simulation'
import { crewSize, type Member, Pool, wasDropped } from '../workers/pool'

/** What a screen knows of one simulated design; the mean comes at once, the chance as the draws come in. */
export interface Simulated {
  plan: Plan | null
  mean: CourseTrace | null
  chance: Chance | null
  answer: OutageAnswer | null
  /** a single draw that was asked for */
  one: CourseTrace | null
  faults: Fault[]
  busy: boolean
  trouble: string | null
}

const nothing: Simulated = {
  plan: null,
  mean: null,
  chance: null,
  answer: null,
  one: null,
  faults: [],
  busy: true,
  trouble: null,
}

/** Draws are handed out in pieces small enough that a new design never waits long. */
const pieceDraws = 20
const batch = 100
const mostDraws = 1000
const seed = 1

const start = () => new Worker(new URL('../../workers/outage.ts', import.meta.url), { type: 'module' })
const lost = 'The simulation could not be loaded. Load the page again.'

/**
 * Simulates a job under a what-if in workers: one for the mean and the sums, the rest for draws. A new design drops what the
 * old one still had to do; `stop` ends it where it is.
 */
export function useOutage(job: Job, whatIf: WhatIf) {
  const [state, setState] = useState<Simulated>(nothing)
  const [pools] = useState(() => ({
    lead: new Pool<Simulation>(start, 1),
    hands: new Pool<Simulation>(start, crewSize(4)),
  }))
  /** the run at hand: its number, and whether it was told to end */
  const run = useRef({ id: 0, ended: false })
  useEffect(
    () => () => {
      pools.lead.stop()
      pools.hands.stop()
    },
    [pools],
  )

  useEffect(() => {
    const mine = { id: run.current.id + 1, ended: false }
    run.current = mine
    const { id } = mine
    const here = () => run.current === mine
    pools.lead.clear()
    pools.hands.clear()
    setState(was => ({ ...was, busy: true }))
    /** Whoever does not know this design yet, one that took another's place too, is told it first. */
    const knowing = async (member: Member<Simulation>) => {
      if (member.knows !== id) await member.api.take(id, job, whatIf)
      member.knows = id
      return member.api
    }
    const piece = (from: number) =>
      pools.hands.run(async hand => (await knowing(hand)).draws(id, seed, from, pieceDraws))

    const simulate = async () => {
      const begun = await pools.lead.run(async lead => {
        if (!here()) return null
        const answer = await lead.api.begin(id, job, whatIf)
        lead.knows = id
        return answer
      })
      if (!begun || !here()) return
      if (!begun.ok) return setState({ ...nothing, faults: begun.faults, busy: false })
      const { plan, quick } = begun.value
      setState(was => ({ ...was, plan, ...(quick && { mean: quick }), one: null, faults: [], trouble: null }))
      // the mean is there first: what is asked at once is not slowed by what is asked after it
      const all: Draws[] = []
      const pieces: Promise<Draws>[] = []
      const ahead = batch / pieceDraws + pools.hands.size
      for (let at = 0; at < mostDraws && here() && !mine.ended; at += batch) {
        while (pieces.length * pieceDraws < Math.min(mostDraws, at + ahead * pieceDraws))
          pieces.push(quietly(piece(pieces.length * pieceDraws)))
        // in the order of their numbers, and in whole batches: the same on any number of workers
        const parts = await Promise.all(pieces.slice(at / pieceDraws, (at + batch) / pieceDraws))
        if (!here() || mine.ended) return
        const summed = await pools.lead.run(async lead => {
          // one that took another's place adds up anew what was there
          const fresh = lead.knows !== id
          const api = await knowing(lead)
          return api.sum(id, seed, fresh ? [...all, ...parts] : parts)
        })
        all.push(...parts)
        if (!here()) return
        const { mean, chance, answer } = summed
        const done = enough(chance.lasts, chance.draws, mostDraws)
        if (done) mine.ended = true
        setState(was => ({ ...was, mean }))
        // the bands may come a moment later than what is being dragged
        startTransition(() => setState(was => (here() ? { ...was, chance, answer, busy: !mine.ended } : was)))
      }
    }
    simulate().catch((error: unknown) => {
      if (here() && !wasDropped(error)) setState(was => ({ ...was, busy: false, trouble: lost }))
    })
  }, [job, whatIf, pools])

  const stop = useCallback(() => {
    run.current.ended = true
    pools.hands.clear()
    setState(was => ({ ...was, busy: false }))
  }, [pools])
  const look = useCallback(
    (draw: number | null) => {
      if (draw === null) return setState(was => ({ ...was, one: null }))
      const mine = run.current
      pools.lead
        .run(async ({ api, knows }) => (knows === mine.id ? api.trace(mine.id, seed, draw) : null))
        .then(
          one => one && run.current === mine && setState(was => ({ ...was, one })),
          () => {},
        )
    },
    [pools],
  )
  return useMemo(() => ({ ...state, stop, look }), [state, stop, look])
}

/** A piece that nobody waits for any more may fail without a word. */
function quietly<T>(piece: Promise<T>): Promise<T> {
  piece.catch(() => {})
  return piece
}
