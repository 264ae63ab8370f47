import { library } from '../loads/library'
import { things } from './things'
import { answered, type Making, ownLoad, suggested, understood, wantOf } from './want'

let n = 0
const making: Making = {
  library: library.map(typical => ({ typical, firms: false })),
  season: 'winter',
  newId: () => `id${++n}`,
}
const said = (text: string) =>
  understood(text, library).map(u =>
    `${u.count} ${u.thing ?? u.typical ?? '?'} ${u.answers.kind ?? ''}`.trim(),
  )

test('every answer about a thing is in the library, and the shares of a thing are whole', () => {
  const ids = new Set(library.map(t => t.id))
  const options = things.flatMap(t => t.options.map(o => ({ t, o })))
  expect(options.flatMap(({ o }) => o.typical).filter(id => !ids.has(id))).toEqual([])
  for (const { id, options: o } of things)
    expect([id, o.reduce((s, x) => s + x.share, 0)]).toEqual([id, expect.closeTo(1)])
  expect(new Set(things.map(t => t.id)).size).toBe(things.length)
})

test.each([
  ['well pump', ['1 well-pump']],
  ['two refrigerators', ['2 refrigerator']],
  ['2x fridges', ['2 refrigerator']],
  ['oxygen', ['1 oxygen']],
  ['gas furnace', ['1 heat furnace']],
  ['electric dryer', ['1 dryer electric']],
  ['mini split', ['1 mini-split']],
  ['refrigeratr', ['1 refrigerator']],
  ['washer and dryer', ['1 washer', '1 dryer']],
  ['router and modem', ['1 internet']],
  ['a few lights, the internet;\nsump pump', ['1 lights', '1 internet', '1 sump']],
  ['pottery wheel', ['1 pottery-wheel']],
  ['glass kiln', ['1 ?']],
  [' , ;\n', []],
])('“%s” is understood', (text, expected) => {
  expect(said(text)).toEqual(expected)
})

test('while one types, what may be meant is offered, the likeliest first', () => {
  expect(suggested('ref', library)[0]).toMatchObject({ thing: 'refrigerator', count: 1 })
  expect(suggested('3 free', library)[0]).toMatchObject({ thing: 'freezer', count: 3 })
  expect(suggested('200 freezers', library)[0]?.count).toBe(12)
  expect(suggested('   ', library)).toEqual([])
})

test('a want draws what its likeliest answer draws until one is given, and each of several has its own name', () => {
  const [pumps] = understood('two well pumps', library).map(u => wantOf(u, making))
  if (!pumps) throw new Error('not understood')
  expect(pumps.loads?.map(l => [l.volts, l.load.name])).toEqual([
    [240, 'Well pump, 1/2 hp'],
    [240, 'Well pump, 1/2 hp 2'],
  ])
  const shallow = answered(pumps, 'shallow', making)
  expect(shallow.loads?.map(l => l.volts)).toEqual([120, 120])
  expect(shallow.answers).toEqual({ kind: 'shallow' })
  expect(answered(shallow, null, making).loads?.[0]?.volts).toBe(240)
  const carried = { ...pumps, loads: undefined, circuitIds: ['c1'] }
  expect(answered(carried, 'deep', making).loads).toBeUndefined()
})

test('what no library knows keeps its words, and takes watts and hours', () => {
  const [kiln] = understood('glass kiln', library).map(u => wantOf(u, making))
  if (!kiln) throw new Error('not understood')
  expect([kiln.name, kiln.loads]).toEqual(['Glass kiln', undefined])
  const load = ownLoad(kiln, 1800, 6, 240, making.newId).loads?.[0]
  expect([load?.volts, load?.load.runningW.value, load?.load.dutyFraction.value]).toEqual([240, 1800, 0.25])
})
