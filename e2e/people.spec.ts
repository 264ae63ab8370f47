import type { Page } from '@playwright/test'
import { accessible, accessibleDayAndNight, alder, breaker, copyOf, openJob, saved } from './helpers'
import { expect, test } from './test'

const good = 'tall pylon under grey weather'
const stamp = () => `${Date.now()}-${Math.floor(Math.random() * 1e6)}`

/** The newest letter to an address, on the demo's page of letters; what it leads to. */
async function letterTo(page: Page, email: string, subject: RegExp): Promise<string> {
  const card = page.getByRole('region', { name: subject }).filter({ hasText: email }).first()
  await expect(async () => {
    await page.goto('/mail')
    await expect(card).toBeVisible({ timeout: 1000 })
  }).toPass()
  return (await card.getByRole('link').first().getAttribute('href')) ?? ''
}

async function signUp(page: Page, email: string, from = '/sign-up') {
  await page.goto(from)
  await page.getByLabel('Name').fill('Ann')
  await page.getByLabel('E-mail address').fill(email)
  await page.getByLabel('Password').fill(good)
  await page.getByRole('button', { name: 'Open the account' }).click()
  await expect(page.getByRole('status')).toContainText(`A letter is on its way to ${email}`)
  await page.goto(await letterTo(page, email, /Confirm your e-mail address/))
}

test.describe('somebody new', () => {
  test.use({ as: 'nobody' })

  test('what is typed before the script of the page has come stays, and stands in no address', async ({
    page,
  }) => {
    let come = () => {}
    const late = new Promise<void>(resolve => {
      come = resolve
    })
    await page.route(/_next\/static\/.*\.js/, async route => {
      await late
      await route.continue()
    })
    await page.goto('/sign-in', { waitUntil: 'commit' })
    await page.getByLabel('E-mail address').fill('ann@nowhere.test')
    await page.getByLabel('Password').fill(good)
    await page.getByLabel('Password').press('Enter')
    const send = page.getByRole('button', { name: 'Sign in', exact: true })
    await expect(send).toBeDisabled()
    come()
    await expect(send).toBeEnabled()
    await expect(page.getByLabel('E-mail address')).toHaveValue('ann@nowhere.test')
    await expect(page.getByLabel('Password')).toHaveValue(good)
    await expect(page).toHaveURL(/\/sign-in$/)
    await send.click()
    await expect(page.getByText('The e-mail address or the password is wrong.')).toBeVisible()
    await page.unrouteAll()
  })

  test('opens an account and a firm, invites another, who joins in their role; the owner reads it in the record', async ({
    page,
    browser,
    baseURL,
  }) => {
    test.setTimeout(120_000)
    const [ann, ben] = [`ann-${stamp()}@people.test`, `ben-${stamp()}@people.test`]
    await page.goto('/jobs')
    await expect(page).toHaveURL(/\/sign-in\?next=%2Fjobs$/)
    await accessibleDayAndNight(page)
    // wrong input says which field, and stays
    await page.getByRole('link', { name: 'Open an account' }).click()
    await page.getByLabel('Name').fill('Ann')
    await page.getByLabel('E-mail address').fill('ann at home')
    await page.getByLabel('Password').fill('password1234')
    await page.getByRole('button', { name: 'Open the account' }).click()
    await expect(page.getByText('E-mail address must be an e-mail address')).toBeVisible()
    await expect(page.getByLabel('E-mail address')).toHaveValue('ann at home')
    await signUp(page, ann)
    await expect(page.getByRole('heading', { name: 'Welcome' })).toBeVisible()
    await accessible(page)
    await page.getByLabel('Name of the firm').fill('Weir Works')
    await page.getByRole('button', { name: 'Open the firm' }).click()
    await expect(page).toHaveURL(/\/jobs$/)
    await page.getByRole('button', { name: 'Ann, Weir Works' }).click()
    await page.getByRole('menuitem', { name: 'People' }).click()
    await page.getByRole('button', { name: 'Invite somebody' }).click()
    const dialog = page.getByRole('dialog', { name: 'Invite somebody' })
    await dialog.getByLabel('E-mail address').fill(ben)
    await dialog.getByLabel('Name').fill('Ben')
    await dialog.getByRole('button', { name: 'Send the invitation' }).click()
    await expect(page.getByRole('table', { name: 'Invited' })).toContainText(ben)
    await accessibleDayAndNight(page)

    const elsewhere = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } })
    const other = await elsewhere.newPage()
    const invitation = await letterTo(other, ben, /Weir Works invites you/)
    await other.goto(invitation)
    await accessible(other)
    const open = await other.getByRole('link', { name: `Open an account for ${ben}` }).getAttribute('href')
    await signUp(other, ben, open ?? '')
    await other.getByRole('button', { name: 'Join Weir Works' }).click()
    await expect(other).toHaveURL(/\/jobs$/)
    // the same letter opens nothing a second time
    await other.goto(invitation)
    await expect(other.getByRole('heading', { name: 'This invitation is no longer valid' })).toBeVisible()
    await other.goto('/record')
    await expect(other.getByText(/You are here as technician\. .* takes an owner/)).toBeVisible()
    expect(await other.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)

    await page.goto('/record')
    const record = page.getByRole('table', { name: 'Record' })
    await expect(record.getByRole('row').nth(1)).toContainText(/Ben.*joined/)
    await expect(record).toContainText(`invited ${ben}`)
    await accessibleDayAndNight(page)
    // taken out, Ben is out with the next step
    await page.goto('/people')
    await page.getByRole('button', { name: 'What can be done about Ben' }).click()
    await page.getByRole('menuitem', { name: 'Take out of the firm' }).click()
    await page.getByRole('button', { name: 'Take out' }).click()
    await expect(page.getByText(/^Left: Ben/)).toBeVisible()
    await other.goto('/jobs')
    await expect(other.getByRole('heading', { name: 'Welcome' })).toBeVisible()
    // the last owner stays
    await page.getByRole('button', { name: 'What can be done about Ann' }).click()
    await page.getByRole('menuitem', { name: 'Leave the firm' }).click()
    await expect(page.getByText(/is of the only owner/)).toBeVisible()
    await elsewhere.close()
  })
})

test.describe('as owner', () => {
  test.use({ as: 'owner' })

  test('sets the firm’s ways, which a new job begins with; two at once lose neither', async ({
    page,
    context,
  }) => {
    await page.goto('/firm')
    await accessibleDayAndNight(page)
    const form = page.getByRole('form', { name: 'Settings' })
    const second = await context.newPage()
    await second.goto('/firm')
    await form.getByLabel('Time zone').fill('Nowhere/Land')
    await form.getByRole('button', { name: 'Keep' }).click()
    await expect(form.getByText(/Time zone must be a time zone/)).toBeVisible()
    await form.getByLabel('Time zone').fill('America/New_York')
    await form.getByLabel('Telephone').fill('555 0100')
    await form.getByLabel('Who inspects').fill('Town of Weir')
    await form.getByRole('button', { name: 'Keep' }).click()
    await expect(form.getByRole('status')).toContainText('Kept')
    await second.getByRole('form', { name: 'Settings' }).getByLabel('Telephone').fill('555 0199')
    await second.getByRole('button', { name: 'Keep' }).click()
    await expect(second.getByText(/Somebody else changed the settings meanwhile/)).toBeVisible()
    await expect(second.getByLabel('Telephone')).toHaveValue('555 0199')
    await page.goto(`/jobs/${alder}/print`)
    await expect(page.getByText(/NEC 20\d\d, Town of Weir/)).toBeVisible()
  })

  test('works in another firm as what they are there, and sees nothing of the first', async ({ page }) => {
    await page.goto('/jobs')
    await page.getByRole('button', { name: 'Owner, Headwater Electric' }).click()
    await page.getByRole('menuitem', { name: 'Work in Millpond Solar' }).click()
    await expect(page.getByRole('button', { name: 'Owner of Headwater, Millpond Solar' })).toBeVisible()
    expect((await page.request.get(`/api/jobs/${alder}`)).status()).toBe(404)
    await page.goto('/record')
    await expect(page.getByRole('heading', { name: 'Not for your role' })).toBeVisible()
  })

  test('adds a passkey, signs out, and comes in by it; sessions are listed and ended', async ({
    page,
    baseURL,
  }) => {
    // a passkey is of a name, not of a number
    const home = (baseURL ?? '').replace('127.0.0.1', 'localhost')
    const wire = await page.context().newCDPSession(page)
    await wire.send('WebAuthn.enable')
    await wire.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
      },
    })
    await page.goto(`${home}/sign-in`)
    await page.getByRole('button', { name: /^Look around as owner/ }).click()
    await expect(page.getByRole('button', { name: 'Owner, Headwater Electric' })).toBeVisible()
    await page.goto(`${home}/account`)
    await accessibleDayAndNight(page)
    await page.getByRole('button', { name: 'Add a passkey' }).click()
    const passkeys = page.getByRole('list', { name: 'Passkeys' })
    await expect(passkeys.getByText('A computer')).toBeVisible()
    await page.getByRole('button', { name: 'Owner, Headwater Electric' }).click()
    await page.getByRole('menuitem', { name: 'Sign out' }).click()
    await page.getByRole('button', { name: 'Sign in with a passkey' }).click()
    await expect(page.getByRole('button', { name: 'Owner, Headwater Electric' })).toBeVisible()
    await page.goto(`${home}/account`)
    await page.getByRole('button', { name: 'End all others' }).click()
    await expect(page.getByRole('list', { name: 'Sessions' }).getByRole('listitem')).toHaveCount(1)
    await passkeys
      .getByRole('button', { name: /^Remove/ })
      .first()
      .click()
    await expect(passkeys.getByRole('listitem')).toHaveCount(0)
  })
})

test('who is signed out in the middle loses nothing: what was done is sent once they are in again', async ({
  page,
  context,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  const cookies = await context.cookies()
  await context.clearCookies()
  await breaker(page, '7 ').click()
  await expect(
    page.getByText('You are signed out. Sign in in another tab: what you typed stays here.'),
  ).toBeVisible()
  await context.addCookies(cookies)
  await saved(page)
  const { since } = await (await request.get(`/api/jobs/${id}?since=1`)).json()
  expect(since).toHaveLength(1)
})

test.describe('as technician', () => {
  test.use({ as: 'technician' })

  test('works at the house; what others decide is told, not shown', async ({ page }) => {
    await page.goto(`/jobs/${alder}/estimate`)
    await expect(page.getByText(/You are here as technician\. To see and set prices/)).toBeVisible()
    expect((await page.request.get(`/api/jobs/${alder}/estimate`)).status()).toBe(403)
    await openJob(page, alder, 'source')
    await page.getByRole('button', { name: /^Choose (a|another) source$/ }).click()
    await page.getByRole('dialog').getByRole('button', { name: /Wh/ }).first().click()
    await expect(page.getByText(/Not saved: You are here as technician/)).toBeVisible()
  })
})

test.describe('the firm’s data', () => {
  test.use({ as: 'owner' })

  test('all of it goes out as one archive; a job is deleted and brought back', async ({ page, request }) => {
    const id = await copyOf(request, alder)
    const title = `Short-lived ${stamp()}`
    await request.post(`/api/jobs/${id}/changes`, {
      data: {
        baseRevision: 1,
        changes: [
          { id: crypto.randomUUID(), kind: 'do', operation: { op: 'setJobFacts', facts: { title } } },
        ],
      },
    })
    await request.post(`/api/jobs/${id}/archive`, { data: { archived: true } })
    await page.goto(`/jobs?archived=true&q=${encodeURIComponent(title)}`)
    await page.getByRole('button', { name: `More for ${title}` }).click()
    await page.getByRole('menuitem', { name: 'Delete' }).click()
    await expect(page.getByText(`${title} is deleted.`)).toBeVisible()
    expect((await page.request.get(`/api/jobs/${id}`)).status()).toBe(404)
    await page.goto('/firm')
    const coming = page.waitForEvent('download')
    await page.getByRole('link', { name: 'Take all of it out' }).click()
    const archive = await (await coming).path()
    await page.getByRole('button', { name: `Bring ${title} back` }).click()
    await expect(page.getByText(title)).toBeHidden()
    expect((await page.request.get(`/api/jobs/${id}`)).status()).toBe(200)
    // where the firm is it is not taken in a second time
    await page.goto('/firms')
    await page.getByLabel('Archive of a firm').setInputFiles(archive)
    await expect(page.getByText(/is of a firm that is here already/)).toBeVisible()
    await accessible(page)
  })
})
