import type { Page } from '@playwright/test'
import { accessible, copyOf, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

const saltmarsh = '5a1de000-0000-4000-8000-000000000002'
const quarry = '5a1de000-0000-4000-8000-000000000003'

const card = (page: Page, name: string) => page.getByRole('region', { name, exact: true })
const way = (page: Page, name: RegExp) => card(page, 'Ways').getByRole('row', { name })
const drawn = (page: Page) =>
  page.getByRole('group', { name: /^Drawing of the wires/ }).locator('[data-wire]')
const part = (page: Page, key: string) => page.locator(`[data-part="${key}"]`)

test('from the drawing to the wall to the order: a box moved by the keys makes a longer wire, and more of it to buy', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, saltmarsh)
  await openJob(page, id, 'wire')
  await expect(drawn(page).first()).toBeVisible()
  await expect(card(page, 'Schedule').getByRole('row')).toHaveCount(5)
  await accessible(page)
  await card(page, 'Drawing').getByRole('button', { name: 'Wall' }).click()
  const inlet = page.getByRole('group', { name: /^Sill L14-30, 15\.5 ft/ })
  await inlet.focus()
  await page.keyboard.press('Enter')
  for (let n = 0; n < 4; n++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('group', { name: /^Sill L14-30, 16\.5 ft/ })).toBeVisible()
  await expect(way(page, /^Inlet to Main panel/).getByRole('textbox', { name: 'Length' })).toHaveValue(
    '18.375',
  )
  await accessible(page)
  // what is typed goes before the wall, and what cannot be stays as typed
  const length = way(page, /^Inlet to Main panel/).getByRole('textbox', { name: 'Length' })
  await length.fill('5000')
  await length.press('Enter')
  await expect(way(page, /^Inlet to Main panel/)).toContainText('Length must be from 0.5 to 2,000 ft')
  await expect(length).toHaveValue('5000')
  await length.fill('50 ft')
  await length.press('Enter')
  await page.getByRole('button', { name: 'Why IN L1 is 10 AWG' }).click()
  await expect(page.getByRole('dialog', { name: 'Working: Ampacity' })).toContainText('NEC 310.16')
  await page.keyboard.press('Escape')
  await saved(page)
  await openAgain(page)
  await page.getByRole('link', { name: 'Parts' }).click()
  // 50 ft and 3 at each end, a tenth for waste
  await expect(part(page, 'wire-cu-10-red')).toContainText('61.6 ft')
  await expect(part(page, 'wire-cu-10-red')).toContainText('62 ft Yard counter')
  await part(page, 'wire-cu-10-red')
    .getByRole('link', { name: /^IN L2/ })
    .click()
  await expect(page).toHaveURL(/\/wire#way-inlet$/)
  for (const [file, begins] of [
    ['wiring?format=svg', '<?xml'],
    ['wiring?format=csv', 'id,mark'],
    ['wiring', '%PDF'],
    ['order', '%PDF'],
  ] as const) {
    const answer = await request.get(`/api/jobs/${id}/${file}`)
    expect((await answer.body()).subarray(0, begins.length).toString()).toBe(begins)
  }
})

test('one circuit is lit, a size chosen by hand is told where it is too thin, and the firm’s habit changes the whole', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, quarry), 'wire')
  await expect(drawn(page).first()).toBeVisible()
  await page.getByRole('combobox', { name: 'Light one circuit' }).click()
  await page.getByRole('option', { name: 'Studio lights' }).click()
  await expect(card(page, 'Schedule')).toContainText('4 conductors')
  await expect(drawn(page).first()).toHaveCSS('opacity', '0.12')
  await page.getByRole('combobox', { name: 'Size of B 1 Studio lights', exact: true }).click()
  await page.getByRole('option', { name: '14', exact: true }).click()
  await expect(card(page, 'To be looked at')).toContainText(
    'B 1 Studio lights: 14 AWG is too thin for 20 A there: 10 AWG is asked.',
  )
  await expect(way(page, /Studio sub-panel to Critical-load panel/)).toContainText('1 point to be looked at')
  const habits = card(page, 'As the firm likes it')
  await expect(habits.getByRole('radio', { name: /^one size up \(\+\$/ })).toBeVisible()
  await habits.getByRole('radio', { name: /^lever/ }).click()
  await saved(page)
  await page.getByRole('link', { name: 'Parts' }).click()
  await expect(part(page, 'lever-3-large')).toBeVisible()
  await expect(part(page, 'twist-large')).toHaveCount(0)
})

test('the order: stock is kept for one job, a price book is read with its bad rows told', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, saltmarsh)
  await openJob(page, id, 'parts')
  await expect(part(page, 'directory-card')).toContainText('from stock')
  await accessible(page)
  await page.getByRole('button', { name: 'Keep from stock for this job' }).click()
  await expect(card(page, 'Together')).toContainText(/Of the stock, \d+ parts kept for this job/)
  const book = [
    'part,name,quantity,price,supplier,date',
    `hold-down-${id.slice(0, 6)},mine,1,3,,2026-01-01`,
    'hold-down,kit,1,€ 9,Elsewhere,2026-11-01',
    'hold-down,kit,1,=9+1,Elsewhere,2026-11-01',
  ].join('\n')
  await page
    .getByLabel('A price book as CSV')
    .setInputFiles({ name: 'book.csv', mimeType: 'text/csv', buffer: Buffer.from(book) })
  await expect(page.getByText('1 price taken over')).toContainText(/Row 3, price: .*another money/)
  await expect(
    page.getByRole('list', { name: 'Rows that were not taken' }).getByRole('listitem'),
  ).toHaveCount(2)
  await page.getByRole('button', { name: 'Let go what is kept' }).click()
  await expect(card(page, 'Together')).not.toContainText('kept for this job')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print', exact: true })).toBeHidden()
  await expect(page.getByRole('table', { name: 'Wire' })).toBeVisible()
})
