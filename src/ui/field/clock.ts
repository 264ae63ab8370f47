/**
 * When a task was begun on this device: by the page’s own clock, which nobody sets, and by the time of day for a page that was loaded anew. A time of day that went
 * backwards, or half a day on, counts nothing.
 */
interface Begun {
  page: string
  sinceMs: number
  atMs: number
}

const page = typeof crypto === 'undefined' ? '' : crypto.randomUUID()
const longestMinutes = 12 * 60
const keyOf = (jobId: string, task: string) => `spillway.begun.${jobId}.${task}`

export function begin(jobId: string, task: string): void {
  const begun: Begun = { page, sinceMs: performance.now(), atMs: Date.now() }
  localStorage.setItem(keyOf(jobId, task), JSON.stringify(begun))
}

/** Minutes since it was begun here; null where it was not, or no clock can tell. */
export function minutesSince(jobId: string, task: string): number | null {
  const text = localStorage.getItem(keyOf(jobId, task))
  if (!text) return null
  const begun: Begun = JSON.parse(text)
  const ms = begun.page === page ? performance.now() - begun.sinceMs : Date.now() - begun.atMs
  const minutes = ms / 60_000
  return minutes >= 0 && minutes <= longestMinutes ? Math.round(minutes * 10) / 10 : null
}

export const endCount = (jobId: string, task: string): void => localStorage.removeItem(keyOf(jobId, task))
