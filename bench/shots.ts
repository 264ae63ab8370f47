import { writeFileSync } from 'node:fs'
import { type Browser, chromium, type Page } from '@playwright/test'
import sharp from 'sharp'
import { enter } from './enter'

/** Every picture of docs/screenshots anew, or those that are named, from the demo data alone. Listed here in the order of the work. */
const url = process.env.SPILLWAY_URL ?? 'http://127.0.0.1:4180'
const into = 'docs/screenshots'
const job = (n: number) => `/jobs/5a1de000-0000-4000-8000-00000000000${n}`
const [daycare, coast, kiosk, boathouse] = [job(1), job(2), job(5), job(6)]

interface Shot {
  name: string
  at: string
  width?: number
  height?: number
  /** who looks; the designer otherwise */
  as?: 'designer' | 'owner'
  /** what is done before the picture is taken */
  first?: (page: Page) => Promise<void>
}

/** The offer of the day-care, by a link made anew. */
const offer = async (page: Page) => {
  const answer = await page.request.post(`${url}/api${daycare}/estimate`, {
    headers: { Origin: url },
    data: { act: 'relink', n: 1 },
  })
  const { token } = await answer.json()
  await page.goto(`${url}/offer/${token}`)
}
/** The page of the day-care, for who lives there, by a link made anew. */
const house = async (page: Page) => {
  const answer = await page.request.post(`${url}/api${daycare}/links?kind=house`, {
    headers: { Origin: url },
    data: { do: 'make' },
  })
  const { token } = await answer.json()
  await page.goto(`${url}/house/${token}`)
}
const phone = { width: 390, height: 844 }

const shots: Shot[] = [
  { name: 'jobs', at: '/jobs' },
  { name: 'first', at: `${boathouse}/first`, height: 1000 },
  { name: 'ask', at: `${daycare}/ask` },
  { name: 'panel', at: `${daycare}/panel` },
  { name: 'loads', at: `${daycare}/loads`, height: 1000 },
  { name: 'source', at: `${coast}/source`, height: 1100 },
  { name: 'hookup', at: `${daycare}/hook-up`, height: 1100 },
  { name: 'plan', at: '/jobs/5a1de000-0000-4000-8000-000000000003/plan', height: 1180 },
  { name: 'wire', at: '/jobs/5a1de000-0000-4000-8000-000000000003/wire', height: 1180 },
  { name: 'parts', at: '/jobs/5a1de000-0000-4000-8000-000000000003/parts', height: 1000 },
  { name: 'estimate', at: `${daycare}/estimate`, height: 1180 },
  { name: 'one-line', at: `${coast}/one-line`, height: 1200 },
  { name: 'outage', at: `${coast}/outage`, height: 1180 },
  { name: 'findings', at: `${daycare}/findings` },
  { name: 'work', at: `${coast}/work`, height: 1180 },
  { name: 'hand-over', at: `${kiosk}/hand-over`, height: 1400 },
  { name: 'people', at: '/people', as: 'owner' },
  { name: 'bench', at: '/bench/voltage-drop' },
]

/** The screens for one thumb, and the customer’s pages, stand beside each other in one picture. */
const inTheField: Shot[] = [
  { name: 'trace', at: `${coast}/trace`, ...phone },
  { name: 'field', at: `${coast}/field`, ...phone },
  { name: 'prove', at: `${daycare}/prove`, ...phone },
  { name: 'offer', at: '/jobs', ...phone, first: offer },
  { name: 'house', at: '/jobs', ...phone, first: house },
]
const apartPx = 24

/** The sessions of the demo, each entered once. */
const entered: Partial<Record<string, ReturnType<typeof enter>>> = {}
async function signedIn(as: 'designer' | 'owner') {
  entered[as] ??= enter(url, as)
  return (await entered[as]).storageState
}

async function pictureOf(
  browser: Browser,
  { at, as = 'designer', width = 1280, height = 800, first }: Shot,
): Promise<Buffer> {
  const context = await browser.newContext({
    viewport: { width, height },
    storageState: await signedIn(as),
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  // what listens for news is never idle
  const idle = at.startsWith('/jobs/') ? 'load' : 'networkidle'
  await page.goto(url + at, { waitUntil: idle })
  await first?.(page)
  await page.waitForLoadState(idle)
  // fonts, charts and workers have said their last word
  await page.evaluate(() => document.fonts.ready)
  await page.waitForTimeout(/\/(outage|first)$/.test(at) ? 6000 : 1500)
  const picture = await page.screenshot()
  await context.close()
  return picture
}

async function take() {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  })
  const named = process.argv.slice(2)
  for (const shot of shots.filter(s => !named.length || named.includes(s.name))) {
    writeFileSync(`${into}/${shot.name}.png`, await pictureOf(browser, shot))
    console.log(shot.name)
  }
  if (named.length && !named.includes('field')) return browser.close()
  const { width, height } = phone
  const beside = []
  for (const [n, shot] of inTheField.entries())
    beside.push({ input: await pictureOf(browser, shot), left: n * (width + apartPx), top: 0 })
  await sharp({
    create: {
      width: inTheField.length * (width + apartPx) - apartPx,
      height,
      channels: 3,
      background: '#ffffff',
    },
  })
    .composite(beside)
    .png()
    .toFile(`${into}/field.png`)
  console.log('field')
  await browser.close()
}

void take()
