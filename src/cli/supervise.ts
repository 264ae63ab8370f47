import { spawnSync } from 'node:child_process'
import { chownSync, mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pino from 'pino'
import { createStream } from 'rotating-file-stream'
import { keep, logSize } from './child'

/**
 * Keeps database, web and worker running, as bin/start has set them up: starts again what dies, with a limit and a word;
 * ends what answers nothing; stops all of them in order. Whatever kills this process ends them too.
 */

const need = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set: start with bin/start`)
  return value
}
const state = need('SPILLWAY_STATE')
const data = need('SPILLWAY_DATA')
const pgBin = need('SPILLWAY_PG_BIN')
const dbPort = need('SPILLWAY_DB_PORT')
const port = need('PORT')
const isRoot = process.getuid?.() === 0
const dev = process.argv.includes('--dev')
const uploads = join(state, 'uploads')
const serverId = (which: string) =>
  Number(spawnSync('id', [which, process.env.SPILLWAY_USER ?? ''], { encoding: 'utf8' }).stdout)
const address = `http://127.0.0.1:${port}`

mkdirSync(join(state, 'logs'), { recursive: true })
const log = createStream('keeper.log', { path: join(state, 'logs'), ...logSize })
// a full disk costs lines of the log, not the service
log.on('error', () => {})
const kept = pino({ base: { from: 'keeper' }, timestamp: pino.stdTimeFunctions.isoTime }, log)
/** On the terminal, and in the log: a word that nobody was there to read is not lost. */
const say = (what: string) => {
  process.stderr.write(`spillway: ${what}\n`)
  kept.warn(what)
}

/** A program that ends with this process, as somebody who may less where we are root. The lock of bin/start stays behind. */
const as = (who: string[], signal: string, ...command: string[]) => [
  'sh',
  '-c',
  'exec 9>&-; exec "$@"',
  'sh',
  'setpriv',
  '--pdeathsig',
  signal,
  ...who,
  ...command,
]
const user = (name: string, ...more: string[]) => [
  `--reuid=${name}`,
  `--regid=${name}`,
  '--clear-groups',
  ...more,
]
const asPostgres = isRoot ? user('postgres') : []
// a developer's server writes what it builds as the developer
const asServer =
  process.env.SPILLWAY_USER && !dev
    ? user(process.env.SPILLWAY_USER, ...(process.env.SPILLWAY_USER_CAPS ?? '').split(' ').filter(Boolean))
    : []

let ending = false
async function end(status: number): Promise<void> {
  if (ending) return
  ending = true
  clearInterval(watching)
  await Promise.all([web.stop(), worker.stop()])
  await postgres.stop()
  for (const name of ['run/start.pid', 'address']) rmSync(join(state, name), { force: true })
  process.exit(status)
}

const gaveUp = (name: string) => {
  say(`${name} died again and again; all of it is stopped. Its last words are in .spillway/logs/${name}.log`)
  void end(1)
}
const keeper = { state, say, gaveUp }

const freeMegabytes = () => {
  const at = statfsSync(data)
  return (at.bavail * at.bsize) / 1e6
}
let toldFull = 0
const isFull = async () => {
  const full = freeMegabytes() < 20
  if (full && Date.now() - toldFull > 60_000) {
    toldFull = Date.now()
    say('the disk is full: the database comes back by itself when there is room')
  }
  return full
}

const postgres = keep(
  {
    name: 'postgres',
    command: as(
      asPostgres,
      'INT',
      join(pgBin, 'postgres'),
      '-D',
      data,
      '-p',
      dbPort,
      '-c',
      'listen_addresses=127.0.0.1',
      '-c',
      'unix_socket_directories=',
    ),
    signal: 'SIGINT',
    graceMs: 60_000,
    forgiven: isFull,
    // told to stop by somebody else, it would wait for us to leave and answer nothing: it is to stop at once, and comes back
    hears: line => (/received smart shutdown request/.test(line) ? 'SIGINT' : null),
  },
  keeper,
)
/** What the servers are not told: how the owner of the database comes in. */
const notTold = { SPILLWAY_OWNER_URL: '', PGPASSWORD: '' }
const web = keep(
  {
    name: 'web',
    command: as(
      asServer,
      'TERM',
      process.execPath,
      ...(dev ? [] : ['--max-old-space-size=2048']),
      'dist/cli/web.js',
      ...(dev ? ['--dev'] : []),
    ),
    env: { NODE_ENV: dev ? 'development' : 'production', SPILLWAY_UPLOADS: uploads, ...notTold },
    signal: 'SIGTERM',
    graceMs: 8000,
  },
  keeper,
)
const worker = keep(
  {
    name: 'worker',
    command: as(asServer, 'TERM', process.execPath, 'dist/cli/main.js', 'work'),
    env: { NODE_ENV: 'production', ...notTold },
    signal: 'SIGTERM',
    graceMs: 8000,
  },
  keeper,
)

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))
const databaseAnswers = () =>
  spawnSync(join(pgBin, 'pg_isready'), ['-q', '-t', '2', '-h', '127.0.0.1', '-p', dbPort]).status === 0

/** Any answer counts: a web process that says that its database is away is alive. */
const webAnswers = async () => {
  try {
    await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(4000) })
    return true
  } catch {
    return false
  }
}

/** A web process that answers nothing for so long is ended; it is started again as one that died. */
const longestSilenceMs = 10_000
const firstAnswerMs = 90_000
let heard = 0
let asking = false
async function watch(): Promise<void> {
  if (asking || ending || !web.isRunning()) return
  asking = true
  if (await webAnswers()) heard = Date.now()
  asking = false
  const since = Math.max(heard, web.startedAt())
  // one that has only begun is given the time that beginning takes
  const allowed = heard < web.startedAt() ? firstAnswerMs : longestSilenceMs
  if (Date.now() - since > allowed && web.isRunning()) {
    heard = Date.now()
    say(`web has not answered for ${allowed / 1000} s; ending it`)
    web.kill()
  }
}
let watching: ReturnType<typeof setInterval> | undefined

async function begin(): Promise<void> {
  mkdirSync(join(state, 'run'), { recursive: true })
  // what a killed run was reading goes; the folder belongs to those who read
  rmSync(uploads, { recursive: true, force: true })
  mkdirSync(uploads, { mode: 0o700 })
  if (process.env.SPILLWAY_USER && !dev) chownSync(uploads, serverId('-u'), serverId('-g'))
  writeFileSync(join(state, 'run/start.pid'), String(process.pid))
  postgres.start()
  const until = Date.now() + 90_000
  while (!databaseAnswers()) {
    if (Date.now() > until) throw new Error('the database does not answer; see .spillway/logs/postgres.log')
    await pause(100)
  }
  const prepared = spawnSync(process.execPath, ['dist/cli/main.js', 'database'], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  // what was migrated, healed or set aside
  process.stdout.write(prepared.stdout)
  kept.info(prepared.stdout.trim())
  if (prepared.status !== 0) throw new Error('the database could not be brought up to date')
  web.start()
  worker.start()
  while (!(await webAnswers())) {
    if (ending) return
    if (Date.now() - web.startedAt() > firstAnswerMs) throw new Error('the web server does not answer')
    await pause(150)
  }
  heard = Date.now()
  writeFileSync(join(state, 'address'), address)
  process.stdout.write(`\nSpillway is ready: ${address}   (Ctrl-C stops it)\n`)
  watching = setInterval(() => void watch(), 2000)
}

process.once('SIGINT', () => void end(130))
process.once('SIGTERM', () => void end(143))
process.once('SIGHUP', () => void end(129))
process.on('uncaughtException', error => {
  say(`the keeper of the servers failed: ${error.message}`)
  void end(1)
})
begin().catch((error: Error) => {
  say(error.message)
  void end(1)
})
