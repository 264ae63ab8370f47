import { type ChildProcess, spawn } from 'node:child_process'
import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import pino from 'pino'
import { createStream } from 'rotating-file-stream'
import { restartAfter } from './restarts'

/** What keeps a child: where its pid and log stand, and whom to tell. */
export interface Keeper {
  state: string
  say: (what: string) => void
  /** what died is not started again */
  gaveUp: (name: string) => void
}

export interface Spec {
  name: string
  command: string[]
  env?: Record<string, string>
  /** how it is asked to end */
  signal: NodeJS.Signals
  /** how long it may take to end, ms */
  graceMs: number
  /** whether a death counts: a database on a full disk is tried again for as long as it takes */
  forgiven?: () => Promise<boolean>
  /** a line of its own log that calls for a signal */
  hears?: (line: string) => NodeJS.Signals | null
}

export interface Child {
  start: () => void
  stop: () => Promise<void>
  kill: () => void
  isRunning: () => boolean
  startedAt: () => number
}

export const logSize = { size: '8M', maxFiles: 5 } as const

/** A line that a server of ours wrote is JSON already; any other is put into words of the same shape. */
const isEvent = (line: string) => line.startsWith('{"level"')

/** Runs a program, keeps its pid and its log, and starts it again when it dies. */
export function keep({ name, command, env, signal, graceMs, forgiven, hears }: Spec, keeper: Keeper): Child {
  const file = createStream(`${name}.log`, { path: join(keeper.state, 'logs'), ...logSize })
  // a full disk costs lines of the log, not the service
  file.on('error', () => {})
  const wrapped = pino({ base: { from: name }, timestamp: pino.stdTimeFunctions.isoTime }, file)
  const pidFile = join(keeper.state, 'run', `${name}.pid`)
  const deaths: number[] = []
  let running: ChildProcess | null = null
  let ended: Promise<void> = Promise.resolve()
  let stopping = false
  let startedAt = 0
  let waiting: ReturnType<typeof setTimeout> | undefined

  const write = (pid: number | undefined) => {
    try {
      if (pid) writeFileSync(pidFile, String(pid))
      else rmSync(pidFile, { force: true })
    } catch {
      // told by whatever else needs the disk
    }
  }

  const died = async (how: string) => {
    running = null
    write(undefined)
    if (stopping) return
    deaths.push(Date.now())
    wrapped.error({ how }, 'died')
    if (await forgiven?.()) {
      deaths.length = 0
      waiting = setTimeout(start, 5000)
      return
    }
    // an attack of our own kills more often than anything fails
    const after = restartAfter(deaths) ?? (process.env.SPILLWAY_PATIENT ? 0 : null)
    if (after === null) return keeper.gaveUp(name)
    keeper.say(`${name} died (${how}); starting it again`)
    waiting = setTimeout(start, after)
  }

  function start() {
    if (stopping) return
    startedAt = Date.now()
    const [program = '', ...args] = command
    const child = spawn(program, args, {
      // a group of its own: Ctrl-C reaches the keeper alone, who ends them in order
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    })
    running = child
    write(child.pid)
    for (const stream of [child.stdout, child.stderr])
      createInterface({ input: stream }).on('line', line => {
        if (isEvent(line)) file.write(`${line}\n`)
        else wrapped.info(line)
        const answer = hears?.(line)
        if (answer) child.kill(answer)
      })
    ended = new Promise(resolve => {
      child.once('error', error => {
        void died(error.message)
        resolve()
      })
      child.once('exit', (code, by) => {
        void died(by ?? `exit ${code}`)
        resolve()
      })
    })
  }

  return {
    start,
    stop: async () => {
      stopping = true
      clearTimeout(waiting)
      const child = running
      if (!child) return
      child.kill(signal)
      const cut = setTimeout(() => child.kill('SIGKILL'), graceMs)
      await ended
      clearTimeout(cut)
    },
    kill: () => running?.kill('SIGKILL'),
    isRunning: () => running !== null,
    startedAt: () => startedAt,
  }
}
