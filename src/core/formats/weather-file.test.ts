import { epwFile, saltmarshWeather, typicalYearCsv, weatherOf } from '@/simulators/weather'
import { unpackYear, yearHours } from '../ask/weather-year'
import { readWeather } from './weather-file'

const year = weatherOf(saltmarshWeather)
const csv = typicalYearCsv(saltmarshWeather, year)
const epw = epwFile(saltmarshWeather, year)

const read = (text: string) => {
  const got = readWeather(text, 'year.csv')
  if (!got.ok) throw new Error(got.faults.map(f => `${f.path} ${f.message}`).join('; '))
  return got.value
}
const why = (text: string) => {
  const got = readWeather(text, 'year.csv')
  return got.ok ? 'read' : got.faults.map(f => `${f.path} ${f.message}`).join('; ')
}

test('EPW and CSV of one year say the same, to half a degree and 5 W/m²', () => {
  for (const text of [csv, epw]) {
    const { year: got, notes } = read(text)
    expect(got).toMatchObject({ latitudeDeg: 31, longitudeDeg: -81, zoneH: -5 })
    expect(notes[0]).toMatch(/^Saltmarsh.*, 31° north: .* °C on average/)
    const series = unpackYear(got)
    const hours = Array.from({ length: yearHours }, (_, h) => h)
    const furthest = (read: ArrayLike<number>, made: ArrayLike<number>) =>
      Math.max(...hours.map(h => Math.abs((read[h] ?? 99) - (made[h] ?? 0))))
    expect(furthest(series.outdoorC, year.outdoorC)).toBeLessThanOrEqual(0.2501)
    expect(furthest(series.flatWm2, year.flatWm2)).toBeLessThanOrEqual(2.5)
  }
})

test('a table with names above its figures, and columns by name in any order, is read too', () => {
  const rows = csv
    .split('\n')
    .slice(2)
    .filter(Boolean)
    .map(l => {
      const [date = '', time = '', sun, C] = l.split(',')
      const [month, day] = date.split('/').map(Number)
      return [2001, month, day, Number(time.slice(0, 2)) - 1, 0, C, sun].join(',')
    })
  const text = [
    'Source,City,Latitude,Longitude,Time Zone',
    'made up,Elsewhere,31,-81,-5',
    'Year,Month,Day,Hour,Minute,Temperature,GHI',
    ...rows,
  ].join('\n')
  expect(read(text).year.hours).toBe(read(csv).year.hours)
})

test('what is wrong with a file is said, with what to do', () => {
  expect(why('')).toMatch(/is empty: wanted is a year by the hour/)
  expect(why('<html>')).toMatch(/no header with a temperature and the sun/)
  expect(why(csv.split('\n').slice(1).join('\n'))).toMatch(/names no latitude and longitude/)
  expect(why(csv.split('\n').slice(0, 4000).join('\n'))).toMatch(
    /has no temperature for [\d,]+ hours of 8,760/,
  )
  expect(why(csv.replace(/,(\d+),(-?[\d.]+)$/gm, ',0,$2'))).toMatch(/no sun data/)
  expect(why(epw.replace(/^LOCATION,.*$/m, 'LOCATION,Nowhere'))).toMatch(/LOCATION names no latitude/)
})

test('a few missing hours take the day before, and it is told', () => {
  const holes = epw.replace(/^(2001,6,10,1[0-2],0,_),[\d.-]+/gm, '$1,99.9')
  expect(read(holes).notes.join(' ')).toMatch(/3 hours without temperature took the hour of the day before/)
})
