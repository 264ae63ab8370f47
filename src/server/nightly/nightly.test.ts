import { randomUUID } from 'node:crypto'
import type { Operation } from '@/core/job/operations'
import { closeDb, ownerDb } from '../db/connection'
import { saveFile, savePhoto } from '../files/repository'
import { changeJob, createJob, readJobRecord } from '../jobs/repository'
import { deleteJob } from '../people/erasing'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { nightly, rules } from './nightly'

const now = new Date('2026-09-01T08:00:00Z')
const ago = (days: number) => new Date(now.getTime() - days * 86_400_000)
let actor: Actor
let id: string
beforeAll(async () => {
  actor = await testFirm()
  id = await createJob(actor, alderHollow, 'opened', ago(400))
})
afterAll(closeDb)

const hours = (n: number): Operation => ({ op: 'setOutage', facts: { hours: n } })

test('steps long past are packed, and undo ends there in words; the last two hundred stay, and so do young ones', async () => {
  let revision = 1
  for (const at of [ago(200), ago(10)])
    for (let batch = 0; batch < 2; batch++) {
      const changes = Array.from({ length: 70 }, (_, n) => ({
        id: randomUUID(),
        kind: 'do' as const,
        operation: hours(10 + batch + n),
      }))
      const done = await changeJob(actor, id, revision, changes, at)
      if (done.state !== 'written') throw new Error(done.state)
      revision = done.record.revision
    }
  await nightly(actor, now)
  const whole = await ownerDb()('job_change')
    .where({ job_id: id })
    .whereNotNull('backward')
    .select('revision')
  expect(whole).toHaveLength(rules.undoChanges)
  const undo = () => ({ id: randomUUID(), kind: 'undo' as const })
  for (let n = 0; n < 2; n++)
    await changeJob(actor, id, revision + n * 100, Array.from({ length: 100 }, undo), now)
  expect((await readJobRecord(actor, id))?.undos).toEqual([])
  const beyond = await changeJob(actor, id, revision + 200, [undo()], now)
  expect(beyond).toMatchObject({
    state: 'refused',
    faults: [{ message: expect.stringMatching(/too long ago/) }],
  })
}, 60_000)

test('what nothing shows any more goes after its time; what a job, a kept step or a list shows stays', async () => {
  const bytes = { picture: Buffer.from('p'), thumbnail: Buffer.from('t') }
  const shown = randomUUID()
  const photo = {
    id: shown,
    name: 'x',
    by: 'T',
    on: '2026-01-01',
    width: 9,
    height: 9,
    turns: 0 as const,
    about: { kind: 'wall' as const },
    marks: [],
  }
  const own = await createJob(actor, { ...alderHollow, photos: [photo] }, 'opened', ago(100))
  for (const [photoId, at] of [
    [shown, ago(100)],
    [randomUUID(), ago(100)],
    [randomUUID(), ago(2)],
  ] as const)
    await savePhoto(actor, own, bytes, at, photoId)
  const undone = randomUUID()
  await savePhoto(actor, own, bytes, ago(100), undone)
  const add: Operation = { op: 'addPhoto', photo: { ...photo, id: undone } }
  const change = (revision: number, what: object) =>
    changeJob(actor, own, revision, [{ id: randomUUID(), ...what } as never], ago(1))
  await change(1, { kind: 'do', operation: add })
  await change(2, { kind: 'undo' })
  const named = randomUUID()
  await saveFile(actor, own, { name: 'named.csv', kind: 'csv', content: Buffer.from('x') }, ago(300), named)
  const answer = { by: 'A', on: '2026-01-01', file: { id: named, name: 'named.csv', bytes: 1 } }
  const requests = [{ key: 'utility:year', state: 'received' as const, answer }]
  await createJob(actor, { ...alderHollow, requests }, 'copied', ago(100))
  await saveFile(actor, own, { name: 'old.csv', kind: 'csv', content: Buffer.from('x') }, ago(300))
  await saveFile(actor, own, { name: 'log.csv', kind: 'meter log', content: Buffer.from('x') }, ago(300))
  // another is to go, and may come back with all that it shows; a copy shows what the first one took in
  const [going, kept] = [randomUUID(), randomUUID()]
  const deleted = await createJob(
    actor,
    { ...alderHollow, photos: [{ ...photo, id: going }] },
    'opened',
    ago(100),
  )
  await savePhoto(actor, deleted, bytes, ago(100), going)
  await deleteJob(actor, deleted, true)
  await savePhoto(actor, own, bytes, ago(100), kept)
  await createJob(actor, { ...alderHollow, photos: [{ ...photo, id: kept }] }, 'copied', ago(100))
  await nightly(actor, now)
  expect(await ownerDb()('photo').where({ job_id: deleted }).select('id')).toEqual([{ id: going }])
  const left = await ownerDb()('photo').where({ job_id: own }).select('id')
  expect(left.map(p => p.id)).toEqual(expect.arrayContaining([shown, undone, kept]))
  expect(left).toHaveLength(4)
  expect(await ownerDb()('job_file').where({ job_id: own }).orderBy('name').select('name')).toEqual([
    { name: 'log.csv' },
    { name: 'named.csv' },
  ])
})
