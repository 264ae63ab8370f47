import Papa from 'papaparse'
import { monthOfDay, packYear, type WeatherYear, weatherYearSchema, yearHours } from '../ask/weather-year'
import { type Fault, fail, fault, type Outcome, ok } from '../outcome'
import { plural } from '../units/format'

/** A year of weather of a place, from a file, with what was noticed while it was read. */
export interface WeatherRead {
  year: WeatherYear
  notes: string[]
}

/** What one row says, whatever the format: where it belongs, and its two figures; null where the file has none. */
interface Row {
  month: number
  day: number
  /** 0 to 23, the hour that ends with it being the one before */
  hour: number
  outdoorC: number | null
  flatWm2: number | null
}
interface Place {
  name: string
  latitudeDeg: number
  longitudeDeg: number
  zoneH: number
}

const monthStarts = Array.from({ length: 365 }, (_, d) => monthOfDay(d)).reduce<number[]>(
  (starts, month, day) => {
    starts[month] ??= day
    return starts
  },
  [],
)
const daysOf = (month: number) => (monthStarts[month + 1] ?? 365) - (monthStarts[month] ?? 0)

const wanted =
  'wanted is a year by the hour: EPW, or CSV with a header, a temperature in °C and the sun on the flat in W/m²'
/** Characters of a cell, and columns, that are looked at. */
const longestCell = 200
const mostColumns = 200
/** A year may lack so many hours; each takes the one before. */
const mostMissing = 96

/**
 * Reads a year of weather: EPW, or a CSV in the manner of typical meteorological years. `name` is the file's.
 * Faults in words: not such a file, no place, no temperature or sun, too many hours missing.
 */
export function readWeather(text: string, name: string): Outcome<WeatherRead> {
  if (!text.trim()) return fail(fault('$', `is empty: ${wanted}`))
  const rows = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data.map(r =>
    r.slice(0, mostColumns).map(c => (c.length > longestCell ? c.slice(0, longestCell) : c)),
  )
  const first = rows[0] ?? []
  const got = /^location$/i.test((first[0] ?? '').trim()) ? epw(rows) : csv(rows, name)
  if (!got.ok) return got
  return yearOf(got.value.place, got.value.rows)
}

const number = (cell: string | undefined): number | null => {
  const value = Number((cell ?? '').trim())
  return (cell ?? '').trim() !== '' && Number.isFinite(value) ? value : null
}
/** A figure within what weather can be; what stands for missing is far outside. */
const between = (value: number | null, low: number, high: number) =>
  value !== null && value >= low && value <= high ? value : null

function epw(rows: string[][]): Outcome<{ place: Place; rows: Row[] }> {
  const [head = []] = rows
  const [latitudeDeg, longitudeDeg, zoneH] = [number(head[6]), number(head[7]), number(head[8])]
  if (latitudeDeg === null || longitudeDeg === null || zoneH === null)
    return fail(fault('LOCATION', 'names no latitude, longitude and time zone'))
  const body = rows.filter(r => r.length >= 16 && number(r[0]) !== null && number(r[1]) !== null)
  return ok({
    place: { name: (head[1] ?? '').trim() || 'Weather file', latitudeDeg, longitudeDeg, zoneH },
    rows: body.map(r => ({
      month: (number(r[1]) ?? 0) - 1,
      day: (number(r[2]) ?? 0) - 1,
      hour: (number(r[3]) ?? 0) - 1,
      outdoorC: between(number(r[6]), -70, 70),
      flatWm2: between(number(r[13]), 0, 1500),
    })),
  })
}

const isTemperature = (cell: string) =>
  /dry.?bulb|^t(emp|emperature|2m|air)?\b|air.?temp|temperature/i.test(cell.trim()) &&
  !/dew|flag|source|uncert/i.test(cell)
const isSun = (cell: string) =>
  /\bghi\b|global.*horiz|^g\(h\)/i.test(cell.trim()) && !/flag|source|uncert|clear|illum/i.test(cell)

function csv(rows: string[][], fileName: string): Outcome<{ place: Place; rows: Row[] }> {
  const header = rows.slice(0, 60).findIndex(r => r.some(isTemperature) && r.some(isSun))
  if (header < 0)
    return fail(fault('$', `has no header with a temperature and the sun on the flat (GHI): ${wanted}`))
  const names = rows[header] ?? []
  const place = placeOf(rows.slice(0, header), fileName)
  if (!place)
    return fail(
      fault(
        '$',
        'names no latitude and longitude above its header: add a row with “Latitude” and “Longitude”, and one with the figures',
      ),
    )
  const column = (test: (cell: string) => boolean) => names.findIndex(test)
  const at = {
    C: column(isTemperature),
    sun: column(isSun),
    month: column(c => /^month$/i.test(c.trim())),
    day: column(c => /^day$/i.test(c.trim())),
    hour: column(c => /^hour$/i.test(c.trim())),
    date: column(c => /^date|^time\(|date\/time|timestamp/i.test(c.trim())),
    time: column(c => /^time\b(?!\()/i.test(c.trim())),
  }
  const body = rows.slice(header + 1).filter(r => number(r[at.C]) !== null || number(r[at.sun]) !== null)
  const read = body.map((r, n): Row => {
    const when = whenOf(r, at, n)
    return {
      ...when,
      outdoorC: between(number(r[at.C]), -70, 70),
      flatWm2: between(number(r[at.sun]), 0, 1500),
    }
  })
  return ok({ place, rows: read })
}

function whenOf(
  r: string[],
  at: { month: number; day: number; hour: number; date: number; time: number },
  n: number,
): Pick<Row, 'month' | 'day' | 'hour'> {
  if (at.month >= 0 && at.day >= 0 && at.hour >= 0)
    return {
      month: (number(r[at.month]) ?? 0) - 1,
      day: (number(r[at.day]) ?? 0) - 1,
      hour: number(r[at.hour]) ?? 0,
    }
  const date = at.date >= 0 ? (r[at.date] ?? '') : ''
  const us = /(\d{1,2})\/(\d{1,2})(?:\/\d{2,4})?/.exec(date)
  const iso = /(\d{4})-(\d{2})-(\d{2})/.exec(date)
  const clock = /(\d{1,2}):(\d{2})/.exec(at.time >= 0 ? (r[at.time] ?? '') : date)
  const hour = clock ? Number(clock[1]) : n % 24
  // a file whose hours run from 1:00 to 24:00 names each by its end
  const shift = clock && Number(clock[2]) === 0 && at.time >= 0 ? 1 : 0
  if (us) return { month: Number(us[1]) - 1, day: Number(us[2]) - 1, hour: hour - shift }
  if (iso) return { month: Number(iso[2]) - 1, day: Number(iso[3]) - 1, hour }
  const day = Math.floor(n / 24) % 365
  const month = monthOfDay(day)
  return { month, day: day - (monthStarts[month] ?? 0), hour: n % 24 }
}

function placeOf(rows: string[][], fileName: string): Place | null {
  for (let i = 0; i < rows.length; i++) {
    const names = rows[i] ?? []
    const values = rows[i + 1] ?? []
    const lat = names.findIndex(c => /^lat/i.test(c.trim()))
    const lon = names.findIndex(c => /^lon/i.test(c.trim()))
    const zone = names.findIndex(c => /time.?zone|^tz/i.test(c.trim()))
    const city = names.findIndex(c => /city|place|station|location$|^name/i.test(c.trim()))
    // a row of names above one of figures, or name and figure side by side
    const latitudeDeg = number(values[lat]) ?? number(names[lat + 1])
    const longitudeDeg = number(values[lon]) ?? number(names[lon + 1])
    if (lat >= 0 && lon >= 0 && latitudeDeg !== null && longitudeDeg !== null)
      return {
        name: (city >= 0 ? (values[city] ?? '').trim() : '') || fileName.replace(/\.[^.]+$/, ''),
        latitudeDeg,
        longitudeDeg,
        zoneH: (zone >= 0 ? number(values[zone]) : null) ?? Math.round(longitudeDeg / 15),
      }
  }
  // code, name, state, zone, latitude, longitude, elevation
  const [head = []] = rows
  const [zoneH, latitudeDeg, longitudeDeg] = [number(head[3]), number(head[4]), number(head[5])]
  if (zoneH === null || latitudeDeg === null || longitudeDeg === null) return null
  return { name: (head[1] ?? '').replace(/"/g, '').trim() || fileName, latitudeDeg, longitudeDeg, zoneH }
}

function yearOf(place: Place, rows: Row[]): Outcome<WeatherRead> {
  const outdoorC = new Float64Array(yearHours).fill(Number.NaN)
  const flatWm2 = new Float64Array(yearHours).fill(Number.NaN)
  for (const { month, day, hour, ...row } of rows) {
    // the leap day has no place in a year of 365
    if (month < 0 || month > 11 || day < 0 || day >= daysOf(month)) continue
    const at = ((monthStarts[month] ?? 0) + day) * 24 + Math.floor(hour)
    if (at < 0 || at >= yearHours || hour < 0 || hour > 23.99) continue
    if (row.outdoorC !== null) outdoorC[at] = row.outdoorC
    if (row.flatWm2 !== null) flatWm2[at] = row.flatWm2
  }
  const faults: Fault[] = []
  const notes: string[] = []
  for (const [series, what, key] of [
    [outdoorC, 'temperature', 'temperature'],
    [flatWm2, 'sun on the flat', 'sun'],
  ] as const) {
    const missing = series.reduce((count, v) => count + (Number.isNaN(v) ? 1 : 0), 0)
    if (missing > mostMissing)
      faults.push(
        fault(
          key,
          `has no ${what} for ${plural(missing, 'hour')} of 8,760: at most ${mostMissing} may be missing`,
        ),
      )
    else if (missing)
      notes.push(`${plural(missing, 'hour')} without ${what} took the hour of the day before.`)
    for (let h = 0; h < yearHours; h++)
      if (Number.isNaN(series[h])) series[h] = series[h - 24] ?? series[h + 24] ?? 0
    for (let h = 0; h < yearHours; h++) if (Number.isNaN(series[h])) series[h] = 0
  }
  if (faults.length) return fail(...faults)
  if (flatWm2.every(v => v === 0)) return fail(fault('sun', 'is 0 W/m² all year: no sun data'))
  const year = {
    name: place.name.slice(0, 120),
    latitudeDeg: place.latitudeDeg,
    longitudeDeg: place.longitudeDeg,
    zoneH: place.zoneH,
    hours: packYear({ outdoorC, flatWm2 }),
  }
  const parsed = weatherYearSchema.safeParse(year)
  if (!parsed.success) return fail(...parsed.error.issues.map(i => fault(i.path.join('.') || '$', i.message)))
  const mean = outdoorC.reduce((a, b) => a + b, 0) / yearHours
  const sun = flatWm2.reduce((a, b) => a + b, 0) / 365 / 1000
  notes.unshift(
    `${parsed.data.name}, ${place.latitudeDeg}° north: ${mean.toFixed(1)} °C on average, ${sun.toFixed(1)} kWh/m² of sun a day.`,
  )
  return ok({ year: parsed.data, notes })
}
