/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { clear, entries, get, keys, set } from 'idb-keyval'
import { forgetHere, handOver, thinOut, waitingHere } from './device'
import { setWho } from './who'

const change = (id: string) => ({ id, kind: 'undo', sentence: 'undo' })
let pages: string[]
beforeEach(async () => {
  await clear()
  localStorage.clear()
  sessionStorage.clear()
  setWho('ann')
  pages = ['spillway-field-pages', 'spillway-house']
  Object.defineProperty(globalThis, 'caches', {
    configurable: true,
    value: { delete: async (name: string) => (pages = pages.filter(p => p !== name)) },
  })
  await set('job a ann', { by: 'ann', job: { title: 'Alder' }, revision: 4, pending: [change('1')] })
  await set('unsaved a tab', { by: 'ann', revision: 4, pending: [change('1'), change('2')] })
  await set('job b ann', { by: 'ann', job: { title: 'Birch' }, revision: 9, pending: [] })
  await set('photo a p', { by: 'ann', blob: new Blob(['x']), name: 'panel' })
  await set('catalogue ann', { by: 'ann', equipment: ['dear'] })
  await set('aside a', [{ by: 'ann', at: 'then', pending: [change('3')] }])
  await set('unsaved a other', { by: 'ben', revision: 4, pending: [change('4')] })
})

test('what waits is counted once however often it is kept, and for its own person alone', async () => {
  expect(await waitingHere()).toEqual({ changes: 2, photographs: 1 })
  setWho('ben')
  expect(await waitingHere()).toEqual({ changes: 1, photographs: 0 })
  setWho('cy')
  expect(await waitingHere()).toEqual({ changes: 0, photographs: 0 })
})

test('who leaves takes jobs, screens and catalogue along; what was not sent stays, without the job around it', async () => {
  await forgetHere()
  expect(pages).toEqual(['spillway-house'])
  expect((await keys()).filter(k => /^(job|catalogue)/.test(String(k)))).toEqual([])
  expect(JSON.stringify(await entries())).not.toMatch(/Alder|Birch|dear/)
  expect(await waitingHere()).toEqual({ changes: 2, photographs: 1 })
  expect(await get('aside a')).toHaveLength(1)
})

test('the first to come changes nothing; another finds nothing of whoever was here, and loses nothing of their own', async () => {
  await handOver('ann')
  expect(await get('job b ann')).toBeDefined()
  await set('job c ben', { by: 'ben', job: { title: 'Cedar' }, revision: 1, pending: [] })
  await Promise.all([handOver('ben'), handOver('ben')])
  expect((await keys()).filter(k => /^(job|catalogue)/.test(String(k)))).toEqual(['job c ben'])
  expect(pages).toEqual(['spillway-house'])
})

test('of many jobs the newest stay, and whatever was not sent', async () => {
  for (let n = 0; n < 70; n++) await set(`job n${n} ann`, { by: 'ann', at: n, revision: 1, pending: [] })
  await thinOut()
  const left = (await keys()).map(String).filter(k => k.startsWith('job '))
  expect(left).toHaveLength(61)
  expect([left.includes('job a ann'), left.includes('job n9 ann'), left.includes('job n10 ann')]).toEqual([
    true,
    false,
    true,
  ])
})

test('what was half typed goes with the sign-out, and stays where somebody only came by', async () => {
  sessionStorage.setItem('spillway.hold.dead ann', '{"reading":"0 V"}')
  sessionStorage.setItem('of another program', 'stays')
  await handOver('ann')
  await handOver('ben')
  expect(Object.keys(sessionStorage)).toHaveLength(2)
  await forgetHere()
  expect(Object.keys(sessionStorage)).toEqual(['of another program'])
})

test('what an earlier version kept goes on as theirs who were here last', async () => {
  await set('job d', { job: { title: 'Dogwood' }, revision: 2, pending: [change('5')] })
  localStorage.setItem('spillway.person', 'ann')
  await handOver('cy')
  const left = (await entries()).filter(([k]) => String(k).startsWith('unsaved d '))
  expect(left.map(([, v]) => v)).toEqual([{ by: 'ann', revision: 2, pending: [change('5')] }])
})
