import type { APIRequestContext, Page } from '@playwright/test'
import { accessible, accessibleDayAndNight, alder, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

/** The day-care as the demo has it: installed, in the middle of its tests, something wrong in it. */
async function daycare(request: APIRequestContext): Promise<string> {
  const text = await (await request.get(`/api/jobs/${alder}/export`)).text()
  const answer = await request.post('/api/jobs/import', {
    data: text,
    headers: { 'content-type': 'application/json' },
  })
  return (await answer.json()).id
}

interface Entry {
  id: string
  kind: string
  test: string
  judged?: string
  by: string
}
const logOf = async (request: APIRequestContext, id: string): Promise<Entry[]> =>
  (await (await request.get(`/api/jobs/${id}`)).json()).record.job.tests?.log ?? []

const card = (page: Page) => page.getByRole('article', { name: /^Test \d/ })
const verdict = (page: Page) => card(page).locator('.MuiAlert-root[role=status]').first()
const open = async (page: Page, name: RegExp) => {
  await page.getByRole('button', { name: 'All tests' }).click()
  await page.getByRole('list', { name: 'Tests' }).getByRole('button', { name }).click()
}
const write = (page: Page) => card(page).getByRole('button', { name: 'Write down', exact: true }).click()

/** Reads every figure of the test on the screen by its simulated instruments, and writes it down. */
async function readAll(page: Page) {
  const all = card(page).getByRole('button', { name: /^Set and read all/ })
  const one = card(page).getByRole('button', { name: /^Read (?!it again)/ })
  await expect(one).toBeVisible()
  if (await all.count()) await all.click()
  else
    for (let n = 0; n < 2; n++) {
      const set = card(page).getByRole('button', { name: 'Set it so' })
      if (await set.isEnabled()) await set.click()
      await one.click()
    }
  await write(page)
  await expect(verdict(page)).toBeVisible()
  // what follows from the verdict comes behind it
  await expect(card(page).getByRole('button', { name: 'Read it again' })).toBeVisible()
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('a stranger commissions the day-care by simulated instruments, without a connection: mistakes are caught, the fault is found, mended, and it passes', async ({
    page,
    context,
    request,
  }) => {
    test.setTimeout(180_000)
    const faults: string[] = []
    page.on('pageerror', error => faults.push(error.message))
    const id = await daycare(request)
    await page.goto(`/jobs/${id}/prove`)
    await expect(page.locator('[data-live=true]')).toBeVisible()
    await expect(page.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
    await accessibleDayAndNight(page)
    await context.setOffline(true)

    // the meter on mV shows nothing that counts
    await open(page, /Last outlet of 2 Boiler/)
    await card(page).getByRole('button', { name: 'Set it so' }).click()
    await card(page).getByRole('button', { name: 'By hand: dial, points, handles' }).click()
    await card(page).getByRole('button', { name: 'mV~' }).click()
    await card(page)
      .getByRole('button', { name: /^Read Hot–N/ })
      .click()
    await expect(card(page).getByRole('textbox', { name: 'Hot–N, V' })).toHaveValue('OL')
    await write(page)
    await expect(card(page)).toContainText('OL is shown on Ω, or where the range is too small')
    await card(page).getByRole('button', { name: 'V~', exact: true }).click()
    await readAll(page)
    await expect(verdict(page)).toContainText('As it should be')

    // readings at each other’s points are told as that
    await open(page, /Last outlet of 5 Kitchen/)
    for (const [label, value] of [
      ['Hot–N, V', '0.2'],
      ['N–ground, V', '119'],
      ['Hot–ground, V', '119'],
      ['Hot–N, loaded, V', '117'],
      ['Amps meanwhile, A', '8'],
    ] as const)
      await card(page).getByRole('textbox', { name: label, exact: true }).fill(value)
    await write(page)
    await expect(verdict(page)).toContainText('Hot–N and N–ground were read the other way round')
    await card(page).getByRole('button', { name: 'Read it again' }).click()
    await readAll(page)

    // a compressor that ran a moment ago stalls
    await open(page, /Start of Kitchen refrigerator/)
    await card(page).getByRole('button', { name: 'By hand: dial, points, handles' }).click()
    const main = card(page).getByRole('group', { name: 'the main of Main panel, garage' })
    await main.getByRole('button', { name: 'on', exact: true }).click()
    for (const group of await card(page)
      .getByRole('group', { name: /^position \d of the switch/ })
      .all())
      await group.getByRole('button', { name: 'line' }).click()
    await card(page).getByRole('button', { name: 'Set it so' }).click()
    await card(page)
      .getByRole('button', { name: /^Read Lowest volts/ })
      .click()
    await expect(card(page)).toContainText('it started against pressure, stalled')
    await card(page).getByRole('button', { name: 'Let 5 minutes pass' }).click()
    await readAll(page)
    await expect(verdict(page)).toContainText('As it should be')

    // one after the other, until something fails
    let found = 0
    for (let n = 0; n < 20; n++) {
      const next = page.getByRole('button', { name: 'Next open' })
      if (!(await next.isEnabled())) break
      const before = await card(page).getAttribute('aria-label')
      await next.click()
      await expect(card(page)).not.toHaveAttribute('aria-label', before ?? '')
      await readAll(page)
      const causes = card(page).getByRole('region', { name: 'What can be wrong' })
      if (!(await causes.count())) continue
      found++
      await expect(card(page)).toHaveAttribute('aria-label', /Last outlet of 11 Nap room/)
      await expect(causes).toContainText('The neutral of 11 Nap room and monitors has a poor joint')
      await causes.getByRole('button', { name: 'Found it here' }).first().click()
      await causes.getByRole('button', { name: 'Mended' }).first().click()
      await expect(card(page)).toContainText('Something was mended since: read it again')
      await readAll(page)
      await expect(verdict(page)).toContainText('As it should be')
    }
    expect(found).toBe(1)
    // what the kitchen drew on the whole day is passed as well
    await expect(page.getByText(/^58 of 58 passed/)).toBeVisible()
    // a page that is loaded anew in the cellar has all of it
    await page.reload()
    await expect(page.getByText(/^58 of 58 passed/)).toBeVisible()
    await context.setOffline(false)
    await saved(page)
    await expect.poll(async () => (await logOf(request, id)).filter(e => e.kind === 'mended').length).toBe(1)
    const log = await logOf(request, id)
    expect(new Set(log.map(e => e.id)).size).toBe(log.length)
    expect(faults).toEqual([])
  })
})

test('two read one test; a plan that changes afterwards has it read again; more watts are taken over; the paper has it all', async ({
  page,
  browser,
  request,
  baseURL,
  session,
}) => {
  test.setTimeout(120_000)
  const id = await copyOf(request, alder)
  await openJob(page, id, 'tests')
  await accessible(page)
  const phone = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } })
  await phone.addCookies(session)
  const field = await phone.newPage()
  await field.goto(`/jobs/${id}/prove`)
  await expect(field.locator('[data-live=true]')).toBeVisible()
  await expect(field.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
  // both read the same, one of them without a connection
  await phone.setOffline(true)
  for (const [at, ohms] of [
    [page, '0.3'],
    [field, '0.4'],
  ] as const) {
    await card(at)
      .getByRole('textbox', { name: /^Ground bar to the far box/ })
      .fill(ohms)
    await write(at)
    await expect(verdict(at)).toContainText('As it should be')
  }
  await saved(page)
  await phone.setOffline(false)
  await expect
    .poll(async () => (await logOf(request, id)).map(e => e.test))
    .toEqual(['ground:c2', 'ground:c2'])
  await expect(page.getByText('Everything written down of it (2)')).toBeVisible()
  await phone.close()

  // by keyboard alone: the circuit that draws more than planned
  const cell = page
    .getByRole('table', { name: 'Circuits by supply' })
    .getByRole('button', { name: /^5 Kitchen refrigerator on the source/ })
  await cell.focus()
  await page.keyboard.press('Enter')
  const volts = card(page).getByRole('textbox', { name: 'Hot–N, V' })
  await volts.focus()
  await page.keyboard.type('119')
  await page.keyboard.press('Tab')
  await card(page)
    .getByRole('textbox', { name: /^Watts as it comes on/ })
    .focus()
  await page.keyboard.type('640')
  await page.keyboard.press('Enter')
  await expect(verdict(page)).toContainText('It draws 640 W; the plan has 118 W')
  await card(page).getByRole('button', { name: 'Take 640 W over' }).click()
  await expect(verdict(page)).toContainText('As it should be')
  await saved(page)

  // another position: what was read there is of another house
  await openJob(page, id, 'hook-up')
  const desk = page.getByRole('region', { name: 'Switch positions' })
  await desk.getByRole('combobox', { name: /^Circuit on 5,/ }).click()
  await page.getByRole('option', { name: /^5 Kitchen refrigerator/ }).click()
  await saved(page)
  await openJob(page, id, 'tests')
  await expect(page.locator('.MuiAlert-root').filter({ hasText: 'To be read again:' })).toContainText(
    '5 Kitchen refrigerator on the source',
  )

  // what the inspector remarks is a task, and corrected when that is done
  const remark = page.getByRole('form', { name: 'Remark' })
  await remark.getByRole('textbox').fill('Label missing at the inlet')
  await remark.getByRole('button', { name: 'Write down the remark' }).click()
  await saved(page)
  await page.getByRole('link', { name: 'A task of the work order' }).click()
  const step = page.getByRole('article')
  await expect(step).toContainText('Label missing at the inlet')
  await step.getByLabel(/^Without a photograph/).fill('label put on')
  await step.getByRole('button', { name: 'Write down' }).click()
  await step.getByRole('button', { name: 'Done', exact: true }).click()
  await saved(page)
  await openJob(page, id, 'tests')
  await expect(page.getByText('Label missing at the inlet Corrected.')).toBeVisible()
  await page.getByRole('button', { name: 'It passed' }).click()
  await expect(page.getByText(/^Passed on /)).toBeVisible()
  await saved(page)

  await page.goto(`/jobs/${id}/record`)
  await expect(page.getByRole('heading', { name: /record of tests$/ })).toBeVisible()
  await expect(page.getByText('Remark: Label missing at the inlet (corrected)')).toBeVisible()
  await expect(page.getByRole('table')).toContainText('5 Kitchen refrigerator')
})
