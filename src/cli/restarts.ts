/** How often a thing may die within a minute before it is left dead. */
const mostDeaths = 6
const withinMs = 60_000
const longestDelayMs = 8000

/**
 * What to do when something died: after how many ms to start it again, or null: to leave it.
 * @param deaths when it died, ms, the newest last
 */
export function restartAfter(deaths: readonly number[]): number | null {
  const last = deaths.at(-1) ?? 0
  const recent = deaths.filter(at => last - at < withinMs).length
  if (recent > mostDeaths) return null
  return recent <= 1 ? 0 : Math.min(longestDelayMs, 250 * 2 ** (recent - 1))
}
