import knex from 'knex'
import { needDatabase } from './aside'
import { migrate } from './migrate'

const own = process.env.SPILLWAY_OWNER_URL ?? ''
const name = `fresh_${process.pid}`
beforeAll(() => {
  process.env.SPILLWAY_OWNER_URL = own.replace(/\/\w+$/, `/${name}`)
})
afterAll(async () => {
  const admin = knex({ client: 'pg', connection: own, pool: { min: 0, max: 1 } })
  for (const { datname } of await admin('pg_database').whereLike('datname', `${name}%`).select('datname'))
    await admin.raw('drop database ??', [datname])
  await admin.destroy()
  process.env.SPILLWAY_OWNER_URL = own
})

const within = async <T>(database: string, act: (db: knex.Knex) => Promise<T>): Promise<T> => {
  const db = knex({
    client: 'pg',
    connection: own.replace(/\/\w+$/, `/${database}`),
    pool: { min: 0, max: 1 },
  })
  try {
    return await act(db)
  } finally {
    await db.destroy()
  }
}

test('what is there is opened; --fresh sets it aside whole under another name, and keeps the last two', async () => {
  expect(await needDatabase(false, new Date('2026-01-01'))).toEqual({ aside: null })
  await within(name, db => db.raw('create table kept as select 7 as n'))
  expect(await needDatabase(false, new Date('2026-01-02'))).toEqual({ aside: null })
  const asides: string[] = []
  for (const day of ['2026-01-03', '2026-01-04', '2026-01-05']) {
    const { aside } = await needDatabase(true, new Date(day))
    asides.push(aside ?? '')
    await within(name, db => db.raw(`create table kept as select ${day.slice(-1)} as n`))
  }
  const left = await within(name, db =>
    db('pg_database').whereLike('datname', `${name}_aside%`).orderBy('datname').select('datname'),
  )
  expect(left.map(d => d.datname)).toEqual(asides.slice(1))
  expect(await within(asides[2] ?? '', db => db('kept').select('n'))).toEqual([{ n: 4 }])
}, 30_000)

test('migrations run once each, and a release serves beside what a newer one added', async () => {
  await needDatabase(true, new Date('2026-01-06'))
  await within(name, async db => {
    const first = await migrate(db)
    expect(first.ran.length).toBeGreaterThan(18)
    expect(await migrate(db)).toEqual({ ran: [], newer: [] })
    await db('knex_migrations').insert({ name: '900-later', batch: 9, migration_time: new Date() })
    await db.raw('alter table job add column later text')
    expect(await migrate(db)).toEqual({ ran: [], newer: ['900-later'] })
  })
}, 60_000)
