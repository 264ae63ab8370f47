import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from './test'

/** The keeper of the servers, with a database and a port of its own. */
let state = ''
const script = `source bin/lib/common.sh; trap - ERR
need_cluster pg '' ours; need_secret; need_server_user
export PORT=$(free_port) SPILLWAY_DATA=$cluster_home/data SPILLWAY_PG_BIN=$pg_bin SPILLWAY_DB_PORT=$db_port
exec node dist/cli/supervise.js`
let keeper: ChildProcess | undefined
let said = ''
let address = ''

test.beforeAll(async () => {
  test.setTimeout(120_000)
  state = mkdtempSync(join(process.cwd(), '.spillway/test-keeper-'))
  execFileSync('chmod', ['711', state])
  keeper = spawn('bash', ['-c', script], {
    env: { ...process.env, SPILLWAY_STATE: state },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  keeper.stderr?.on('data', text => {
    said += text
  })
  keeper.stdout?.on('data', text => {
    said += text
  })
  await expect.poll(() => /ready: (\S+)/.exec(said)?.[1], { timeout: 110_000 }).toBeTruthy()
  address = /ready: (\S+)/.exec(said)?.[1] ?? ''
})
test.afterAll(() => {
  keeper?.kill('SIGKILL')
  execFileSync('bash', ['-c', 'source bin/lib/common.sh; find_cluster pg; rm -rf "$cluster_home"'], {
    env: { ...process.env, SPILLWAY_STATE: state },
  })
  rmSync(state, { recursive: true, force: true })
})

/** 0 while it is just being started again. */
const pid = (name: string) => {
  const file = join(state, 'run', `${name}.pid`)
  return existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0
}
const lives = (id: number) => {
  try {
    return !/^Z/.test(execFileSync('ps', ['-o', 'state=', '-p', String(id)], { encoding: 'utf8' }).trim())
  } catch {
    return false
  }
}
const healthy = () =>
  fetch(`${address}/api/health`, { signal: AbortSignal.timeout(3000) })
    .then(async r => (await r.json()).ok)
    .catch(() => false)

test('what dies is started again with a word; a web process that answers nothing is ended; the logs go on', async () => {
  test.setTimeout(120_000)
  const owner = (name: string) =>
    execFileSync('ps', ['-o', 'user=', '-p', String(pid(name))], { encoding: 'utf8' }).trim()
  // where the folder may be read by nobody else and no right to read can be given, it says so
  const mayNot = /the servers run as root/.test(said)
  for (const name of mayNot ? ['postgres'] : ['web', 'worker', 'postgres'])
    expect(owner(name)).not.toBe('root')
  const size = () => statSync(join(state, 'logs/web.log')).size
  const before = size()
  for (const [name, signal] of [
    ['web', 'SIGKILL'],
    ['worker', 'SIGKILL'],
    ['postgres', 'SIGKILL'],
    ['postgres', 'SIGTERM'],
    ['web', 'SIGSTOP'],
  ] as const) {
    const old = pid(name)
    process.kill(old, signal)
    await expect.poll(() => lives(old), { timeout: 40_000 }).toBe(false)
    await expect.poll(() => ![0, old].includes(pid(name)), { timeout: 20_000 }).toBe(true)
    await expect.poll(healthy, { timeout: 30_000 }).toBe(true)
  }
  expect(said).toMatch(/web died \(SIGKILL\); starting it again/)
  expect(said).toMatch(/web has not answered for 10 s; ending it/)
  expect(size()).toBeGreaterThan(before)
  const own = readFileSync(join(state, 'logs/keeper.log'), 'utf8')
  for (const told of [/database ready/, /web died \(SIGKILL\)/]) expect(own).toMatch(told)
})

test('whatever kills the keeper, nothing of it stays behind', async () => {
  const all = ['web', 'worker', 'postgres'].map(name => [name, pid(name)] as const)
  keeper?.kill('SIGKILL')
  await expect
    .poll(() => all.filter(([, id]) => lives(id)).map(([name]) => name), { timeout: 20_000 })
    .toEqual([])
})
