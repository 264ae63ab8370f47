import { loadLog } from '../src/core/loads/load-log'
import { accessible, alder, copyOf, fernbrook, line, openJob, saved } from './helpers'
import { expect, test } from './test'

const mill = '5a1de000-0000-4000-8000-000000000004'
const series = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })

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
  await sheet.getByRole('button', { name: /^33 % of the time/ }).click()
  await expect(sheet.getByRole('button', { name: /^33 % of the time/, pressed: true })).toContainText(
    'chosen by hand',
  )
  await sheet.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('Control+z')
  await expect(line(page, 'hours')).not.toHaveText(before ?? '')
  await page.keyboard.press('Control+z')
  await expect(line(page, 'hours')).toHaveText(before ?? '')
  await saved(page)
})

test('plug-in readings, typed wrong and then right, say what load-log says; the clamp’s inrush comes into force', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, alder), 'loads')
  await page
    .getByRole('region', { name: 'Loads by circuit' })
    .getByRole('button', { name: 'Playroom lights (LED)' })
    .click()
  const sheet = page.getByRole('dialog', { name: /Playroom lights/ })
  await sheet.getByRole('tab', { name: 'Meter' }).click()
  const fill = (label: string, text: string) =>
    sheet.getByRole('textbox', { name: label, exact: true }).fill(text)
  await fill('Elapsed time', 'two days')
  await sheet.getByRole('button', { name: 'Take the readings' }).click()
  await expect(sheet.getByText('Elapsed time must be a number of hours, such as 24')).toBeVisible()
  await expect(sheet.getByRole('textbox', { name: 'Elapsed time' })).toHaveValue('two days')
  await fill('Elapsed time', '24')
  await fill('Counter', '0.3')
  await fill('While it runs', '1')
  await fill('While it idles', '4')
  await sheet.getByRole('button', { name: 'Take the readings' }).click()
  await expect(sheet.getByText(/While it runs must be above the idle watts \(4 W\)/)).toBeVisible()
  await fill('While it runs', '44')
  await fill('While it idles', '1')
  await sheet.getByRole('button', { name: 'A later reading' }).click()
  await fill('Elapsed time, reading 2', '49')
  await fill('Counter, reading 2', '0.2')
  await sheet.getByRole('button', { name: 'Take the readings' }).click()
  await expect(sheet.getByText(/not below the 0.3 kWh before/)).toBeVisible()
  await fill('Counter, reading 2', '0.7')
  const { result } = loadLog.compute({
    readings: [
      { hours: 24, energyWh: 300 },
      { hours: 25, energyWh: 400 },
    ],
    runningW: 44,
    idleW: 1,
  })
  await expect(sheet.getByText(new RegExp(`${Math.round(result.dailyWh)} Wh a day`))).toBeVisible()
  await sheet.getByRole('button', { name: 'Take the readings' }).click()
  await expect(sheet.getByRole('status')).toContainText(`${Math.round(result.dailyWh)} Wh a day`)

  await sheet.getByRole('button', { name: 'Clamp meter' }).click()
  await fill('Highest inrush', '6.5')
  await sheet.getByRole('button', { name: 'Take the inrush' }).click()
  await sheet.getByRole('tab', { name: 'Figures' }).click()
  await expect(sheet.getByRole('button', { name: /6.5 A/, pressed: true })).toContainText('metered')
  await accessible(page)
})

test('a nameplate typed as printed fills the fields, shows what it comes to and what cannot be', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, alder), 'loads')
  await page
    .getByRole('region', { name: 'Loads by circuit' })
    .getByRole('button', { name: 'Microwave' })
    .click()
  const sheet = page.getByRole('dialog', { name: /Microwave/ })
  await sheet.getByRole('tab', { name: 'Nameplate' }).click()
  await sheet
    .getByRole('textbox', { name: 'As printed' })
    .fill('115 V 60 Hz 1 PH, 1/2 hp, 6.8 A, LRA 30, MCA 20, MOP 15')
  await sheet.getByRole('textbox', { name: 'As printed' }).press('Enter')
  await expect(sheet.getByRole('textbox', { name: 'Horsepower' })).toHaveValue('0.5')
  await expect(sheet.getByText(/the two may be swapped/)).toBeVisible()
  await expect(sheet.getByRole('region', { name: 'What it comes to' })).toContainText(
    /Locked rotor30 Aas printed/,
  )
  await sheet.getByRole('button', { name: 'Take the nameplate' }).click()
  await expect(sheet.getByRole('status')).toContainText(/Microwave: .* Wh a day.*run time/)
  await accessible(page)
  await sheet.getByRole('button', { name: 'Close' }).click()
  // the plate, taken with its fault, is a finding, and so is the breaker that it forbids
  await page.getByRole('link', { name: 'Findings' }).click()
  await expect(page.locator('[data-finding="nameplate.impossible"]')).toContainText('Microwave')
  await expect(page.locator('[data-finding="breaker.above-plate"]')).toContainText('allows at most 15 A')
  await page.locator('[data-finding="nameplate.impossible"]').getByRole('link', { name: 'Go there' }).click()
  await expect(page.getByRole('dialog', { name: /Microwave/ })).toBeVisible()
})

test('a series from a file: columns confirmed, a stretch left out, the mark moved, taken; files of another kind answered', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, fernbrook), 'loads')
  await page
    .getByRole('region', { name: 'Loads by circuit' })
    .getByRole('button', { name: 'Gas unit heater, fan and igniter' })
    .click()
  const sheet = page.getByRole('dialog', { name: /Gas unit heater/ })
  await sheet.getByRole('tab', { name: 'Meter' }).click()
  await sheet.getByRole('button', { name: 'A series from a file' }).click()
  const file = sheet.getByLabel('File of readings')
  await file.setInputFiles(series('empty.csv', ''))
  await expect(sheet.getByRole('alert')).toContainText('empty.csv is empty: wanted is a table')
  await file.setInputFiles(series('bill.csv', '<html><body>bill</body></html>'))
  await expect(sheet.getByRole('alert')).toContainText('is no table but XML')

  const rows = ['Datum;Uhrzeit;x']
  for (let minute = 0; minute < 3000; minute++) {
    const clock = `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
    const W = minute === 2500 ? '900,0' : minute % 40 < 15 ? '95,5' : '4,2'
    rows.push(`${12 + Math.floor(minute / 1440)}.01.2026;${clock};${W}`)
  }
  await file.setInputFiles(series('heater.csv', rows.join('\n')))
  const columns = sheet.getByRole('region', { name: 'Columns' })
  await columns.getByRole('button', { name: 'Read the file' }).click()
  await expect(columns.getByRole('alert')).toContainText('Say which column is watts, amps or energy')
  await columns.getByRole('combobox', { name: 'Column 3' }).click()
  await page.getByRole('option', { name: 'power, W' }).click()
  await columns.getByRole('button', { name: 'Read the file' }).click()
  const found = sheet.getByRole('table', { name: 'What was found' })
  await expect(found).toContainText(/Idle4\.2 W/)
  await expect(found).toContainText(/every 40 min/)
  // one minute of something else on the plug is left out
  await sheet.getByRole('textbox', { name: 'From' }).fill('41.6')
  await sheet.getByRole('textbox', { name: 'To' }).fill('41.7')
  await sheet.getByRole('button', { name: 'Leave this out' }).click()
  await expect(found).toContainText(/Running95\.5 W/)
  await expect(found).toContainText(/Runs37\.6 %/)
  await sheet.getByRole('textbox', { name: 'Runs above' }).fill('200')
  await sheet.getByRole('textbox', { name: 'Runs above' }).press('Enter')
  await expect(found).toContainText(/Runs0 %/)
  await sheet.getByRole('textbox', { name: 'Runs above' }).fill('')
  await sheet.getByRole('textbox', { name: 'Runs above' }).press('Enter')
  await expect(found).toContainText(/Runs37\.6 %/)
  await sheet.getByRole('button', { name: 'Take into the load' }).click()
  await expect(sheet.getByRole('status')).toContainText('Undo takes it back')
  // its file is kept with the job and opens again
  await sheet.getByRole('button', { name: 'Plug-in meter' }).click()
  await sheet.getByRole('button', { name: 'A series from a file' }).click()
  await expect(sheet.getByRole('list', { name: 'Kept with the job' })).toContainText('heater.csv')
})

test('the customer’s Green Button file is read, drawn and used for the panel; wrong files are answered; a service is asked', async ({
  page,
  request,
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
  await file.setInputFiles({
    name: 'year.xml',
    mimeType: 'text/xml',
    buffer: Buffer.from('<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom">'),
  })
  await expect(page.getByRole('main').getByRole('alert')).toContainText('may be cut short')

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
  await page.getByRole('textbox', { name: 'Allowance' }).fill('0.5')
  await says.getByRole('button', { name: 'Use it for this job' }).click()
  await expect(says.getByText('Allowance must be from 1 to 3')).toBeVisible()
  await page.getByRole('textbox', { name: 'Allowance' }).fill('1.25')
  await says.getByRole('button', { name: 'Use it for this job' }).click()
  await expect(page.getByText(/counts now: highest demand 6,250 W on Main panel/)).toBeVisible()
  await expect(says).toContainText(/The circuits you picked account for \d+ % of an average winter day/)
  await page.getByRole('figure', { name: 'Day by hour' }).getByRole('img').press('ArrowDown')
  await expect(page.getByRole('figure', { name: 'Day by hour' }).getByRole('status')).toContainText(
    '2025-02-01, 1:00:',
  )
  await page.keyboard.press('Control+z')
  await saved(page)

  await openJob(page, await copyOf(request, fernbrook), 'loads/utility')
  await expect(page.getByText('Nothing is here yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Fetch from the simulated utility' }).click()
  await expect(says).toContainText('365 days by 60 minutes')
})

test('the library: a load found by any word goes onto a circuit; the firm’s own figures stand in ours’ place', async ({
  page,
  request,
}) => {
  await page.goto('/loads')
  await page.getByRole('textbox', { name: 'Find a load' }).fill('apnea')
  await page.getByRole('button', { name: 'CPAP with humidifier' }).click()
  const dialog = page.getByRole('dialog', { name: 'CPAP with humidifier' })
  await dialog.getByRole('textbox', { name: 'at most', exact: true }).fill('20')
  await dialog.getByRole('button', { name: 'Keep for the firm' }).click()
  await expect(dialog.getByText('at most must not be below the likely figure')).toBeVisible()
  await dialog.getByRole('textbox', { name: 'Running, likely' }).fill('75')
  await dialog.getByRole('textbox', { name: 'at most', exact: true }).fill('120')
  await dialog.getByRole('button', { name: 'Keep for the firm' }).click()
  await expect(
    page.getByRole('row', { name: /CPAP with humidifier · the firm’s medical 75 W/ }),
  ).toBeVisible()
  await accessible(page)

  await openJob(page, await copyOf(request, fernbrook), 'loads')
  await page.getByRole('button', { name: 'Add a load' }).click()
  await page.getByRole('textbox', { name: 'What is it' }).fill('sleep')
  await page
    .getByRole('dialog', { name: 'Add a load' })
    .getByRole('button', { name: /CPAP with humidifier 75 W/ })
    .click()
  const sheet = page.getByRole('dialog', { name: /CPAP with humidifier/ })
  await expect(sheet.getByRole('button', { name: /75 W typical value/ })).toContainText(
    'the firm’s load library',
  )
  await sheet.getByRole('tab', { name: 'When it runs' }).click()
  await sheet.getByRole('textbox', { name: 'To', exact: true }).fill('25')
  await sheet.getByRole('button', { name: 'Keep' }).click()
  await expect(sheet.getByText('To must be from 0 to 24 (an hour of the day)')).toBeVisible()
  await sheet.getByRole('textbox', { name: 'To', exact: true }).fill('6')
  await sheet.getByRole('button', { name: 'Keep' }).click()
  await expect(sheet.getByRole('status')).toContainText('Wh a day')
  await accessible(page)

  await page.goto('/loads')
  await page.getByRole('textbox', { name: 'Find a load' }).fill('apnea')
  await page.getByRole('button', { name: 'CPAP with humidifier' }).click()
  await page.getByRole('button', { name: 'Back to the usual figures' }).click()
  await expect(page.getByRole('row', { name: /CPAP with humidifier medical 60 W/ })).toBeVisible()
})
