type Read<T> = { value: T } | { problem: string }

/** 17, 17:30 or 5 pm as an hour of the day; nothing for any. */
export function readHour(text: string): Read<number | null> {
  if (text.trim() === '') return { value: null }
  const [, h = '', m = '0', half] = /^\s*(\d{1,2})(?::(\d{2}))?\s*(am|pm)?\s*$/i.exec(text) ?? []
  const hour = half ? (Number(h) % 12) + (half.toLowerCase() === 'pm' ? 12 : 0) : Number(h)
  return h === '' || Number(h) > (half ? 12 : 23) || Number(m) > 59
    ? { problem: 'must be an hour of the day, such as 17 or 17:30' }
    : { value: hour + Number(m) / 60 }
}

/** Hours of the day as people write them: 7, 12, 18. */
export function readHours(text: string): Read<number[]> {
  const hours = text
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map(Number)
  return hours.length > 0 && hours.length <= 12 && hours.every(h => h >= 0 && h < 24)
    ? { value: hours }
    : { problem: 'must be one to twelve hours of the day, such as 7, 12, 18' }
}

/** Spans as people write them: 6-9, 17-22. */
export function readSpans(text: string): Read<{ fromH: number; toH: number }[]> {
  const spans = text
    .split(/[,;]+/)
    .map(s => /^\s*(\d{1,2}(?:\.\d+)?)\s*(?:-|–|to)\s*(\d{1,2}(?:\.\d+)?)\s*$/.exec(s))
    .map(m => (m ? { fromH: Number(m[1]), toH: Number(m[2]) } : null))
  return spans.length > 0 && spans.length <= 6 && spans.every(s => s && s.fromH <= 24 && s.toH <= 24)
    ? { value: spans.filter(s => s !== null) }
    : { problem: 'must be one to six spans of hours, such as 6-9, 17-22' }
}
