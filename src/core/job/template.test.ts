import fc from 'fast-check'
import { demoJobs } from '@/server/seeds/jobs'
import { circuit, job } from './fixtures/jobs'
import { newJob } from './new'
import { jobSchema } from './schema'
import { newJobWith, templateOf, waysOf } from './template'

const facts = { title: 'Mill', place: '', spaces: 12, mainA: 100 }

test('a new job has a template’s ways on its own empty panel, and is a sound document', () => {
  for (const { job: given } of demoJobs) {
    const started = jobSchema.parse(newJobWith(facts, templateOf(given)))
    expect(started).toMatchObject({ title: 'Mill', edition: given.edition, photos: [], brief: { wants: [] } })
    expect(started.panels).toEqual(newJob(facts).panels)
    expect(started.hookup.method).toBe(given.hookup.method)
    expect(started.source?.units.map(u => u.equipment)).toEqual(given.source?.units.map(u => u.equipment))
  }
})

test('what was found in one house is not claimed of the next', () => {
  const house = job([circuit(1)])
  const { hookup, source, outage } = waysOf({
    ...house,
    outage: { ...house.outage, hours: 48, latitudeDeg: 45, outdoorC: -20 },
    source: house.source && { ...house.source, stands: { exposure: 'indoors', coldestC: 15 } },
    hookup: {
      ...house.hookup,
      panelId: house.panels[0]?.id,
      ground: 'continuous',
      sourceNeutral: 'lands',
      neutrals: 'follow their hots',
      exists: ['inlet'],
      backfed: { space: 2, breakerA: 30, heldDown: true },
      path: [
        { id: 'a', kind: 'cord', ratingA: 30, lengthFt: 25 },
        { id: 'b', kind: 'wire', ratingA: 30, lengthFt: 60, terminalC: 75, size: '10' },
      ],
    },
  })
  expect(outage).toEqual({ ...house.outage, hours: 48 })
  expect(source?.stands).toBeUndefined()
  expect(hookup).toEqual({
    method: house.hookup.method,
    bondingPlug: house.hookup.bondingPlug,
    backfed: { breakerA: 30, heldDown: true },
    path: [
      { id: 'a', kind: 'cord', ratingA: 30, lengthFt: 25 },
      { id: 'b', kind: 'wire', ratingA: 30, size: '10' },
    ],
  })
})

test('a template of a template is the same again', () =>
  fc.assert(
    fc.property(fc.constantFrom(...demoJobs), ({ job: given }) => {
      expect(waysOf(templateOf(given))).toEqual(waysOf(given))
    }),
  ))
