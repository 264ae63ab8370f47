import { accessible, alder, copyOf, line, openJob, saved } from './helpers'
import { expect, test } from './test'

const mill = '5a1de000-0000-4000-8000-000000000004'

test('a load goes from its typical value to 48 h metered: the balance changes, and the reason is told', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, mill), 'loads')
  const schools = page.getByRole('region', { name: 'Needs by school' })
  await expect(schools).toContainText('Why it differs')
  const next = page.getByRole('region', { name: 'What to measure next' })
  await expect(next.getByRole('listitem').first()).toContainText(/%/)
  await accessible(page)
  const before = await line(page, 'hours').textContent()

  await next.getByRole('button', { name: 'Refrigerator' }).click()
  const sheet = page.getByRole('dialog', { name: /Refrigerator/ })
  await expect(sheet.getByRole('button', { name: /33 % of the time/ })).toContainText('assumed')
  await sheet.getByRole('tab', { name: 'Meter' }).click()
  await sheet.getByRole('button', { name: 'Simulated meter' }).click()
  await sheet.getByRole('button', { name: 'Start the meter' }).click()
  await expect(sheet.getByText(/17,280 readings over 48 h/)).toBeVisible()
  await expect(sheet.getByRole('table', { name: 'What was found' })).toContainText(/Starts\d+.* a day, every/)
  await accessible(page)
  await sheet.getByRole('button', { name: 'Take into the load' }).click()
  await expect(sheet.getByRole('status')).toContainText(
    /Refrigerator: [\d,]+ Wh → [\d,]+ Wh a day \(assumed → metered\)/,
  )
  await expect(sheet.getByRole('list', { name: 'Logs of this load' })).toContainText('simulated meter')
  await sheet.getByRole('tab', { name: 'Figures' }).click()
  await expect(sheet.getByRole('button', { name: /% of the time/, pressed: true })).toContainText('metered')
  // the person may still want the other
  await sheet.getByRole('button', { name: /^33 % of the time assumed/ }).click()
  await expect(sheet.getByRole('button', { name: /% of the time/, pressed: true })).toContainText(
    'chosen by hand',
  )
  await sheet.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('Control+z')
  await expect(line(page, 'hours')).not.toHaveText(before ?? '')
  await page.keyboard.press('Control+z')
  await expect(line(page, 'hours')).toHaveText(before ?? '')
  await saved(page)
})

test('the customer’s Green Button file is read, drawn and used for the panel; a wrong file is answered', async ({
  page,
}) => {
  await openJob(page, alder, 'loads/utility')
  const file = page.getByLabel('File of the utility')
  await file.setInputFiles({
    name: 'bill.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.7 1 0 obj'),
  })
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'This is a PDF: a bill shows months, not hours.',
  )

  await page.getByRole('button', { name: /Read alder-hollow.xml/ }).click()
  const says = page.getByRole('region', { name: 'What it says' })
  await expect(says).toContainText('31,979 Wh')
  await expect(says).toContainText(/Highest demand6,250 W/)
  for (const chart of [
    'Load duration',
    'The week around the peak',
    'Day by hour',
    'A mean day, month by month',
  ])
    await expect(page.getByRole('figure', { name: chart })).toBeVisible()
  await accessible(page)
  // NEC 220.87: 1.25 × 6,250 W × 1.25 ÷ 240 V
  await expect(says).toContainText('40.7 A of 150 A')
  await says.getByRole('button', { name: 'Use it for this job' }).click()
  await expect(page.getByText(/counts now: highest demand 6,250 W on Main panel/)).toBeVisible()
  await expect(says).toContainText(/The circuits you picked account for \d+ % of an average winter day/)
  await page.getByRole('figure', { name: 'Day by hour' }).getByRole('img').press('ArrowDown')
  await expect(page.getByRole('figure', { name: 'Day by hour' }).getByRole('status')).toContainText(
    '2025-02-01, 1:00:',
  )
  await page.keyboard.press('Control+z')
  await saved(page)
})
