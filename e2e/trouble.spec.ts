import { execFileSync } from 'node:child_process'
import { alder, breaker, copyOf, giveLarge, line, openAgain, openJob, saved } from './helpers'
import { expect, test } from './test'

test('job files that cannot be taken say why; a good one opens', async ({ page, request }) => {
  const good = await (await request.get(`/api/jobs/${alder}/export`)).text()
  await page.goto('/jobs')
  const input = page.locator('input[type=file]')
  const open = (content: string) =>
    input.setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(content) })
  for (const [content, told] of [
    [
      good.replace('"formatVersion": 13', '"formatVersion": 14'),
      /formatVersion is 14; this Spillway reads up to 13/,
    ],
    [good.slice(0, 700), /may be cut short/],
  ] as const) {
    await open(content)
    await expect(page.getByText(told)).toBeVisible()
  }
  await giveLarge(input, 'job.json', 'application/json', 50_000_000)
  await expect(page.getByText(/50 MB: a job document is never larger than 2 MB/)).toBeVisible()
  await open(good)
  await page.waitForURL(/panel/)
  await expect(line(page, 'hours')).toContainText('has 18.2 h')
})

test('two tabs on one job: the later is refused, shown what changed, and put on top', async ({
  page,
  context,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  const other = await context.newPage()
  await openJob(other, id)
  // the first tab is kept from noticing by itself, as when both people are typing
  await page.route(/since=/, route => route.abort())
  await breaker(other, '9 Playroom lights').click()
  await saved(other)
  await breaker(page, '17 Sump pump').click()
  const dialog = page.getByRole('dialog', { name: 'This job was changed elsewhere meanwhile' })
  await expect(dialog).toContainText('Designer dropped 9 Playroom lights')
  await expect(dialog).toContainText('picked 17 Sump pump')
  await dialog.getByRole('button', { name: 'Put mine on top' }).click()
  await saved(page)
  await expect(breaker(page, '9 Playroom lights')).toHaveAttribute('aria-pressed', 'false')
  await expect(breaker(page, '17 Sump pump')).toHaveAttribute('aria-pressed', 'true')
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  expect(record.revision).toBe(3)
})

const cluster = process.env.SPILLWAY_CLUSTER
const pgctl = (...args: string[]) => {
  const words = [`${process.env.SPILLWAY_PG_BIN}/pg_ctl`, '-D', cluster ?? '', '-w', ...args]
  const command = process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--', ...words] : words
  execFileSync(command[0] ?? '', command.slice(1), { stdio: 'ignore' })
}

test('the database stops and comes back while a person edits: nothing typed or saved is lost', async ({
  page,
  request,
}) => {
  test.skip(!cluster, 'needs the throwaway cluster of bin/test')
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await breaker(page, '9 Playroom lights').click()
  await saved(page)
  pgctl('stop', '-m', 'immediate')
  try {
    await breaker(page, '17 Sump pump').click()
    await expect(page.getByText(/Not saved: 1 change kept here/)).toBeVisible()
    await breaker(page, '4 Living room outlets').click()
    await expect(breaker(page, '4 Living room outlets')).toHaveAttribute('aria-pressed', 'true')
    // the page itself cannot be made now, and says so
    const visitor = await page.context().newPage()
    expect((await visitor.goto(`/jobs/${id}/panel`))?.status()).toBe(503)
    await expect(visitor.getByText('This screen cannot be shown just now')).toBeVisible()
    await visitor.close()
  } finally {
    pgctl(
      'start',
      '-l',
      '/dev/null',
      '-o',
      `-p ${new URL(process.env.DATABASE_URL ?? '').port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`,
    )
  }
  await saved(page)
  await openAgain(page)
  await expect(breaker(page, '9 Playroom lights')).toHaveAttribute('aria-pressed', 'false')
  await expect(breaker(page, '17 Sump pump')).toHaveAttribute('aria-pressed', 'true')
  await expect(breaker(page, '4 Living room outlets')).toHaveAttribute('aria-pressed', 'true')
})

test('a tab that is reloaded while the server cannot be written takes its unsaved changes up again', async ({
  page,
  request,
}) => {
  const id = await copyOf(request, alder)
  await openJob(page, id)
  await page.route('**/changes', route => route.abort())
  await breaker(page, '17 Sump pump').click()
  await expect(page.getByText(/Not saved: 1 change/)).toBeVisible()
  page.on('dialog', dialog => dialog.accept())
  await openAgain(page)
  await expect(breaker(page, '17 Sump pump')).toHaveAttribute('aria-pressed', 'true')
  await page.unroute('**/changes')
  await saved(page)
  const { record } = await (await request.get(`/api/jobs/${id}`)).json()
  expect(record.revision).toBe(2)
})

test('requests from another site, for another job or with anything odd in them are refused', async ({
  request,
}) => {
  const post = (path: string, data: unknown, headers = {}) =>
    request.post(path, { data, headers }).then(r => r.status())
  expect(await post(`/api/jobs/${alder}/changes`, {}, { origin: 'http://elsewhere.example' })).toBe(403)
  expect(await post(`/api/jobs/${alder}/changes`, { baseRevision: 1, changes: [] })).toBe(400)
  expect(await post('/api/jobs/not-an-id/duplicate', {})).toBe(404)
  expect(await post('/api/jobs/import', { title: 'x'.repeat(3_000_000) })).toBe(413)
  expect(await post('/api/jobs/import', { panels: Array.from({ length: 600_000 }, () => ({})) })).toBe(400)
  expect((await request.get('/jobs/not-an-id/panel')).status()).toBe(404)
  // what a web process asks of itself before it listens is there for nobody else
  expect((await request.get('/warm')).status()).toBe(404)
  expect((await request.get('/jobs?q=%00')).status()).toBe(200)
  expect((await request.get('/jobs', { headers: { host: 'elsewhere.example' } })).status()).toBe(421)
  expect((await request.fetch('/api/jobs', { method: 'DELETE' })).status()).toBe(405)
  const page = await request.get('/jobs')
  expect(page.headers()['content-security-policy']).toMatch(/script-src 'self' 'nonce-[\w+/=]{20,}'/)
  expect((await request.get('/api/jobs')).headers()['cache-control']).toBe('no-store')
})

test('a flood gets answers or a clear word that we are busy, never an error; the health tells', async ({
  request,
}) => {
  const statuses = await Promise.all(
    Array.from({ length: 200 }, (_, n) =>
      request.get(n % 2 ? '/api/jobs' : '/jobs', { timeout: 40_000 }).then(r => r.status()),
    ),
  )
  expect(new Set(statuses)).toEqual(new Set(statuses.filter(s => s === 200 || s === 503)))
  expect(statuses).toContain(200)
  expect(await (await request.get('/api/health')).json()).toMatchObject({ ok: true, database: 'answers' })
})
