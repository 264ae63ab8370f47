import { accessible, alder, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

test('the house is handed over: card in two languages, the pack made and signed, the page of the house read, asked and told without a connection', async ({
  page,
  context,
  request,
}) => {
  test.setTimeout(120_000)
  const id = await copyOf(request, alder)
  await page.goto(`/jobs/${id}/hand-over`)
  await expect(page.getByRole('heading', { name: 'To the battery' })).toBeVisible()
  await page.getByRole('button', { name: 'Español' }).click()
  await expect(page.getByRole('heading', { name: 'Pasar a la batería' })).toBeVisible()
  await accessible(page)

  // the pack, made by the worker
  await page.getByRole('button', { name: 'Make the pack' }).click()
  const pack = page.getByRole('region', { name: 'Pack 1' })
  await expect(pack.getByRole('link', { name: 'Open (PDF)' })).toBeVisible({ timeout: 40_000 })
  const paper = await request.get(
    (await pack.getByRole('link', { name: 'Open (PDF)' }).getAttribute('href')) ?? '',
  )
  expect((await paper.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await expect(pack).toContainText('its first page says so')
  await pack.getByRole('button', { name: 'Sign for the house' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Kim Poe')
  await dialog.getByRole('button', { name: 'Sign', exact: true }).click()
  await expect(dialog).toContainText('too little to be one')
  const field = await dialog.getByRole('img').boundingBox()
  if (!field) throw new Error('nowhere to sign')
  await page.mouse.move(field.x + 30, field.y + 100)
  await page.mouse.down()
  await page.mouse.move(field.x + 260, field.y + 60, { steps: 8 })
  await page.mouse.up()
  await dialog.getByRole('button', { name: 'Sign', exact: true }).click()
  await expect(pack).toContainText('Signed for the house: Kim Poe')

  // the page of the house, for who lives there
  await page.getByRole('button', { name: 'Make a link' }).click()
  const address = await page.getByRole('textbox', { name: 'Address to send' }).inputValue()
  const phone = await context.newPage()
  await phone.setViewportSize({ width: 390, height: 844 })
  await phone.goto(address)
  await expect(phone.getByRole('heading', { name: 'Back to the utility' })).toBeVisible()
  await accessible(phone)
  const before = await phone.locator('#tonight .price').innerText()
  await phone.getByRole('checkbox', { name: /Kitchen counter/ }).uncheck()
  await phone.getByRole('button', { name: 'How long?' }).click()
  await expect(phone.locator('#tonight .price')).not.toHaveText(before)
  await phone.getByLabel('How many hours?').fill('7,5')
  await phone.getByRole('button', { name: 'Tell it' }).click()
  await expect(phone.locator('#outage [role=alert]')).toContainText('On which day? must be a date')
  await phone.getByLabel('On which day?').fill('2026-02-20')
  await phone.getByLabel('all of it').check()
  await phone.getByRole('button', { name: 'Tell it' }).click()
  await expect(phone.locator('#outage [role=status]')).toContainText('It is kept with your house')
  await expect
    .poll(async () => phone.evaluate(async () => (await (await caches.open('spillway-house')).keys()).length))
    .toBeGreaterThan(1)
  await context.setOffline(true)
  await phone.goto(address)
  await expect(phone.locator('#offline')).toContainText('No connection')
  await expect(phone.getByRole('heading', { name: 'To the battery' })).toBeVisible()
  await context.setOffline(false)
  const card = await request.get(`/api/house/${address.split('/').at(-1)}/card?language=es`)
  expect((await card.body()).subarray(0, 5).toString()).toBe('%PDF-')

  // what it told is read and settled; the link is withdrawn, and opens nothing
  await page.reload()
  await expect(page.getByText('Outage of 2026-02-20: 7.5 h, it carried all of it')).toBeVisible()
  await page.getByRole('button', { name: 'Settled' }).click()
  await expect(page.getByText('settled', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Withdraw' }).click()
  await expect(page.getByText(/withdrawn \d/)).toBeVisible()
  expect((await request.get(address)).status()).toBe(404)
})

test('the years after: handed over, due, a visit that changes a circuit, and only that is printed', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await page.goto(`/jobs/${id}/hand-over`)
  const visits = page.getByRole('form', { name: 'A visit, or an outage' })
  await visits.getByLabel('In a few words').fill('the playroom goes off the battery')
  await visits.getByRole('button', { name: 'Write it down' }).click()
  const visit = page.getByRole('region', { name: /^A circuit trips/ })
  await expect(visit).toContainText('No figure has changed')
  await saved(page)
  await page.goto('/due')
  await expect(page.getByRole('list', { name: 'Houses of which something is due' })).toContainText(
    'Visit open: a circuit trips',
  )
  await accessible(page)
  const change = { op: 'selectCircuit', circuitId: 'c9', picked: false }
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  await request.post(`/api/jobs/${id}/changes`, {
    data: {
      baseRevision: record.revision,
      changes: [{ id: crypto.randomUUID(), kind: 'do', operation: change }],
    },
  })
  await page.goto(`/jobs/${id}/hand-over`)
  await expect(visit).toContainText('9 Playroom lights, 15 A')
  await visit.getByRole('link', { name: 'Print what changed' }).click()
  await expect(page.getByRole('heading', { name: 'Directory and labels' })).toBeVisible()
  await expect(page.getByRole('article')).toContainText('9 Playroom lights, 15 A, lives on the source')
  await expect(page.getByRole('article')).not.toContainText('Range')
})
