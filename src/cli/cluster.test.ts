import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** The cluster that bin/start keeps, in a folder of this test's own: damaged in every way, and looked at again. */
const folder = mkdtempSync(join(process.cwd(), '.spillway/test-cluster-'))
const lib = `source bin/lib/common.sh; trap - ERR`
const bash = (script: string) => {
  const done = spawnSync('bash', ['-c', `${lib}; ${script}`], {
    encoding: 'utf8',
    env: { ...process.env, SPILLWAY_STATE: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
    timeout: 60_000,
  })
  return { status: done.status, out: done.stdout.trim(), err: done.stderr.trim() }
}
const at = (path: string) => join(folder, path)
/** Where the cluster lies: here, or where only root may look, elsewhere. */
let home = ''
const beside = (path: string) => join(home, path)
const data = (path: string) => beside(`data/${path}`)
/** Starts, asks, stops: what the database holds. */
const said = (sql: string, fresh = '') =>
  bash(
    `need_cluster t "${fresh}" ours; start_cluster t; "$pg_bin/psql" -w -qtA -h 127.0.0.1 -p "$db_port" -U spillway -d postgres -c "${sql}"; stop_cluster`,
  )
const asides = () => readdirSync(home).filter(name => name.startsWith('data.aside-'))

beforeAll(() => {
  execFileSync('chmod', ['711', folder])
  home = bash('find_cluster t; echo "$cluster_home"').out
  expect(said('create table kept (n int); insert into kept values (7)')).toMatchObject({ status: 0 })
}, 60_000)
afterAll(() => {
  bash('find_cluster t; pg_bin=$(newest_pg_bin); stop_cluster; rm -rf "$cluster_home"')
  rmSync(folder, { recursive: true, force: true })
})

test.each([
  [
    'an empty password file',
    () => writeFileSync(at('t.password'), ''),
    /password .* missing; a new one is set/,
  ],
  ['no version file', () => rmSync(data('PG_VERSION')), /version file .* put back/],
  ['a port file of rubbish', () => writeFileSync(at('t.port'), 'no port\n'), /^$/],
])(
  '%s: mended with a word, and the data are there',
  (_, hurt, told) => {
    hurt()
    const done = said('select n from kept')
    expect(done).toMatchObject({ status: 0, out: '7' })
    expect(done.err).toMatch(told)
    expect(readFileSync(at('t.password'), 'utf8').length).toBeGreaterThan(20)
  },
  60_000,
)

test('another PostgreSQL’s data are told and left; so is what cannot be mended; nothing is removed', () => {
  const version = readFileSync(data('PG_VERSION'), 'utf8')
  writeFileSync(data('PG_VERSION'), '9.6\n')
  const foreign = said('select n from kept')
  expect(foreign.status).toBe(2)
  expect(foreign.err).toMatch(/written by PostgreSQL 9\.6, .*Nothing was touched/)
  writeFileSync(data('PG_VERSION'), version)
  execFileSync('mv', [data('global'), beside('global')])
  const damaged = said('select n from kept')
  expect(damaged.status).toBe(2)
  expect(damaged.err).toMatch(/looks damaged: .*Nothing was removed.*--fresh/)
  execFileSync('mv', [beside('global'), data('global')])
  expect(said('select n from kept').out).toBe('7')
}, 60_000)

test('--fresh sets what cannot be opened aside, and keeps the last two', () => {
  for (let n = 0; n < 3; n++) {
    rmSync(data('global/pg_control'))
    expect(said('select 1', 'yes').err).toMatch(/set aside as/)
    execFileSync('sleep', ['1.1'])
  }
  expect(asides()).toHaveLength(2)
  expect(readdirSync(beside(asides()[0] ?? ''))).toContain('base')
}, 90_000)
