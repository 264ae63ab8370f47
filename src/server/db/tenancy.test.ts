import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { closeDb, db, ownerDb, unbound } from './connection'
import { allFirms, firmBehind } from './whose'

/** Tables that belong to no firm, and why. */
const ofNoFirm: Record<string, string> = {
  erased: 'sums of what is gone, by which nobody learns what it was',
  knex_migrations: 'of the owner alone',
  knex_migrations_lock: 'of the owner alone',
  setting: 'what the house remembers of itself',
}
const demo = { firmId: '5a1de000-0000-4000-8000-0000000000f1' }
let other: Actor
let tables: { name: string; held: boolean }[]
beforeAll(async () => {
  other = await testFirm()
  const found = await ownerDb().raw(
    `select relname as name, relrowsecurity as held from pg_class
      where relnamespace = 'public'::regnamespace and relkind in ('r', 'p') order by relname`,
  )
  tables = found.rows
})
afterAll(closeDb)

const count = async (at: ReturnType<typeof db>, table: string) =>
  Number((await at(table).count({ count: '*' }))[0]?.count)

test('every table holds its rows by firm, or is known to belong to none', () => {
  expect(tables.filter(t => !t.held).map(t => t.name)).toEqual(Object.keys(ofNoFirm))
})

test('the role of the servers owns nothing, passes no policy, changes no table', async () => {
  const role = await unbound().raw('select * from pg_roles where rolname = current_user')
  expect(role.rows[0]).toMatchObject({ rolsuper: false, rolbypassrls: false, rolcreaterole: false })
  const owned = await unbound().raw(
    'select relname from pg_class where pg_get_userbyid(relowner) = current_user',
  )
  expect(owned.rows).toEqual([])
  for (const sql of [
    'alter table job disable row level security',
    'drop policy own_firm on job',
    'create table mine (n int)',
    'truncate job cascade',
    'select * from knex_migrations',
    'set role spillway',
  ])
    await expect(unbound().raw(sql)).rejects.toMatchObject({ code: '42501' })
})

test('with a foreign firm’s ids nothing is found, written, moved or taken away, in any table', async () => {
  const filled: string[] = []
  for (const { name } of tables.filter(t => t.held)) {
    if (await count(db(demo), name)) filled.push(name)
    expect([name, await count(unbound(), name)]).toEqual([name, 0])
    expect(await count(db({ firmId: randomUUID() }), name)).toBe(0)
    if (name === 'firm' || name === 'design_search_task') continue
    const [theirs] = await ownerDb()(name).where({ firm_id: demo.firmId }).limit(1)
    if (!theirs) continue
    const at = db(other)(name)
    if (name === 'record_entry') {
      await expect(at.clone().delete()).rejects.toMatchObject({ code: '42501' })
      continue
    }
    expect(await at.clone().where({ firm_id: demo.firmId }).delete()).toBe(0)
    expect(await at.clone().update({ firm_id: other.firmId })).toBe(await count(db(other), name))
    // a row of another firm is neither put down nor given away
    await expect(db(other)(name).insert({ ...theirs })).rejects.toMatchObject({
      code: expect.stringMatching(/^(42501|428C9|22P02)$/),
    })
  }
  expect(filled.length).toBeGreaterThan(12)
  // nor does anything of one’s own hang on another’s job
  const [job] = await ownerDb()('job').where({ firm_id: demo.firmId }).limit(1)
  await expect(
    db(other)('part_reserved').insert({ firm_id: other.firmId, job_id: job.id, key: 'x', count: 1 }),
  ).rejects.toMatchObject({ code: '23503' })
  await expect(db(other)('person').update({ firm_id: demo.firmId })).rejects.toMatchObject({ code: '42501' })
})

test('whoever asks beside another, in whatever order, on however few connections, sees the own firm alone', async () => {
  const firms = [demo, other, await testFirm(), await testFirm()]
  const seen = async (n: number) => {
    const firm = firms[n]
    if (!firm) return unbound()('firm').select('id')
    return n % 2
      ? db(firm)('firm').select('id')
      : db(firm).transaction(async trx => {
          await trx.raw('savepoint a')
          return trx('firm').select('id')
        })
  }
  await fc.assert(
    fc.asyncProperty(fc.array(fc.nat({ max: 4 }), { minLength: 1, maxLength: 30 }), async order => {
      const answers = await Promise.all(order.map(seen))
      expect(answers).toEqual(order.map(n => (firms[n] ? [{ id: firms[n].firmId }] : [])))
    }),
    { numRuns: 15 },
  )
  // what failed leaves no other binding behind
  await expect(db(other).raw('select 1 / 0')).rejects.toThrow()
  expect(await db(demo)('firm').select('id')).toEqual([{ id: demo.firmId }])
})

test('without a firm the database tells whose something is, and nothing else', async () => {
  expect(await firmBehind('slug', 'headwater')).toEqual(demo)
  expect(await firmBehind('customer_link', 'no hash')).toBeNull()
  expect(await firmBehind('pack', randomUUID())).toBeNull()
  expect(await allFirms()).toEqual(expect.arrayContaining([demo, { firmId: other.firmId }]))
})
