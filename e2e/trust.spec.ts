import { accessible, accessibleDayAndNight, alder, breaker, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

test('what a closed tab could not save is taken up by the next that opens the job', async ({
  page,
  context,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await page.route(/\/changes$/, route => route.abort())
  await breaker(page, '7 ').click()
  await expect(page.getByText(/Not saved: 1 change kept here/)).toBeVisible()
  const next = await context.newPage()
  await openJob(next, id)
  // the tab is still there: what waits in it is its own
  await expect(breaker(next, '7 ')).toHaveAttribute('aria-pressed', 'true')
  await next.close()
  await page.close({ runBeforeUnload: false })
  const after = await context.newPage()
  await after.goto(`/jobs/${id}/panel`)
  await expect(breaker(after, '7 ')).toHaveAttribute('aria-pressed', 'false')
  await saved(after)
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  expect(record.revision).toBe(2)
})

test('two on one job see each other, and each other’s changes at once', async ({
  page,
  browser,
  baseURL,
  request,
  playwright,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  const door = await playwright.request.newContext({ baseURL, extraHTTPHeaders: { origin: baseURL ?? '' } })
  await door.post('/api/auth/demo/enter', { data: { as: 'technician' } })
  const elsewhere = await browser.newContext({ baseURL, storageState: await door.storageState() })
  const other = await elsewhere.newPage()
  await openJob(other, id)
  await expect(page.getByText('Field technician here too')).toBeVisible()
  await expect(other.getByText('Designer here too')).toBeVisible()
  await breaker(other, '9 Playroom lights').click()
  await expect(breaker(page, '9 Playroom lights')).toHaveAttribute('aria-pressed', 'false')
  await accessible(page)
  await elsewhere.close()
  await expect(page.getByText('Field technician here too')).toBeHidden()
  await door.dispose()
})

test('a conflict loses neither: what gives way is put aside, and put on top from the history; which is looked back into, and gone back to', async ({
  page,
  context,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  const other = await context.newPage()
  await openJob(other, id)
  await page.route(/since=/, route => route.abort())
  await breaker(other, '9 Playroom lights').click()
  await saved(other)
  await other.close()
  await breaker(page, '17 Sump pump').click()
  const dialog = page.getByRole('dialog', { name: 'This job was changed elsewhere meanwhile' })
  await dialog.getByRole('button', { name: 'Put 1 change of mine aside' }).click()
  await expect(breaker(page, '17 Sump pump')).toHaveAttribute('aria-pressed', 'false')
  await page.unroute(/since=/)
  await page.keyboard.press('y')
  const aside = page.getByRole('region', { name: 'Put aside on this device' })
  await expect(aside).toContainText('picked 17 Sump pump')
  await accessibleDayAndNight(page)
  await aside.getByRole('button', { name: 'Put on top now' }).click()
  await saved(page)
  const list = page.getByRole('list', { name: 'History' })
  await expect(list.getByRole('listitem').first()).toContainText('picked 17 Sump pump')
  await expect(aside).toBeHidden()
  await page.getByRole('button', { name: 'Go back to revision 1' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Go back' }).click()
  await expect(list.getByRole('listitem').first()).toContainText('went back to revision 1')
  await page.getByRole('link', { name: 'Look at revision 3' }).click()
  await expect(page.getByText(/revision 3,/)).toBeVisible()
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  expect([record.revision, record.undos[0]]).toEqual([4, 'went back to revision 1'])
})
