/** Energy by interval of one meter, in order of time. Columns of plain numbers, so that years of quarter-hours stay small. */
export interface IntervalSeries {
  id: string
  flow: 'forward' | 'reverse' | 'net'
  /** seconds since 1970 */
  startS: Float64Array
  /** of the place at that time, minutes ahead of UTC */
  offsetMin: Int16Array
  minutes: Float32Array
  Wh: Float64Array
}

export interface Interval {
  start: string
  minutes: number
  Wh: number
}

export interface Intervals {
  meters: IntervalSeries[]
  warnings: string[]
}

const two = (n: number) => String(n).padStart(2, '0')

/** ISO 8601 with the offset of the place; `Z` where that is none and nothing else is known. */
export function isoLocal(epochS: number, offsetMin: number, zulu = false): string {
  const text = new Date((epochS + offsetMin * 60) * 1000).toISOString().slice(0, 19)
  if (zulu) return `${text}Z`
  const minutes = Math.abs(offsetMin)
  return `${text}${offsetMin < 0 ? '-' : '+'}${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`
}

/** UTC is written as such where a file does not say its place. */
export const unknownPlace = -32_768

/** One interval as the file's readers print it. */
export function intervalAt({ startS, offsetMin, minutes, Wh }: IntervalSeries, i: number): Interval {
  const offset = offsetMin[i] ?? unknownPlace
  return {
    start: isoLocal(startS[i] ?? 0, offset === unknownPlace ? 0 : offset, offset === unknownPlace),
    minutes: minutes[i] ?? 0,
    Wh: Wh[i] ?? 0,
  }
}

export const dayText = (day: number) => new Date(day * 86_400_000).toISOString().slice(0, 10)

/** Summer time of the United States since 2007: second Sunday of March, first Sunday of November, both at 2:00. */
export function isSummerTime(standardLocalS: number): boolean {
  const year = new Date(standardLocalS * 1000).getUTCFullYear()
  const sunday = (month: number, nth: number) => {
    const first = new Date(Date.UTC(year, month, 1)).getUTCDay()
    return Date.UTC(year, month, 1 + ((7 - first) % 7) + 7 * (nth - 1)) / 1000
  }
  // the end is at 2:00 summer time, which is 1:00 of standard time
  return standardLocalS >= sunday(2, 2) + 7200 && standardLocalS < sunday(10, 1) + 3600
}
