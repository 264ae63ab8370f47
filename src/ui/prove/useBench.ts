import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { type Asked, type Test, wantedOf } from '@/core/commission/tests'
import type { Handle } from '@/core/isolation/house'
import type { Held, SimulatedInstruments, Stands } from '@/workers/desks/instruments'
import { useWorkspace } from '../workspace/store'

/** The made-up house on the bench: how it stands, what is set, what an instrument shows. Null where there is none. */
export interface Bench {
  stands: Stands
  handles: readonly Handle[]
  /** what stands otherwise than a reading wants it, in words */
  differs: (test: Test, asked: Asked) => string[]
  /** sets the house as a reading wants it */
  set: (test: Test, asked: Asked) => void
  turn: (handle: string, setting: string) => void
  /** what the instrument shows, and what happened by it */
  read: (test: Test, asked: Asked, held?: Held) => { value: number | string; notice: string | null }
  /** sets the house for each reading of a test and takes it, one after the other */
  readAll: (test: Test) => { value: number | string; notice: string | null }[]
  /** the minutes that a compressor rests go by at once */
  rest: () => void
}

const minuteMs = 60_000
const says: readonly [RegExp, string][] = [
  [/^lifted /, 'a neutral lifted'],
  [/^clip /, 'neutral and ground clipped together'],
  [/^neutral /, 'the neutral of a feeder'],
  [/^plug /, 'the appliance’s plug'],
]
const nameOf = (id: string, handles: readonly Handle[]) =>
  handles.find(h => h.id === id)?.name ?? says.find(([is]) => is.test(id))?.[1] ?? id

/** A load that runs, or a heater, as it is told where it is missing. */
const onText = (wanted: readonly string[]): string =>
  !wanted.length
    ? 'nothing runs'
    : wanted.some(id => id.startsWith('heater'))
      ? 'the test heater on'
      : 'what is to run, running'

export function useBench(): Bench | null {
  // what a reading means is drawn before the house is made anew
  const job = useDeferredValue(useWorkspace(s => s.job))
  const made = job.tests?.simulated !== undefined
  const [build, setBuild] = useState<{ for: (j: typeof job) => SimulatedInstruments | null } | null>(null)
  useEffect(() => {
    if (!made) return
    let gone = false
    void import('@/workers/desks/instruments').then(m => !gone && setBuild({ for: m.instrumentsFor }))
    return () => {
      gone = true
    }
  }, [made])
  const instruments = useMemo(() => (made ? (build?.for(job) ?? null) : null), [made, build, job])
  const [stands, setStands] = useState<Stands | null>(null)
  /** when a compressor was fed last, by circuit */
  const fed = useRef(new Map<string, number>())
  return useMemo(() => {
    if (!instruments) return null
    const now = stands ?? { state: instruments.places.utility, on: [] }
    const compressors = job.panels.flatMap(p =>
      p.circuits.filter(c => c.loads.some(l => l.nature === 'compressor')).map(c => c.id),
    )
    const change = (next: Stands) => {
      // on the utility it ran until this moment
      if (now.state !== next.state && runsOnUtility(now, instruments))
        for (const id of compressors) fed.current.set(id, Date.now())
      setStands(next)
    }
    /** What came of feeding a compressor that has just run; null where it has rested. */
    const stalled = (test: Test, asked: Asked) => {
      const [circuitId = ''] = test.circuitIds
      const last = fed.current.get(circuitId)
      if (!test.restMin || test.setUp.supply !== 'source' || last === undefined) return null
      const minutes = (Date.now() - last) / minuteMs
      if (minutes >= test.restMin) return null
      return {
        value: asked.choices?.[0] ?? 0,
        notice: `It had run until ${Math.max(1, Math.round(minutes))} min ago: it started against pressure, stalled, and the source tripped. Off again, and wait its minutes.`,
      }
    }
    return {
      stands: now,
      handles: instruments.handles,
      differs: (test, asked) => {
        const wanted = wantedOf(test, asked)
        const keys = [...new Set([...Object.keys(wanted.state), ...Object.keys(now.state)])]
        const other = keys.filter(k => (wanted.state[k] ?? '') !== (now.state[k] ?? ''))
        const running =
          wanted.on.every(id => now.on.includes(id)) && now.on.every(id => wanted.on.includes(id))
        return [
          ...other.map(k =>
            wanted.state[k] === undefined
              ? `${nameOf(k, instruments.handles)}: put back`
              : `${nameOf(k, instruments.handles)}: ${wanted.state[k]}`,
          ),
          ...(running ? [] : [onText(wanted.on)]),
        ]
      },
      set: (test, asked) => change(wantedOf(test, asked)),
      turn: (handle, setting) => change({ ...now, state: { ...now.state, [handle]: setting } }),
      read: (test, asked, held) =>
        stalled(test, asked) ?? { value: instruments.read(test, asked, now, held), notice: null },
      readAll: test => {
        const last = test.asks.at(-1)
        const read = test.asks.map(
          asked =>
            stalled(test, asked) ?? {
              value: instruments.read(test, asked, wantedOf(test, asked)),
              notice: null,
            },
        )
        if (last) change(wantedOf(test, last))
        return read
      },
      rest: () => fed.current.clear(),
    }
  }, [instruments, stands, job])
}

/** Whether the house stands on the utility: what has a compressor may be running. */
const runsOnUtility = ({ state }: Stands, { places }: SimulatedInstruments): boolean =>
  Object.entries(places.utility).every(([id, at]) => !id.startsWith('main ') || state[id] === at)
