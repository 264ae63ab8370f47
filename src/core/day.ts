const formatters = new Map<string, Intl.DateTimeFormat>()

/**
 * The day of an instant by the calendar of a place: what “today” means for a firm is not what it means in Greenwich.
 * @param zone an IANA name, such as America/New_York
 * @returns YYYY-MM-DD
 */
export function dayIn(zone: string, at: Date): string {
  let formatter = formatters.get(zone)
  if (!formatter) {
    formatter = new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    })
    formatters.set(zone, formatter)
  }
  const part = Object.fromEntries(formatter.formatToParts(at).map(p => [p.type, p.value]))
  return `${part.year}-${part.month}-${part.day}`
}
