import sharp from 'sharp'
import { closeDb, ownerDb } from '../db/connection'
import { createJob } from '../jobs/repository'
import { testFirm } from '../people/test-firm'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { closeReaders, readCatalogueAside, readJobAside, readPhotographAside, readUtilityAside } from './desk'
import { kindOfFile } from './file-kind'
import { takeIn } from './intake'
import { OverQuota, quotas } from './quota'
import { saveFile, savePhoto } from './repository'

afterAll(async () => {
  await closeReaders()
  await closeDb()
})

const parts = (text: string, most = text.length, size = 65_536) =>
  (async function* () {
    const bytes = Buffer.from(text)
    for (let sent = 0; sent < most; sent += size)
      yield bytes.subarray(sent % bytes.length, (sent % bytes.length) + size)
  })()
const why = async (read: Promise<{ ok: boolean; faults?: { message: string }[] }>) => {
  const outcome = await read
  return outcome.ok ? null : outcome.faults?.[0]?.message
}

test('each kind of foreign file is read in a thread, and told apart', async () => {
  expect(await readJobAside(JSON.stringify(alderHollow))).toEqual({ ok: true, value: alderHollow })
  expect(await why(readJobAside('{"formatVersion"'))).toMatch(/cut short/)
  expect(await why(readCatalogueAside('csv', 'a,b\n1,2'))).toMatch(/no column “kind”/)
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#887766' } })
    .png()
    .toBuffer()
  expect(await readPhotographAside(picture)).toMatchObject({ ok: true, value: { width: 40, height: 30 } })
  const table = 'Start,kWh\n2026-01-05 00:00,0.4\n2026-01-05 01:00,0.5\n'
  const use = await readUtilityAside(parts(table), 'America/New_York')
  expect(use).toMatchObject({
    ok: true,
    value: { kind: 'csv', stored: { about: { meters: [{ count: 2, totalWh: 900 }] } } },
  })
}, 30_000)

test('a picture of absurd sides is refused by them; a file that takes too long is put aside and the next is read', async () => {
  const strip = await sharp({ create: { width: 30_000, height: 2, channels: 3, background: '#000' } })
    .png()
    .toBuffer()
  expect(await why(takeIn(strip))).toMatch(/30,000 × 2 pixels/)
  expect(await why(readPhotographAside(strip, AbortSignal.abort()))).toMatch(/takes longer/)
  expect(await why(readPhotographAside(strip))).toMatch(/30,000 × 2/)
}, 30_000)

test('files made to stop a reader are refused in words, one after the other', async () => {
  const feed = '<feed xmlns="http://naesb.org/espi">'
  for (const [text, most, told] of [
    [`${feed}${'<a>'.repeat(60_000)}`, undefined, /nests its elements deeper than 64/],
    [`${feed}<x>${'y'.repeat(3_000_000)}`, undefined, /no element for 2,000,000 characters/],
    [`Start,kWh\n2026-01-05 00:00,${'1'.repeat(900_000)}\n`, undefined, /no header|no figures/],
    [`Start;kWh\n${'9'.repeat(1_500_000)}`, undefined, /line of more than a million/],
    [
      `${'Start,'.repeat(150_000)}\n${'2026-01-05 00:00,'.repeat(50_000)}`,
      undefined,
      /no table|no column|no header|no figures/,
    ],
  ] as const)
    expect(await why(readUtilityAside(parts(text, most), 'America/New_York'))).toMatch(told)
}, 60_000)

test('text in UTF-16 is named so', () => {
  for (const text of [
    Buffer.from('\ufeffStart,kWh\n', 'utf16le'),
    Buffer.from('Start,kWh\n1,2\n', 'utf16le'),
  ]) {
    const kind = kindOfFile(text)
    expect(!kind.ok && kind.faults[0]?.message).toMatch(/UTF-16/)
  }
})

test('a job, and a firm, keep so much and no more: told in words, and nothing is kept', async () => {
  const actor = await testFirm()
  const at = new Date()
  const [one, two] = [
    await createJob(actor, alderHollow, 'opened', at),
    await createJob(actor, alderHollow, 'opened', at),
  ]
  const before = { ...quotas }
  Object.assign(quotas, { job: 100, firm: 150 })
  const photo = (job: string, bytes: number) =>
    savePhoto(actor, job, { picture: Buffer.alloc(bytes), thumbnail: Buffer.alloc(0) }, at)
  await photo(one, 90)
  await expect(photo(one, 20)).rejects.toThrow(/This job keeps/)
  await expect(
    saveFile(actor, one, { name: 'x', kind: 'csv', content: Buffer.from('a,b\n1') }, at),
  ).rejects.toThrow(OverQuota)
  await photo(two, 50)
  await expect(photo(two, 20)).rejects.toThrow(/The firm keeps/)
  Object.assign(quotas, before)
  expect(await ownerDb()('photo').where({ firm_id: actor.firmId }).select('bytes')).toHaveLength(2)
})
