import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import yauzl, { type Entry } from 'yauzl'
import { ZipFile } from 'yazl'
import { closeDb, db, ownerDb } from '../db/connection'
import { savePhoto } from '../files/repository'
import { createJob, readJobRecord } from '../jobs/repository'
import { makeLink } from '../links/repository'
import { note } from '../people/record'
import { testFirm } from '../people/test-firm'
import { fernbrook } from '../seeds/jobs'
import { notArchived, parts } from './layout'
import { takeArchive } from './read'
import { archiveOf } from './write'

const demo = { firmId: '5a1de000-0000-4000-8000-0000000000f1' }
const folder = mkdtempSync(join(tmpdir(), 'archive-'))
const now = new Date('2026-03-01T12:00:00Z')
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await closeDb()
})

async function login(email = `${randomUUID()}@archive.test`) {
  const id = randomUUID()
  await ownerDb()('login.user').insert({ id, name: 'Ann', email, email_verified: true })
  return { id, name: 'Ann', email }
}
async function taken(firm: { firmId: string }): Promise<Buffer> {
  const pieces: Buffer[] = []
  for await (const piece of archiveOf(firm)) pieces.push(piece as Buffer)
  return Buffer.concat(pieces)
}
const kept = (bytes: Buffer): string => {
  const path = join(folder, `${randomUUID()}.zip`)
  writeFileSync(path, bytes)
  return path
}
/** The archive with its files changed: a file that comes to null is left out. */
function changed(
  bytes: Buffer,
  change: (name: string, content: Buffer) => Buffer | null,
  more: Record<string, Buffer> = {},
) {
  return new Promise<Buffer>((resolve, reject) => {
    const out = new ZipFile()
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error)
      zip.on('entry', (entry: Entry) =>
        zip.openReadStream(entry, async (_, stream) => {
          const pieces: Buffer[] = []
          for await (const piece of stream) pieces.push(piece as Buffer)
          const content = change(entry.fileName, Buffer.concat(pieces))
          if (content) out.addBuffer(content, entry.fileName)
          zip.readEntry()
        }),
      )
      zip.on('end', async () => {
        for (const [name, content] of Object.entries(more)) out.addBuffer(content, name)
        out.end()
        const pieces: Buffer[] = []
        for await (const piece of out.outputStream) pieces.push(piece as Buffer)
        resolve(Buffer.concat(pieces))
      })
      zip.readEntry()
    })
  })
}
/** As on another installation: nothing of the firm is here any more. */
async function forgotten({ firmId }: { firmId: string }) {
  const own = ownerDb()
  for (const table of ['job', 'invitation', 'equipment', 'typical_load', 'person'])
    await own(table).where({ firm_id: firmId }).delete()
  await own('firm').where({ id: firmId }).delete()
}
async function smallFirm() {
  const actor = await testFirm('Ann', 'owner')
  const who = await login()
  await ownerDb()('person').where({ id: actor.personId }).update({ login_id: who.id, email: who.email })
  const jobId = await createJob(actor, fernbrook, 'opened', now)
  const picture = Buffer.from('a picture')
  await savePhoto(actor, jobId, { picture, thumbnail: picture }, now)
  await makeLink(actor, jobId, now)
  return { actor, who, jobId }
}

test('every table of a firm is in the archive, or is known not to be', async () => {
  const found = await ownerDb().raw(
    `select relname as name from pg_class where relnamespace = 'public'::regnamespace and relkind in ('r', 'p') and relrowsecurity`,
  )
  const known = [...parts.map(p => p.table), ...Object.keys(notArchived)]
  expect(known.sort()).toEqual(found.rows.map((r: { name: string }) => r.name).sort())
})

test('a firm goes out, comes in elsewhere, and goes out again: the same bytes', async () => {
  const { actor, who, jobId } = await smallFirm()
  const first = await taken(actor)
  expect((await taken(actor)).equals(first)).toBe(true)
  await forgotten(actor)
  expect(await takeArchive(kept(first), who)).toEqual({ ok: true, value: { firmId: actor.firmId, jobs: 1 } })
  expect((await readJobRecord(actor, jobId))?.job).toEqual(fernbrook)
  expect((await taken(actor)).equals(first)).toBe(true)
  // once more it is here already
  const again = await takeArchive(kept(first), who)
  expect(again).toMatchObject({ ok: false, faults: [{ message: expect.stringMatching(/here already/) }] })
})

test('the whole demo firm goes out with its photographs, papers and years, and is not taken in where it is', async () => {
  const first = await taken(demo)
  expect(first.length).toBeGreaterThan(1_000_000)
  expect(await takeArchive(kept(first), await login())).toMatchObject({ ok: false })
}, 120_000)

test('whoever brings it and is not in it becomes one owner more; nobody else comes in by it', async () => {
  const { actor } = await smallFirm()
  const first = await taken(actor)
  await forgotten(actor)
  const stranger = await login()
  expect(await takeArchive(kept(first), stranger)).toMatchObject({ ok: true })
  const people = await db(actor)('person').orderBy('joined_at').select('label', 'role', 'login_id')
  expect(people).toEqual([
    { label: 'Ann', role: 'owner', login_id: null },
    { label: expect.stringMatching(/^Ann \(/), role: 'owner', login_id: stranger.id },
  ])
})

test.each<[string, (bytes: Buffer, other: string) => Buffer | Promise<Buffer>, RegExp]>([
  ['what is no archive', () => Buffer.from('not a zip at all'), /no archive that can be read/],
  ['one that is cut off', bytes => bytes.subarray(0, bytes.length - 200), /no archive that can be read/],
  [
    'one without a word of whose it is',
    bytes => changed(bytes, (n, c) => (n === 'spillway.json' ? null : c)),
    /does not say which firm/,
  ],
  [
    'one of a newer Spillway',
    bytes => changed(bytes, (n, c) => (n === 'spillway.json' ? Buffer.from('{"format":99}') : c)),
    /newer Spillway/,
  ],
  [
    'a file of another kind',
    bytes => changed(bytes, (_, c) => c, { 'run.sh': Buffer.from('x') }),
    /which no archive of ours does/,
  ],
  [
    'rows that were cut',
    bytes => changed(bytes, (n, c) => (n.endsWith('job.jsonl') ? c.subarray(0, 40) : c)),
    /not whole JSON/,
  ],
  [
    'a job that is none',
    bytes => changed(bytes, (n, c) => (n.startsWith('jobs/') ? Buffer.from('{"formatVersion":99}') : c)),
    /no job that can be read/,
  ],
  [
    'rows of another firm',
    (bytes, other) =>
      changed(bytes, (n, c) =>
        n.includes('person')
          ? Buffer.from(c.toString().replaceAll(/"firm_id": ?"[^"]+"/g, `"firm_id":"${other}"`))
          : c,
      ),
    /of another firm/,
  ],
  [
    'people in a role that is none',
    bytes =>
      changed(bytes, (n, c) =>
        n.includes('person') ? Buffer.from(c.toString().replace('"owner"', '"emperor"')) : c,
      ),
    /do not fit together/,
  ],
])('%s is refused, and nothing of it stays', async (_, change, told) => {
  const { actor, who } = await smallFirm()
  const bytes = await change(await taken(actor), demo.firmId)
  await forgotten(actor)
  const outcome = await takeArchive(kept(bytes), who)
  expect(outcome).toMatchObject({ ok: false, faults: [{ message: expect.stringMatching(told) }] })
  expect(await ownerDb()('firm').where({ id: actor.firmId })).toEqual([])
})

test('a name that climbs, and a bomb, are refused before anything is unpacked', async () => {
  const { actor, who } = await smallFirm()
  const bytes = await changed(await taken(actor), (_, c) => c, {
    'rows/xxxxxxxxxxx.jsonl': Buffer.alloc(300_000_000),
  })
  expect(bytes.length).toBeLessThan(2_000_000)
  expect(await takeArchive(kept(bytes), who)).toMatchObject({
    faults: [{ message: expect.stringMatching(/unpack to more/) }],
  })
  // of the same length, so that the bytes can be changed where they stand
  for (const name of ['../../../../../../etc/x.jsonl', '/etc/cron.d/xxxxxxxxx.jsonl']) {
    const placed = await changed(await taken(actor), (_, c) => c, {
      [`rows/${'y'.repeat(name.length - 11)}.jsonl`]: Buffer.from('x'),
    })
    const climbing = Buffer.from(
      placed.toString('latin1').replaceAll(`rows/${'y'.repeat(name.length - 11)}.jsonl`, name),
      'latin1',
    )
    expect(await takeArchive(kept(climbing), who)).toMatchObject({ ok: false })
  }
})

test('what the record tells goes along, in its order', async () => {
  const { actor, who } = await smallFirm()
  for (const what of ['one', 'two', 'three']) await note(actor, 'exported', { what })
  const first = await taken(actor)
  await forgotten(actor)
  await takeArchive(kept(first), who)
  const told = await db(actor)('record_entry').orderBy('id').select('what', 'about')
  expect(told.map(t => t.about.what ?? t.what)).toEqual(['to what is asked', 'one', 'two', 'three'])
})
