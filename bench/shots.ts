import { chromium, type Page } from '@playwright/test'

/** Every picture of docs/screenshots anew, from the demo data alone. Named here, in the order of the work. */
const url = process.env.SPILLWAY_URL ?? 'http://127.0.0.1:4180'
const into = 'docs/screenshots'
const job = (n: number) => `/jobs/5a1de000-0000-4000-8000-00000000000${n}`
const [daycare, coast, boathouse] = [job(1), job(2), job(6)]

interface Shot {
  name: string
  at: string
  width?: number
  height?: number
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
const phone = { width: 390, height: 844 }

const shots: Shot[] = [
  { name: 'jobs', at: '/jobs' },
  { name: 'first', at: `${boathouse}/first`, height: 1000 },
  { name: 'ask', at: `${daycare}/ask` },
  { name: 'panel', at: `${daycare}/panel` },
  { name: 'trace', at: `${coast}/trace`, ...phone },
  { name: 'loads', at: `${daycare}/loads`, height: 1000 },
  { name: 'source', at: `${coast}/source`, height: 1100 },
  { name: 'hookup', at: `${daycare}/hook-up`, height: 1100 },
  { name: 'plan', at: '/jobs/5a1de000-0000-4000-8000-000000000003/plan', height: 1180 },
  { name: 'wire', at: '/jobs/5a1de000-0000-4000-8000-000000000003/wire', height: 1180 },
  { name: 'parts', at: '/jobs/5a1de000-0000-4000-8000-000000000003/parts', height: 1000 },
  { name: 'estimate', at: `${daycare}/estimate`, height: 1180 },
  { name: 'offer', at: '/jobs', ...phone, first: offer },
  { name: 'one-line', at: `${coast}/one-line`, height: 1200 },
  { name: 'outage', at: `${coast}/outage`, height: 1180 },
  { name: 'findings', at: `${daycare}/findings` },
  { name: 'work', at: `${daycare}/work`, height: 1180 },
  { name: 'field', at: `${daycare}/field`, ...phone },
  { name: 'bench', at: '/bench/voltage-drop' },
]

async function take() {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  })
  for (const { name, at, width = 1280, height = 800, first } of shots) {
    const context = await browser.newContext({
      viewport: { width, height },
      reducedMotion: 'reduce',
    })
    const page = await context.newPage()
    // what listens for news is never idle
    const idle = /\/(work|field|tests|prove)$/.test(at) ? 'load' : 'networkidle'
    await page.goto(url + at, { waitUntil: idle })
    await first?.(page)
    await page.waitForLoadState(idle)
    // fonts, charts and workers have said their last word
    await page.evaluate(() => document.fonts.ready)
    await page.waitForTimeout(/\/(outage|first)$/.test(at) ? 6000 : 1500)
    await page.screenshot({ path: `${into}/${name}.png` })
    await context.close()
    console.log(name)
  }
  await browser.close()
}

void take()
