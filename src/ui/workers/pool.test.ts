/** @jest-environment jest-fixed-jsdom */
import { Pool, WorkerLost, wasDropped } from './pool'

/** Workers that only know how to die: what is done on them is done here. */
class Dummy {
  private errors: (() => void)[] = []
  ended = false
  constructor() {
    made.push(this)
  }
  addEventListener(type: string, hear: () => void) {
    if (type === 'error') this.errors.push(hear)
  }
  postMessage() {}
  removeEventListener() {}
  die() {
    for (const hear of this.errors) hear()
  }
  terminate() {
    this.ended = true
  }
}
let made: Dummy[]
beforeEach(() => {
  made = []
})
const pool = (size: number) => new Pool<object>(() => new Dummy() as never, size)
/** A piece of work that is done when it is told so. */
function piece() {
  let done: (value: string) => void = () => {}
  const work = jest.fn(() => new Promise<string>(resolve => (done = resolve)))
  return { work, done: (value: string) => done(value) }
}
const settle = () => new Promise(resolve => setTimeout(resolve))

test('as many at once as there are workers, the rest in the order they came; workers are started when needed and used again', async () => {
  const two = pool(2)
  const [a, b, c, d] = [piece(), piece(), piece(), piece()]
  const answers = [a, b, c, d].map(p => two.run(p.work))
  expect([a, b, c, d].map(p => p.work.mock.calls.length)).toEqual([1, 1, 0, 0])
  b.done('b')
  await settle()
  expect(c.work).toHaveBeenCalled()
  expect(d.work).not.toHaveBeenCalled()
  a.done('a')
  await settle()
  c.done('c')
  d.done('d')
  expect(await Promise.all(answers)).toEqual(['a', 'b', 'c', 'd'])
  expect(made).toHaveLength(2)
})

test('what waits can be dropped while what is worked at goes on; stopping ends both, and new work starts new workers', async () => {
  const one = pool(1)
  const [a, b] = [piece(), piece()]
  const [first, second] = [one.run(a.work), one.run(b.work)]
  one.clear()
  await expect(second).rejects.toThrow('No longer wanted')
  a.done('a')
  expect(await first).toBe('a')

  const c = piece()
  const third = one.run(c.work).catch((error: unknown) => error)
  one.stop()
  expect(wasDropped(await third)).toBe(true)
  expect(made[0]?.ended).toBe(true)
  const d = piece()
  const fourth = one.run(d.work)
  d.done('d')
  expect(await fourth).toBe('d')
  expect(made).toHaveLength(2)
})

test('a worker that dies is replaced and its work done once more, by one that knows nothing; a second death is told', async () => {
  const one = pool(1)
  const known: unknown[] = []
  const a = piece()
  const answer = one.run(member => {
    known.push(member.knows)
    member.knows = 'the design'
    return a.work()
  })
  made[0]?.die()
  await settle()
  expect(known).toEqual([undefined, undefined])
  a.done('again')
  expect(await answer).toBe('again')

  const b = piece()
  const lost = one.run(b.work).catch((error: unknown) => error)
  made[1]?.die()
  await settle()
  made[2]?.die()
  expect(await lost).toBeInstanceOf(WorkerLost)
})

test('work that fails for its own reasons fails as it is, and its worker goes on', async () => {
  const one = pool(1)
  await expect(one.run(() => Promise.reject(new Error('no such design')))).rejects.toThrow('no such design')
  expect(await one.run(() => Promise.resolve(7))).toBe(7)
  expect(made).toHaveLength(1)
})

test('a worker that dies while nobody uses it is not used again', async () => {
  const one = pool(1)
  await one.run(() => Promise.resolve(1))
  made[0]?.die()
  expect(await one.run(() => Promise.resolve(2))).toBe(2)
  expect(made.map(w => w.ended)).toEqual([true, false])
})
