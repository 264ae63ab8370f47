import { parseArgs } from 'node:util'
import { newJob } from '../src/core/job/new'
import { closeDb, db, ownerDb } from '../src/server/db/connection'
import { historyOf, jobAt } from '../src/server/jobs/history'
import { listJobs, listQuerySchema } from '../src/server/jobs/list'
import { changeJob, readJobRecord } from '../src/server/jobs/repository'
import type { Actor } from '../src/server/people/types'

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
  },
})
const firms = Number(values.firms)
const steps = values.jobs.split(',').map(Number)
const changes = Number(values.changes)
const samples = Number(values.samples)

const firmOf = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
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
  const document = JSON.stringify(newJob({ title: 'House', place: 'Here', spaces: 30, mainA: 200 }))
  const piece = 20_000
  for (let at = from; at < to; at += piece)
    await ownerDb().transaction(async trx => {
      // what is made here refers to what is there: it is not looked up ten million times
      await trx.raw(`set local statement_timeout = 0; set local session_replication_role = replica`)
      await trx.raw(
        `with made as (
           insert into job (id, firm_id, document, revision, head, title, place, step, step_order, worst, hours_needed, hours_had,
               search_text, created_at, updated_at)
           select format('10000000-0000-4000-8000-%s', lpad(n::text, 12, '0'))::uuid,
               format('00000000-0000-4000-8000-%s', lpad((1 + n % :firms)::text, 12, '0'))::uuid,
               :document::jsonb, :last, :last, 'House ' || n, (array['hill', 'shore', 'river'])[1 + n % 3], 'ask', 0, n % 5, 24, n % 90,
               'house ' || n || ' ' || (array['hill', 'shore', 'river'])[1 + n % 3],
               now() - n * interval '1 second', now() - n * interval '1 second'
             from generate_series(:from::int, :to::int) n returning id, firm_id),
         kept as (insert into job_snapshot (firm_id, job_id, revision, document) select firm_id, id, 1, :document::jsonb from made)
         insert into job_change (job_id, firm_id, revision, change_id, kind, parent, operation, forward, backward, sentence, person_id, at)
         select made.id, made.firm_id, r, gen_random_uuid(), case when r = 1 then 'create' else 'do' end, nullif(r - 1, 0),
             '{"op": "setOutage", "facts": {"hours": 30}}'::jsonb,
             '[{"op": "replace", "path": ["outage", "hours"], "value": 30}]'::jsonb,
             '[{"op": "replace", "path": ["outage", "hours"], "value": 24}]'::jsonb,
             'set the outage', made.firm_id, now() - interval '30 days' from made, generate_series(1, :last::int) r`,
        { firms, document, last: changes, from: at + 1, to: Math.min(at + piece, to) },
      )
    })
  await ownerDb()
    .raw('vacuum analyze job; ')
    .catch(() => ownerDb().raw('analyze job'))
  await ownerDb().raw('analyze job_change')
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

async function measure(jobs: number) {
  const size = await ownerDb().raw('select pg_size_pretty(pg_database_size(current_database())) as size')
  say(
    `${jobs.toLocaleString('en-US')} jobs of ${firms} firms, ${(jobs * changes).toLocaleString('en-US')} changes, ${size.rows[0].size}`,
  )
  const actor = (n: number) => actorOf(1 + ((n * 7919) % firms))
  const jobOf = (n: number) => {
    const at = 1 + ((n * 104_729) % jobs)
    return { id: `10000000-0000-4000-8000-${String(at).padStart(12, '0')}`, by: actorOf(1 + (at % firms)) }
  }
  const query = (q: object) => listQuerySchema.parse(q)
  await timed('list', n => listJobs(actor(n), query({})))
  await timed('list by hours, third page', n => listJobs(actor(n), query({ sort: 'hours', page: 3 })))
  await timed('search', n => listJobs(actor(n), query({ q: `shore ${n % 10}` })))
  await timed('search without an answer', n => listJobs(actor(n), query({ q: 'nowhere' })))
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
  // the same question with and without the policies of rows, side by side
  const ask = (at: ReturnType<typeof db>, firmId: string) =>
    at('job')
      .where({ firm_id: firmId })
      .whereNull('archived_at')
      .orderBy('updated_at', 'desc')
      .limit(20)
      .select('id', 'title')
  const one = actor(1)
  const held = await timed('twenty rows, held by firm', () => ask(db(one), one.firmId))
  const free = await timed('twenty rows, as the owner', () => ask(ownerDb(), one.firmId))
  await timed('twenty rows, another firm each time', n => ask(db(actor(n)), actor(n).firmId))
  say(`  rows held by firm cost ${((held / free - 1) * 100).toFixed(0)} % of the median`)
}

async function main() {
  await makeFirms()
  let have = 0
  for (const to of steps) {
    const from = performance.now()
    await makeJobs(have, to)
    say(`made in ${((performance.now() - from) / 1000).toFixed(0)} s`)
    have = to
    await measure(to)
  }
  await closeDb()
}
main().catch(error => {
  process.stderr.write(`${error instanceof Error ? error.stack : error}\n`)
  process.exit(1)
})
