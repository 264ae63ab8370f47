import { type APIRequestContext, expect, type Locator, type Page } from '@playwright/test'
import axe from 'axe-core'

export const alder = '5a1de000-0000-4000-8000-000000000001'

/** A copy of a demo job of this test's own. */
export async function copyOf(request: APIRequestContext, id: string): Promise<string> {
  const answer = await request.post(`/api/jobs/${id}/duplicate`, { data: {} })
  return (await answer.json()).id
}

/** A breaker or free space of the drawn panel, by the start of its name. */
export const breaker = (page: Page, name: string) =>
  page.locator('[data-space]').and(page.getByRole('button', { name: new RegExp(`^${name}`) }))
export const line = (page: Page, id: string) =>
  page.getByRole('region', { name: 'Balance', exact: true }).locator(`[data-line=${id}]`)
export const saved = (page: Page) => expect(page.locator('[data-state=saved]')).toBeVisible()

/** The switch with nothing on its positions yet: what is picked then is fed wherever its breaker stands. */
export async function clearPositions(page: Page, id: string) {
  await openJob(page, id, 'hook-up')
  await page.getByRole('region', { name: 'Switch positions' }).getByRole('button', { name: 'Clear' }).click()
  await saved(page)
}

/** Another source from the catalogue. */
export async function chooseSource(page: Page, name: string) {
  await page.getByRole('button', { name: /^Choose (a|another) source$/ }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click()
}

export async function openJob(page: Page, id: string, view = 'panel') {
  await page.goto(`/jobs/${id}/${view}`)
  await expect(page.getByRole('navigation', { name: 'Steps of the job' })).toBeVisible()
  await live(page)
  await saved(page)
}

/** The page answers: what is pressed before its script has come is lost. */
export const live = (page: Page) => expect(page.locator('[data-live=true]')).toBeVisible()

/** The same view of the workspace, loaded once more. */
export async function openAgain(page: Page) {
  await page.reload()
  await live(page)
}

/** A large file, made where it is chosen: sent there it would take longer than all that is done with it. */
export const giveLarge = (input: Locator, name: string, type: string, bytes: number) =>
  input.evaluate(
    (element, { name, type, bytes }) => {
      if (!(element instanceof HTMLInputElement)) throw new Error('it takes no file')
      const chosen = new DataTransfer()
      chosen.items.add(new File([new Uint8Array(bytes)], name, { type }))
      element.files = chosen.files
      element.dispatchEvent(new Event('change', { bubbles: true }))
    },
    { name, type, bytes },
  )

/** Carries a thing to another with the mouse, as a hand does. */
export async function drag(page: Page, from: Locator, to: Locator) {
  await from.hover()
  await page.mouse.down()
  const box = await to.boundingBox()
  if (!box) throw new Error('there is no place to carry it to')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 12 })
  await page.mouse.up()
}

/** Nothing that axe holds against WCAG A and AA. */
export const accessible = (page: Page) => judge(page, ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])

/** The same by day, and at night all that colours decide. */
export async function accessibleDayAndNight(page: Page) {
  await accessible(page)
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect(page.locator('html')).toHaveAttribute('data-dark', '')
  await judge(page, ['color-contrast', 'link-in-text-block'])
  await page.emulateMedia({ colorScheme: 'light' })
}

async function judge(page: Page, runOnly: string[]) {
  // the title comes a moment behind a page that is gone to
  await expect(page).toHaveTitle(/./)
  // a dialog that is still fading in has colours of its own
  await page.evaluate(() =>
    Promise.all(document.getAnimations().map(a => a.finished.catch(() => null))).then(() => null),
  )
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source)
  const faults = await page.evaluate(async runOnly => {
    const run = (globalThis as unknown as { axe: typeof axe }).axe
    const { violations } = await run.run(document, { runOnly, resultTypes: ['violations'], preload: false })
    return violations.flatMap(v => v.nodes.map(n => `${v.id}: ${n.target.join(' ')} ${n.failureSummary}`))
  }, runOnly)
  expect(faults).toEqual([])
}
