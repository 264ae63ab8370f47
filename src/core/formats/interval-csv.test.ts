import { intervalAt } from '../loads/intervals'
import { intervalCsvReader } from './interval-csv'

function read(text: string, pieces = 37) {
  const reader = intervalCsvReader('America/New_York')
  for (let i = 0; i < text.length; i += pieces) {
    const taken = reader.write(text.slice(i, i + pieces))
    if (!taken.ok) return taken
  }
  return reader.end()
}
const value = (text: string) => {
  const outcome = read(text)
  if (!outcome.ok) throw new Error(outcome.faults[0]?.message)
  const { meters, warnings } = outcome.value
  return {
    warnings,
    meters: meters.map(m => ({
      flow: m.flow,
      rows: [...m.startS].map((_, i) => Object.values(intervalAt(m, i))),
    })),
  }
}
const why = (text: string) => {
  const outcome = read(text)
  return outcome.ok ? null : outcome.faults[0]?.message
}

test('a row for each interval, below a preamble, with start and end, kWh and cost', () => {
  const text = `Name,"Alder Hollow, day-care"\nMeter,12\n\nTYPE,DATE,START TIME,END TIME,USAGE (kWh),COST\nElectric usage,2026-01-05,00:00,00:14,0.25,$0.05\nElectric usage,2026-01-05,00:15,00:29,0.5,$0.05\n`
  expect(value(text).meters).toEqual([
    {
      flow: 'forward',
      rows: [
        ['2026-01-05T00:00:00-05:00', 15, 250],
        ['2026-01-05T00:15:00-05:00', 15, 500],
      ],
    },
  ])
})

test('date and time in one column, delivered beside received, day first, semicolons', () => {
  const text = 'Interval start;Delivered Wh;Received Wh\n17.07.2026 13:00;0;800\n17.07.2026 14:00;100;0\n'
  expect(value(text).meters).toEqual([
    {
      flow: 'forward',
      rows: [
        ['2026-07-17T13:00:00-04:00', 60, 0],
        ['2026-07-17T14:00:00-04:00', 60, 100],
      ],
    },
    {
      flow: 'reverse',
      rows: [
        ['2026-07-17T13:00:00-04:00', 60, 800],
        ['2026-07-17T14:00:00-04:00', 60, 0],
      ],
    },
  ])
})

test('a row for each day with 24 hours; the hour that does not exist in March is no figure', () => {
  const hours = Array.from({ length: 24 }, (_, h) => `${h}:00`)
  const row = (day: string, blank = -1) => `${day},${hours.map((_, h) => (h === blank ? '' : '1')).join(',')}`
  const { meters } = value(`Date,${hours.join(',')}\n${row('3/7/2026')}\n${row('3/8/2026', 2)}\n`)
  expect(meters[0]?.rows).toHaveLength(47)
  expect(meters[0]?.rows.slice(25, 27)).toEqual([
    ['2026-03-08T01:00:00-05:00', 60, 1000],
    ['2026-03-08T03:00:00-04:00', 60, 1000],
  ])
})

test('the hour that comes twice in November is kept twice, each with its offset', () => {
  const rows = ['0:00', '1:00', '1:00', '2:00'].map(t => `11/01/2026 ${t},1`)
  const { meters, warnings } = value(`Start,kWh\n${rows.join('\n')}\n`)
  expect(meters[0]?.rows.map(r => r[0])).toEqual([
    '2026-11-01T00:00:00-04:00',
    '2026-11-01T01:00:00-04:00',
    '2026-11-01T01:00:00-05:00',
    '2026-11-01T02:00:00-05:00',
  ])
  expect(warnings).toEqual(['Times are taken as the clocks of America/New_York show them.'])
})

test.each([1, -1])(
  'quarters of the hour that comes twice are all kept, whichever end comes first (%s)',
  way => {
    const quarters = ['1:00', '1:15', '1:30', '1:45']
    const clock = ['0:45', ...quarters, ...quarters, '2:00']
    const rows = clock.map((t, n) => `11/01/2026 ${t},${n + 1}`)
    const { meters, warnings } = value(`Start,kWh\n${(way < 0 ? rows.reverse() : rows).join('\n')}\n`)
    expect(meters[0]?.rows.map(r => r[2])).toEqual(clock.map((_, n) => (n + 1) * 1000))
    expect(meters[0]?.rows[5]?.[0]).toBe('2026-11-01T01:00:00-05:00')
    expect(warnings).toHaveLength(1)
  },
)

test('gaps, doubles, estimates and rows of rubbish are told; other files say what was expected', () => {
  const { meters, warnings } = value(
    'Start,kWh,Quality\n2026-01-05 00:00,1,A\n2026-01-05 01:00,1,Estimated\n2026-01-05 01:00,2,A\n2026-01-05 02:00,x,A\n2026-01-05 05:00,-1,A\nrubbish,here,too\n',
  )
  expect(meters[0]?.flow).toBe('net')
  expect(meters[0]?.rows).toHaveLength(3)
  expect(warnings.slice(1)).toEqual([
    '2 rows without a usable time or figure left out.',
    '1 reading estimated by the utility.',
    'forward: 1 reading given twice, the first is kept.',
    'forward: 1 gap in its time.',
    'forward: 1 interval below zero: it measures net flow.',
  ])
  expect(why('')).toMatch(/no header.*wanted is a table of use/)
  expect(why('a,b\n1,2\n3,4\n')).toMatch(/wanted is a table of use/)
  expect(why('Month,kWh\nJanuary,400\nFebruary,380\n')).toMatch(/row with a date/)
})

test('lines that end in CR alone, and pieces cut between CR and LF, read the same', () => {
  const lf = 'Start,kWh\n2026-01-05 00:00,0.4\n2026-01-05 01:00,0.5\n2026-01-05 02:00,0.6\n'
  const wanted = value(lf)
  for (const ending of ['\r', '\r\n'])
    for (const pieces of [1, 7, 37, 1000]) {
      const outcome = read(lf.replaceAll('\n', ending), pieces)
      expect(outcome.ok && [...(outcome.value.meters[0]?.Wh ?? [])]).toEqual([400, 500, 600])
    }
  expect(value(lf.replaceAll('\n', '\r'))).toEqual(wanted)
})

test('a decimal comma is told by the table, not by the figure; thousands stay thousands', () => {
  const rows = (figures: string[], mark: string) =>
    `Start${mark}kWh\n${figures.map((f, n) => `2026-01-05 0${n}:00${mark}${f}`).join('\n')}\n`
  const Wh = (text: string) => value(text).meters[0]?.rows.map(r => r[2])
  expect(Wh(rows(['0,4', '1,25', '1,250'], ';'))).toEqual([400, 1250, 1250])
  expect(Wh(rows(['"1,250"', '0.5', '2'], ','))).toEqual([1_250_000, 500, 2000])
})

test('figures of no house are left out and told: no sum is beyond number', () => {
  const { meters, warnings } = value('Start,kWh\n2026-01-05 00:00,1e308\n2026-01-05 01:00,0.5\n')
  expect(meters[0]?.rows).toHaveLength(1)
  expect(warnings.join(' ')).toMatch(/1 row without a usable time or figure/)
})
