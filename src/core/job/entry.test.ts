import fc from 'fast-check'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { cellsOf } from '../formats/cells'
import { directoryCsv, readDirectory } from '../formats/directory'
import { bare, breakerRatings, type Panel } from '../panel/schema'
import { enter, readEntry } from './entry'
import { newJob } from './new'
import { applyOperation } from './operations'
import { circuitsOf } from './panels'
import type { Job } from './schema'

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
  return { circuits: circuitsOf(after), job: after, done, refused: refused.map(r => r.why) }
}
const mainOf = ({ panels: [panel] }: Job): Panel => panel ?? bare('none', 'none', 4)
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
  expect(first.waiting).toEqual([{ circuitId: 'a', with: { name: 7 }, how: 'neutral' }])
  const waiting = [
    { circuitId: circuitsOf(job)[0]?.id ?? '', with: { name: 9 }, how: 'neutral' as const },
    { circuitId: 'gone', with: { name: 9 }, how: 'neutral' as const },
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
  expect(why(`7 20 ${'x'.repeat(81)}`)).toMatch(/81 characters/)
  expect(entered('8-9 30 dryer').refused[0]).toMatch(/takes 8 and 10: write 8-10/)
  expect(entered('31 20 attic\n30 30 2p dryer\n7 20 a n7\n9 20 b n11').refused).toEqual([
    'there is no space 31: this panel has 30',
    'there is no space below 30: this panel has 30, and a two-pole takes two',
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
  const csv = directoryCsv(mainOf(alderHollow))
  expect(csv.split('\r\n')[0]).toBe(
    'position,poles,breaker_A,label,leg,neutral_with,tied_with,tie,protection,wire,type,purpose,tier,picked,traced_by,traced_on,found,died',
  )
  const facts = (job: Job) =>
    circuitsOf(job).map(c => [
      c.position,
      c.poles,
      c.breakerA,
      c.label,
      c.protection,
      // how it is laid and how long it is stands in the job, not in its directory
      [c.wire?.material, c.wire?.size],
      c.neutral.kind === 'shared',
    ])
  const { job, refused } = entered(csv, {
    ...empty,
    panels: [{ ...mainOf(empty), spaces: mainOf(alderHollow).spaces }],
  })
  expect(refused).toEqual([])
  expect(facts(job)).toEqual(facts(alderHollow))
})

test('no formula leaves in a cell, and every label comes back as it was', () => {
  const label = fc.string({ maxLength: 40 }).map(s => s.trim().replace(/[\p{Cc}\p{Cs}]/gu, ''))
  fc.assert(
    fc.property(label, fc.constantFrom(...breakerRatings), (text, breakerA) => {
      const { job } = entered(`position,breaker,label\n1,${breakerA},x`)
      const [circuit] = circuitsOf(job)
      if (!circuit) throw new Error('not entered')
      const csv = directoryCsv({ ...mainOf(job), circuits: [{ ...circuit, label: text }] })
      expect(
        cellsOf(csv)
          .flat()
          .filter(cell => /^[=+\-@]/.test(cell)),
      ).toEqual([])
      expect(entered(csv).circuits.map(c => c.label)).toEqual([text])
    }),
    {
      examples: [
        ["'@", 10],
        ["''=1+1", 15],
      ],
    },
  )
})

test('tandems, quads, ties and breaker types are read aloud too, and go out and in as CSV', () => {
  const text =
    '1a 15 hall\n1b 15 porch\n2a-4b 40 range\n2b-4a 30 dryer t:HQ\n5 20 kitchen n7 ct7\n7 20 counter'
  const { job, circuits, refused } = entered(text)
  expect(refused).toEqual([])
  expect(circuits.map(c => [c.position, c.half, c.poles, c.label])).toEqual([
    [1, 'a', 1, 'hall'],
    [1, 'b', 1, 'porch'],
    [2, 'a', 2, 'range'],
    [2, 'b', 2, 'dryer'],
    [5, undefined, 1, 'kitchen'],
    [7, undefined, 1, 'counter'],
  ])
  expect(circuits[3]?.type).toBe('HQ')
  expect(circuits[5]?.tie).toEqual({ with: circuits[4]?.id, kind: 'common trip' })
  const bareFacts = (j: Job) =>
    circuitsOf(j).map(({ id: _, neutral, tie, ...c }) => ({ ...c, neutral: neutral.kind, tie: tie?.kind }))
  expect(bareFacts(entered(directoryCsv(mainOf(job))).job)).toEqual(bareFacts(job))
  expect(entered('1 20 attic\n2 20 attic', job).refused).toEqual([
    '1A hall is in the way',
    '2A·4B range is in the way',
  ])
  expect(entered('9a-11a 30 heater').refused[0]).toMatch(/9a-11b \(outer\) or 9b-11a \(inner\)/)
})

test('numbers are those printed on the panel; spaces of one leg and unusable ones refuse a breaker', () => {
  const sequence = { ...empty, panels: [{ ...mainOf(empty), spaces: 12, numbering: 'in sequence' as const }] }
  const { circuits, refused } = entered('2 15 lights\n7-8 30 dryer\n3-5 30 oven', sequence)
  expect(circuits.map(c => [c.position, c.label])).toEqual([
    [2, 'dryer'],
    [3, 'lights'],
  ])
  expect(refused).toEqual(['a two-pole at 3 takes 3 and 4: write 3-4'])
  const odd = {
    ...empty,
    panels: [
      { ...mainOf(empty), spaces: 8, busLegs: ['L1', 'L1', 'L2', 'L2'] as ('L1' | 'L2')[], unusable: [8] },
    ],
  }
  expect(entered('1-3 30 dryer\n8 15 lights\n3-5 30 oven', odd).refused).toEqual([
    '1 and 3 are on one leg in this panel: a two-pole there has no 240 V',
    'space 8 is marked as unusable',
  ])
})

test('what a line does not say of a wire stays: how it is laid, its terminals, its length', () => {
  const { job } = entered('1 20 hall #12')
  const [hall] = circuitsOf(job)
  const laid = applyOperation(job, {
    op: 'editCircuit',
    circuitId: hall?.id ?? '',
    facts: { wire: { material: 'cu', size: '12', use: 'raceway', terminalC: 75, lengthFt: 40 } },
  })
  if (!laid.ok) throw new Error('not edited')
  const wire = (text: string) => circuitsOf(entered(text, laid.value).job)[0]?.wire
  expect(wire('1 20 hall #10')).toEqual({
    material: 'cu',
    size: '10',
    use: 'raceway',
    terminalC: 75,
    lengthFt: 40,
  })
  expect(wire('1 20 hallway')).toEqual({
    material: 'cu',
    size: '12',
    use: 'raceway',
    terminalC: 75,
    lengthFt: 40,
  })
})
