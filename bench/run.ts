import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { gzipSync } from 'node:zlib'
import { chromium, type Page } from '@playwright/test'
import { things } from '../src/core/ask/things'
import { understood, wantOf } from '../src/core/ask/want'
import { evaluate } from '../src/core/assess/evaluate'
import { landingProblem } from '../src/core/assess/landing'
import { circuitNeeds } from '../src/core/assess/needs'
import { solvePositions } from '../src/core/assess/positions'
import { testList } from '../src/core/commission'
import { standOfTests } from '../src/core/commission/stand'
import { costsOf } from '../src/core/estimate/costs'
import { optionOf } from '../src/core/estimate/document'
import { priced } from '../src/core/estimate/priced'
import { promiseOf } from '../src/core/estimate/promise'
import { usualTerms } from '../src/core/estimate/terms'
import { firstAnswer } from '../src/core/first/answer'
import { firstDesigns } from '../src/core/first/designs'
import { wiringSvg } from '../src/core/formats/wiring-svg'
import { loadSolver } from '../src/core/hookup/solver'
import { newJob } from '../src/core/job/new'
import { circuitsOf } from '../src/core/job/panels'
import type { Job } from '../src/core/job/schema'
import { library } from '../src/core/loads/library'
import { workOrder } from '../src/core/order'
import { deskFor, runDraws } from '../src/core/outage/chance'
import { planOf } from '../src/core/outage/plan'
import { traceOf } from '../src/core/outage/trace'
import { search } from '../src/core/search/search'
import { spaceOf } from '../src/core/search/space'
import { alone } from '../src/core/search/tasks'
import { wishesSchema } from '../src/core/search/wishes'
import { partsOfJob } from '../src/core/work/parts'
import { workOfJob } from '../src/core/work/parts/tasks'
import { wiringPlan } from '../src/core/work/wiring'
import { addEquipment } from '../src/server/catalogue/repository'
import { closeDb, ownerDb } from '../src/server/db/connection'
import { listJobs, listQuerySchema } from '../src/server/jobs/list'
import { createJob } from '../src/server/jobs/repository'
import { estimatePdf } from '../src/server/pdf/estimate'
import { wiringPdf } from '../src/server/pdf/wiring'
import { listPeople } from '../src/server/people/repository'
import { servedFirm } from '../src/server/people/types'
import { catalogue } from '../src/server/seeds/catalogue'
import { alderHollow, fernbrook, quarryRidge } from '../src/server/seeds/jobs'
import { firmMinutes, pricesFor } from '../src/server/seeds/prices'
import { proven } from '../src/server/seeds/proven'
import { accounts } from './accounts'
import { enter } from './enter'
import { landingJob, largestJob, plannedJob, wiredJob } from './job'
import { outageJob } from './outage-job'

const url = process.env.SPILLWAY_URL ?? ''
/** The session of the demo’s designer, entered once. */
let entered: ReturnType<typeof enter> | undefined
const signedIn = async () => {
  entered ??= enter(url)
  return (await entered).storageState
}
const ms = (value: number) => `${value.toFixed(1)} ms`
const at = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.ceil(values.length * share) - 1] ?? 0
const report = (what: string, values: number[], limit: string) =>
  console.log(
    `${what}: median ${ms(at(values, 0.5))}, 95th percentile ${ms(at(values, 0.95))} (limit ${limit})`,
  )

async function timed(count: number, act: () => unknown): Promise<number[]> {
  const times: number[] = []
  for (let i = 0; i < count; i++) {
    const from = performance.now()
    await act()
    times.push(performance.now() - from)
  }
  return times
}

const making = {
  library: library.map(typical => ({ typical, firms: false })),
  season: 'winter' as const,
  newId: () => randomUUID(),
}
const called = (text: string): Job => {
  const empty = newJob({ title: 'Bench', place: '', spaces: 40, mainA: 200 })
  const wants = understood(text, library)
    .slice(0, 40)
    .map(u => wantOf(u, making))
  return { ...empty, brief: { season: 'winter', wants }, outage: { ...empty.outage, hours: 36 } }
}
const frozen = {
  format: 1 as const,
  number: 'B-1',
  version: 1,
  firm: 'Bench',
  title: 'Bench',
  place: '',
  on: '2026-01-01',
  validUntil: '2026-01-31',
  intro: '',
  exclusions: usualTerms.exclusions,
  payment: usualTerms.payment,
  closing: usualTerms.closing,
}

/** What the page itself names is there before the screen answers; the engine, grids and charts come behind it. */
async function scripts(jobId: string) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const views = [
    'panel',
    'ask',
    'trace',
    'photos',
    'loads',
    'source',
    'hook-up',
    'outage',
    'findings',
    'wire',
    'parts',
    'first',
    'estimate',
    'work',
    'field',
    'tests',
    'prove',
  ]
  for (const path of [...views.map(v => `/jobs/${jobId}/${v}`), '/bench', '/equipment', '/jobs']) {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      storageState: await signedIn(),
    })
    const sizes: Promise<[name: string, size: number]>[] = []
    page.on('response', response => {
      const name = response.url().split('/').at(-1) ?? ''
      if (response.request().resourceType() === 'script')
        // what still comes when all is quiet belongs to no page any more
        sizes.push(
          response.body().then(
            body => [name, gzipSync(body).length],
            () => [name, 0],
          ),
        )
    })
    // what listens for news is never idle
    const listens = path.startsWith('/jobs/')
    const answer = await page.goto(url + path, { waitUntil: listens ? 'load' : 'networkidle' })
    const html = await answer?.text()
    if (listens) await page.waitForTimeout(4000)
    const all = await Promise.all(sizes)
    const kB = (of: typeof all) => (of.reduce((sum, [, size]) => sum + size, 0) / 1000).toFixed(0)
    const limit = path.endsWith('/panel') ? 360 : 480
    console.log(
      `script of ${path.split('/').at(-1)}: ${kB(all.filter(([name]) => html?.includes(name)))} kB gzipped in the page (limit ${limit}), ${kB(all)} kB with what comes behind`,
    )
    await page.close()
  }
  await browser.close()
}

/** Tells the tasks of the main thread that took longer than 50 ms since it was asked last. */
const tellingLongTasks = (page: Page) => async (when: string) => {
  const long = await page.evaluate((): number[] => Reflect.get(window, 'longTasks').splice(0))
  console.log(
    `tasks of the main thread over 50 ms while ${when}: ${long.length}${long.length ? `, longest ${ms(Math.max(...long))}` : ''}`,
  )
}

/** Taps four times a second, as fast as a person does, and reads when the browser had painted the answer. */
async function taps(jobId: string) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const page = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    storageState: await signedIn(),
  })
  await page.goto(`${url}/jobs/${jobId}/panel`)
  await page.locator('[data-live=true]').waitFor()
  // the browser's own Event Timing: from the hardware event to the next paint, in steps of 8 ms
  await page.evaluate(() => {
    const spent: number[] = []
    Reflect.set(window, 'spent', spent)
    new PerformanceObserver(list => {
      for (const entry of list.getEntries()) if (entry.name === 'click') spent.push(entry.duration)
    }).observe({ type: 'event', durationThreshold: 0 } as PerformanceObserverInit)
    const long: number[] = []
    Reflect.set(window, 'longTasks', long)
    new PerformanceObserver(list => {
      for (const entry of list.getEntries()) long.push(entry.duration)
    }).observe({ type: 'longtask' })
  })
  const longTasks = tellingLongTasks(page)
  const places = await page
    .locator('[data-space][aria-pressed]')
    .evaluateAll(all => all.map(e => e.getBoundingClientRect()).map(r => ({ x: r.x + 60, y: r.y + 12 })))
  const inSight = places.filter(place => place.y < 780)
  for (let i = 0; i < 120; i++) {
    const place = inSight[i % inSight.length]
    if (place) await page.mouse.click(place.x, place.y, { delay: 60 })
    await page.waitForTimeout(250)
  }
  const times = await page.evaluate((): number[] => Reflect.get(window, 'spent'))
  report('tap on a breaker to all figures painted, 42 positions, 60 loads', times, '50 ms')
  await longTasks('tapping')
  const [first] = inSight
  if (!first) throw new Error('no breaker in sight')
  for (let i = 0; i < 4; i++) {
    await page.mouse.move(first.x, first.y)
    await page.mouse.down()
    for (const place of inSight) await page.mouse.move(place.x, place.y, { steps: 4 })
    await page.keyboard.press('Escape')
    await page.mouse.up()
  }
  await longTasks('dragging over every breaker')
  await browser.close()
}

/** Until the first row of 2,000 can be read: pressed in the list of jobs, and by its address with every script fetched anew. */
async function openCatalogue() {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const ways = { pressed: [] as number[], byAddress: [] as number[] }
  for (let i = 0; i < 5; i++) {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      storageState: await signedIn(),
    })
    await page.goto(`${url}/jobs`, { waitUntil: 'networkidle' })
    // from the press to the frame that shows the row, by the browser's own clock
    const pressed = await page.evaluate(async () => {
      const from = performance.now()
      document.querySelector<HTMLElement>('a[href="/equipment"]')?.click()
      while (!document.querySelector('[role=gridcell] button') && performance.now() - from < 10_000)
        await new Promise(requestAnimationFrame)
      await new Promise(requestAnimationFrame)
      return performance.now() - from
    })
    await page.context().close()
    const fresh = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      storageState: await signedIn(),
    })
    const [byAddress] = await timed(1, async () => {
      await fresh.goto(`${url}/equipment`)
      await fresh.locator('[role=gridcell] button').first().waitFor()
    })
    await fresh.context().close()
    ways.pressed.push(pressed)
    ways.byAddress.push(byAddress ?? 0)
  }
  report('opening the catalogue of 2,000 items, pressed', ways.pressed, '1,000 ms')
  report('the same by its address, every script fetched anew', ways.byAddress, 'none')
  await browser.close()
}

/** The kernel and the search here in Node, on one core. */
async function simulation() {
  const planned = planOf(outageJob())
  if (!planned.ok) throw new Error('the bench has no plan')
  const plan = planned.value
  const desk = deskFor(plan)
  const draws = 500
  const circuitMinutes = plan.circuits.length * plan.hours * 60
  const times = await timed(4, () => runDraws(plan, 1, 0, draws, desk))
  const best = Math.min(...times)
  console.log(
    `kernel, ${plan.circuits.length} circuits, ${plan.hours} h by the minute, one core of ${availableParallelism()}: ${((draws * circuitMinutes) / best / 1000).toFixed(0)} million circuit-minutes a second, ${((draws * 1000) / best).toFixed(0)} draws a second`,
  )
  report('mean course with its account and flows', await timed(20, () => traceOf(plan, desk, 1)), '50 ms')
  report('plan of a job', await timed(50, () => planOf(outageJob())), 'none')
  for (const [name, job] of [
    ['24 circuits, 72 h', outageJob()],
    ['Alder Hollow', alderHollow],
  ] as const) {
    const space = spaceOf(job, catalogue, wishesSchema.parse({}))
    let found = 0
    const [ms = 0] = await timed(1, async () => {
      found = (await search(space, alone(space), { seed: 1, draws: 200 })).front.length
    })
    console.log(
      `search, ${name}: ${space.raw.toLocaleString('en-US')} raw designs, 200 draws in the finals, ${found} on the fronts: ${(ms / 1000).toFixed(1)} s on one core`,
    )
  }
}

/** The outage screen in Chromium: a thousand draws in its workers, a drag of a what-if, a search. */
async function outageScreen(jobId: string) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--enable-precise-memory-info'],
  })
  const page = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    storageState: await signedIn(),
  })
  // the compiler of this file names functions by a helper that the page does not have
  await page.addInitScript('globalThis.__name = f => f')
  await page.addInitScript(() => {
    const long: number[] = []
    Reflect.set(window, 'longTasks', long)
    new PerformanceObserver(list => {
      for (const entry of list.getEntries()) long.push(entry.duration)
    }).observe({ type: 'longtask' })
  })
  const session = await browser.newBrowserCDPSession()
  const renderersMB = async () => {
    const { processInfo } = await session.send('SystemInfo.getProcessInfo')
    return processInfo
      .filter(p => p.type === 'renderer')
      .map(p => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${p.id}/status`, 'utf8'))?.[1] ?? 0) / 1000)
      .reduce((a, b) => a + b, 0)
  }
  await page.goto(`${url}/jobs/${jobId}/findings`)
  await page.locator('[data-live=true]').waitFor()
  const withoutMB = await renderersMB()
  await page.goto(`${url}/jobs/${jobId}/outage`)
  await page.locator('[data-live=true]').waitFor()
  await page.locator('section[aria-label="Answer"][data-settled=true]').waitFor()
  console.log(
    `memory of the page and its workers over that of another view, after up to 1,000 draws, nothing collected: ${((await renderersMB()) - withoutMB).toFixed(0)} MB (limit 100 MB)`,
  )
  await page.waitForTimeout(1500)
  const longTasks = tellingLongTasks(page)
  await longTasks('the first draws')
  const slider = page.getByRole('slider', { name: 'Reserve', exact: true })
  await slider.focus()
  const means: number[] = []
  const bands: number[] = []
  const whole: number[] = []
  for (let i = 0; i < 8; i++) {
    // the watch is set before the key is pressed, and runs from the key on
    await page.evaluate(() => {
      const svg = document.querySelector('figure svg') as SVGSVGElement
      const drawn = (what: string) => svg.querySelector(`path[class*="${what}"]`)?.getAttribute('d')
      const meanWas = drawn('surface')
      const bandWas = drawn('bandNarrow')
      const watched = new Promise(resolve => {
        document.addEventListener(
          'keydown',
          ({ timeStamp }) => {
            let mean = 0
            let band = 0
            const look = () => {
              const at = performance.now() - timeStamp
              if (!mean && drawn('surface') !== meanWas) mean = at
              if (!band && drawn('bandNarrow') !== bandWas) band = at
              const answer = document.querySelector('section[aria-label="Answer"]')
              if (mean && band && answer?.getAttribute('data-settled') === 'true')
                resolve({ mean, band, whole: at })
              else requestAnimationFrame(look)
            }
            requestAnimationFrame(look)
          },
          { once: true },
        )
      })
      Reflect.set(window, 'watched', watched)
    })
    await page.keyboard.press(i % 2 ? 'ArrowLeft' : 'ArrowRight')
    const {
      mean,
      band,
      whole: all,
    } = await page.evaluate(
      (): Promise<{ mean: number; band: number; whole: number }> => Reflect.get(window, 'watched'),
    )
    means.push(mean)
    bands.push(band)
    whole.push(all)
  }
  report('what-if to the mean curve painted', means, '50 ms')
  report('what-if to the first bands painted', bands, '300 ms')
  report('what-if to the last of up to 1,000 draws of 72 h × 24 circuits, in workers', whole, '1,000 ms')
  await longTasks('sliding what-if')
  const button = page.getByRole('button', { name: 'Search here' })
  await button.click()
  const began = performance.now()
  await page.locator('[data-found]').waitFor({ timeout: 120_000 })
  console.log(
    `search here, in workers on ${availableParallelism()} cores: ${((performance.now() - began) / 1000).toFixed(1)} s (limit 5 s)`,
  )
  await longTasks('searching')
  const heap = await page.evaluate(
    () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize,
  )
  console.log(`script heap of the page: ${(heap / 1e6).toFixed(0)} MB`)
  await browser.close()
}

/** Drags the drawing of many wires about, and reads how long each frame took. */
async function panning(jobId: string) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const page = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    storageState: await signedIn(),
  })
  await page.goto(`${url}/jobs/${jobId}/wire`)
  await page.locator('[data-live=true]').waitFor()
  const drawing = page.getByRole('group', { name: /^Drawing of the wires/ })
  await drawing.locator('[data-wire]').first().waitFor()
  const box = await drawing.boundingBox()
  if (!box) throw new Error('no drawing')
  await page.evaluate(() => {
    const long: number[] = []
    Reflect.set(window, 'longTasks', long)
    new PerformanceObserver(list => {
      for (const entry of list.getEntries()) long.push(entry.duration)
    }).observe({ type: 'longtask' })
  })
  // as text: what is compiled here names its functions by a helper that the page has not
  await page.evaluate(
    'window.frames_ = []; let last = performance.now(); const next = now => { frames_.push(now - last); last = now; requestAnimationFrame(next) }; requestAnimationFrame(next)',
  )
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let n = 0; n < 200; n++) await page.mouse.move(x + 180 * Math.sin(n / 9), y + 120 * Math.cos(n / 7))
  await page.mouse.up()
  report(
    'frames while panning the most wires',
    await page.evaluate((): number[] => Reflect.get(window, 'frames_')),
    '50 ms, aim 16',
  )
  await tellingLongTasks(page)('panning the most wires')
  await browser.close()
}

async function main() {
  const named = process.argv.slice(2)
  const wants = (part: string) => !named.length || named.includes(part)
  if (wants('core')) await simulation()
  const job = largestJob()
  console.log(
    `largest job: ${circuitsOf(job).length} circuits, ${circuitsOf(job).flatMap(c => c.loads).length} loads`,
  )
  if (wants('core')) {
    report('evaluate', await timed(200, () => evaluate(job)), 'none')
    const planned = plannedJob()
    // a copy each time, for what is planned is worked out once for each job
    const spent = await timed(200, () => evaluate({ ...planned }))
    report(`evaluate with ${planned.planned.length} planned changes`, spent, '10 ms')
    const lands = landingJob()
    const solve = await loadSolver()
    const landed = await timed(20, () => {
      const problem = landingProblem({ job: lands }, circuitNeeds(lands))
      return problem && solvePositions(problem, solve)
    })
    report('landing of twelve circuits solved', landed, '300 ms')
  }

  const wired = wiredJob()
  if (wants('wiring')) {
    const work = (job: Job) => partsOfJob({ ...job }) && workOfJob({ ...job })
    console.log(`the most wires: ${wiringPlan(wired).conductors.length} conductors`)
    report(
      'wiring plan, parts and hours of the largest demo job',
      await timed(100, () => work(quarryRidge)),
      '50 ms',
    )
    report('the same of the most wires', await timed(100, () => work(wired)), 'none')
    report('its drawing', await timed(50, () => wiringSvg(wiringPlan(wired), 'bench')), 'none')
    const sheet = { firm: 'Bench', revision: 1, on: '2026-01-01' }
    const pdfs: number[] = []
    for (let n = 0; n < 10; n++) {
      const began = performance.now()
      await wiringPdf(wired, sheet)
      pdfs.push(performance.now() - began)
    }
    report('its PDF', pdfs, '2,000 ms')
  }

  if (wants('estimate')) {
    const texts = [
      'well pump, heat, 2 refrigerators, freezer, internet, lights, cooking, washer, dryer',
      ...things.map(t => t.name),
    ]
    const calls = texts.map(text => called(text))
    const many = called(Array.from({ length: 40 }, (_, n) => things[n % things.length]?.name).join(', '))
    report('first answer of forty things', await timed(50, () => firstAnswer({ ...many }, making)), '300 ms')
    const found: number[] = []
    for (const call of calls.slice(0, 16)) {
      const began = performance.now()
      await firstDesigns(call, catalogue)
      found.push(performance.now() - began)
    }
    report('provisional designs of a first call, after the rest of a quarter second', found, '1,250 ms')
    const pricing = { prices: pricesFor([quarryRidge]), minutes: firmMinutes, rates: usualTerms }
    const estimate = () => priced(costsOf({ ...quarryRidge }, pricing).costs, usualTerms, '')
    report('estimate of the largest demo job after a change', await timed(100, estimate), '50 ms')
    const costs = costsOf(quarryRidge, pricing)
    const option = optionOf(
      { id: 'a', name: 'A' },
      costs,
      priced(costs.costs, usualTerms, ''),
      promiseOf(quarryRidge),
    )
    const paper: number[] = []
    for (let n = 0; n < 10; n++) {
      const began = performance.now()
      await estimatePdf({ ...frozen, options: [option, { ...option, id: 'b' }, { ...option, id: 'c' }] })
      paper.push(performance.now() - began)
    }
    report('its PDF with three options', paper, '2,000 ms')
    // a house that nobody asked about yet: nothing is kept of it
    report(
      'order of work of the largest demo job',
      await timed(40, () => workOrder({ ...quarryRidge, panels: [...quarryRidge.panels] })),
      '100 ms',
    )
    report(
      'what has to be proven of the largest demo job',
      await timed(40, () => testList({ ...quarryRidge, panels: [...quarryRidge.panels] })),
      '100 ms',
    )
    const tested = proven(quarryRidge, { seed: 3, by: ['a', 'b'], day: '2026-03-01', done: () => true })
    report(
      'how its tests stand, every one judged',
      await timed(40, () => standOfTests(tested, testList(tested))),
      '50 ms',
    )
    const kept = [...readFileSync('dist/field.js', 'utf8').matchAll(/\/_next\/[^"]+/g)].map(([file]) =>
      readFileSync(`.next${file.slice('/_next'.length)}`),
    )
    const MB = (sizes: number[]) => (sizes.reduce((sum, s) => sum + s, 0) / 1e6).toFixed(2)
    console.log(
      `what a device keeps of the field screens: ${MB(kept.map(k => gzipSync(k).length))} MB sent, ${MB(kept.map(k => k.length))} MB kept (limit 3 MB sent), and ${MB([JSON.stringify(quarryRidge).length])} MB of the largest demo job`,
    )
    console.log(
      `script of a customer’s offer: ${(gzipSync(readFileSync('dist/offer.js')).length / 1000).toFixed(1)} kB gzipped (limit 100)`,
    )
  }

  const [actor] = await listPeople(servedFirm)
  if (!actor) throw new Error('no demo firm')
  const id = await createJob(actor, job, 'for the bench', new Date())
  if (wants('scripts')) await scripts(id)
  if (wants('taps')) await taps(id)
  if (wants('wiring')) await panning(await createJob(actor, wired, 'for the bench', new Date()))
  if (wants('outage')) await outageScreen(await createJob(actor, outageJob(), 'for the bench', new Date()))

  if (wants('accounts')) {
    entered ??= enter(url)
    await accounts(url, id, (await entered).cookie, timed, report)
  }

  if (!wants('lists')) return closeDb()
  const have = Number(
    (await ownerDb()('job').where({ firm_id: actor.firmId }).count({ count: '*' }))[0]?.count,
  )
  const seed = await ownerDb()('job').where({ firm_id: actor.firmId, title: fernbrook.title }).first()
  for (let from = have; from < 10_000; from += 500)
    await ownerDb()('job').insert(
      Array.from({ length: Math.min(500, 10_000 - from) }, (_, i) => ({
        ...seed,
        id: randomUUID(),
        document: JSON.stringify(seed.document),
        title: `House ${from + i}`,
        search_text: `house ${from + i} on the ${['hill', 'shore', 'river'][i % 3]}`,
        hours_had: (from + i) % 90,
        worst: i % 5,
      })),
    )
  const [item] = catalogue
  if (!item) throw new Error('no demo catalogue')
  await addEquipment(
    actor,
    Array.from({ length: 2000 }, (_, i) => ({ ...item, id: `bench-${i}`, name: `${item.name} ${i}` })),
  )
  await openCatalogue()
  await ownerDb().raw('analyze job')
  for (const query of [
    {},
    { q: 'shore' },
    { q: 'house 77', sort: 'hours' },
    { sort: 'worst' },
    { sort: 'title', page: '400' },
  ])
    report(
      `jobs list of 10,000, ${JSON.stringify(query)}`,
      await timed(30, () => listJobs(actor, listQuerySchema.parse(query))),
      '100 ms',
    )
  await closeDb()
}

main().catch((error: unknown) => {
  console.error(error)
  // at once: a browser or a connection that is still open would keep it alive
  process.exit(1)
})
