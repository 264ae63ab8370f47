import sharp from 'sharp'
import { accessible, alder, breaker, clearPositions, copyOf, drag, line, openJob, saved } from './helpers'
import { expect, test } from './test'

const quarry = '5a1de000-0000-4000-8000-000000000003'
const mill = '5a1de000-0000-4000-8000-000000000004'
const osprey = '5a1de000-0000-4000-8000-000000000006'

test('dead circuits: why a circuit cannot be carried, moved by key, by drag, and by the shortest plan', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, mill))
  await page.getByRole('button', { name: 'Open 7 Furnace' }).click()
  const verdicts = page.getByRole('region', { name: 'Can be carried by' })
  await expect(verdicts).toContainText('One leg, L1cannot it is on L2')
  await expect(verdicts).toContainText('Both legs tiedcan')
  const dead = page.locator('aside [data-finding="leg.dead"]')
  await expect(dead.locator('ol li')).toHaveText([/trade places/, /trade places/, /trade places/])
  await page.getByRole('button', { name: 'Close the circuit' }).click()

  await breaker(page, '7 Furnace').focus()
  await page.keyboard.press('m')
  const strip = page.getByRole('region', { name: 'Moving a breaker' })
  await page.keyboard.press('ArrowUp')
  await expect(strip).toContainText('Furnace: 7 to 5; from L2 to L1, which is live with one leg live')
  await page.keyboard.press('ArrowRight')
  await expect(strip).toContainText('Kitchen counter: 6 to 7')
  await accessible(page)
  await page.keyboard.press('Enter')
  await expect(breaker(page, '6 Furnace')).toContainText('147 W')
  await expect(breaker(page, '7 Kitchen counter')).toBeVisible()

  await drag(page, breaker(page, '8 Living room'), breaker(page, '9 Bedroom'))
  await expect(breaker(page, '9 Living room')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(breaker(page, '8 Living room')).toBeVisible()
  // a two-pole in the way is told, and nothing moves
  await breaker(page, '11 Lights').focus()
  await page.keyboard.press('m')
  await breaker(page, '15·17 Water heater').click()
  await expect(page.getByText(/Not planned: the panel cannot move to 15/)).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(strip).toHaveCount(0)

  // the survey stays as it was found, and the plan reads as what is going to be done
  await page.getByRole('button', { name: 'As found' }).click()
  await expect(breaker(page, '7 Furnace')).toBeVisible()
  await page.keyboard.press('p')
  await expect(page.getByText('Let 6 Kitchen counter and 7 Furnace trade places')).toBeVisible()
  await expect(page.getByRole('figure')).toHaveCount(2)
  await accessible(page)

  await page.getByRole('link', { name: 'Findings' }).click()
  await page.getByRole('button', { name: 'Move to L1 in 2 steps' }).click()
  await expect(page.locator('[data-finding="leg.dead"]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Drop 1·3 Clothes dryer' }).click()
  await expect(page.locator('[data-finding="v240.bridge"]')).toHaveCount(0)
  await saved(page)
})

test('several panels: a bond that does not belong, a panel added with its feeder, a circuit moved over', async ({
  page,
  request,
}) => {
  await openJob(page, await copyOf(request, quarry))
  await expect(page.getByRole('tab', { name: /Critical-load panel/ })).toHaveAttribute(
    'aria-selected',
    'true',
  )
  await page.getByRole('tab', { name: /House panel/ }).click()
  await expect(breaker(page, '1·3 Studio sub-panel')).toContainText('feeds Studio sub-panel')
  await page.getByRole('button', { name: 'Add a panel' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Shed')
  await page.getByRole('combobox', { name: 'Fed by' }).click()
  await page.getByRole('option', { name: /5·7 Range/ }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('tab', { name: /Shed/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('e')
  await expect(page.getByLabel('Enter breakers, a line each')).toBeFocused()
  await page.keyboard.type('1a 15 shed lights')
  await page.keyboard.press('Enter')
  await page.keyboard.type('1b 15 shed outlets')
  await page.keyboard.press('Enter')
  await expect(breaker(page, '1B shed outlets')).toBeVisible()
  await page.keyboard.type('1-3 30 heater')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1A shed lights is in the way')).toBeVisible()
  await page.getByRole('button', { name: 'Close the entry' }).click()
  await page.getByRole('button', { name: 'This panel' }).click()
  await page.getByLabel('Spaces that take tandems').fill('3-4')
  await page.keyboard.press('Tab')
  await page.getByRole('combobox', { name: 'Bus legs' }).click()
  await page.getByRole('option', { name: 'row by row, as measured' }).click()
  await page.getByLabel('Legs from the top').fill('1 1 2')
  await page.keyboard.press('Tab')
  await expect(page.getByText(/must be 6 figures, 1 or 2 for each row; this has 3/)).toBeVisible()
  await page.getByLabel('Legs from the top').fill('112211')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Done' }).click()
  await page.keyboard.press('9')
  await expect(page.locator('[data-finding="tandem.not-listed"]')).toContainText('B 1A shed lights')

  await page.getByRole('button', { name: 'Plan: neutral and ground apart' }).click()
  await expect(page.locator('[data-finding="subpanel.bonded"]')).toHaveCount(0)
  await saved(page)
})

test('a panel numbered in sequence and fed from below; directory, labels and files of it', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, osprey)
  await openJob(page, id)
  await expect(breaker(page, '1·2 Bilge-pit pump')).toBeVisible()
  await expect(breaker(page, '8 cannot be used')).toBeVisible()
  await page.keyboard.press('e')
  await expect(page.getByLabel('Enter breakers, a line each')).toBeFocused()
  await page.keyboard.type('8 15 horn')
  await page.keyboard.press('Enter')
  await expect(page.getByText('space 8 is marked as unusable')).toBeVisible()
  await page.getByRole('link', { name: 'Directory and labels' }).click()
  await expect(page.getByRole('heading', { name: 'Boathouse panel' })).toBeVisible()
  await expect(page.getByText('second pole of Bilge-pit pump')).toBeVisible()
  await accessible(page)
  await page.getByRole('combobox', { name: 'On', exact: true }).click()
  await page.getByRole('option', { name: /80 a sheet/ }).click()
  await expect(page.getByRole('region', { name: 'Page 1' })).toContainText('Dock outlets')
  // the whole sheet, at its true size, on one page
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
  const svg = await (await request.get(`/api/jobs/${id}/drawing`)).text()
  expect(svg).toContain('Bilge-pit pump')
  const csv = await (await request.get(`/api/jobs/${id}/directory`)).text()
  expect(csv).toContain('1,2,15,Bilge-pit pump,both,own')
  expect((await request.get(`/api/jobs/${id}/drawing?panel=gone`)).status()).toBe(404)
})

test('photographs: added, turned, marked with mouse and keys, and read into the panel', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await clearPositions(page, id)
  await openJob(page, id, 'photos')
  await expect(page.getByRole('list', { name: 'All photographs' }).getByRole('button')).toHaveCount(6)
  await page.locator('input[type=file]').setInputFiles([
    { name: 'fake.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('%PDF-1.7') },
    {
      name: 'New wall.png',
      mimeType: 'image/png',
      buffer: await sharp({ create: { width: 800, height: 600, channels: 3, background: '#999999' } })
        .png()
        .toBuffer(),
    },
  ])
  await expect(page.locator('main [role=alert]')).toContainText('fake.jpg: This is a PDF')
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('New wall')
  await page.getByRole('button', { name: 'Turn by a quarter' }).click()
  await page.getByRole('button', { name: 'Mark', exact: true }).click()
  const surface = page.locator('[data-marking=true]')
  const box = await surface.boundingBox()
  if (!box) throw new Error('no picture')
  // the picture stands on its side: what is drawn downwards on the screen runs along its width
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.1)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.6)
  await page.mouse.up()
  const mark = page.getByRole('button', { name: /^Mark 1/ })
  const drawn = await mark.boundingBox()
  expect(drawn?.y).toBeCloseTo(box.y + box.height * 0.1, -1)
  expect(drawn?.height).toBeCloseTo(box.height * 0.5, -1)
  await mark.focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('heading', { name: 'Mark 1' })).toBeVisible()
  await page.getByLabel('Enter it as a breaker').fill('27 20 workshop')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('As it is written there')).toHaveValue('27 20 workshop')
  await page.getByLabel('Load').fill('Band saw')
  await page.getByLabel('hp', { exact: true }).fill('1')
  await page.getByLabel('LRA, A').fill('44')
  await page.getByRole('button', { name: 'Put on the load' }).click()
  await saved(page)
  await accessible(page)
  await page.keyboard.press('2')
  await expect(breaker(page, '27 workshop')).toContainText('not traced')
  await breaker(page, '27 workshop').click()
  await expect(line(page, 'start')).toContainText('Band saw')
})
