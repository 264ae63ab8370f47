import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { accessible, alder, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

const answer = 'section[aria-label="Answer"]'

/** Until nothing above moves what stands below any more: a press begun on a button would end beside it. */
const answered = (page: Page) =>
  expect(page.locator(`${answer}[data-settled=true]`)).toBeVisible({ timeout: 30_000 })

test('the outage answers in a sentence, and what if, another draw and any hour answer too', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, alder), 'outage')
  const settled = page.locator(`${answer}[data-settled=true]`)
  await expect(settled).toContainText(/Does not last 36 h in any of \d+ winters like this/)
  await expect(settled).toContainText(
    /Rule of thumb\. Energy ÷ average load.*At the average draw: Lasts 18\.2 h/,
  )
  await accessible(page)

  // two expansion units more: the sentence changes while nothing of the job does
  const more = page.getByRole('slider', { name: 'Batteries more' })
  await more.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(page.locator(answer)).toContainText('(what if)')
  await expect(settled).toContainText(/Lasts 36 h in/)
  await expect(page.getByText('Saved')).toBeVisible()
  await page.getByRole('button', { name: 'Hold for comparison' }).click()
  await page.getByRole('button', { name: 'As it is again' }).click()
  await expect(page.getByText('Sluice 22, held')).toBeVisible()
  await expect(settled).toContainText(/Does not last 36 h/)

  await page.getByRole('button', { name: 'One of the draws' }).click()
  await expect(page.getByRole('button', { name: 'Draw 1: next one' })).toBeVisible()
  const hour = page.getByRole('slider', { name: 'Hour of the outage' })
  await hour.focus()
  await page.keyboard.press('End')
  const then = page.locator('section[aria-label="The panel then"]')
  await expect(then).toContainText('Hour 36')
  await expect(then).toContainText('dark')

  await page.getByText('Every watt-hour').click()
  await expect(page.getByText(/of all that went through/)).toBeVisible()
  await page.getByRole('button', { name: 'Show the working' }).click()
  await expect(page.getByText('The outage, simulated')).toBeVisible()
  await page.keyboard.press('Escape')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download as CSV' }).click(),
  ])
  const csv = readFileSync((await download.path()) ?? '', 'utf8')
  expect(csv.split('\n')[0]).toMatch(/^hour,store_Wh,sun_W,generator_W,battery_W,must_run_W/)
})

test('a search finds the front; one press takes a design up, undo brings back', async ({ page, request }) => {
  test.setTimeout(120_000)
  const id = await copyOf(request, alder)
  await openJob(page, id, 'outage')
  await answered(page)
  const desk = page.locator('section[aria-label="Search designs"]')
  await desk.getByRole('checkbox', { name: 'No generator' }).check()
  await desk.getByRole('button', { name: 'Search here' }).click()
  const found = desk.locator('[data-found]')
  await expect(found).toContainText(/designs looked at, .* allowed: the cheapest that lasts/, {
    timeout: 60_000,
  })
  await accessible(page)
  await desk.getByText('Why the others are left out').click()
  await expect(desk).toContainText('Rill 6')
  // one of them goes to the customer beside the others, and the job stays as it is
  await desk
    .getByRole('button', { name: /^As an option of the estimate/ })
    .first()
    .click()
  await expect(page.getByText('It is an option of the estimate.')).toBeVisible()
  const { draft, options } = await (await request.get(`/api/jobs/${id}/estimate`)).json()
  expect([draft.options.length, options[0].basis]).toEqual([1, 'wiring plan'])
  const best = desk.getByRole('button', { name: /^Take up/ }).last()
  await best.click()
  await saved(page)
  await expect(page.getByText(/^Taken up: /)).toBeVisible()
  await expect(page.locator(`${answer}[data-settled=true]`)).toContainText(/Lasts 36 h in/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator(`${answer}[data-settled=true]`)).toContainText(/Does not last 36 h/)
})

test('stock is counted beside the catalogue; a search from stock alone keeps to it', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000)
  await page.goto('/equipment')
  const count = page.getByRole('textbox', { name: 'In stock: Weirgate 36', exact: true })
  await expect(count).toHaveValue('2')
  const kept = () =>
    page.waitForResponse(r => r.url().endsWith('/api/equipment') && r.request().method() === 'POST')
  await count.fill('0')
  await Promise.all([kept(), count.press('Enter')])
  await page.reload()
  await expect(count).toHaveValue('0')
  await accessible(page)

  await openJob(page, await copyOf(request, alder), 'outage')
  await answered(page)
  const desk = page.locator('section[aria-label="Search designs"]')
  const found = desk.locator('[data-found]')
  await desk.getByRole('checkbox', { name: 'Only what is in stock' }).check()
  await desk.getByRole('checkbox', { name: 'No generator' }).check()
  await desk.getByRole('button', { name: 'Search here' }).click()
  await expect(found).toContainText(/designs looked at/, { timeout: 60_000 })
  await desk.getByText('What was dropped, by reason').click()
  await expect(found).toContainText(/1 × Weirgate 36 is not in stock|is not in stock\./)
  await expect(found).not.toContainText('To order')
  await page.goto('/equipment')
  await count.fill('2')
  await Promise.all([kept(), count.press('Enter')])
})
