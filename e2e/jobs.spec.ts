import type { APIRequestContext, Page } from '@playwright/test'
import { accessible, alder, copyOf, live, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

const titles = (page: Page) => page.locator('tbody tr td:first-child a').allTextContents()

/** Jobs of this test's own, under a word that no other has. */
async function jobsNamed(request: APIRequestContext, word: string, count: number) {
  for (let i = 1; i <= count; i++)
    await request.post('/api/jobs', {
      data: {
        title: `${word} ${String(i).padStart(2, '0')}`,
        place: `house ${count - i}`,
        spaces: 8,
        mainA: 60,
      },
    })
}

test('the list searches, sorts and pages, and the address carries it', async ({ page, request }) => {
  await jobsNamed(request, 'Paged', 23)
  await page.goto('/jobs?q=paged')
  const here = page.getByRole('navigation', { name: 'pagination navigation' }).locator('[aria-current]')
  await expect(here).toHaveText('1')
  await page.getByRole('link', { name: 'Job and place' }).click()
  await expect(page.getByRole('columnheader', { name: 'Job and place' })).toHaveAttribute(
    'aria-sort',
    'ascending',
  )
  await expect.poll(async () => (await titles(page))[0]).toBe('Paged 01')
  await page.getByRole('link', { name: 'Go to next page' }).click()
  await expect.poll(() => titles(page)).toEqual(['Paged 21', 'Paged 22', 'Paged 23'])
  await page.reload()
  await expect(here).toHaveText('2')
  await page.getByLabel('Search by name or place').fill('paged nowhere')
  await expect(
    page.getByText('None of the jobs at hand has “paged nowhere” in its name or place.'),
  ).toBeVisible()
  await accessible(page)
})

test('a job is duplicated, archived and brought back', async ({ page, request }) => {
  await jobsNamed(request, 'Filed', 1)
  await page.goto('/jobs?q=filed')
  const menu = (name: string) => page.getByRole('button', { name: `More for ${name}`, exact: true })
  await menu('Filed 01').click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  await expect(page.getByText('Made a copy of Filed 01.')).toBeVisible()
  await expect.poll(() => titles(page)).toContain('Filed 01 (copy)')
  await menu('Filed 01').click()
  await page.getByRole('menuitem', { name: 'Archive' }).click()
  await expect.poll(() => titles(page)).toEqual(['Filed 01 (copy)'])
  await page.getByRole('link', { name: 'Archived jobs' }).click()
  await expect.poll(() => titles(page)).toContain('Filed 01')
  await menu('Filed 01').click()
  await page.getByRole('menuitem', { name: 'Bring back' }).click()
  await page.getByRole('link', { name: 'Jobs at hand' }).click()
  await expect.poll(async () => (await titles(page)).sort()).toEqual(['Filed 01', 'Filed 01 (copy)'])
})

test('who acts and the night colours are chosen in the bar and stay chosen; who acted stands in the record', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await page.getByRole('button', { name: 'Designer, Headwater Electric' }).click()
  await page.getByRole('menuitem', { name: 'Look around as technician' }).click()
  await expect(page.getByRole('button', { name: /^Field technician, / })).toBeVisible()
  await live(page)
  await page.getByRole('button', { name: 'Show in night colours' }).click()
  await openAgain(page)
  await expect(page.getByRole('button', { name: 'Show in daylight colours' })).toBeVisible()
  await page.getByRole('button', { name: 'Open 4 Living room outlets' }).click()
  await page.getByRole('button', { name: 'I saw it die today' }).click()
  await expect(page.getByText(/seen to die by Field technician/)).toBeVisible()
  await saved(page)
  const { since } = await (await request.get(`/api/jobs/${id}?since=1`)).json()
  expect(since).toMatchObject([
    { person: 'Field technician', sentence: 'edited 4 Living room outlets (tracing)' },
  ])
})
