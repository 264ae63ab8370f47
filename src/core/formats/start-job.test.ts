import { firstSteps } from '../assess/first-steps'
import { circuit, job, load } from '../job/fixtures/jobs'
import { newJob } from '../job/new'
import { startJob } from './start-job'

const facts = { title: 'Mill', place: '', spaces: 12, mainA: 100 }
let n = 0
const start = (directory: string) => startJob(facts, directory, () => `id${++n}`)

test('a directory stands in the panel from the first moment, pairs too', () => {
  const started = start('1 20 refrigerator\n5 20 counter n7\n7 20 counter\n2-4 30 pump')
  const [panel] = started.ok ? started.value.panels : []
  expect(panel?.circuits.map(c => [c.position, c.poles, c.breakerA, c.label])).toEqual([
    [1, 1, 20, 'refrigerator'],
    [2, 2, 30, 'pump'],
    [5, 1, 20, 'counter'],
    [7, 1, 20, 'counter'],
  ])
  expect(panel?.circuits[2]?.neutral.kind).toBe('shared')
  expect(start(' \n')).toEqual({ ok: true, value: newJob(facts) })
})

test('of a line that cannot be read all lines are told, and no job begins', () => {
  const started = start('1 20 ok\n99 20 beyond\nrubbish\n3 20 alone n9')
  expect(started.ok ? [] : started.faults.map(f => [f.path, f.message])).toEqual([
    ['directory', expect.stringMatching(/^“99 20 beyond”: there is no space 99/)],
    ['directory', expect.stringMatching(/^“rubbish”: /)],
    ['directory', expect.stringMatching(/names 9 as the other of a pair/)],
  ])
})

test('what comes first is done one by one', () => {
  const left = (of: Parameters<typeof firstSteps>[0]) =>
    firstSteps(of)
      .filter(s => !s.done)
      .map(s => s.view)
  expect(left(newJob(facts))).toEqual(['first', 'panel', 'panel', 'loads', 'source', 'hook-up'])
  const own = circuit(1, { picked: false })
  expect(left(job([own]))).toEqual(['first', 'panel', 'loads'])
  expect(left(job([circuit(1)]))).toEqual(['first', 'loads'])
  expect(left(job([circuit(1, { loads: [load(100)] })]))).toEqual(['first'])
})
