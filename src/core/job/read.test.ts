import type { Circuit, Panel } from '@/core/panel/schema'
import { demoJobs } from '@/server/seeds/jobs'
import { evaluate } from '../assess/evaluate'
import one from './fixtures/format-1.json'
import two from './fixtures/format-2.json'
import three from './fixtures/format-3.json'
import four from './fixtures/format-4.json'
import five from './fixtures/format-5.json'
import six from './fixtures/format-6.json'
import seven from './fixtures/format-7.json'
import eight from './fixtures/format-8.json'
import nine from './fixtures/format-9.json'
import ten from './fixtures/format-10.json'
import eleven from './fixtures/format-11.json'
import twelve from './fixtures/format-12.json'
import { readJob, readJobText, upgradeTo } from './read'
import { formatVersion, jobSchema } from './schema'

const text = JSON.stringify(demoJobs[0]?.job)
const why = (t: string) => {
  const read = readJobText(t)
  return read.ok ? [] : read.faults.map(f => `${f.path}: ${f.message}`)
}

test('a document reads back as it was written', () => {
  const read = readJobText(text)
  expect(read.ok && read.value).toEqual(JSON.parse(text))
})

test('a newer format, a truncated file and a foreign file each say what they are', () => {
  expect(why(text.replace('"formatVersion":13', '"formatVersion":14'))[0]).toMatch(
    /formatVersion: is 14; this Spillway reads up to 13/,
  )
  expect(why(text.slice(0, 500))[0]).toMatch(/not whole JSON .* cut short/)
  expect(why('[1, 2]')[0]).toMatch(/not a job document/)
  expect(why('{"name": "x"}')[0]).toMatch(/formatVersion: is missing/)
})

test('what the schema refuses is told with its path, unknown keys too', () => {
  const job = JSON.parse(text)
  job.panels[0].circuits[2].breakerA = 17
  job.panels[0].circuits[3].colour = 'red'
  const read = readJob(job)
  expect(read.ok ? [] : read.faults.map(f => f.path).sort()).toEqual([
    'panels[0].circuits[2].breakerA',
    'panels[0].circuits[3].colour',
  ])
})

test('older documents walk up one version at a time', () => {
  const steps = { 1: (d: object) => ({ ...d, b: 'added' }), 2: (d: object) => ({ ...d, c: 'added' }) }
  expect(upgradeTo(3, steps, { formatVersion: 1, a: 1 })).toEqual({
    ok: true,
    value: { formatVersion: 3, a: 1, b: 'added', c: 'added' },
  })
  expect(upgradeTo(3, { 1: steps[1] }, { formatVersion: 1 }).ok).toBe(false)
})

test('a document of version 1 reads as one of today: no calculations, no brief, its one panel the first', () => {
  const old = {
    formatVersion: 1,
    title: 'Old job',
    place: '',
    edition: 2020,
    step: 'survey',
    panel: {
      name: 'Cellar',
      mainA: 100,
      spaces: 12,
      supply: 'service',
      circuits: [
        {
          id: 'c1',
          position: 1,
          poles: 1,
          breakerA: 20,
          label: 'Kitchen',
          neutral: { kind: 'own' },
          protection: 'none',
          traced: { by: 'Designer', on: '2025-11-01' },
          tier: 2,
          picked: true,
          loads: [],
        },
      ],
    },
    hookup: { method: 'undecided', bondingPlug: false },
    outage: { hours: 24, startFraction: 1, reserveFraction: 0.1, deratingFraction: 1 },
  }
  const read = readJob(old)
  expect(read.ok && read.value).toMatchObject({
    formatVersion: 13,
    calculations: [],
    brief: { wants: [] },
    requests: [],
    photos: [],
    panels: [
      {
        name: 'Cellar',
        spaces: 12,
        numbering: 'odd-even',
        busLegs: 'L1',
        circuits: [{ label: 'Kitchen', purpose: 'loads', traced: { by: 'Designer', found: 'known' } }],
      },
    ],
  })
})

/** Documents as they were written when each format was the newest. */
const kept = [one, two, three, four, five, six, seven, eight, nine, ten, eleven, twelve]

test.each(kept.map((document, n) => [n + 1, document] as const))(
  'a kept file of format %i reads as one of today, and loses nothing that a person entered',
  (version, document) => {
    expect(document.formatVersion).toBe(version)
    const read = readJob(document)
    if (!read.ok) throw new Error(read.faults.map(f => `${f.path} ${f.message}`).join('; '))
    const job = read.value
    expect(job.formatVersion).toBe(formatVersion)
    expect(jobSchema.safeParse(JSON.parse(JSON.stringify(job))).success).toBe(true)
    const raw = JSON.parse(JSON.stringify(document))
    const circuits: Circuit[] = (raw.panels ?? [raw.panel]).flatMap((p: Panel) => p.circuits)
    expect(job.panels.flatMap(p => p.circuits.map(c => [c.id, c.label, c.breakerA, c.loads.length]))).toEqual(
      circuits.map(c => [c.id, c.label, c.breakerA, c.loads.length]),
    )
    expect([job.title, job.hookup.method, job.outage.hours]).toEqual([
      document.title,
      document.hookup.method,
      document.outage.hours,
    ])
    expect(evaluate(job).balance).toHaveLength(7)
  },
)

test.each(kept.map((document, n) => [n + 1, document] as const))(
  'a damaged file of format %i is refused in words that name the place',
  (_, document) => {
    const text = JSON.stringify(document)
    expect(why(text.slice(0, text.length >> 1))[0]).toMatch(/cut short/)
    const bad = { ...document, outage: { ...document.outage, hours: 'long' } }
    expect(why(JSON.stringify(bad))).toEqual([expect.stringMatching(/^outage\.hours: /)])
  },
)

test('what a bank is charged with at most keeps its figure under its full name', () => {
  const bank = six.source.units[0]?.bank
  const read = readJob(six)
  expect(bank?.equipment.chargeA).toBeGreaterThan(0)
  expect(read.ok && read.value.source?.units[0]?.bank?.equipment.maxChargeA).toBe(bank?.equipment.chargeA)
})
