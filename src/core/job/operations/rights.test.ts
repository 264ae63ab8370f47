import { may, roles } from '../../firm/roles'
import { operationSchema } from '.'
import { notTheirs, operationRights } from './rights'

const known = operationSchema.options.map(o => o.shape.op.value)

test('every way to change a job says what it takes', () => {
  const batches = ['applyFix', 'enterBreakers']
  expect(Object.keys(operationRights).sort()).toEqual(known.filter(op => !batches.includes(op)).sort())
})

test('a technician records the house and decides nothing of what is built; a reader changes nothing', () => {
  const trace = { op: 'selectCircuit', circuitId: 'c1', picked: true } as never
  const choose = { op: 'setHookup', facts: {} } as never
  const both = { op: 'applyFix', label: 'both', operations: [trace, choose] } as never
  expect(notTheirs('technician', trace)).toBeNull()
  for (const operation of [choose, both])
    expect(notTheirs('technician', operation)).toMatch(/owner or designer/)
  for (const role of roles) expect(notTheirs(role, both) === null).toBe(may(role, 'design'))
  for (const role of ['reader', 'customer', 'nobody']) expect(notTheirs(role, trace)).not.toBeNull()
})
