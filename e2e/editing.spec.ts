import type { Page } from '@playwright/test'
import { largestJob } from '../bench/job'
import { alder, breaker, chooseSource, clearPositions, copyOf, line, openJob, saved } from './helpers'
import { expect, test } from './test'

const choose = async (page: Page, label: string, option: string | RegExp) => {
  await page.getByRole('combobox', { name: label, exact: true }).click()
  await page.getByRole('option', { name: option, exact: true }).click()
}

test('with the mouse: a two-pole breaker, its load, a move, a shared neutral, and all of it taken back', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await clearPositions(page, id)
  await openJob(page, id)
  await breaker(page, '27 free').click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Label').fill('Well pump')
  await choose(page, 'Kind', 'two-pole, 240 V')
  await dialog.getByRole('button', { name: 'Add' }).click()
  await expect(breaker(page, '27·29 Well pump')).toHaveAccessibleName(/240 V, no 240 V/)

  await page.getByRole('button', { name: 'Open 27·29 Well pump' }).click()
  await page.getByRole('button', { name: 'Add a load' }).click()
  await dialog.getByLabel('Name', { exact: true }).fill('Pump')
  await dialog.getByLabel('Running', { exact: true }).fill('900')
  await choose(page, 'Motor', 'motor')
  await choose(page, 'Start', 'locked-rotor amps (A)')
  await dialog.getByLabel('Start figure').fill('38')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await breaker(page, '27·29 Well pump').click()
  await expect(line(page, 'v240')).toContainText(
    '27·29 Well pump at 240 V, which both legs tied does not give',
  )

  await page.getByRole('link', { name: 'Source' }).click()
  await chooseSource(page, 'Spate 64')
  await page.getByRole('radio', { name: /^split phase/i }).check()
  await expect(line(page, 'v240')).toHaveAttribute('data-verdict', 'enough')
  // 38 A × 240 V = 9,120 VA on top of the rest, 11,500 there
  await line(page, 'start').getByRole('button').click()
  await expect(page.getByRole('dialog', { name: /^Working: Worst start: Pump/ })).toContainText('9,120 VA')
  await page.getByRole('button', { name: 'Close the working' }).click()

  await page.getByRole('link', { name: 'Panel' }).click()
  await page.getByRole('button', { name: 'Open 9 Playroom lights' }).click()
  await expect(page.getByRole('heading', { name: '9 Playroom lights' })).toBeVisible()
  await page.getByLabel('Position').fill('28')
  await page.getByLabel('Position').press('Enter')
  await expect(breaker(page, '28 Playroom lights')).toBeVisible()
  await choose(page, 'Neutral', /^shared with 26/)
  await expect(breaker(page, '26 Unlabelled')).toContainText('N with 28')
  await saved(page)

  const undo = page.getByRole('button', { name: /^Undo/ })
  const taken: string[] = []
  for (let left = 12; left > 0 && (await undo.isEnabled()); left--) {
    const next = (await undo.getAttribute('aria-label')) ?? ''
    taken.push(next)
    await undo.click()
    await expect(undo).not.toHaveAttribute('aria-label', next)
  }
  expect(taken).toEqual([
    'Undo: edited 28 Playroom lights (neutral)',
    'Undo: moved 9 Playroom lights to 28',
    'Undo: arranged as split phase',
    'Undo: chose the Spate 64 as source',
    'Undo: picked 27·29 Well pump',
    'Undo: set the load Pump on 27·29 Well pump',
    'Undo: added 27·29 Well pump',
    'Undo: changed the hook-up',
  ])
  await expect(undo).toBeDisabled()
  await saved(page)
  await expect(line(page, 'hours')).toContainText('has 18.2 h')
  await expect(breaker(page, '27 free')).toBeVisible()
  const text = async (which: string) => (await request.get(`/api/jobs/${which}/export`)).json()
  const { title: _, ...back } = await text(id)
  // what the field did there is no part of a copy
  const { title: __, work: ___, tests: ____, ...original } = await text(alder)
  const planned = original.planned.map(({ built: _, ...change }: { built?: object }) => change)
  expect(back).toEqual({ ...original, planned })
})

test('one tap and two quick steps back: the job is as it was, and can be edited on', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  const sent: string[][] = []
  page.on('request', r => {
    if (r.url().endsWith('/changes')) sent.push(r.postDataJSON().changes.map((c: { kind: string }) => c.kind))
  })
  await openJob(page, id)
  await breaker(page, '9 Playroom lights').click()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+Shift+z')
  await saved(page)
  await expect(breaker(page, '9 Playroom lights')).toHaveAttribute('aria-pressed', 'false')
  expect(sent.flat()).toEqual(['do', 'undo', 'redo'])
  await breaker(page, '17 Sump pump').click()
  await expect(breaker(page, '17 Sump pump')).toHaveAttribute('aria-pressed', 'true')
  await saved(page)
})

test('the largest panel, with the longest labels, still prints on one page', async ({ page, request }) => {
  const { id } = await (await request.post('/api/jobs/import', { data: largestJob() })).json()
  await page.goto(`/jobs/${id}/print`)
  await expect(page.getByRole('cell', { name: '42', exact: true })).toBeVisible()
  const pdf = await page.pdf({ preferCSSPageSize: true })
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
})
