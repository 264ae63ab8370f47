import type { Page } from '@playwright/test'
import { accessible, alder, copyOf, line, openJob, saved } from './helpers'
import { expect, test } from './test'

const saltmarsh = '5a1de000-0000-4000-8000-000000000002'
const quarry = '5a1de000-0000-4000-8000-000000000003'
const osprey = '5a1de000-0000-4000-8000-000000000006'

const choose = async (page: Page, label: string | RegExp, option: string | RegExp) => {
  await page.getByRole('combobox', { name: label }).click()
  await page.getByRole('option', { name: option }).click()
}
const board = (page: Page) => page.getByRole('region', { name: 'What the panel sees' })
const finding = (page: Page, id: string) => page.locator(`[data-finding="${id}"]`)

test('a source is built from the catalogue: one unit, its legs, a pair with its combiner, sun and fuel', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, saltmarsh), 'source')
  await accessible(page)
  const radio = (name: RegExp) => page.getByRole('radio', { name })
  await expect(radio(/^two units combined/i)).toBeChecked()
  await expect(radio(/^split phase/i)).toBeDisabled()
  await expect(board(page)).toContainText('10·12 Well pump')
  // not synchronised: never 240 V
  await radio(/not synchronised/).click()
  await expect(finding(page, 'y-adapter')).toContainText('nothing synchronises')
  await expect(board(page)).toContainText('no fixed volts')
  // one of them through an autotransformer: the second goes, the transformer comes
  await radio(/^autotransformer/i).click()
  await expect(page.getByRole('region', { name: 'Weirgate 36' })).toHaveCount(1)
  await expect(finding(page, 'autotransformer.idle')).toContainText(/Tailrace 5k draws 38 W/)
  await expect(line(page, 'v240')).toContainText('enough')
  // one leg: the other dies, two-poles bridge
  await radio(/^one leg/i).click()
  await expect(page.getByRole('region', { name: 'L2, dead' })).toContainText('11 Hall')
  await expect(board(page)).toContainText('bridges the legs')
  // back to the pair, which brings its twin
  await radio(/^two units combined/i).click()
  await expect(page.getByRole('region', { name: 'Weirgate 36' })).toHaveCount(2)
  await saved(page)

  // what it delivers opens its working
  await page.getByRole('region', { name: 'What it delivers' }).getByRole('button').first().click()
  await expect(
    page.getByRole('complementary', { name: 'Working' }).or(page.getByRole('dialog')),
  ).toContainText('What is left of the capacity')
  await page.keyboard.press('Escape')

  // a generator indoors stops it, and its fix puts it out again
  await page.locator('#generator').getByRole('button', { name: 'Change' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Fuel kept').fill('many')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(dialog).toContainText(/Fuel kept must be a number/)
  await expect(dialog.getByLabel('Fuel kept')).toHaveValue('many')
  await dialog.getByLabel('Fuel kept').fill('4')
  await dialog.getByRole('radio', { name: 'indoors' }).click()
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await finding(page, 'generator.indoors').getByRole('button', { name: 'Plan it outdoors' }).click()
  await expect(finding(page, 'generator.indoors')).toHaveCount(0)
  await saved(page)
})

test('methods stand side by side with reasons; each can be planned, and gives other consequences', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, alder), 'hook-up')
  await accessible(page)
  const methods = page.getByRole('region', { name: 'Methods on this house' })
  const columns = methods.getByRole('columnheader')
  await expect(columns.nth(1)).toContainText('Multi-circuit switch')
  await expect(columns.nth(1)).toContainText('recommended')
  const plan = async (name: string) => {
    await methods.getByRole('button', { name: `Plan it: ${name}` }).click()
    // what the method changes moves the page below it
    await saved(page)
  }
  const grounding = page.getByRole('region', { name: 'Neutral and ground' })

  await plan('Single-circuit switch')
  await expect(grounding).toContainText('the neutral is switched too')
  await expect(finding(page, 'bond.none')).toBeVisible()
  await plan('Plug the appliance in')
  await expect(grounding).toContainText('never meets the house')
  await expect(finding(page, 'appliance-cord.jurisdiction')).toBeVisible()
  await plan('Extension cords')
  await expect(finding(page, 'phantom.expected')).toBeVisible()
  await plan('Interlocked inlet')
  await expect(finding(page, 'utility-return.blind')).toBeVisible()
  await choose(page, 'At space', /^25·27$/)
  await expect(finding(page, 'interlock.wrong-space')).toContainText('interlock acts only at')
  await page.getByRole('checkbox', { name: 'Held down' }).uncheck()
  await finding(page, 'backfeed.no-hold-down').getByRole('button', { name: 'Plan the hold-down' }).click()
  await expect(finding(page, 'backfeed.no-hold-down')).toHaveCount(0)
  await plan('Sub-panel with interlock')
  await plan('Managed panel')
  await expect(page.getByRole('region', { name: 'Switch positions' })).toContainText('Braid 12')
  await plan('Critical-load sub-panel')
  await expect(methods).toContainText('It needs an inverter with its own transfer')
  await saved(page)
})

test('positions are solved in the worker, pinned by hand at a price, and drawn on the one-line', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id, 'hook-up')
  const desk = page.getByRole('region', { name: 'Switch positions' })
  // the boiler's 15 A circuit stands on a 30 A position: solved again, a smaller breaker is planned there
  await expect(finding(page, 'position.protects')).toContainText('position 1 with a 30 A breaker')
  await desk.getByRole('button', { name: 'Solve again' }).click()
  await expect(desk.getByRole('status')).toContainText(/solved exactly in \d+ ms/)
  await expect(desk.getByRole('combobox').filter({ hasText: 'free' })).toHaveCount(0)
  await expect(finding(page, 'position.protects')).toHaveCount(0)
  await expect(desk.getByLabel('Breaker at 1')).toHaveValue('15')
  // the refrigerator and the counter share a neutral: side by side
  await choose(page, 'Circuit on 5, up to 15 A', /^5 Kitchen refrigerator/)
  await expect(finding(page, 'position.limit')).toContainText('position 5, which takes 15 A')
  await expect(finding(page, 'neutral.shared-split').last()).toBeVisible()
  await desk.getByRole('button', { name: 'Solve again' }).click()
  await expect(desk.getByText(/pinned: costs \d/).first()).toBeVisible()
  await desk.getByRole('button', { name: 'Loosen every pin' }).click()
  await expect(finding(page, 'position.limit')).toHaveCount(0)
  await saved(page)
  // two circuits change places by the keys, and are pinned there
  const at = (position: number) =>
    desk.getByRole('combobox', { name: new RegExp(`^Circuit on ${position},`) })
  const [first, third] = [await at(1).textContent(), await at(3).textContent()]
  await desk
    .getByRole('button', { name: /^Move / })
    .first()
    .press('Space')
  // it says that it was lifted, and listens for arrows from the page’s next turn on
  await expect(page.getByText(/^Picked up /)).toBeAttached()
  await page.evaluate(() => new Promise(turn => requestAnimationFrame(() => setTimeout(turn))))
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText(/ is over place 3 of 6/)).toBeAttached()
  await page.keyboard.press('Space')
  await expect(at(1)).toHaveText(third ?? '')
  await expect(at(3)).toHaveText(first ?? '')
  await desk.getByRole('button', { name: 'Solve again' }).click()
  await desk.getByRole('button', { name: 'Loosen every pin' }).click()
  await saved(page)

  await page.keyboard.press('o')
  const drawing = page.getByRole('group', { name: 'One-line diagram of Alder Hollow day-care (copy)' })
  await expect(drawing).toContainText('Riffle 6')
  await expect(drawing).toContainText('N–G joined')
  await accessible(page)
  const file = await request.get(`/api/jobs/${id}/one-line`)
  expect(await file.text()).toMatch(/^<\?xml[\s\S]*<svg[\s\S]*Riffle 6[\s\S]*<\/svg>/)
  await drawing
    .getByRole('link', { name: /Riffle 6/ })
    .first()
    .click()
  await expect(page).toHaveURL(/hook-up#method/)
})

test('a trap is cured by its fix, the new panel solved and pinned; what stays is accepted by name and reason', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, quarry), 'hook-up')
  await finding(page, 'neutral.left-behind')
    .getByRole('button', { name: /neutral follows its hot/ })
    .click()
  await expect(finding(page, 'neutral.left-behind')).toHaveCount(0)
  // the new panel is there from the moment it is planned: solved, pinned at a price, loosened
  const desk = page.getByRole('region', { name: 'The new panel: Critical-load panel' })
  await desk.getByRole('button', { name: 'Solve the landing' }).click()
  await expect(desk.getByRole('status')).toContainText(/solved exactly in \d+ ms/)
  const place = desk.getByLabel('Place of Alarm and gate')
  const other = (await place.inputValue()) === '12' ? '10' : '12'
  await place.fill(other)
  await place.press('Enter')
  const row = desk.getByRole('row', { name: new RegExp(`^${other} Alarm and gate`) })
  await expect(row).toContainText('by hand')
  await desk.getByRole('button', { name: 'Solve the landing' }).click()
  await expect(row).toContainText(/costs/)
  await desk.getByRole('button', { name: 'Loosen every pin' }).click()
  await expect(desk.getByText('by hand')).toHaveCount(0)
  await accessible(page)

  await openJob(page, await copyOf(request, osprey), 'findings')
  // no soft starter for its motor; a stop is never accepted
  const start = finding(page, 'start.over')
  await expect(start).toContainText('a soft starter does not suit this motor')
  await expect(start.getByRole('button', { name: /soft starter|Accept/ })).toHaveCount(0)
  // a finding that stays is accepted by name and reason
  const blind = finding(page, 'utility-return.blind')
  await blind.getByRole('button', { name: 'Accept with a reason' }).click()
  const dialog = page.getByRole('dialog', { name: 'Accept this finding' })
  await dialog.getByRole('button', { name: 'Accept', exact: true }).click()
  await expect(dialog).toContainText('Reason must not be empty')
  await dialog.getByLabel('Reason').fill('The neighbour’s porch light tells.')
  await dialog.getByRole('button', { name: 'Accept', exact: true }).click()
  await expect(blind).toContainText(/Accepted by Designer on .*porch light/)
  await saved(page)
})
