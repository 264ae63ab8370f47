import { devices } from '@playwright/test'
import { accessible, alder, breaker, copyOf, openJob } from './helpers'
import { expect, test } from './test'

test('on a phone: tap, open a circuit, read the balance, nothing wider than the screen', async ({
  browser,
  request,
  baseURL,
  session,
}) => {
  const id = await copyOf(request, alder)
  const { userAgent } = devices['Pixel 7']
  const page = await browser.newPage({
    baseURL,
    userAgent,
    storageState: { cookies: session, origins: [] },
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  await openJob(page, id)
  const bar = page.getByRole('button', { name: /Balance$/ })
  await expect(bar).toContainText('18.2 h of 36 h')
  await breaker(page, '9 Playroom lights').tap()
  await expect(bar).not.toContainText('18.2 h')
  await page.getByRole('button', { name: 'Open 9 Playroom lights' }).tap()
  await expect(page.getByLabel('Label', { exact: true })).toHaveValue('Playroom lights')
  await page.getByRole('button', { name: 'Close the circuit' }).tap()
  await bar.tap()
  await expect(page.getByRole('heading', { name: 'Balance' })).toBeVisible()
  await page.keyboard.press('Escape')
  await accessible(page)
  for (const view of ['source', 'hook-up', 'outage', 'print']) {
    await page.goto(`/jobs/${id}/${view}`)
    const wider = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect(`${view} ${wider > 0 ? 'overflows' : 'fits'}`).toBe(`${view} fits`)
  }
  const small = await page
    .goto(`/jobs/${id}/panel`)
    .then(() =>
      page
        .locator('[data-space]')
        .evaluateAll(all => all.filter(e => e.getBoundingClientRect().height < 40).length),
    )
  expect(small).toBe(0)
  await page.close()
})
