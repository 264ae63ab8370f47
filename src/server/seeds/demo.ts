import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { applyOperation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { demoLogins, demoRoles } from '../accounts/demo-entry'
import { addEquipment, setStock } from '../catalogue/repository'
import { ownerDb } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { takeIn } from '../files/intake'
import { savePacked, savePhoto } from '../files/repository'
import { createJob } from '../jobs/repository'
import { makePack, newestPack, putPack, signPack } from '../packs/repository'
import { putWays, takePrices } from '../parts/repository'
import { type Actor, servedFirm } from '../people/types'
import { takeIntervals } from '../utility/intake'
import { saveIntervals } from '../utility/repository'
import { storedForm } from '../utility/stored'
import { catalogue, stock } from './catalogue'
import { seedEstimates } from './estimates'
import { logFiles, logIdOf, packedName, yearFiles } from './files'
import { alderHollow, demoJobs, fernbrook, ospreyPoint, saltmarshLane } from './jobs'
import { livedIn } from './lived-in'
import { firmMinutes, pricesFor, vanStock } from './prices'
import { inspected, proven, testedOverYears } from './proven'
import { worked } from './worked'

const clock = new Date('2026-02-16T15:00:00Z')

const designer: Actor = {
  firmId: '5a1de000-0000-4000-8000-0000000000f1',
  personId: '5a1de000-0000-4000-8000-0000000000d1',
  label: 'Designer',
  role: 'designer',
}
const owner: Actor = {
  ...designer,
  personId: '5a1de000-0000-4000-8000-0000000000a1',
  label: 'Owner',
  role: 'owner',
}
const technician = {
  ...designer,
  personId: '5a1de000-0000-4000-8000-0000000000e1',
  label: 'Field technician',
  role: 'technician',
}

/** The day-care is installed and in the middle of its tests, with something wrong that waits to be found; the coast half installed; the kiosk proven; the boathouse’s station tested over years. */
function asWorked(job: Job): Job {
  const people = [technician.label, 'Apprentice'] as const
  switch (job) {
    case alderHollow:
      return proven(worked(job, people, 'commission:tests'), {
        seed: 22,
        fault: 'neutral-loose:c11',
        by: people,
        day: '2026-02-14',
        done: t => ['dead', 'legs', 'neutral', 'manual', 'matrix'].includes(t.group),
      })
    case saltmarshLane:
      return worked(job, people, 'breaker:backfeed:main')
    case fernbrook: {
      // its burner proves the flame through ground: with its plug
      const plugged = applyOperation(job, { op: 'setHookup', facts: { bondingPlug: true } })
      const built = worked(plugged.ok ? plugged.value : job, people)
      const tested = proven(built, { seed: 5, by: people, day: '2026-02-13', done: () => true })
      return livedIn(inspected(tested, technician.label, '2026-02-16'), designer.label)
    }
    case ospreyPoint:
      return testedOverYears(job, designer.label, [
        ['2022-04-09', 0.97],
        ['2024-04-13', 0.92],
        ['2025-10-18', 0.88],
      ])
    default:
      return job
  }
}

/** Whether a killed run came as far as this. */
const isKept = async (table: 'photo' | 'job_file' | 'interval_series', id: string): Promise<boolean> =>
  Boolean(await ownerDb()(table).where({ firm_id: designer.firmId, id }).first('id'))

/** The drawn photographs, by the id that the job document gives them. */
async function keepPhoto(jobId: string, photoId: string, at: Date) {
  if (await isKept('photo', photoId)) return
  const drawn = await readFile(join('src/server/seeds/photos', `${photoId}.jpg`))
  const taken = await takeIn(drawn)
  if (!taken.ok) throw new Error(`the drawn photograph ${photoId} cannot be read`)
  await savePhoto(designer, jobId, taken.value, at, photoId)
}

/** The pack of the kiosk, made and signed by both. */
async function handOver(at: Date) {
  const kiosk = demoJobs.find(d => d.job === fernbrook)
  if (!kiosk || (await newestPack(designer, kiosk.id)) !== null) return
  const id = await transaction(designer, trx => putPack(trx, designer, kiosk.id, at), always)
  if (id === null) return
  await makePack(designer, id)
  for (const [as, name] of [
    ['installer', 'Headwater Electric'],
    ['customer', 'Village library'],
  ] as const)
    await signPack(
      { ...designer, zone: 'America/New_York' },
      kiosk.id,
      1,
      { as, name, signature: [], typed: true },
      at,
    )
}

const packedFile = (name: string) => readFile(join('src/server/seeds/files', name))

/** The utility's years: the file of each, and its intervals where the job has taken them. */
async function keepYear({ name, job, fileId, seriesId }: (typeof yearFiles)[number], at: Date) {
  const jobId = demoJobs[job]?.id
  if (!jobId) return
  const packed = await packedFile(`${name}.xml.gz`)
  await savePacked(designer, jobId, { name: `${name}.xml`, kind: 'xml', packed }, at, fileId)
  if (!seriesId || (await isKept('interval_series', seriesId))) return
  const taken = await takeIntervals(Readable.from([await promisify(gunzip)(packed)]), 'America/New_York')
  if (!taken.ok) throw new Error(`the year of ${name} cannot be read`)
  await saveIntervals(designer, jobId, `${name}.xml`, await storedForm(taken.value.intervals), at, seriesId)
}

async function keepLog({ name, job }: (typeof logFiles)[number], n: number, at: Date) {
  const jobId = demoJobs[job]?.id
  if (jobId && !(await isKept('job_file', logIdOf(n))))
    await savePacked(
      designer,
      jobId,
      { name, kind: 'meter log', packed: await packedFile(packedName(name)) },
      at,
      logIdOf(n),
    )
}

/** A second firm, which shows that firms never see each other; the demo’s owner looks on there. */
const millpond = {
  firmId: '5a1de000-0000-4000-8000-0000000000f2',
  owner: '5a1de000-0000-4000-8000-0000000000a2',
  reader: '5a1de000-0000-4000-8000-0000000000b2',
}

/** The demo’s people, and the logins by which one looks around as them. */
async function seedPeople() {
  const db = ownerDb()
  const people = { owner, designer, technician }
  await db('login.user')
    .insert(
      demoRoles.map(role => ({
        id: demoLogins[role],
        name: people[role].label,
        email: `${role}@headwater.example`,
        email_verified: true,
      })),
    )
    .onConflict()
    .ignore()
  await db('firm')
    .insert({ id: millpond.firmId, slug: 'millpond', name: 'Millpond Solar' })
    .onConflict()
    .ignore()
  await db('person')
    .insert([
      ...demoRoles.map(role => ({
        id: people[role].personId,
        firm_id: people[role].firmId,
        label: people[role].label,
        role: people[role].role,
        login_id: demoLogins[role],
        joined_at: clock,
      })),
      {
        id: millpond.owner,
        firm_id: millpond.firmId,
        label: 'Owner',
        role: 'owner',
        login_id: null,
        joined_at: clock,
      },
      {
        id: millpond.reader,
        firm_id: millpond.firmId,
        label: 'Owner of Headwater',
        role: 'reader',
        login_id: demoLogins.owner,
        joined_at: new Date(),
      },
    ])
    .onConflict()
    .ignore()
  for (const role of demoRoles)
    await db('person')
      .where({ id: people[role].personId })
      .whereNull('login_id')
      .update({ login_id: demoLogins[role], email: `${role}@headwater.example` })
}

/**
 * The demo firm, its catalogue and jobs, the same bits every time. What is whole already is left as it is, whatever was made of
 * it since; what a killed run left half written is written to the end. Answers which, or null.
 */
export async function seedDemo(): Promise<'written' | 'written to the end' | null> {
  const [mark] = await ownerDb()('setting').where({ key: 'demo' }).select('value')
  if (mark?.value === 'whole') {
    // a demo of before anybody signed in has people without logins
    await seedPeople()
    return null
  }
  const begun = await ownerDb()('firm').where({ slug: servedFirm }).first('id')
  await ownerDb()('firm')
    .insert({ id: designer.firmId, slug: servedFirm, name: 'Headwater Electric' })
    .onConflict()
    .ignore()
  await seedPeople()
  await addEquipment(designer, catalogue)
  await setStock(designer, { ...stock, ...vanStock })
  await putWays(designer, { minutes: firmMinutes }, 0)
  await takePrices(designer, pricesFor(demoJobs.map(({ job }) => job)))
  for (const [i, { id, job }] of demoJobs.entries()) {
    const at = new Date(clock.getTime() - i * 86_400_000)
    if (!(await ownerDb()('job').where({ id }).first('id')))
      await createJob(designer, asWorked(job), 'opened from the demo', at, id)
    for (const photo of job.photos) await keepPhoto(id, photo.id, at)
  }
  for (const year of yearFiles) await keepYear(year, clock)
  for (const [n, log] of logFiles.entries()) await keepLog(log, n, clock)
  await seedEstimates({ ...designer, zone: 'America/New_York', firm: 'Headwater Electric' }, new Date())
  await handOver(new Date('2026-02-17T15:00:00Z'))
  await ownerDb()('setting').insert({ key: 'demo', value: '"whole"' }).onConflict().ignore()
  return begun ? 'written to the end' : 'written'
}
