import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { accessible, copyOf, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

const saltmarsh = '5a1de000-0000-4000-8000-000000000002'

/** The whole program is fetched before it says so: on a slow machine that takes a while. */
const keptOnDevice = (page: Page) =>
  expect(page.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

test('tracing in a cellar: no connection, a reload, and nothing lost or doubled', async ({
  page,
  context,
  request,
}) => {
  const id = await copyOf(request, saltmarsh)
  test.setTimeout(90_000)
  const faults: string[] = []
  page.on('pageerror', error => faults.push(error.message))
  await openJob(page, id, 'trace')
  await keptOnDevice(page)
  await accessible(page)
  const card = (place: string) => page.getByRole('region', { name: `Breaker ${place}`, exact: true })
  // one visit, and down into the cellar: the screen opens, and the first breaker is traced there
  await context.setOffline(true)
  await openAgain(page)
  await expect(page.getByText('Someone here depends on a powered device')).toBeVisible()
  await card('1').getByRole('button', { name: 'I switched it off' }).click()
  await expect(card('1').getByRole('timer')).toContainText('off for')
  await card('1').getByRole('button', { name: 'Known' }).click()
  await expect(card('1')).toContainText('Write what died')
  await card('1').getByRole('button', { name: 'Dining room' }).click()
  await card('1').getByRole('button', { name: 'Known' }).click()
  await expect(page.getByRole('button', { name: '8 to trace' })).toBeVisible()
  await expect(page.getByText('1 written down. Switch it on again.')).toBeVisible()
  // a screen that is not kept says so, and leads back
  await page.goto(`/jobs/${id}/panel`)
  await expect(page.getByRole('heading', { name: 'No connection' })).toBeVisible()
  await page.getByRole('link', { name: /^Trace the breakers: Saltmarsh Lane/ }).click()
  await expect(page.getByRole('button', { name: '8 to trace' })).toBeVisible()

  // the connection comes, and goes again
  await context.setOffline(false)
  await saved(page)
  await context.setOffline(true)
  await expect(page.getByText('No connection: stay on this screen')).toBeVisible()
  await card('3').getByLabel('What died?').fill('bathroom, and the hall')
  await card('3').getByRole('button', { name: 'Doubtful' }).click()
  await expect(page.getByRole('button', { name: '2 doubtful' })).toBeVisible()
  await card('7')
    .locator('input[type=file]')
    .setInputFiles({
      name: 'laundry.jpg',
      mimeType: 'image/jpeg',
      buffer: await sharp({ create: { width: 400, height: 300, channels: 3, background: '#776655' } })
        .jpeg()
        .toBuffer(),
    })
  await expect(page.getByText('1 photograph waiting to be sent')).toBeVisible()
  await card('7').getByRole('button', { name: 'Nothing died' }).click()
  await expect(page.getByRole('button', { name: '2 no load found' })).toBeVisible()

  await openAgain(page)
  await expect(page.getByRole('button', { name: '6 to trace' })).toBeVisible()
  await expect(page.getByRole('button', { name: '2 doubtful' })).toBeVisible()
  await expect(page.getByText('1 photograph waiting to be sent')).toBeVisible()
  // a colleague works on the same job meanwhile: tracing goes on top without asking
  const record = await (await request.get(`/api/jobs/${id}`)).json()
  const other = await request.post(`/api/jobs/${id}/changes`, {
    data: {
      baseRevision: record.record.revision,
      changes: [
        {
          id: crypto.randomUUID(),
          kind: 'do',
          operation: { op: 'setOutage', facts: { hours: 80 } },
        },
      ],
    },
  })
  expect(other.ok()).toBe(true)

  await context.setOffline(false)
  await expect(page.getByText('waiting to be sent')).toHaveCount(0)
  await saved(page)
  const after = await (await request.get(`/api/jobs/${id}?since=1`)).json()
  const told = after.since.map((r: { sentence: string }) => r.sentence)
  expect(told.filter((s: string) => s.startsWith('traced 3 Bathroom'))).toHaveLength(1)
  expect(told.filter((s: string) => s.startsWith('traced 7 Laundry'))).toHaveLength(1)
  expect(told.filter((s: string) => s.startsWith('added the photograph'))).toHaveLength(1)
  const circuits = after.record.job.panels[0].circuits
  expect(circuits.find((c: { id: string }) => c.id === 'c3').traced).toMatchObject({
    found: 'doubtful',
    died: 'bathroom, and the hall',
  })
  expect(after.record.job.outage.hours).toBe(80)
  expect(faults).toEqual([])
})

test('an error of the server does not replace what is kept', async ({ page, request, context }) => {
  const id = await copyOf(request, saltmarsh)
  await openJob(page, id, 'trace')
  await keptOnDevice(page)
  await context.route(`**/jobs/${id}/trace`, route => route.fulfill({ status: 503, body: 'busy' }))
  for (let n = 0; n < 2; n++) {
    await page.reload()
    await expect(page.getByRole('heading', { name: 'Trace the breakers' })).toBeVisible()
  }
  // what is kept does not stand in the way of what the other screens need
  await openJob(page, id, 'outage')
  await expect(page.getByRole('region', { name: 'Answer' })).toBeVisible()
})

test('who signs out leaves no job on the phone; what they could not send waits for them alone', async ({
  page,
  context,
  request,
}) => {
  test.setTimeout(90_000)
  const id = await copyOf(request, saltmarsh)
  await openJob(page, id, 'trace')
  await keptOnDevice(page)
  await context.route(/\/changes$/, route => route.abort())
  const card = page.getByRole('region', { name: 'Breaker 1', exact: true })
  await card.getByRole('button', { name: 'Nothing died' }).click()
  await expect(page.getByText(/Not saved: 1 change kept here/)).toBeVisible()
  const me = (name: string) => page.getByRole('button', { name: `${name}, Headwater Electric` })
  await me('Designer').click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  const dialog = page.getByRole('dialog', { name: 'Not everything was sent' })
  await expect(dialog).toContainText('Waiting on this device for the connection: 1 change of yours')
  await accessible(page)
  await dialog.getByRole('button', { name: 'Sign out' }).click()
  await expect(page).toHaveURL(/\/sign-in/)
  const kept = () =>
    page.evaluate(async () => (await (await caches.open('spillway-field-pages')).keys()).length)
  expect(await kept()).toBe(0)

  // another takes the phone: they see the job as the server has it, and send nothing of it
  await context.unroute(/\/changes$/)
  await page.getByRole('button', { name: /^Look around as technician/ }).click()
  await expect(page).toHaveURL(/\/jobs$/)
  await openJob(page, id, 'trace')
  await keptOnDevice(page)
  const count = page.getByRole('button', { name: /to trace$/ })
  await expect(count).toHaveText(/^9/)
  const revision = async () => (await (await page.request.get(`/api/jobs/${id}`)).json()).record.revision
  expect(await revision()).toBe(1)

  // whose session ended elsewhere finds a screen that asks who they are, and nothing kept behind it
  await context.clearCookies()
  await page.reload()
  await expect(page).toHaveURL(/\/sign-in/)
  await expect.poll(kept).toBe(0)
  await page.getByRole('button', { name: /^Look around as designer/ }).click()
  // and leads back to where they were
  await expect(page).toHaveURL(/\/trace$/)
  await expect(count).toHaveText(/^8/)
  await expect.poll(revision).toBe(2)
  const { since } = await (await page.request.get(`/api/jobs/${id}?since=1`)).json()
  expect(since).toMatchObject([{ person: 'Designer', sentence: expect.stringMatching(/^traced 1/) }])
})
