import 'fake-indexeddb/auto'
import { clear, keys, set } from 'idb-keyval'
import { setWho } from '../common/who'
import type { Pending } from './record'
import { dropAside, keepUnsaved, leftBehind, listAside, putAside } from './unsaved'

const change = (id: string): Pending => ({ id, kind: 'undo', sentence: 'undo' })
let living: string[] = []
beforeAll(() => {
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: {
      locks: {
        request: (name: string) => {
          living.push(name)
          return new Promise(() => {})
        },
        query: async () => ({ held: living.map(name => ({ name })) }),
      },
    },
  })
})
beforeEach(async () => {
  await clear()
  living = living.slice(0, 1)
})

test('what a tab keeps is its own while it lives; what it leaves goes to the next that opens the job', async () => {
  await keepUnsaved('a', { revision: 3, pending: [change('own')] })
  await set('unsaved a other', { revision: 2, pending: [change('theirs')] })
  await set('unsaved a gone', { revision: 1, pending: [change('left')] })
  await set('unsaved b gone', { revision: 1, pending: [change('of another job')] })
  living.push('spillway tab other')
  const { left, taken } = await leftBehind('a')
  expect(left).toEqual([{ revision: 1, pending: [change('left')] }])
  await taken()
  expect((await keys()).sort()).toEqual(
    ['unsaved a other', expect.stringMatching(/^unsaved a .{36}$/), 'unsaved b gone'].sort(),
  )
  expect((await leftBehind('a')).left).toEqual([])
  // where everything is saved nothing is kept
  await keepUnsaved('a', { revision: 4, pending: [] })
  expect(await keys()).toHaveLength(2)
})

test('of what gave way in one moment each is let go by itself', async () => {
  jest.spyOn(Date, 'now').mockReturnValue(1_760_000_000_000)
  for (const id of ['x', 'y', 'z']) await putAside('a', [change(id)])
  jest.restoreAllMocks()
  await dropAside('a', (await listAside('a'))[1]?.at ?? '')
  expect((await listAside('a')).flatMap(a => a.pending.map(p => p.id))).toEqual(['x', 'z'])
})

test('what gave way is kept until it is let go', async () => {
  await putAside('a', [change('x')])
  await putAside('a', [])
  const [one] = await listAside('a')
  expect([one?.pending, await listAside('b')]).toEqual([[change('x')], []])
  await dropAside('a', one?.at ?? '')
  expect(await listAside('a')).toEqual([])
})

test('on a device that several work with each takes up their own, and puts aside their own', async () => {
  setWho('ann')
  await set('unsaved a gone', { by: 'ann', revision: 1, pending: [change('hers')] })
  await putAside('a', [change('hers, aside')])
  setWho('ben')
  await putAside('a', [change('his, aside')])
  expect((await leftBehind('a')).left).toEqual([])
  const [his] = await listAside('a')
  expect(his?.pending).toEqual([change('his, aside')])
  await dropAside('a', his?.at ?? '')
  setWho('ann')
  expect((await leftBehind('a')).left.map(l => l.pending)).toEqual([[change('hers')]])
  expect((await listAside('a')).map(a => a.pending)).toEqual([[change('hers, aside')]])
})
