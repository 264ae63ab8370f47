import { E_TIMEOUT, Semaphore, type SemaphoreInterface, withTimeout } from 'async-mutex'

/** Requests that are worked on at once; the rest waits its turn a while, and is then told that we are busy. */
export interface Lane {
  /** A place in the lane: what gives it back, or null where there is none to be had. */
  enter: () => Promise<(() => void) | null>
}

/** A lane in which `atOnce` requests go beside each other, `waiting` more wait, each at most `longestMs`. */
export function lane(atOnce: number, waiting: number, longestMs: number): Lane {
  const places: SemaphoreInterface = withTimeout(new Semaphore(atOnce), longestMs)
  let inLine = 0
  return {
    enter: async () => {
      if (inLine >= waiting && places.isLocked()) return null
      inLine++
      try {
        const [, release] = await places.acquire()
        return release
      } catch (error) {
        if (error === E_TIMEOUT) return null
        throw error
      } finally {
        inLine--
      }
    },
  }
}

/** What sends or takes long streams: it must not keep pages and taps waiting. */
const long =
  /^\/api\/(jobs\/[^/]+\/(photos|logs|interval-data|simulated-meter)|for\/[^/]+\/(photo|file)|firm\/archive|firms\/import)(\/|$)/

/** What stays open for hours and does nothing most of the time. */
const live = /^\/api\/jobs\/[^/]+\/live$/

/** Pages take the processor, taps hardly do, streams take their time: none of them keeps the others waiting. */
export const laneOf = (path: string): 'live' | 'streams' | 'taps' | 'pages' =>
  live.test(path) ? 'live' : long.test(path) ? 'streams' : path.startsWith('/api/') ? 'taps' : 'pages'
