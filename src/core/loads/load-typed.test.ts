import { demoJobs } from '@/server/seeds/jobs'
import { parseWith } from '../outcome'
import { loadSchema } from './load'
import { asTyped, loadOf, typedOf } from './load-typed'

const loads = demoJobs.flatMap(d => d.job.panels.flatMap(p => p.circuits.flatMap(c => c.loads)))

test('what a form shows of a load and gives back untouched is the same load', () => {
  for (const load of loads) expect(loadSchema.parse(loadOf(typedOf(load), load, load.id))).toEqual(load)
})

test('an empty form is no load, and says of its start where that is typed', () => {
  const outcome = parseWith(loadSchema, loadOf({ ...typedOf(null), method: 'inrush' }, null, 'new'))
  const paths = outcome.ok ? [] : outcome.faults.map(asTyped).map(f => f.path)
  expect(paths).toEqual(expect.arrayContaining(['name', 'runningW.value', 'start.value']))
})

test('a figure that is typed over keeps what other evidence says; another kind of start replaces it', () => {
  const motor = loads.find(l => l.start?.method === 'locked-rotor')
  if (!motor) throw new Error('no motor')
  const typed = typedOf(motor)
  const next = loadSchema.parse(
    loadOf(
      { ...typed, method: 'inrush', start: { value: 40, from: 'metered' }, idleW: { value: 3 } },
      motor,
      motor.id,
    ),
  )
  expect(next.start).toEqual({ method: 'inrush', inrushA: { value: 40, from: 'metered' } })
  expect(next.idleW).toMatchObject({ value: 3, from: motor.idleW.from })
  expect(next.pattern).toEqual(motor.pattern)
  expect(loadSchema.parse(loadOf({ ...typed, method: 'none' }, motor, motor.id)).start).toBeUndefined()
})
