import { readFileSync } from 'node:fs'
import { accessible, alder, breaker, copyOf, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

/** A directory as it stands in handwriting inside a door. */
const directory = [
  '1-3 40 range',
  '2 15 boiler',
  '4 15 living room',
  '5 20 fridge n7',
  '6 20 bath gfci',
  '7 20 counter',
  '8-10 30 dryer',
  '9 15 playroom',
  '11 15 nap room afci',
  '12 15 hall',
  '13 15',
  '14-16 40 heat pump',
  '15 15 office',
  '17 20 sump',
  '18 20 washer',
  '19 15 bedrooms afci',
  '20 15 attic',
  '21 20 dishwasher',
  '22 20 disposal',
  '23 20 laundry',
  '24 15 porch',
  '25 15 stairs',
  '26 20 garage gfci',
  '27 15 smoke alarms',
]

test('a thirty-space panel is entered from its directory by keyboard, in far less than three minutes of keys', async ({
  page,
}) => {
  await page.goto('/jobs')
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Door directory')
  await page.keyboard.press('Enter')
  await page.waitForURL(/first/)
  await expect(page.getByRole('heading', { name: 'First answer', exact: true })).toBeVisible()
  await page.keyboard.press('2')
  await page.waitForURL(/panel/)
  await expect(page.getByText('An empty panel')).toBeVisible()
  await page.keyboard.press('e')
  const field = page.getByLabel('Enter breakers, a line each')
  await expect(field).toBeFocused()
  let keys = 1
  for (const [n, line] of directory.entries()) {
    // the first by single keys, the others as fast as they are taken
    await (n < 2 ? page.keyboard.type(line) : page.keyboard.insertText(line))
    await page.keyboard.press('Enter')
    keys += line.length + 1
    await expect(field).toHaveValue('')
  }
  // three minutes at a slow three keys a second
  expect(keys).toBeLessThan(540)
  await expect(breaker(page, '1·3 range')).toBeVisible()
  await expect(breaker(page, '5 fridge')).toContainText('N with 7')
  await expect(breaker(page, '27 smoke alarms')).toBeVisible()

  // a slip is told and stays to be mended; a second line for a space corrects it
  await page.keyboard.type('10 20 attic fan')
  await page.keyboard.press('Enter')
  await expect(page.getByText('8·10 dryer is in the way')).toBeVisible()
  await expect(field).toHaveValue('10 20 attic fan')
  await field.fill('20 20 attic fan')
  await page.keyboard.press('Enter')
  await expect(breaker(page, '20 attic fan')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(breaker(page, '20 attic,')).toBeVisible()
  await saved(page)
  await openAgain(page)
  await expect(breaker(page, '27 smoke alarms')).toBeVisible()
})

test('a directory goes out as CSV, and comes back by paste or from a file; bad rows are told and lose nothing', async ({
  page,
  request,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await page.getByRole('button', { name: 'Enter breakers by line (E)' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save as CSV' }).click()
  const file = await (await download).path()
  const csv = readFileSync(file, 'utf8')
  expect(csv).toContain('5,1,20,Kitchen refrigerator,L1,7,,,none,12 cu,,loads,1,yes')

  const empty = { title: 'From a file', place: '', spaces: 30, mainA: 150 }
  await openJob(page, (await (await request.post('/api/jobs', { data: empty })).json()).id)
  await expect(page.getByText('An empty panel')).toBeVisible()
  await page.keyboard.press('e')
  await page.locator('input[type=file]').setInputFiles(file)
  await expect(page.getByText('23 breakers entered.')).toBeVisible()
  await expect(breaker(page, '5 Kitchen refrigerator')).toContainText('N with 7')

  await page.evaluate(() =>
    navigator.clipboard.writeText('Space\tAmps\tLabel\n27\t20\tWorkshop\n28\t21\tFreezer\n5\t15\tFridge'),
  )
  await page.keyboard.press('Control+v')
  await expect(page.getByText('2 breakers entered.')).toBeVisible()
  await expect(breaker(page, '5 Fridge')).toBeVisible()
  await expect(page.getByText('1 line not entered.')).toBeVisible()
  await page.getByRole('button', { name: 'Mend' }).click()
  await expect(page.getByText('21 A is no standard breaker')).toBeVisible()
  await accessible(page)
  await page.getByLabel('Enter breakers, a line each').fill('28 20 Freezer')
  await page.keyboard.press('Enter')
  await expect(breaker(page, '28 Freezer')).toBeVisible()
  await saved(page)
})
