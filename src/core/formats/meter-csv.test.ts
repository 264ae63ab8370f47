import fc from 'fast-check'
import { meterReader } from './meter-csv'
import type { MeterFormat } from './meter-format'
import { guessMeterFormat } from './meter-guess'

const guess = (text: string) => {
  const outcome = guessMeterFormat(text, 120)
  if (!outcome.ok) throw new Error(outcome.faults[0]?.message)
  return outcome.value
}
function read(text: string, format: MeterFormat, pieces = 50) {
  const reader = meterReader(format)
  for (let i = 0; i < text.length; i += pieces) {
    const taken = reader.write(text.slice(i, i + pieces))
    if (!taken.ok) return taken
  }
  return reader.end()
}
const value = (text: string, change: Partial<MeterFormat> = {}) => {
  const outcome = read(text, { ...guess(text).format, ...change })
  if (!outcome.ok) throw new Error(outcome.faults[0]?.message)
  const { series, warnings } = outcome.value
  return { t: [...series.tS], W: [...series.W].map(w => Number(w.toPrecision(6))), warnings, series }
}
const why = (text: string) => {
  const outcome = guessMeterFormat(text, 120)
  return outcome.ok ? null : outcome.faults[0]?.message
}

test('columns are told by their names and by what stands in them', () => {
  const kinds = (text: string) => guess(text).format.columns
  expect(kinds('Timestamp,Power (W),Current (A),Voltage,PF\n2026-01-05 10:00:00,140,1.2,120,0.97\n')).toEqual(
    ['time', 'W', 'A', 'V', 'PF'],
  )
  expect(kinds('Date;Time;Watts\n05.01.2026;10:00;140,5\n05.01.2026;10:01;3,0\n')).toEqual([
    'date',
    'clock',
    'W',
  ])
  expect(kinds('elapsed (s)\tkWh\n0\t1.20\n60\t1.21\n120\t1.23\n')).toEqual(['elapsed s', 'kWh total'])
  expect(kinds('time,Wh\n2026-01-05 10:00,5\n2026-01-05 10:15,2\n2026-01-05 10:30,4\n')).toEqual([
    'time',
    'Wh each row',
  ])
  expect(kinds('note,clock,amps,inrush amps\nx,10:00:00,1.1,6\nx,10:00:01,1.2,6\n')).toEqual([
    'ignore',
    'clock',
    'A',
    'A peak',
  ])
  expect(kinds('0,10\n1,12\n2,11\n')).toEqual(['elapsed s', 'W'])
  expect(guess('0,10\n1,12\n2,11\n').unsure).toHaveLength(2)
  expect(guess('when,W\n04/05/2026 10:00,10\n').unsure).toEqual([
    'Day and month cannot be told apart: month first is taken.',
  ])
})

test('decimal comma, thousands, twelve-hour clock, amps at the circuit’s volts', () => {
  expect(value('Date;Time;Watts\n05.01.2026;10:00;1.140,5\n05.01.2026;10:01;3,0\n').W).toEqual([1140.5, 3])
  const amps = value('when,amps\n1/5/2026 11:59:30 PM,2\n1/6/2026 12:00:30 AM,3\n', {
    volts: 240,
    powerFactor: 0.5,
  })
  expect([amps.t, amps.W]).toEqual([
    [0, 60],
    [240, 360],
  ])
  expect(value('time,W\n2026-01-05T10:00:00.25,1\r\n2026-01-05T10:00:00.75,2\r\n').t).toEqual([0, 0.5])
  expect(value('clock,W\n23:59:59,1\n00:00:00,2\n').t).toEqual([0, 1])
  expect(value('"time","W"\n"1/5/2026, 10:00","1,200"\n"1/5/2026, 10:01","4"\n').W).toEqual([1200, 4])
})

test('a counter’s steps become watts; where it is set back it is counted on from there', () => {
  const { W, warnings } = value('elapsed s,Wh\n0,500\n3600,600\n7200,10\n10800,60\n')
  expect(W).toEqual([0, 100, 50])
  expect(warnings).toEqual(['1 times the counter was set back: it is counted on from there.'])
})

test('summer time makes neither a gap nor a fold; other rows that go back are left out', () => {
  const autumn = value(
    'time,W\n2026-11-01 00:30,1\n2026-11-01 01:00,2\n2026-11-01 01:30,3\n2026-11-01 01:00,4\n2026-11-01 01:30,5\n2026-11-01 02:00,6\n',
  )
  expect(autumn.t).toEqual([0, 1800, 3600, 5400, 7200, 9000])
  const spring = value(
    'time,W\n2026-03-08 01:00,1\n2026-03-08 01:30,2\n2026-03-08 03:00,3\n2026-03-08 03:30,4\n',
  )
  expect(spring.t).toEqual([0, 1800, 3600, 5400])
  expect(spring.series.shifts).toEqual([{ atS: 3600, clockS: 3600 }])
  const back = value(
    'time,W\n2026-01-05 10:00,1\n2026-01-05 09:00,2\n2026-01-05 10:01,3\n2026-01-05 10:01,9\nrubbish,1\n2026-02-31 10:00,1\n',
  )
  expect(back.W).toEqual([1, 3])
  expect(back.warnings).toEqual([
    '2 rows could not be read and were left out.',
    '1 rows repeat the time of the row before: the first is kept.',
    '1 rows go back in time and were left out.',
  ])
})

test('a clamp the wrong way round is turned; a few readings below zero are nothing', () => {
  expect(value('elapsed s,W\n0,-5\n1,-7\n2,1\n').W).toEqual([5, 7, -1].map(w => Math.max(-1, w)))
  expect(value('elapsed s,W\n0,5\n1,-7\n2,1\n').W).toEqual([5, 0, 1])
})

test('what is no log of readings says what was wanted', () => {
  expect(why('')).toMatch(/is empty: wanted is a table with a time and W/)
  expect(why('<feed/>')).toMatch(/is no table but XML/)
  expect(why('just words\nmore words\n')).toMatch(/has one column/)
  expect(why('a,b\nx,y\n')).toMatch(/no row with a time and a figure/)
  const nothing = read('time,W\nx,1\ny,2\n', guess('time,W\n2026-01-05 10:00,1\n').format)
  expect(nothing.ok || nothing.faults[0]?.message).toMatch(/no two readings.*2 rows could not be read/)
})

test('any cut of the stream and any plain way of writing gives the same figures', () => {
  const rows = fc.array(fc.double({ min: 0, max: 3000, noNaN: true }), { minLength: 2, maxLength: 40 })
  fc.assert(
    fc.property(
      rows,
      fc.constantFrom(';', '\t', ','),
      fc.integer({ min: 1, max: 90 }),
      (watts, delimiter, pieces) => {
        const decimal = delimiter === ',' ? '.' : ','
        const lines = watts.map((w, n) => `${n * 10}${delimiter}${w.toFixed(3).replace('.', decimal)}`)
        const text = [`elapsed s${delimiter}W`, ...lines].join('\n')
        const outcome = read(text, { ...guess(text).format, decimal }, pieces)
        expect(outcome.ok && [...outcome.value.series.W]).toEqual(
          watts.map(w => Math.fround(Number(w.toFixed(3)))),
        )
      },
    ),
    { numRuns: 80 },
  )
})

test('lines that end in CR alone read the same', () => {
  const text = 'time,W\n2026-01-05 10:00:00,140\n2026-01-05 10:00:30,150\n2026-01-05 10:01:00,3\n'
  const { format } = guess(text)
  const cr = read(text.replaceAll('\n', '\r'), format)
  expect(cr.ok && [...cr.value.series.W]).toEqual([140, 150, 3])
})

test('a gigawatt is no reading of a circuit', () => {
  const text = 'elapsed s,W\n0,100\n60,1e308\n120,110\n'
  const { W, warnings } = value(text)
  expect(W).toEqual([100, 110])
  expect(warnings.join(' ')).toMatch(/1 rows could not be read/)
})

test('a column that never comes is sought once: a long table without its mark is refused in time', () => {
  const format = { ...guess('elapsed s;W\n0;100\n60;110\n').format }
  const outcome = read('1\n'.repeat(400_000), format, 800_000)
  expect(outcome.ok).toBe(false)
})
