import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** A cluster as bin/serve keeps it, backed up while it serves, and brought back: to the end, and to a point in time. */
const folder = mkdtempSync(join(process.cwd(), '.spillway/test-backup-'))
const env = { ...process.env, SPILLWAY_STATE: folder, SPILLWAY_DEMO: '' }
const bash = (script: string) => {
  const done = spawnSync('bash', ['-c', `source bin/lib/common.sh; trap - ERR; ${script}`], {
    encoding: 'utf8',
    env,
    timeout: 120_000,
  })
  return { status: done.status, out: done.stdout.trim(), err: done.stderr.trim() }
}
const pathOf = (program: string) => `bin/${program}`
const bin = (program: string, ...args: string[]) => {
  const done = spawnSync(pathOf(program), args, { encoding: 'utf8', env, timeout: 120_000 })
  return { status: done.status, said: done.stderr.trim() }
}
const up = `need_cluster pg; need_archive; need_secret; start_cluster pg`
const ask = (sql: string) =>
  bash(`${up}; "$pg_bin/psql" -w -qtAX -h 127.0.0.1 -p "$db_port" -U spillway -d spillway -c "${sql}"`).out
let home = ''
const bases = () => readdirSync(join(home, 'backup')).filter(n => n.startsWith('base-'))
const sumIn = (said: string) => /sum (\w+)/.exec(said)?.[1]

beforeAll(() => {
  execFileSync('chmod', ['711', folder])
  home = bash('find_cluster pg; echo "$cluster_home"').out
  const made = bash(
    `${up}; "$pg_bin/psql" -w -q -h 127.0.0.1 -p "$db_port" -U spillway -d postgres -c 'create database spillway'`,
  )
  expect(made).toMatchObject({ status: 0 })
  ask('create table job (n int primary key, at timestamptz default now()); create table job_change (n int)')
  ask('insert into job select generate_series(1, 1000)')
}, 120_000)
afterAll(() => {
  bash('find_cluster pg; pg_bin=$(newest_pg_bin); stop_cluster; rm -rf "$cluster_home"')
  rmSync(folder, { recursive: true, force: true })
})

test('a base and the archive bring back what was there: at the end, and as it stood before a mistake', () => {
  expect(bin('backup')).toMatchObject({ status: 0, said: expect.stringMatching(/backed up: base-/) })
  ask('insert into job select generate_series(1001, 1500)')
  const before = ask('select clock_timestamp()')
  ask('select pg_sleep(0.05)')
  ask('delete from job where n > 100')
  ask('select pg_switch_wal()')
  ask('checkpoint')
  const mistaken = bin('restore', '--try', '--at', before)
  expect(mistaken).toMatchObject({ status: 0, said: expect.stringMatching(/1500 jobs/) })
  const atEnd = bin('backup', '--verify')
  expect(atEnd.said).toMatch(/verified: .* 100 jobs/)
  // what serves was left alone by all this
  expect(ask('select count(*) from job')).toBe('100')
  // brought back for good: the same rows by their sum, what was there set aside
  bash('find_cluster pg; pg_bin=$(newest_pg_bin); stop_cluster')
  const back = bin('restore', '--at', before)
  expect([back.status, sumIn(back.said)]).toEqual([0, sumIn(mistaken.said)])
  expect(back.said).toMatch(/set aside as/)
  expect(ask('select count(*) from job')).toBe('1500')
  expect(sumIn(mistaken.said)).not.toBe(sumIn(atEnd.said))
}, 240_000)

test('a night makes one base, looked through; asked again it makes none until the next', () => {
  const before = bases().length
  const aged = (days: number) =>
    bash(
      `find_cluster pg; cd "$cluster_home/backup"; for b in base-*; do mv "$b" "$(date -u -d "-${days} days" +base-%Y%m%dT%H%M%SZ)"; done`,
    )
  if (before > 1) throw new Error('one base was expected')
  aged(2)
  const made = bin('backup', '--nightly')
  expect(made.said).toMatch(/backed up: [\s\S]*verified: base-/)
  expect(bases()).toHaveLength(before + 1)
  expect(bin('backup', '--nightly')).toEqual({ status: 0, said: '' })
  expect(bases()).toHaveLength(before + 1)
}, 240_000)

test('a backup that is killed in the middle is none: the one before serves, and the next clears it away', async () => {
  bin('backup')
  const before = bases()
  for (const ms of [150, 350, 600]) {
    const child = spawn(pathOf('backup'), [], { env, detached: true, stdio: 'ignore' })
    await new Promise(resolve => setTimeout(resolve, ms))
    try {
      process.kill(-(child.pid ?? 0), 'SIGKILL')
    } catch {
      // it was done already
    }
    await new Promise(resolve =>
      child.exitCode === null && child.signalCode === null ? child.once('exit', resolve) : resolve(0),
    )
  }
  expect(bases().length).toBeGreaterThanOrEqual(before.length)
  // half a base, and half of what was written ahead, bear no name that counts
  execFileSync('mkdir', ['-p', join(home, 'backup/coming/global')])
  writeFileSync(join(home, 'archive/0000000F0000000000000001.coming'), 'half')
  expect(bin('backup', '--verify').said).toMatch(/verified:/)
  expect(bin('backup', '--keep', '2').status).toBe(0)
  expect([bases().length, existsSync(join(home, 'backup/coming'))]).toEqual([2, false])
}, 240_000)

test('a base whose files were cut is told, and what cannot be is said before anything is touched', () => {
  const [newest = ''] = bases().slice(-1)
  const relation = bash(`find "${home}/backup/${newest}/base" -size +100k -type f | head -1`).out
  truncateSync(relation, 1000)
  const verified = bash(`"$(newest_pg_bin)/pg_verifybackup" -q "${home}/backup/${newest}"`)
  expect(verified.status).not.toBe(0)
  for (const [args, told] of [
    [['--at', 'yesterdayish'], /--at takes a time/],
    [['--base', '../../etc'], /--base takes a name/],
    [['--at', '2001-01-01 00:00:00+00', '--try'], /no base that was whole by then/],
    [[], /stop bin\/serve first/],
  ] as const)
    expect(bin('restore', ...args)).toMatchObject({ status: 2, said: expect.stringMatching(told) })
}, 120_000)
