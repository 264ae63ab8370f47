import { execFile, spawnSync } from 'node:child_process'
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
/** Where a database of our own lies; missing: another's is used, and kept by whoever keeps it. */
const data = process.env.SPILLWAY_DATA
const pgBin = data ? need('SPILLWAY_PG_BIN') : ''
const dbPort = data ? need('SPILLWAY_DB_PORT') : ''
/** A web process for each of these; missing: one, on PORT. */
const ports = (process.env.SPILLWAY_WEB_PORTS ?? need('PORT')).split(',')
const workerCount = Number(process.env.SPILLWAY_WORKERS ?? 1)
/** The settings of a proxy of our own, which speaks TLS to the outside. */
const proxyConf = process.env.SPILLWAY_PROXY_CONF
const isRoot = process.getuid?.() === 0
const dev = process.argv.includes('--dev')
const uploads = join(state, 'uploads')
const serverId = (which: string) =>
  Number(spawnSync('id', [which, process.env.SPILLWAY_USER ?? ''], { encoding: 'utf8' }).stdout)
const address = process.env.SPILLWAY_ADDRESS ?? `http://127.0.0.1:${ports[0]}`

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
  clearTimeout(asksForBackup)
  // who still asks is answered before the proxy goes
  await Promise.all([...webs, ...workers].map(child => child.stop()))
  await proxy?.stop()
  await postgres?.stop()
  for (const name of ['run/start.pid', 'address']) rmSync(join(state, name), { force: true })
  process.exit(status)
}

const gaveUp = (name: string) => {
  say(`${name} died again and again; all of it is stopped. Its last words are in .spillway/logs/${name}.log`)
  void end(1)
}
const keeper = { state, say, gaveUp }

const freeMegabytes = (at: string) => {
  const found = statfsSync(at)
  return (found.bavail * found.bsize) / 1e6
}
let toldFull = 0
const isFull = async () => {
  const full = data !== undefined && freeMegabytes(data) < 20
  if (full && Date.now() - toldFull > 60_000) {
    toldFull = Date.now()
    say('the disk is full: the database comes back by itself when there is room')
  }
  return full
}

const postgres =
  data === undefined
    ? null
    : keep(
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
/** The first of several bears the plain name. */
const nth = (name: string, n: number) => (n ? `${name}-${n + 1}` : name)
const webs = ports.map((port, n) =>
  keep(
    {
      name: nth('web', n),
      command: as(
        asServer,
        'TERM',
        process.execPath,
        ...(dev ? [] : ['--max-old-space-size=2048']),
        'dist/cli/web.js',
        ...(dev ? ['--dev'] : []),
      ),
      env: {
        NODE_ENV: dev ? 'development' : 'production',
        SPILLWAY_UPLOADS: uploads,
        PORT: port,
        ...notTold,
      },
      signal: 'SIGTERM',
      graceMs: 8000,
    },
    keeper,
  ),
)
const workers = Array.from({ length: workerCount }, (_, n) =>
  keep(
    {
      name: nth('worker', n),
      command: as(asServer, 'TERM', process.execPath, 'dist/cli/main.js', 'work'),
      env: { NODE_ENV: 'production', ...notTold },
      signal: 'SIGTERM',
      graceMs: 8000,
    },
    keeper,
  ),
)
const proxy = proxyConf
  ? keep(
      {
        name: 'proxy',
        command: as([], 'TERM', '/usr/sbin/nginx', '-c', proxyConf),
        signal: 'SIGQUIT',
        graceMs: 8000,
      },
      keeper,
    )
  : null

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))
const databaseAnswers = () =>
  spawnSync(join(pgBin, 'pg_isready'), ['-q', '-t', '2', '-h', '127.0.0.1', '-p', dbPort]).status === 0

/** Any answer counts: a web process that says that its database is away is alive. */
const webAnswers = async (port: string) => {
  try {
    await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(4000) })
    return true
  } catch {
    return false
  }
}

/** A web process that answers nothing for so long is ended; it is started again as one that died. */
const longestSilenceMs = 10_000
const firstAnswerMs = 90_000
const heard = ports.map(() => 0)
const asking = new Set<number>()
async function watch(n: number): Promise<void> {
  const [web, port] = [webs[n], ports[n]]
  if (asking.has(n) || ending || !web?.isRunning() || port === undefined) return
  asking.add(n)
  if (await webAnswers(port)) heard[n] = Date.now()
  asking.delete(n)
  const last = heard[n] ?? 0
  const since = Math.max(last, web.startedAt())
  // one that has only begun is given the time that beginning takes
  const allowed = last < web.startedAt() ? firstAnswerMs : longestSilenceMs
  if (Date.now() - since > allowed && web.isRunning()) {
    heard[n] = Date.now()
    say(`${nth('web', n)} has not answered for ${allowed / 1000} s; ending it`)
    web.kill()
  }
}
let watching: ReturnType<typeof setInterval> | undefined

/** Asks for tonight's backup, which is made once a night; said where it is made, and where it fails. Its own lock keeps it single. */
const backingUp = () => {
  const [program = '', ...words] = as([], 'TERM', 'bin/backup', '--nightly')
  execFile(program, words, (error, _, said) => {
    const last = said.trim().split('\n').slice(-2).join('; ').replaceAll('spillway: ', '')
    if (error && !ending) say(`no backup was made: ${last || error.message}`)
    else if (last) kept.info(last)
  })
}
const firstBackupMs = 60_000
const askForBackupMs = 20 * 60_000
let asksForBackup: ReturnType<typeof setTimeout> | undefined
const nights = (inMs: number) => {
  asksForBackup = setTimeout(() => {
    backingUp()
    nights(askForBackupMs)
  }, inMs)
}

async function begin(): Promise<void> {
  mkdirSync(join(state, 'run'), { recursive: true })
  // what a killed run was reading goes; the folder belongs to those who read
  rmSync(uploads, { recursive: true, force: true })
  mkdirSync(uploads, { mode: 0o700 })
  if (process.env.SPILLWAY_USER && !dev) chownSync(uploads, serverId('-u'), serverId('-g'))
  writeFileSync(join(state, 'run/start.pid'), String(process.pid))
  postgres?.start()
  const until = Date.now() + 90_000
  while (postgres && !databaseAnswers()) {
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
  for (const child of [...webs, ...workers]) child.start()
  for (const [n, port] of ports.entries()) {
    while (!(await webAnswers(port))) {
      if (ending) return
      if (Date.now() - (webs[n]?.startedAt() ?? 0) > firstAnswerMs)
        throw new Error('the web server does not answer')
      await pause(150)
    }
    heard[n] = Date.now()
  }
  proxy?.start()
  writeFileSync(join(state, 'address'), address)
  process.stdout.write(`\nSpillway is ready: ${address}   (Ctrl-C stops it)\n`)
  if (process.env.SPILLWAY_BACKUPS === 'yes') nights(firstBackupMs)
  watching = setInterval(() => ports.forEach((_, n) => void watch(n)), 2000)
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
