import type { Page } from '@playwright/test'
import { accessible, accessibleDayAndNight, alder, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

const answer = (page: Page) => page.getByRole('region', { name: 'Answer' })
const bench = async (page: Page, path = '') => {
  await page.goto(`/bench${path}`)
  await expect(page.locator('[aria-busy=false]')).toBeVisible()
}

/** Asks in one's own words, from anywhere on the bench. */
async function ask(page: Page, question: string) {
  await page.keyboard.press('Control+k')
  await page.keyboard.type(question)
  await page.keyboard.press('Enter')
}

/** Keys one after the other; in a number what stands there is selected, so that typing replaces it. */
async function press(page: Page, ...keys: string[]) {
  for (const key of keys)
    if (/^[A-Z][a-z]/.test(key)) await page.keyboard.press(key)
    else await page.keyboard.type(key)
}

test('questions of a day’s work, with the keyboard alone', async ({ page }) => {
  await bench(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('walk the questions')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  // six circuits in one conduit in a hot attic, 12 AWG THHN: 30 A × 0.82 (46 to 50 °C) × 0.5 = 12.3 A
  await ask(page, 'derating')
  await press(page, 'Tab', 'ArrowLeft', 'Tab', 'Tab', 'Tab', '118', 'Tab', '12')
  await expect(answer(page)).toContainText(
    '12 AWG copper carries 12.3 A here; no standard breaker is that small.',
  )
  // 100 ft of 10 AWG at 20 A: 4.96 V
  await ask(page, 'far end')
  await press(page, 'Tab', 'Tab', '100', 'Tab', '20')
  await expect(answer(page)).toContainText('Loses 4.96 V')
  // one rung thicker on the ladder
  await press(page, 'Shift+Tab', 'Shift+Tab', 'ArrowRight')
  await expect(page.getByRole('radio', { name: '8 AWG' })).toBeChecked()
  // 2 × 100 ÷ 1000 × 0.778 × 20
  await expect(answer(page)).toContainText('Loses 3.112 V')
  // how long does it last with a fifth kept
  await ask(page, 'how long will it last?')
  await press(page, '4000', 'Tab', 'Tab', '20', 'Tab', 'Tab', '20', 'Tab', '80', 'Tab', '144')
  // 3,200 ÷ (20 + 144 ÷ 0.8) = 16 h
  await expect(answer(page)).toContainText('Lasts 16 h at 144 W average')
  // odd volts on a floating source
  await ask(page, 'odd volts')
  await press(page, '120', 'Tab', '48', 'Tab', '66')
  await expect(answer(page)).toContainText('Floating source.')
  await expect(page.getByText('ground, 48 V off neutral, 66 V off hot')).toBeVisible()
})

test('an answer goes into a job: kept with it and changed again, or set on a load', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  const title = 'Alder Hollow'
  await openJob(page, id, 'calculations')
  await expect(page.getByText('inlet by the garage door to the panel')).toBeVisible()
  await page.getByRole('link', { name: 'Change on the bench' }).click()
  await expect(page.locator('[aria-busy=false]')).toBeVisible()
  await page.getByRole('textbox', { name: 'Current' }).fill('30')
  await page.getByRole('button', { name: 'Use in a job' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('Note (optional)')).toHaveValue('inlet by the garage door to the panel')
  await dialog.getByLabel('Note (optional)').fill('inlet, thirty amps')
  await accessible(page)
  await dialog.getByRole('button', { name: 'Keep with the job' }).click()
  await expect(page.getByText(`Kept with`)).toContainText(title)
  await openJob(page, id, 'calculations')
  await expect(page.getByText('inlet, thirty amps')).toBeVisible()
  // 2 × 35 ÷ 1000 × 1.24 × 30 = 2.604 V
  await expect(page.getByText('Loses 2.604 V')).toBeVisible()
  await page.getByRole('button', { name: 'Show the working' }).click()
  await expect(page.getByRole('heading', { name: 'Voltage drop' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Remove' }).click()
  await expect(page.getByText('Nothing is kept here yet')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('inlet, thirty amps')).toBeVisible()
  await saved(page)
  await accessible(page)

  await bench(page, `/load-log?job=${id}`)
  await page.getByLabel('While it runs').fill('131')
  await page.getByRole('button', { name: 'Use in a job' }).click()
  await expect(dialog.getByLabel('Job')).toHaveValue(new RegExp(title))
  await dialog.getByLabel('As').click()
  await page
    .getByRole('option', { name: /refrigerator/i })
    .first()
    .click()
  await dialog.getByRole('button', { name: 'Set on the load' }).click()
  await expect(page.getByText(/^Set on .*, in Alder Hollow/)).toBeVisible()
  const { job } = await (await request.get(`/api/jobs/${id}`)).json().then(r => r.record)
  const metered = JSON.stringify(job.panels[0].circuits).match(/"runningW":\{"value":131,"from":"metered"/)
  expect(metered).not.toBeNull()
})

test('the bench is accessible by day and at night, wide and on a phone', async ({ page }) => {
  for (const path of ['', '/cord-chain', '/interval-demand']) {
    await bench(page, path)
    await accessibleDayAndNight(page)
    await page.setViewportSize({ width: 390, height: 844 })
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
    await accessible(page)
    await page.setViewportSize({ width: 1280, height: 800 })
  }
})
