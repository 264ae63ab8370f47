import type { APIRequestContext, Page } from '@playwright/test'
import { accessible, accessibleDayAndNight, alder, copyOf, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

const wants = (page: Page) => page.getByRole('list', { name: 'What must live' }).getByRole('listitem')
const next = (page: Page) => page.getByRole('region', { name: 'Ask or measure next' })

test('from an empty list to a first answer by keyboard, and on to an estimate on paper', async ({ page }) => {
  let keys = 0
  const press = async (key: string) => {
    keys++
    await page.keyboard.press(key)
  }
  const type = async (text: string) => {
    keys += text.length
    await page.keyboard.type(text)
  }
  await page.goto('/jobs?q=nobody-here-yet')
  await page.getByRole('button', { name: 'New job' }).first().focus()
  await press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await type('Marsh Gate farm')
  await press('Enter')
  await page.waitForURL(/\/first$/)
  await expect(page.locator('[data-live=true]')).toBeVisible()
  await accessible(page)
  await page.getByRole('combobox', { name: 'What must live' }).focus()
  await type('two refrigerators, well pump, lights, internet')
  await press('Enter')
  await expect(wants(page)).toHaveCount(4)
  await expect(page.getByRole('region', { name: 'How big' })).toContainText('needed')
  await expect(next(page).getByRole('listitem').first()).toContainText('Well pump: how deep is the well?')
  const designs = page.getByRole('region', { name: 'Designs that may do' })
  await expect(designs.getByText(/lasts 24 h in about .* of 100/).first()).toBeVisible()
  // the question that moves most, answered by the keyboard: the answer moves at once, and asks for something else
  const start = page.getByRole('region', { name: 'How big' }).getByText(/VA/)
  const before = await start.textContent()
  await page.getByRole('radio', { name: 'deeper than 200 ft' }).focus()
  await press(' ')
  await expect(start).not.toHaveText(before ?? '')
  await expect(next(page).getByText('how deep is the well?')).toHaveCount(0)
  expect(keys).toBeLessThan(80)
  await accessibleDayAndNight(page)

  await expect(designs.getByText(/lasts 24 h in about .* of 100/).first()).toBeVisible()
  await designs.getByRole('button', { name: 'Take as the design' }).first().click()
  await saved(page)
  await page.getByRole('link', { name: 'Estimate' }).click()
  await page.getByRole('button', { name: 'Add the design at hand' }).click()
  const option = page.getByRole('region', { name: 'Option 1' })
  await expect(option).toContainText(/Keeps .*Well pump.* alive/)
  await expect(option).toContainText('From the method’s ranges')
  await expect(page.getByText('A range cannot be accepted')).toBeVisible()
  await accessible(page)
  const waiting = page.waitForEvent('download')
  await page.getByRole('link', { name: 'PDF' }).click()
  expect((await waiting).suggestedFilename()).toBe('marsh-gate-farm-estimate-draft.pdf')
})

test('the breakers take over what was said on the call, and no figure moves', async ({ page, request }) => {
  const made = await request.post('/api/jobs', {
    data: {
      title: 'Rush Bend',
      place: '',
      template: 'well-and-furnace',
      directory: '1 20 fridges\n3 15 boiler\n5-7 20 well pump',
    },
  })
  const { id } = await made.json()
  await openJob(page, id, 'first')
  const day = page.getByRole('region', { name: 'How big' }).getByRole('button', { name: /Wh$/ })
  const before = await day.textContent()
  for (const [want, circuit] of [
    ['Gas furnace', '3 boiler'],
    ['Well pump', '5·7 well pump'],
  ] as const) {
    await page.getByRole('combobox', { name: `Circuit that carries ${want}` }).click()
    await page.getByRole('option', { name: circuit }).click()
  }
  await saved(page)
  await expect(day).toHaveText(before ?? '')
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  const boiler = record.job.panels[0].circuits.find((c: { label: string }) => c.label === 'boiler')
  expect([boiler.picked, boiler.loads.length]).toEqual([true, 1])
  // of other volts it is refused, in words
  await page.getByRole('combobox', { name: 'Circuit that carries Freezer' }).click()
  await page.getByRole('option', { name: '5·7 well pump' }).click()
  await expect(page.getByText(/runs at 120 V, and this breaker gives 240 V/)).toBeVisible()
})

/** A draft of a job with two options, sent; the address of its page. */
async function offered(request: APIRequestContext, id: string): Promise<string> {
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  const { source, hookup } = record.job
  const larger = { ...source, units: source.units.map((u: object) => ({ ...u, expansionUnits: 3 })) }
  const options = [
    { id: 'a', name: 'Small', from: { kind: 'design' } },
    {
      id: 'b',
      name: 'Large',
      from: { kind: 'found', take: { op: 'adoptDesign', name: 'Large', source: larger, hookup } },
    },
  ]
  const at = `/api/jobs/${id}/estimate`
  const draft = await request.post(at, {
    data: { act: 'draft', version: 0, draft: { taxPlace: 'Alder county', intro: '', options } },
  })
  expect(draft.ok()).toBe(true)
  const sent = await request.post(at, { data: { act: 'send', version: 1, revision: record.revision } })
  return `/offer/${(await sent.json()).token}`
}

async function sign(page: Page, far = true) {
  const field = page.locator('#signature')
  await field.scrollIntoViewIfNeeded()
  const box = await field.boundingBox()
  if (!box) throw new Error('there is no field to sign on')
  await page.mouse.move(box.x + 20, box.y + 60)
  await page.mouse.down()
  if (far) await page.mouse.move(box.x + 160, box.y + 90, { steps: 8 })
  await page.mouse.up()
}

test.describe('on the customer’s phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('an offer is read, asked about and accepted once; of two at once the other is told', async ({
    page,
    context,
    request,
  }) => {
    const id = await copyOf(request, alder)
    const address = await offered(request, id)
    const scripts: string[] = []
    page.on('response', answer => {
      if (answer.request().resourceType() === 'script') scripts.push(new URL(answer.url()).pathname)
    })
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Alder Hollow day-care (copy)')
    await expect(page.getByText(/^Keeps Boiler and circulators.* alive/).first()).toBeVisible()
    expect(scripts).toEqual(['/offer.js'])
    await accessible(page)
    const problem = page.locator('#accept-problem')
    const accept = page.getByRole('button', { name: 'Accept with my signature' })
    await accept.click()
    await expect(problem).toHaveText('Choose an option first.')
    await page.getByRole('radio', { name: /^Large/ }).check()
    await page.getByLabel('Your name').fill('Kim at the day-care')
    await sign(page, false)
    await accept.click()
    await expect(problem).toContainText('too little to be one')
    await expect(page.getByLabel('Your name')).toHaveValue('Kim at the day-care')
    await page.getByLabel('What would you like to know?').fill('x'.repeat(10_000))
    await page.getByRole('button', { name: 'Send the question' }).click()
    await expect(page.locator('#ask-problem')).toContainText('at most 2,000 characters')
    await page.getByLabel('What would you like to know?').fill('Who comes for the yearly test?')
    await page.getByRole('button', { name: 'Send the question' }).click()
    await expect(page.getByText('It is sent.')).toBeVisible()

    // somebody else has the same page open, and takes the other option
    const other = await context.newPage()
    await other.goto(address)
    await other.getByRole('radio', { name: /^Small/ }).check()
    await other.getByLabel('Your name').fill('Robin at the day-care')
    await other.getByRole('checkbox', { name: /my typed name stands for it/ }).check()
    await sign(page)
    await accept.click()
    await expect(page.getByRole('heading', { name: 'Accepted' })).toBeVisible()
    await other.getByRole('button', { name: 'Accept with my signature' }).click()
    await expect(other.locator('#accept-problem')).toContainText(
      '“Large” was accepted by Kim at the day-care',
    )
    await accessible(page)

    await page.setViewportSize({ width: 1280, height: 800 })
    await openJob(page, id, 'estimate')
    await expect(page.locator('[data-state=accepted]')).toContainText(
      '“Large” accepted by Kim at the day-care',
    )
    await expect(page.locator('[data-state=accepted]')).toContainText('Who comes for the yearly test?')
    await expect(page.getByRole('region', { name: 'Next change order' })).toBeVisible()
    // a link that is replaced leads nowhere, and says so
    await page.getByRole('button', { name: 'Make its link anew' }).click()
    await expect(page.getByRole('textbox', { name: 'Address to send' })).toBeVisible()
    await other.goto(address)
    await expect(other.getByRole('heading', { name: 'This link leads nowhere' })).toBeVisible()
  })

  test('the first answer goes on without a connection once it was opened', async ({
    page,
    context,
    request,
  }) => {
    const { id } = await (
      await request.post('/api/jobs', { data: { title: 'Cellar call', place: '' } })
    ).json()
    await openJob(page, id, 'first')
    await expect(page.getByText('Kept on this device')).toBeVisible({ timeout: 30_000 })
    await context.setOffline(true)
    await openAgain(page)
    await page.getByRole('combobox', { name: 'What must live' }).fill('oxygen, freezer')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(wants(page)).toHaveCount(2)
    await expect(page.getByRole('region', { name: 'How big' })).toContainText('Wh')
    // with the catalogue as this device had it last
    const designs = page.getByRole('region', { name: 'Designs that may do' })
    await expect(designs.getByText(/lasts 24 h in about .* of 100/).first()).toBeVisible()
    await context.setOffline(false)
    await saved(page)
    const { record } = await (await request.get(`/api/jobs/${id}`)).json()
    expect(record.job.brief.wants.map((w: { name: string }) => w.name)).toEqual([
      'Oxygen concentrator',
      'Freezer',
    ])
  })
})
