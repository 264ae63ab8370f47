import { readdirSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { gunzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import sharp from 'sharp'
import { closeDb } from '../../src/server/db/connection'
import { createJob } from '../../src/server/jobs/repository'
import { listPeople } from '../../src/server/people/repository'
import { type Actor, servedFirm } from '../../src/server/people/types'
import { alderHollow, saltmarshLane } from '../../src/server/seeds/jobs'
import { enter } from '../enter'
import { chance } from './chance'
import { ask, asTheProxyDoes, comeIn, counts, edits } from './client'
import { openFirm, password } from './firms'
import { mutated, mutatedBytes, mutatedText } from './mutate'
import { audit } from './replay'

/** Attacks a server of its own and prints what held: see README. Bounded in count and time, loopback only. */
const { values } = parseArgs({
  options: {
    kills: { type: 'string', default: '200' },
    people: { type: 'string', default: '200' },
    minutes: { type: 'string', default: '10' },
    inputs: { type: 'string', default: '10000' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string', default: 'inputs,users,one,cellar,kills' },
  },
})
const url = process.env.SPILLWAY_URL ?? ''
const state = process.env.SPILLWAY_STATE ?? ''
const seed = Number(values.seed)
const parts = values.only.split(',')
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))
const pidOf = (name: string) => Number(readFileSync(`${state}/run/${name}.pid`, 'utf8'))
const tell = (what: string, figures: object) =>
  console.log(
    `${what}: ${Object.entries(figures)
      .map(([k, v]) => `${k} ${typeof v === 'object' ? JSON.stringify(v) : v}`)
      .join(', ')}`,
  )
const memoryMB = () =>
  Math.round(
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pidOf('web')}/status`, 'utf8'))?.[1] ?? 0) / 1000,
  )

let actor: Actor
const newJobs = (count: number) =>
  Promise.all(Array.from({ length: count }, () => createJob(actor, alderHollow, 'for torture', new Date())))

/** Documents, operations, answers and files, changed for the worse, from eight senders at once. */
async function inputs(total: number) {
  const [jobId = ''] = await newJobs(1)
  const made = await ask(url, `/api/jobs/${jobId}/links`, { body: { do: 'make' } })
  const { token } = made.body as { token: string }
  const catalogue = (await ask(url, '/api/equipment')).body as { equipment: object[] }
  const operation = { op: 'editCircuit', circuitId: 'c7', facts: { label: 'x', breakerA: 20 } }
  const xml = gunzipSync(readFileSync('src/server/seeds/files/alder-hollow.xml.gz')).subarray(0, 90_000)
  const csv = Buffer.from(
    `Start,kWh\n${Array.from({ length: 900 }, (_, n) => `2026-01-${String(1 + (n % 28)).padStart(2, '0')} ${String(n % 24).padStart(2, '0')}:00,0.${n}`).join('\n')}`,
  )
  const picture = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#aa8866' } })
    .jpeg()
    .toBuffer()
  const round = async (n: number, many: number) => {
    const told = {
      statuses: {} as Record<string, number>,
      slowestMs: 0,
      largestKB: 0,
      errors: [] as string[],
    }
    let left = many
    const sender = async (who: number) => {
      const c = chance(seed * 1000 + n * 10 + who)
      while (left-- > 0) {
        const [path, init] = c.pick([
          () => ['/api/jobs/import', { body: mutated(c.pick([alderHollow, saltmarshLane]), c) }] as const,
          () => ['/api/jobs/import', { text: mutatedText(JSON.stringify(alderHollow), c) }] as const,
          () =>
            [
              `/api/jobs/${jobId}/changes`,
              {
                body: mutated(
                  { baseRevision: 1, changes: [{ id: crypto.randomUUID(), kind: 'do', operation }] },
                  c,
                ),
              },
            ] as const,
          () =>
            [
              `/api/for/${token}`,
              { body: mutated({ key: 'photo:wall', text: 'left of the door' }, c) },
            ] as const,
          () =>
            [
              '/api/equipment',
              { body: mutated({ act: 'put', item: c.pick(catalogue.equipment), from: 1 }, c) },
            ] as const,
          () =>
            [
              '/api/equipment',
              {
                body: {
                  act: 'import',
                  format: c.pick(['csv', 'json']),
                  text: mutatedText(JSON.stringify(catalogue.equipment), c).slice(0, 900_000),
                },
              },
            ] as const,
          () => [`/api/jobs/${jobId}/search`, { body: mutated({ act: 'cancel' }, c) }] as const,
          () => [`/api/jobs/${jobId}/photos`, { bytes: mutatedBytes(picture, c) }] as const,
          () =>
            [
              `/api/jobs/${jobId}/interval-data?name=x`,
              { bytes: mutatedBytes(c.pick([xml, csv]), c) },
            ] as const,
          () =>
            [
              `/api/jobs?q=${encodeURIComponent(c.pick(['\0', '%', 'x'.repeat(3000), '👩‍🔧']))}&page=${c.pick(['-1', '1e9', 'x'])}`,
              {},
            ] as const,
        ])()
        const answer = await ask(url, path, init)
        told.statuses[answer.status] = (told.statuses[answer.status] ?? 0) + 1
        told.slowestMs = Math.max(told.slowestMs, Math.round(answer.ms))
        if (answer.status >= 400)
          told.largestKB = Math.max(told.largestKB, Math.round(JSON.stringify(answer.body).length / 1000))
        if (answer.status === 0 || (answer.status >= 500 && answer.status !== 503))
          told.errors.push(
            `${answer.status} ${path.slice(0, 60)} ${JSON.stringify(answer.body).slice(0, 120)}`,
          )
      }
    }
    await Promise.all(Array.from({ length: 8 }, (_, who) => sender(who)))
    return told
  }
  for (let n = 0; n < 3; n++) {
    const pid = pidOf('web')
    const told = await round(n, Math.ceil(total / 3))
    tell(`mutated inputs, round ${n + 1}`, {
      ...told,
      deaths: pidOf('web') === pid ? 0 : 1,
      memoryMB: memoryMB(),
    })
  }
}

/** Two hundred people who open pages and edit jobs of their own, without a pause. */
async function users(people: number) {
  const jobs = await newJobs(people)
  const until = Date.now() + 30_000
  const statuses: Record<string, number> = {}
  let slowest = 0
  await Promise.all(
    jobs.map(async (id, n) => {
      const c = chance(seed + n)
      for (let revision = 1; Date.now() < until; ) {
        const answer = await ask(url, c.pick([`/jobs/${id}/panel`, `/api/jobs/${id}`, '/api/jobs']))
        const write = await ask(url, `/api/jobs/${id}/changes`, {
          body: {
            baseRevision: revision,
            changes: [
              {
                id: crypto.randomUUID(),
                kind: 'do',
                operation: { op: 'setOutage', facts: { hours: 1 + c.below(600) } },
              },
            ],
          },
        })
        if (write.status === 200) revision++
        for (const { status, ms } of [answer, write]) {
          statuses[status] = (statuses[status] ?? 0) + 1
          slowest = Math.max(slowest, Math.round(ms))
        }
      }
    }),
  )
  tell(`${people} users for 30 s`, { statuses, slowestMs: slowest, memoryMB: memoryMB() })
}

/** Time that a machine was promised and another got, and all of its time, in ticks; a machine of its own has none of the first. */
function stolen(): [stolen: number, all: number] {
  const ticks = (readFileSync('/proc/stat', 'utf8').split('\n', 1)[0] ?? '')
    .split(/\s+/)
    .slice(1, 9)
    .map(Number)
  return [ticks[7] ?? 0, ticks.reduce((sum, n) => sum + n, 0)]
}

/** Many people at their ordinary work: each on a job of their own, a change every twelve seconds or so, a look at something every forty. */
async function office(people: number, minutes: number) {
  asTheProxyDoes()
  const firms = await Promise.all(Array.from({ length: 8 }, (_, n) => openFirm(url, n)))
  const of = (n: number) => firms[n % firms.length] as (typeof firms)[number]
  const jobs: string[] = []
  for (let n = 0; n < people; n++) jobs.push(await createJob(of(n).actor, alderHollow, 'at work', new Date()))
  const until = Date.now() + minutes * 60_000
  const spent: Record<string, number[]> = { change: [], look: [], 'sign-in': [] }
  const statuses: Record<string, number> = {}
  const from = Date.now()
  const minutesOf: number[][] = []
  const robbed: string[] = []
  let before = stolen()
  const watching = setInterval(() => {
    const now = stolen()
    robbed.push((((now[0] - before[0]) / (now[1] - before[1])) * 100).toFixed(0))
    before = now
  }, 60_000)
  const timed = async (what: string, ...asked: Parameters<typeof ask>) => {
    const answer = await ask(...asked)
    const minute = Math.floor((Date.now() - from) / 60_000)
    minutesOf[minute] ??= []
    minutesOf[minute].push(answer.ms)
    spent[what]?.push(answer.ms)
    statuses[answer.status] = (statuses[answer.status] ?? 0) + 1
    return answer
  }
  await Promise.all([
    ...jobs.map(async (id, n) => {
      const c = chance(seed * 31 + n)
      const as = of(n).cookie
      // neighbours’ first draws lie close together: people come one by one, not all at once
      await pause((n / people) * 12_500)
      for (let skipped = 0; skipped < 5 + (n % 7); skipped++) c.real()
      for (let revision = 1; Date.now() < until; await pause(5000 + c.below(15_000))) {
        const operation = { op: 'setOutage', facts: { hours: 1 + c.below(600) } }
        const { status } = await timed('change', url, `/api/jobs/${id}/changes`, {
          body: { baseRevision: revision, changes: [{ id: crypto.randomUUID(), kind: 'do', operation }] },
          as,
        })
        if (status === 200) revision++
        if (c.below(3) === 0)
          await timed(
            'look',
            url,
            c.pick([`/jobs/${id}/panel`, `/api/jobs/${id}`, '/jobs', '/api/jobs?q=alder']),
            {
              as,
            },
          )
      }
    }),
    (async () => {
      for (let n = 0; Date.now() < until; n++) {
        await pause(6000)
        await timed('sign-in', url, '/api/auth/sign-in/email', {
          body: { email: of(n).email, password },
          as: 'none=none',
        })
      }
    })(),
  ])
  const figures = Object.entries(spent).map(([what, all]) => {
    all.sort((a, b) => a - b)
    const at = (share: number) => Math.round(all[Math.floor((all.length - 1) * share)] ?? 0)
    return [
      what,
      `${all.length}, median ${at(0.5)} ms, 95th ${at(0.95)} ms, 99th ${at(0.99)} ms, longest ${at(1)} ms`,
    ]
  })
  tell(`${people} people for ${minutes} min`, {
    ...Object.fromEntries(figures),
    statuses,
    memoryMB: memoryMB(),
  })
  const slow = minutesOf.map(all => Math.round(all.sort((a, b) => a - b)[Math.floor(all.length * 0.99)] ?? 0))
  clearInterval(watching)
  console.log(`  99th by the minute: ${slow.join(', ')} ms; taken by other machines: ${robbed.join(', ')} %`)
}

/** Many clients, and what became of what they were told is saved. */
async function editing(
  what: string,
  jobCount: number,
  clients: number,
  firms: readonly { actor: Actor; cookie: string }[],
  during: (ended: () => void) => Promise<object>,
) {
  const of = (n: number) => firms[n % firms.length]
  const jobs = await Promise.all(
    Array.from({ length: jobCount }, (_, n) =>
      createJob(of(n)?.actor ?? actor, alderHollow, 'for torture', new Date()),
    ),
  )
  const told = counts()
  let going = true
  const screens = Array.from({ length: clients }, (_, n) =>
    edits(url, jobs[n % jobCount] ?? '', chance(seed * 77 + n), told, () => going, {
      as: of(n % jobCount)?.cookie,
      ...(firms.length > 1 && { foreign: jobs[(n + 1) % jobCount] }),
    }),
  )
  const more = await during(() => {
    going = false
  })
  going = false
  await Promise.all(screens)
  const { tries, conflicts, refused, serverErrors, foreignAsked, foreignSeen } = told
  tell(what, {
    ...more,
    tries,
    conflicts,
    refused: refused.length,
    serverErrors: serverErrors.length,
    ...(foreignAsked && { foreignAsked, foreignSeen }),
    ...(await audit(jobs, told, alderHollow)),
  })
  for (const line of [...refused, ...serverErrors].slice(0, 5)) console.log(`  ${line}`)
}

async function kills(total: number) {
  const c = chance(seed)
  const names = readdirSync(`${state}/run`)
    .filter(file => file.endsWith('.pid') && file !== 'start.pid')
    .map(file => file.slice(0, -4))
  const firms = await Promise.all([1, 2, 3, 4].map(n => openFirm(url, n)))
  const what = `${total} kills of ${names.join(', ')} while 20 clients of 4 firms edit`
  await editing(what, 8, 20, firms, async () => {
    const done: Record<string, number> = Object.fromEntries(names.map(name => [name, 0]))
    const until = Date.now() + total * 10_000
    for (let n = 0; n < total && Date.now() < until; ) {
      await pause(400 + c.below(2200))
      const name = c.pick(names)
      try {
        process.kill(pidOf(name), c.pick(['SIGKILL', 'SIGKILL', 'SIGTERM']))
        done[name] = (done[name] ?? 0) + 1
        n++
      } catch {
        // it is just being started again
      }
    }
    return { kills: done }
  })
}

/** Every breaker of a panel traced by phone, while the connection comes and goes. */
async function cellar() {
  const id = await createJob(actor, saltmarshLane, 'for torture', new Date())
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    storageState: (await enter(url)).storageState,
  })
  const page = await context.newPage()
  const faults: string[] = []
  page.on('pageerror', error => faults.push(error.message))
  await page.goto(`${url}/jobs/${id}/trace`)
  await page.getByText('Kept on this device').waitFor()
  const c = chance(seed)
  let traced = 0
  let offline = false
  let reloads = 0
  for (let n = 0; n < 60; n++) {
    if (c.real() < 0.5) {
      offline = !offline
      await context.setOffline(offline)
    }
    if (c.real() < 0.15) {
      reloads++
      await page.reload()
      // what is painted before it is alive takes no tap
      await page.locator('[data-live=true]').waitFor()
    }
    const nothing = page.getByRole('button', { name: 'Nothing died', exact: true })
    if (!(await nothing.isVisible())) break
    await nothing.click()
    traced++
    await pause(c.below(150))
  }
  await context.setOffline(false)
  await page.locator('[data-state=saved]').waitFor()
  await browser.close()
  const { body } = await ask(url, `/api/jobs/${id}?since=1`)
  const { record, since } = body as {
    record: { job: { panels: { circuits: { traced?: object }[] }[] } }
    since: { sentence: string }[]
  }
  const sentences = since.map(r => r.sentence).filter(s => s.startsWith('traced'))
  tell('tracing with a connection that comes and goes', {
    traced,
    reloads,
    kept: record.job.panels.flatMap(p => p.circuits).filter(circuit => circuit.traced).length,
    written: sentences.length,
    doubled: sentences.length - new Set(sentences).size,
    faults,
  })
}

async function main() {
  const [first] = await listPeople(servedFirm)
  if (!first) throw new Error('no demo firm')
  actor = first
  await comeIn(url)
  if (parts.includes('inputs')) await inputs(Number(values.inputs))
  if (parts.includes('users')) await users(200)
  if (parts.includes('office')) await office(Number(values.people), Number(values.minutes))
  if (parts.includes('one'))
    await editing('50 clients on one job for 30 s', 1, 50, [], async () => {
      await pause(30_000)
      return {}
    })
  if (parts.includes('cellar')) await cellar()
  if (parts.includes('kills')) await kills(Number(values.kills))
  await closeDb()
}
main().catch(error => {
  console.error(error)
  process.exit(1)
})
