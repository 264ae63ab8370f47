import { demoJobs } from '@/server/seeds/jobs'
import { readJob, readJobText, upgradeTo } from './read'

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
  expect(why(text.replace('"formatVersion":2', '"formatVersion":7'))[0]).toMatch(
    /formatVersion: is 7; this Spillway reads up to 2/,
  )
  expect(why(text.slice(0, 500))[0]).toMatch(/not whole JSON .* cut short/)
  expect(why('[1, 2]')[0]).toMatch(/not a job document/)
  expect(why('{"name": "x"}')[0]).toMatch(/formatVersion: is missing/)
})

test('what the schema refuses is told with its path, unknown keys too', () => {
  const job = JSON.parse(text)
  job.panel.circuits[2].breakerA = 17
  job.panel.circuits[3].colour = 'red'
  const read = readJob(job)
  expect(read.ok ? [] : read.faults.map(f => f.path).sort()).toEqual([
    'panel.circuits[2].breakerA',
    'panel.circuits[3].colour',
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

test('a document of version 1, from before calculations were kept, reads as one with none', () => {
  const { calculations: _, ...before } = JSON.parse(text)
  const read = readJob({ ...before, formatVersion: 1 })
  expect(read.ok && read.value).toEqual({ ...JSON.parse(text), calculations: [] })
})
