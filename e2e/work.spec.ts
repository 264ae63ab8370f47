import type { BrowserContext, Locator, Page } from '@playwright/test'
import sharp from 'sharp'
import { accessible, accessibleDayAndNight, copyOf, giveLarge, openJob, saved } from './helpers'
import { expect, test } from './test'

const saltmarsh = '5a1de000-0000-4000-8000-000000000002'
const alder = '5a1de000-0000-4000-8000-000000000001'

const picture = () =>
  sharp({ create: { width: 640, height: 480, channels: 3, background: '#556677' } })
    .jpeg()
    .toBuffer()

async function openField(page: Page, id: string) {
  await page.goto(`/jobs/${id}/field`)
  await expect(page.locator('[data-live=true]')).toBeVisible()
}

const step = (page: Page) => page.getByRole('article')
const numberOf = async (page: Page) =>
  Number(/^Step (\d+)/.exec((await step(page).getAttribute('aria-label')) ?? '')?.[1])
const many = 12

/** Passes one hold point with what it asks: confirmed, photographed or said in words, initialled, read. */
async function pass(point: Locator, photograph: boolean) {
  const confirm = point.getByRole('button', { name: 'I have seen it' })
  const simulated = point.getByRole('button', { name: 'From the simulated meter' })
  const camera = point.locator('input[type=file]')
  if (await confirm.count()) return confirm.click()
  if (await camera.count()) {
    if (photograph)
      return camera.setInputFiles({ name: 'lock.jpg', mimeType: 'image/jpeg', buffer: await picture() })
    await point.getByLabel(/^Without a photograph/).fill('tag 14')
  } else if (await simulated.count()) {
    await simulated.click()
    const tool = point.getByLabel(/^Torque tool/)
    if (await tool.count()) await tool.fill('screwdriver 3')
  } else {
    const second = point.getByLabel('Who looked as well')
    await ((await second.count()) ? second.fill('Ben') : point.getByLabel('Initials').fill('AL'))
  }
  return point.getByRole('button', { name: 'Write down' }).click()
}

/** Does the step on the screen: its hold points, then Done, and sees the next. `between` comes after each act. */
async function doStep(page: Page, photograph: boolean, between: () => Promise<void>) {
  const at = await numberOf(page)
  for (let n = 0; n < many; n++) {
    const open = step(page)
      .getByRole('region')
      .filter({ hasNot: page.getByRole('heading', { name: /: done$/ }) })
    const left = await open.count()
    if (!left) break
    await pass(open.first(), photograph)
    await expect(open).toHaveCount(left - 1)
    await between()
  }
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(step(page)).not.toHaveAttribute('aria-label', new RegExp(`^Step ${at}:`))
  await between()
}

interface Log {
  id: string
  kind: string
  task: string
}
async function logOf(
  request: { get: (path: string) => Promise<{ json: () => Promise<never> }> },
  id: string,
) {
  const {
    record,
  }: { record: { job: { work?: { log: Log[] }; planned: { built?: object }[]; photos: { id: string }[] } } } =
    await (await request.get(`/api/jobs/${id}`)).json()
  return record.job
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('a whole installation under a connection that comes and goes: no entry lost, none doubled, all of the plan built', async ({
    page,
    context,
    request,
  }) => {
    test.setTimeout(240_000)
    const faults: string[] = []
    page.on('pageerror', error => faults.push(error.message))
    const id = await copyOf(request, saltmarsh)
    await openField(page, id)
    await expect(page.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
    await accessibleDayAndNight(page)
    let cuts = 0
    let off = false
    const flap = async (to: boolean) => {
      if (off !== to) {
        if (to) cuts++
        off = to
        await context.setOffline(to)
      }
    }
    // gone after every act, back in the middle of the next
    const between = async () => {
      await flap(!off)
    }
    await flap(true)
    await page.reload()
    await expect(page.locator('[data-live=true]')).toBeVisible()
    const steps = Number(/of (\d+)/.exec(await step(page).innerText())?.[1])
    for (let n = 0; n < steps; n++) {
      await doStep(page, n % 7 === 6, between)
      // a lift between two floors
      for (const gone of [true, false, true, false]) await flap(gone)
      if (n === 8) {
        // a page that is loaded anew in the cellar goes on where it was
        await flap(true)
        const at = await numberOf(page)
        await page.reload()
        await expect(page.locator('[data-live=true]')).toBeVisible()
        expect(await numberOf(page)).toBe(at)
      }
      if (n === steps - 2) break
    }
    await flap(false)
    await doLast(page)
    expect(cuts).toBeGreaterThanOrEqual(40)
    await expect(page.getByText('waiting to be sent')).toHaveCount(0, { timeout: 30_000 })
    await saved(page)
    const job = await logOf(request, id)
    const log = job.work?.log ?? []
    expect(new Set(log.map(e => e.id)).size).toBe(log.length)
    const done = log.filter(e => e.kind === 'done').map(e => e.task)
    expect(new Set(done).size).toBe(done.length)
    expect(done).toHaveLength(steps)
    expect(job.planned.every(c => c.built)).toBe(true)
    expect(faults).toEqual([])
  })

  test('hands are kept out of what reads live; what is done otherwise runs the checks; a photograph that is refused says why', async ({
    page,
    request,
    context,
  }) => {
    test.setTimeout(120_000)
    const id = await copyOf(request, saltmarsh)
    await openField(page, id)
    await expect(page.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
    // nobody gets past what comes first
    await page.getByRole('button', { name: 'All steps' }).click()
    await page.getByRole('button', { name: /Prove dead: Main panel/ }).click()
    await page.getByRole('button', { name: 'Done', exact: true }).click()
    await expect(step(page).getByRole('alert')).toContainText('Comes first: Switch off and lock')
    await expect(step(page).getByRole('button', { name: 'Go on without it' })).toHaveCount(0)
    // the simulated meter reads the house as it stands: nothing is off yet
    const prove = step(page).getByRole('region', { name: /^Prove, test, prove/ })
    await prove.getByRole('button', { name: 'From the simulated meter' }).click()
    await prove.getByRole('button', { name: 'Write down' }).click()
    await expect(prove.getByRole('alert')).toContainText('It is live: keep your hands out.')
    // what is no reading is told at its field, and stays
    await prove.getByLabel('L1–N, V').fill('about 5')
    await prove.getByRole('button', { name: 'Write down' }).click()
    await expect(prove).toContainText('must be a number')
    await expect(prove.getByLabel('L1–N, V')).toHaveValue('about 5')
    await accessible(page)

    // a file that is no picture is kept out, and said
    await page.getByRole('button', { name: 'All steps' }).click()
    await page.getByRole('button', { name: /Mount the inlet/ }).click()
    await step(page)
      .locator('input[type=file]')
      .last()
      .setInputFiles({ name: 'note.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') })
    await expect(page.getByText(/^Not taken: /)).toBeVisible()

    await giveLarge(step(page).locator('input[type=file]').last(), 'huge.jpg', 'image/jpeg', 40_000_000)
    await expect(page.getByText(/huge\.jpg has 40 MB and cannot be made smaller here/)).toBeVisible()

    // offline: up to the backfed breaker, and that one done otherwise
    await context.setOffline(true)
    await page.getByRole('button', { name: 'All steps' }).click()
    await page.getByRole('button', { name: /See that the house/ }).click()
    const last = /Add a 30 A two-pole breaker/
    for (let n = 0; n < 20 && !last.test((await step(page).getAttribute('aria-label')) ?? ''); n++)
      await doStep(page, false, async () => {})
    await pass(step(page).getByRole('region').first(), false)
    await page.getByRole('button', { name: 'Done otherwise' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Breaker, A').fill('50')
    await dialog.getByRole('button', { name: 'Write down as done' }).click()
    await expect(dialog).toContainText('must say what was done, and why')
    await dialog.getByLabel('What was done, and why').fill('only a 50 A was on the truck')
    await dialog.getByRole('button', { name: 'Write down as done' }).click()
    await expect(page.getByRole('dialog')).toContainText('50 A')
    await page.getByRole('button', { name: 'Go on' }).click()
    await context.setOffline(false)
    await saved(page)
    const job = await logOf(request, id)
    expect(JSON.stringify(job.work)).toContain('only a 50 A was on the truck')
  })
})

test('the office sees it as it comes; two finish one task, and a plan that changed meanwhile is told to both', async ({
  page,
  browser,
  request,
  baseURL,
  session,
}) => {
  test.setTimeout(120_000)
  const id = await copyOf(request, alder)
  await openJob(page, id, 'work')
  await expect(page.getByText('as it comes')).toBeVisible()
  await expect(page.getByText(/^Power off for about .*refrigerators included/)).toBeVisible()
  const phone: BrowserContext = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } })
  await phone.addCookies(session)
  const field = await phone.newPage()
  await openField(field, id)
  await field.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByText('is at: See that the house')).toBeVisible()
  await doStep(field, false, async () => {})
  await expect(page.getByText(/^1 of \d+ steps/)).toBeVisible()
  // in the cellar one step is done, and the office does it too and takes a circuit out of the plan
  await expect(field.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
  await phone.setOffline(true)
  await doStep(field, false, async () => {})
  await page
    .getByRole('list', { name: 'Steps of the work' })
    .getByRole('button', { name: /Tell who lives here/ })
    .click()
  await page.getByRole('article').getByRole('button', { name: 'Done', exact: true }).click()
  await saved(page)
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  const guard = { kind: 'guard', circuitId: 'c9', origin: 'person' }
  const planned = await request.post(`/api/jobs/${id}/changes`, {
    data: {
      baseRevision: record.revision,
      changes: [{ id: crypto.randomUUID(), kind: 'do', operation: { op: 'planChange', change: guard } }],
    },
  })
  expect(planned.ok()).toBe(true)
  await expect(page.getByText(/^Updated: .*planned/)).toBeVisible()
  await phone.setOffline(false)
  await saved(field)
  await expect(field.getByText(/^Updated: .*planned/)).toBeVisible()
  await field.getByRole('button', { name: 'All steps' }).click()
  await expect(field.getByRole('button', { name: /first outlet of 9 Playroom lights/ })).toBeVisible()
  await field.keyboard.press('Escape')
  await page
    .getByRole('list', { name: 'Steps of the work' })
    .getByRole('button', { name: /Tell who lives here/ })
    .click()
  const log = (await logOf(request, id)).work?.log ?? []
  expect(log.filter(e => e.task === 'arrive:tell' && e.kind === 'done')).toHaveLength(2)
  // the order by hand, within what is allowed
  await page.getByRole('button', { name: 'Earlier' }).click()
  await expect(page.getByRole('button', { name: 'As computed' })).toBeVisible()
  await accessible(page)
  await phone.close()
})

test('the booklet is printed, and typed in afterwards in one go; labels are printed once, and again when they read otherwise', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, saltmarsh)
  await page.goto(`/jobs/${id}/booklet`)
  await expect(page.getByRole('heading', { name: 'Saltmarsh Lane (copy): work order' })).toBeVisible()
  await expect(page.getByText('STAYS LIVE: the line side').first()).toBeVisible()
  await openJob(page, id, 'work')
  await page.getByRole('button', { name: 'From paper' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Write down' }).click()
  await expect(dialog).toContainText('Tick what was done')
  await dialog.getByRole('button', { name: 'All up to here' }).nth(1).click()
  await dialog.getByRole('textbox', { name: 'As found' }).fill('seen')
  await dialog
    .getByLabel(/^Minutes/)
    .first()
    .fill('soon')
  await dialog.getByRole('button', { name: 'Write down' }).click()
  await expect(dialog).toContainText('must be a number')
  await dialog
    .getByLabel(/^Minutes/)
    .first()
    .fill('12')
  await dialog.getByRole('button', { name: 'Write down' }).click()
  await expect(page.getByText('2 steps typed in.')).toBeVisible()
  // the second has its hold point open: the medical device
  await expect(page.getByText(/^Waits for its hold points: Tell who lives here/)).toBeVisible()
  await saved(page)

  await page.getByRole('link', { name: 'Labels and notices' }).click()
  await expect(page.getByText(/not printed as they read now/)).toBeVisible()
  await page.getByRole('button', { name: 'They are printed' }).click()
  await expect(page.getByText('All of these are printed as they read now.')).toBeVisible()
  await accessible(page)
})

/** The last step has nothing after it to go to. */
async function doLast(page: Page) {
  const open = step(page).getByRole('region')
  for (let n = 0; n < many && (await open.count()); n++) {
    const first = open.filter({ hasNot: page.getByRole('heading', { name: /: done$/ }) })
    if (!(await first.count())) break
    await pass(first.first(), false)
  }
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(page.getByText(/^Done, /)).toBeVisible()
}
