import sharp from 'sharp'
import { accessible, breaker, copyOf, giveLarge, openJob, saved } from './helpers'
import { expect, test } from './test'

const saltmarsh = '5a1de000-0000-4000-8000-000000000002'
const picture = () =>
  sharp({ create: { width: 900, height: 1200, channels: 3, background: '#8a8478' } })
    .withExif({ IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
    .jpeg()
    .toBuffer()

test('each answer changes what is asked next, and what is asked of the customer', async ({
  page,
  request: asking,
}) => {
  const { id } = await (
    await asking.post('/api/jobs', { data: { title: 'Asked', place: '', spaces: 20, mainA: 100 } })
  ).json()
  await openJob(page, id, 'ask')
  const question = (key: string) => page.locator(`[data-question="${key}"]`)
  const request = (key: string) => page.locator(`[data-request="${key}"]`)
  await expect(question('generatorW')).toHaveCount(0)
  await expect(request('photo:generator')).toHaveCount(0)
  await question('generator').getByLabel('yes').check()
  await expect(question('generatorW')).toBeVisible()
  await expect(request('photo:generator')).toContainText('whether its neutral is bonded')
  await question('generatorW').getByRole('textbox').fill('7')
  await page.keyboard.press('Tab')
  await expect(question('generatorW')).toContainText('must be from 300 to 50,000 W')
  await question('generatorW').getByRole('textbox').fill('1800')
  await page.keyboard.press('Tab')
  await expect(question('generatorW')).not.toContainText('must be')
  await question('largestMotor').getByRole('textbox').fill('Well pump')
  await page.keyboard.press('Tab')
  await expect(request('nameplate:largest-motor')).toContainText('Nameplate: Well pump')
  await question('lockedRotorA').getByRole('textbox').fill('34')
  await page.keyboard.press('Tab')
  await expect(request('nameplate:largest-motor')).toHaveCount(0)

  await question('water').getByLabel('an own well').check()
  await page.getByRole('button', { name: 'Well pump', exact: true }).click()
  await page.getByRole('button', { name: 'Refrigerator', exact: true }).click()
  await page.getByRole('button', { name: 'Refrigerator: more important' }).click()
  await expect(page.getByRole('list', { name: 'What must live' }).locator('li').first()).toContainText(
    'Refrigerator',
  )
  await page.getByLabel('Ask for something else').fill('The meter outside')
  await page.keyboard.press('Enter')
  await expect(page.getByText('The meter outside')).toBeVisible()
  await page.getByRole('button', { name: 'Mark all as asked' }).click()
  await expect(request('photo:wall')).toHaveAttribute('data-state', 'asked')
  await saved(page)
  await accessible(page)
  await page.reload()
  await expect(question('generatorW').getByRole('textbox')).toHaveValue('1800')
})

test('the customer’s link, from the phone: photographs, a nameplate, the utility’s file, and what cannot be taken', async ({
  page,
  browser,
  request,
}) => {
  const id = await copyOf(request, saltmarsh)
  await openJob(page, id, 'ask')
  await page.getByRole('button', { name: /^Make a/ }).click()
  const address = await page.getByLabel('Address to send').inputValue()
  expect(address).toMatch(/\/for\/[\w-]{43}$/)

  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
  const visitor = await phone.newPage()
  await visitor.goto(address)
  const card = (title: string) => visitor.getByRole('listitem', { name: title })
  await expect(visitor.getByRole('heading', { name: 'Saltmarsh Lane' })).toBeVisible()
  await accessible(visitor)
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)

  const wall = card('The wall where equipment could go')
  const send = (file: { name: string; mimeType: string; buffer: Buffer }) =>
    wall.locator('input[type=file]').first().setInputFiles(file)
  await send({ name: 'wall.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('%PDF-1.7 not a picture') })
  await expect(wall.getByRole('alert')).toContainText('is a PDF, whatever its name says')
  await giveLarge(wall.locator('input[type=file]').first(), 'huge.jpg', 'image/jpeg', 21_000_000)
  await expect(wall.getByRole('alert')).toContainText('larger than 20 MB')
  await send({ name: 'wall.jpg', mimeType: 'image/jpeg', buffer: await picture() })
  await expect(wall).toHaveAttribute('data-state', 'here')
  await expect(wall.getByRole('img')).toHaveJSProperty('complete', true)

  const pump = card('Nameplate: Well pump, 3/4 hp (10·12)')
  await pump.getByRole('button', { name: 'Type what the plate says' }).click()
  await pump.getByLabel('LRA').fill('34')
  await pump.getByLabel('Volts').fill('230')
  await pump.getByLabel('Amps').fill('6.8')
  await pump.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(pump).toContainText('You said: 230 V, 6.8 A, 34 A locked rotor')
  const use = card('A year of hourly use from the utility')
  await use
    .locator('input[type=file]')
    .last()
    .setInputFiles({
      name: 'use.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('start,kWh\n2025-01-01 00:00,0.4\n'),
    })
  await expect(use).toHaveAttribute('data-state', 'here')
  await card('The generator’s label and outlets').getByRole('button', { name: 'I don’t know' }).click()
  await expect(card('The generator’s label and outlets')).toContainText('does not know')

  // the firm sees it, while it has a change of its own under way; the plate goes onto the load
  await openJob(page, id, 'ask')
  const asked = page.locator('[data-request="photo:wall"]')
  await expect(asked).toHaveAttribute('data-state', 'received')
  await page.getByRole('button', { name: 'Take over for Well pump, 3/4 hp' }).click()
  await saved(page)
  await page.keyboard.press('2')
  await page.waitForURL(/panel/)
  await expect(breaker(page, '10·12 Well pump')).toBeVisible()
  // 34 A × 120 V on L1, on top of what that leg carries: nearer its limit than the whole
  await expect(page.locator('[data-line=start]')).toContainText(/needs 5,3\d\d VA/)

  // withdrawn, it opens nothing, and says the same as one that never was
  await page.keyboard.press('1')
  await page.getByRole('button', { name: 'Withdraw' }).first().click()
  // that of the link, not the sentence that it can be
  await expect(page.getByText(/withdrawn (?!at any time)/).first()).toBeVisible()
  await visitor.reload()
  await expect(visitor.getByRole('heading', { name: 'This link is no longer valid' })).toBeVisible()
  const token = address.split('/').at(-1) ?? ''
  for (const t of [token, 'x'.repeat(43), '../../jobs']) {
    const answer = await request.post(`/api/for/${encodeURIComponent(t)}`, {
      data: { key: 'photo:wall', unknown: true },
    })
    expect(answer.status()).toBe(404)
  }
  await phone.close()
})

test('what a customer sends does not get in the way of who edits the job', async ({ page, request }) => {
  const id = await copyOf(request, saltmarsh)
  const made = await (await request.post(`/api/jobs/${id}/links`, { data: { do: 'make' } })).json()
  await openJob(page, id)
  const sent = await request.post(`/api/for/${made.token}`, {
    data: { key: 'photo:wall', text: 'left of the door' },
  })
  expect(sent.ok()).toBe(true)
  await breaker(page, '5 Refrigerator').click()
  await saved(page)
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('1')
  await expect(page.locator('[data-request="photo:wall"]')).toContainText('left of the door')
})
