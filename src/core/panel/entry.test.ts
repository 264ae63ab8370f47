import fc from 'fast-check'
import { alderHollow } from '@/server/seeds/jobs'
import { cellsOf } from '../formats/cells'
import { directoryCsv, readDirectory } from '../formats/directory'
import { newJob } from '../job/new'
import { applyOperation } from '../job/operations'
import { breakerRatings, type Job } from '../job/schema'
import { enter, readEntry } from './entry'

const empty = newJob({ title: 'Test', place: '', spaces: 30, mainA: 100 })
let next = 0
const newId = () => `id-${next++}`

/** The panel after lines or a table were entered, and what was refused. */
function entered(text: string, job: Job = empty) {
  const { operations, done, refused } = enter(job, readDirectory(text), newId)
  const after = operations.reduce((at: Job, operation) => {
    const outcome = applyOperation(at, operation)
    if (!outcome.ok) throw new Error(outcome.faults.map(f => f.message).join())
    return outcome.value
  }, job)
  return { circuits: after.panel.circuits, job: after, done, refused: refused.map(r => r.why) }
}
const why = (text: string) => {
  const read = readEntry(text)
  return 'problem' in read ? read.problem : null
}

test('lines as they are read aloud', () => {
  const { circuits, refused } = entered(
    '7 20 kitchen counter\n8-10 30 clothes dryer\n9 15A bedrooms afci #14\n12 40 2p range #8al\n1 15',
  )
  expect(refused).toEqual([])
  expect(circuits.map(c => [c.position, c.poles, c.breakerA, c.label, c.protection])).toEqual([
    [1, 1, 15, '', 'none'],
    [7, 1, 20, 'kitchen counter', 'none'],
    [8, 2, 30, 'clothes dryer', 'none'],
    [9, 1, 15, 'bedrooms', 'arc-fault'],
    [12, 2, 40, 'range', 'none'],
  ])
  expect(circuits[3]?.wire).toEqual({ material: 'cu', size: '14' })
  expect(circuits[4]?.wire).toEqual({ material: 'al', size: '8' })
})

test('a shared neutral is paired though its other hot comes later', () => {
  const { circuits, job } = entered('5 20 refrigerator n7\n7 20 kitchen counter')
  // typed line by line, the first waits for the second; a breaker that is gone by then is let go
  const first = enter(empty, [readEntry('5 20 refrigerator n7')], () => 'a')
  expect(first.waiting).toEqual([{ circuitId: 'a', sharesWith: 7 }])
  const waiting = [
    { circuitId: job.panel.circuits[0]?.id ?? '', sharesWith: 9 },
    { circuitId: 'gone', sharesWith: 9 },
  ]
  const later = enter(job, [readEntry('9 20 stove')], () => 'c', waiting)
  expect(later.waiting).toEqual([])
  expect(later.operations.at(-1)).toMatchObject({ op: 'editCircuit', facts: { neutral: { with: 'c' } } })
  const [a, b] = circuits
  expect(a?.neutral).toEqual({ kind: 'shared', with: b?.id })
  expect(b?.neutral).toEqual({ kind: 'shared', with: a?.id })
})

test('a space that is entered again is corrected; what stands in the way is named', () => {
  const { job } = entered('7 20 kitchen\n8-10 30 dryer')
  const again = entered('7 15 kitchen counter', job)
  expect(again.circuits.map(c => [c.position, c.breakerA, c.label])).toEqual([
    [7, 15, 'kitchen counter'],
    [8, 30, 'dryer'],
  ])
  expect(again.done).toEqual(['7 kitchen is now 15 A kitchen counter'])
  expect(entered('10 20 attic', job).refused).toEqual(['8·10 dryer is in the way'])
  expect(entered('5-7 30 heater', job).refused).toEqual(['7 kitchen is in the way'])
})

test('what cannot be read says which piece, and what to write', () => {
  expect(why('kitchen 7')).toMatch(/“kitchen” is no space: begin with its number/)
  expect(why('7 kitchen')).toMatch(/the rating is missing after 7: write 7 20/)
  expect(why('7 22 kitchen')).toMatch(/22 A is no standard breaker/)
  expect(why('8-9 30 dryer')).toMatch(/takes 8 and 10: write 8-10/)
  expect(why(`7 20 ${'x'.repeat(81)}`)).toMatch(/81 characters/)
  expect(entered('31 20 attic\n30 30 2p dryer\n7 20 a n7\n9 20 b n11').refused).toEqual([
    'there is no space 31: this panel has 30',
    'there is no space 32: this panel has 30',
    'a breaker at 7 cannot share a neutral with itself: n and the other hot’s space',
  ])
})

test('a table with headings of its own, mixed line endings, a formula for a label and a row that cannot be', () => {
  const { circuits, refused } = entered(
    'Space;Description;Amps;Poles\r\n7;"Kitchen; counter";20;1\n8;=HYPERLINK("x");30;2\r\nx;lost;20;1',
  )
  expect(circuits.map(c => [c.position, c.label, c.poles])).toEqual([
    [7, 'Kitchen; counter', 1],
    [8, '=HYPERLINK("x")', 2],
  ])
  expect(refused).toEqual(['position “x” is no space of a panel'])
  expect(entered('space,colour\n7,red').refused).toEqual([
    'the table has no column breaker_A and no label: name it in the first row',
  ])
  expect(entered('7 20 x\n'.repeat(10_000)).refused).toEqual(['10,000 rows: no panel has so many breakers'])
})

test('the directory of a demo job goes out as CSV and comes back the same', () => {
  const csv = directoryCsv(alderHollow)
  expect(csv.split('\r\n')[0]).toBe(
    'position,poles,breaker_A,label,leg,neutral_with,protection,wire,tier,picked,traced_by,traced_on',
  )
  const facts = (job: Job) =>
    job.panel.circuits.map(c => [
      c.position,
      c.poles,
      c.breakerA,
      c.label,
      c.protection,
      c.wire,
      c.neutral.kind === 'shared',
    ])
  const { job, refused } = entered(csv, {
    ...empty,
    panel: { ...empty.panel, spaces: alderHollow.panel.spaces },
  })
  expect(refused).toEqual([])
  expect(facts(job)).toEqual(facts(alderHollow))
})

test('no formula leaves in a cell, and every label comes back as it was', () => {
  const label = fc.string({ maxLength: 40 }).map(s => s.trim().replace(/[\p{Cc}\p{Cs}]/gu, ''))
  fc.assert(
    fc.property(label, fc.constantFrom(...breakerRatings), (text, breakerA) => {
      const { job } = entered(`position,breaker,label\n1,${breakerA},x`)
      const [circuit] = job.panel.circuits
      if (!circuit) throw new Error('not entered')
      const named = { ...job, panel: { ...job.panel, circuits: [{ ...circuit, label: text }] } }
      const csv = directoryCsv(named)
      expect(
        cellsOf(csv)
          .flat()
          .filter(cell => /^[=+\-@]/.test(cell)),
      ).toEqual([])
      expect(entered(csv).circuits.map(c => c.label)).toEqual([text])
    }),
  )
})
