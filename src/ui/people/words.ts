/** What somebody comes with, by what it says of itself. */
export function browserName(agent: string | null): string {
  if (!agent) return 'A program'
  if (/iPad|Tablet/.test(agent)) return 'A tablet'
  return /Mobile|Android|iPhone/.test(agent) ? 'A phone' : 'A computer'
}

/** A moment as the firm’s clock has it. */
export const momentIn = (zone: string, at: string): string =>
  new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(
    new Date(at),
  )
