import ical, { ICalAlarmType, ICalEventRepeatingFreq } from 'ical-generator'
import type { Due } from '@/core/handover/due'

const remindDays = 14

/** What is due of a house as a calendar file (RFC 5545), whole days; the yearly test comes again each year. */
export function calendarOf(house: { id: string; title: string }, due: readonly Due[], at: Date): string {
  const calendar = ical({ name: `${house.title}: what is due` })
  for (const { what, text, on } of due) {
    const event = calendar.createEvent({
      id: `${house.id}-${what.replaceAll(' ', '-')}-${on}`,
      start: new Date(`${on}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      stamp: at,
      summary: `${text}: ${house.title}`,
      description:
        what === 'yearly test'
          ? 'Switch over and back by the card; charge to full; try the alarms; look at the labels.'
          : text,
    })
    if (what === 'yearly test') event.repeating({ freq: ICalEventRepeatingFreq.YEARLY })
    event.createAlarm({ type: ICalAlarmType.display, triggerBefore: remindDays * 86_400 })
  }
  return calendar.toString()
}
