import { parseArgs } from 'node:util'
import { newJob } from '../src/core/job/new'
import { closeDb, ownerDb } from '../src/server/db/connection'
import { historyOf, jobAt } from '../src/server/jobs/history'
import { listJobs, listQuerySchema } from '../src/server/jobs/list'
import { changeJob, readJobRecord } from '../src/server/jobs/repository'
import { nightly } from '../src/server/nightly/nightly'
import type { Actor } from '../src/server/people/types'
import { alderHollow, saltmarshLane } from '../src/server/seeds/jobs'

/**
 * A database of many firms, jobs and changes, made in steps, and at each step what a person waits for: the figures of
 * docs/scale.md. On a database of its own: bin/lib/scale.
 */
const { values } = parseArgs({
  options: {
    firms: { type: 'string', default: '1000' },
    jobs: { type: 'string', default: '10000,100000,1000000' },
    changes: { type: 'string', default: '10' },
    samples: { type: 'string', default: '300' },
    /** the jobs are there: they are measured, not made */
    made: { type: 'boolean', default: false },
    nightly: { type: 'boolean', default: false },
  },
})
const firms = Number(values.firms)
const steps = values.jobs.split(',').map(Number)
const changes = Number(values.changes)
const samples = Number(values.samples)

/**
 * The firm of a job, by its number: a few firms have most of the jobs, as it is among firms. The largest has a tenth of all with a
 * thousand firms, the one in the middle a two-thousandth.
 */
const firmNumber = (n: number) => 1 + Math.floor(firms * (((n * 2_654_435_761) % 2 ** 32) / 2 ** 32) ** 3)
const firmNumberSql = `(1 + floor(:firms::int * power((n::bigint * 2654435761 % 4294967296)::float8 / 4294967296, 3)))::int`

/** What titles and places are made of; none of them is anywhere. */
const streets = 'alder birch cedar dogwood elder fir gorse hazel iris juniper'.split(' ')
const places = 'millbrook saltmarsh headwater northfell stonequay lowmeadow eastgarth'.split(' ')
const kinds = 'lane road hill shore'.split(' ')

const firmOf = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
const jobIdOf = (n: number) => `10000000-0000-4000-8000-${String(n).padStart(12, '0')}`
const actorOf = (n: number): Actor => ({
  firmId: firmOf(n),
  personId: firmOf(n),
  label: 'Designer',
  role: 'designer',
})
const say = (text: string) => process.stdout.write(`${text}\n`)

async function makeFirms() {
  await ownerDb().raw(
    `insert into firm (id, slug, name)
      select format('00000000-0000-4000-8000-%s', lpad(n::text, 12, '0'))::uuid, 'scale-' || n, 'Firm ' || n
        from generate_series(1, ?) n on conflict do nothing`,
    [firms],
  )
  await ownerDb().raw(
    `insert into person (id, firm_id, label, role) select id, id, 'Designer', 'designer' from firm where slug like 'scale-%' on conflict do nothing`,
  )
}

/** Jobs from one number to another, each with its changes; in pieces, so that no statement takes too long. */
async function makeJobs(from: number, to: number) {
  // most jobs are a call that came to little, some are whole houses
  const few = JSON.stringify(newJob({ title: 'House', place: 'Here', spaces: 30, mainA: 200 }))
  const [some, many] = [JSON.stringify(alderHollow), JSON.stringify(saltmarshLane)]
  const sqlList = (words: string[]) => `array[${words.map(w => `'${w}'`).join(', ')}]`
  const piece = 20_000
  for (let at = from; at < to; at += piece)
    await ownerDb().transaction(async trx => {
      // what is made here refers to what is there: it is not looked up ten million times
      await trx.raw(`set local statement_timeout = 0; set local session_replication_role = replica`)
      await trx.raw(
        `with numbered as (
           select n, format('10000000-0000-4000-8000-%s', lpad(n::text, 12, '0'))::uuid as id,
               format('00000000-0000-4000-8000-%s', lpad(${firmNumberSql}::text, 12, '0'))::uuid as firm_id,
               case when n % 10 < 7 then :few when n % 10 < 9 then :some else :many end::jsonb as document,
               1 + n % 97 || ' ' || (${sqlList(streets)})[(1 + n * 7919 % 10)::int] || ' ' || (${sqlList(kinds)})[(1 + n * 31 % 4)::int] as title,
               (${sqlList(places)})[(1 + n * 104729 % 7)::int] as place
             from generate_series(:from::bigint, :to::bigint) n),
         made as (
           insert into job (id, firm_id, document, revision, head, title, place, step, step_order, worst, hours_needed, hours_had,
               search_text, created_at, updated_at)
           select id, firm_id, document, :last, :last, initcap(title), initcap(place), 'ask', 0, n % 5, 24, n % 90,
               title || ' ' || place, now() - n * interval '1 second', now() - n * interval '1 second'
             from numbered returning id, firm_id, document),
         kept as (insert into job_snapshot (firm_id, job_id, revision, document) select firm_id, id, 1, document from made)
         insert into job_change (job_id, firm_id, revision, change_id, kind, parent, operation, forward, backward, sentence, person_id, at)
         select made.id, made.firm_id, r, gen_random_uuid(), case when r = 1 then 'create' else 'do' end, nullif(r - 1, 0),
             '{"op": "setOutage", "facts": {"hours": 30}}'::jsonb,
             '[{"op": "replace", "path": ["outage", "hours"], "value": 30}]'::jsonb,
             '[{"op": "replace", "path": ["outage", "hours"], "value": 24}]'::jsonb,
             'set the outage', made.firm_id, now() - interval '30 days' from made, generate_series(1, :last::int) r`,
        { firms, few, some, many, last: changes, from: at + 1, to: Math.min(at + piece, to) },
      )
    })
  const wire = await ownerDb().client.acquireConnection()
  await ownerDb().raw('set statement_timeout = 0').connection(wire)
  // as it stands a while later: what is not yet on the disk counts as nobody’s yet, and no index alone answers for it
  await ownerDb().raw('checkpoint').connection(wire)
  for (const table of ['job', 'job_change', 'job_snapshot'])
    await ownerDb().raw('vacuum analyze ??', [table]).connection(wire)
  await ownerDb().client.releaseConnection(wire)
}

/** Milliseconds of each sample, in order. */
async function timed(what: string, act: (n: number) => Promise<unknown>) {
  const spent: number[] = []
  for (let n = 0; n < samples; n++) {
    const from = performance.now()
    await act(n)
    spent.push(performance.now() - from)
  }
  spent.sort((a, b) => a - b)
  const at = (share: number) =>
    (spent[Math.min(spent.length - 1, Math.floor(spent.length * share))] ?? 0).toFixed(1)
  say(`  ${what.padEnd(34)} median ${at(0.5)} ms, 95th ${at(0.95)} ms, 99th ${at(0.99)} ms`)
  return spent[Math.floor(spent.length / 2)] ?? 0
}

const query = (q: object) => listQuerySchema.parse(q)
const searched = (n: number) => `${streets[n % 10]} ${places[n % 7]}`

/** What is waited for most, by somebody of a firm that `who` draws. */
async function everyday(who: (n: number) => Actor) {
  await timed('list', n => listJobs(who(n), query({})))
  await timed('list by hours, third page', n => listJobs(who(n), query({ sort: 'hours', page: 3 })))
  await timed('search for two words', n => listJobs(who(n), query({ q: searched(n) })))
  await timed('search for a house number', n =>
    listJobs(who(n), query({ q: `${1 + (n % 97)} ${streets[n % 10]}` })),
  )
  await timed('search for one letter', n => listJobs(who(n), query({ q: 'aeiou'[n % 5] })))
  await timed('templates', n => listJobs(who(n), query({ templates: 'true' })))
  await timed('search for two letters that none has', n => listJobs(who(n), query({ q: 'zz' })))
  await timed('search without an answer', n => listJobs(who(n), query({ q: 'nowhere' })))
}

async function measure(jobs: number) {
  const size = await ownerDb().raw('select pg_size_pretty(pg_database_size(current_database())) as size')
  say(
    `${jobs.toLocaleString('en-US')} jobs of ${firms} firms, ${(jobs * changes).toLocaleString('en-US')} changes, ${size.rows[0].size}`,
  )
  const some = (n: number) => 1 + ((n * 104_729) % jobs)
  const jobOf = (n: number) => ({ id: jobIdOf(some(n)), by: actorOf(firmNumber(some(n))) })
  const largest = await ownerDb()('job')
    .where({ firm_id: firmOf(1) })
    .count({ count: '*' })
  say(' a firm as likely as its jobs are many')
  await everyday(n => jobOf(n).by)
  say(` the largest firm, ${Number(largest[0]?.count).toLocaleString('en-US')} jobs`)
  await everyday(() => actorOf(1))
  say(' one job')
  await timed('open', n => readJobRecord(jobOf(n).by, jobOf(n).id))
  await timed('history', n => historyOf(jobOf(n).by, jobOf(n).id, null))
  await timed('as it stood', n => jobAt(jobOf(n).by, jobOf(n).id, 5))
  const revisions = new Map<string, number>()
  await timed('edit', async n => {
    const { id, by } = jobOf(n)
    const base = revisions.get(id) ?? (await readJobRecord(by, id))?.revision ?? changes
    const operation = { op: 'setOutage', facts: { hours: 25 + (n % 50) } } as const
    const done = await changeJob(
      by,
      id,
      base,
      [{ id: crypto.randomUUID(), kind: 'do', operation }],
      new Date(),
    )
    if (done.state === 'written') revisions.set(id, done.record.revision)
  })
  await policies(jobOf, jobs)
}

/** The same work with PostgreSQL's policies of rows and without them, by turns: what they cost. */
async function policies(jobOf: (n: number) => { id: string; by: Actor }, jobs: number) {
  const tables: { rows: { name: string }[] } = await ownerDb().raw(
    `select relname as name from pg_class where relrowsecurity and relkind = 'r'`,
  )
  const work: Record<string, (n: number) => Promise<unknown>> = {
    list: n => listJobs(jobOf(n).by, query({})),
    search: n => listJobs(jobOf(n).by, query({ q: searched(n) })),
    open: n => readJobRecord(jobOf(n).by, jobOf(n).id),
    history: n => historyOf(jobOf(n).by, jobOf(n).id, null),
  }
  const spent: Record<string, { on: number[]; off: number[] }> = {}
  for (const [round, state] of (['on', 'off', 'off', 'on', 'on', 'off', 'off', 'on'] as const).entries()) {
    for (const { name } of tables.rows)
      await ownerDb().raw(`alter table ?? ${state === 'on' ? 'enable' : 'disable'} row level security`, [
        name,
      ])
    for (const [what, act] of Object.entries(work)) {
      spent[what] ??= { on: [], off: [] }
      // both find the same pages in memory, and have planned before
      for (const counts of [false, true])
        for (let n = 0; n < samples / 2; n++) {
          const from = performance.now()
          await act((round >> 1) * samples + n)
          if (counts) spent[what][state].push(performance.now() - from)
        }
    }
  }
  for (const { name } of tables.rows) await ownerDb().raw('alter table ?? enable row level security', [name])
  say(` policies of rows, ${jobs.toLocaleString('en-US')} jobs`)
  const mean = (all: number[]) => all.reduce((sum, ms) => sum + ms, 0) / all.length
  for (const [what, { on, off }] of Object.entries(spent))
    say(
      `  ${what.padEnd(34)} with ${mean(on).toFixed(2)} ms, without ${mean(off).toFixed(2)} ms: ${((mean(on) / mean(off) - 1) * 100).toFixed(0)} %`,
    )
}

/** A night of every firm, when the steps of every change are old enough to be packed away. */
async function aNight() {
  const from = performance.now()
  let rows = 0
  for (let n = 1; n <= firms; n++)
    for (const count of Object.values(await nightly({ firmId: firmOf(n) }, new Date()))) rows += count
  say(` the night of ${firms} firms: ${((performance.now() - from) / 1000).toFixed(0)} s, ${rows} rows`)
}

async function main() {
  await makeFirms()
  let have = 0
  for (const to of steps) {
    if (!values.made) {
      const from = performance.now()
      await makeJobs(have, to)
      say(`made in ${((performance.now() - from) / 1000).toFixed(0)} s`)
    }
    have = to
    await measure(to)
  }
  if (values.nightly) await aNight()
  await closeDb()
}
main().catch(error => {
  process.stderr.write(`${error instanceof Error ? error.stack : error}\n`)
  process.exit(1)
})
