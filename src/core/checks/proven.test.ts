import { evaluate } from '../assess/evaluate'
import { farOutlets } from '../assess/far-outlets'
import { applied } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { leftOf } from '../source/store'
import { after, kitchen, newWh, read } from './fixtures/proven'

const found = (j: Job, id: string) => evaluate(j).findings.find(f => f.id === id)
const taken = (j: Job, id: string) =>
  applied(j, { op: 'applyFix', label: 'take over', operations: found(j, id)?.fixes[0]?.operations ?? [] })

test.each([
  ['measured.watts', read('watts:c1', { W: 640 })],
  ['measured.start', read('start:fridge', { amps: 19 })],
  ['measured.volts', read('far:c1', { 'H–N': 120, loaded: 112, amps: 8 })],
  ['measured.capacity', read('capacity:u1', { loadW: 800, from: 100, to: 0, 'Wh out': newWh * 0.8 })],
])('%s is taken over by one press, as commissioned, and then is silent', (id, entry) => {
  const now = taken(after(kitchen, entry), id)
  expect(found(now, id)).toBeUndefined()
  expect(JSON.stringify(now)).toContain('"from":"commissioned"')
})

test('what is taken over counts: watts on the hours, ohms on the volts, capacity on the store; better evidence than a plate, and kept beside it', () => {
  const hours = (j: Job) => evaluate(j).headline.hoursHad ?? 0
  const more = taken(after(kitchen, read('watts:c1', { W: 640 })), 'measured.watts')
  expect(hours(more)).toBeLessThan(0.7 * hours(kitchen))
  expect(more.panels[0]?.circuits[0]?.loads[0]?.runningW).toMatchObject({
    value: 640,
    from: 'commissioned',
    on: '2026-03-01',
    others: [{ value: 400, from: 'metered' }],
  })
  const far = taken(after(kitchen, read('far:c1', { 'H–N': 120, loaded: 112, amps: 8 })), 'measured.volts')
  // 1 Ω at 400 W ÷ 120 V
  expect(farOutlets(far)[0]?.farV).toBeCloseTo(120 - 400 / 120, 2)
  const worn = taken(
    after(kitchen, read('capacity:u1', { loadW: 800, from: 100, to: 0, 'Wh out': newWh * 0.8 })),
    'measured.capacity',
  )
  const [unit] = worn.source?.units ?? []
  expect(unit && worn.source && leftOf(unit, worn.source)).toBeCloseTo(0.8, 3)
  expect(hours(worn) / hours(kitchen)).toBeCloseTo(0.8, 2)
})

test('watts of several that ran are shared out as the plan has them; what idled keeps its figure', () => {
  const [panel] = kitchen.panels
  const [first] = panel?.circuits ?? []
  const [fridge] = first?.loads ?? []
  if (!panel || !first || !fridge) throw new Error('the fixture lost its load')
  const loads = [
    { ...fridge, idleW: { value: 2, from: 'metered' as const } },
    { ...fridge, id: 'lamp', name: 'Lamp', runningW: { value: 100, from: 'assumed' as const } },
    {
      ...fridge,
      id: 'tv',
      name: 'TV',
      runningW: { value: 80, from: 'assumed' as const },
      idleW: { value: 5, from: 'assumed' as const },
    },
  ]
  const house = { ...kitchen, panels: [{ ...panel, circuits: [{ ...first, loads }] }] }
  const now = taken(after(house, read('watts:c1', { W: 755 }, { ran: ['fridge', 'lamp'] })), 'measured.watts')
  // 755 − 5 idle, 4 : 1
  expect(now.panels[0]?.circuits[0]?.loads.map(l => l.runningW.value)).toEqual([600, 150, 80])
})
