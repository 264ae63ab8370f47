import fc from 'fast-check'
import { demoJobs } from '@/server/seeds/jobs'
import { library } from '../loads/library'
import { circuit, job } from './fixtures/jobs'
import { houseJob, houses } from './houses'
import { newJob } from './new'
import { type Job, jobSchema } from './schema'
import { newJobWith, templateOf, waysOf } from './template'

const facts = { title: 'Mill', place: '', spaces: 12, mainA: 100 }

test('a new job has a template’s ways on its own empty panel, and is a sound document', () => {
  for (const { job: given } of demoJobs) {
    const started = jobSchema.parse(newJobWith(facts, templateOf(given)))
    expect(started).toMatchObject({
      title: 'Mill',
      edition: given.edition,
      photos: [],
      requests: [],
    })
    expect(started.brief.wants.map(w => [w.name, w.circuitIds])).toEqual(
      given.brief.wants.map(w => [w.name, []]),
    )
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

test('what must live comes along with what it draws; of the customer nothing does', () => {
  for (const { job: given } of demoJobs) {
    const kept = templateOf(given)
    const text = JSON.stringify([kept.title, kept.place, kept.brief])
    for (const own of [given.title.split(' ')[0], given.place]) if (own) expect(text).not.toContain(own)
    expect(text).not.toMatch(/"(plate|logs|others|on|from":"(metered|nameplate|utility data))"/)
    const loads = (job: Job) => job.brief.wants.flatMap(w => w.loads ?? [])
    const carried = given.brief.wants.flatMap(w => w.circuitIds).length
    expect(loads(kept).length > 0).toBe(carried > 0)
    // as much as they drew in that house
    const [first] = loads(kept)
    const was = given.panels.flatMap(p => p.circuits.flatMap(c => c.loads)).find(l => l.id === first?.load.id)
    expect(first?.load.runningW.value).toBe(was?.runningW.value)
  }
})

test('each kind of house of ours opens as a sound job with what must live in it', () => {
  for (const house of houses) {
    const made = jobSchema.parse(newJobWith(facts, houseJob(house.id, library)))
    expect(made.brief.wants.length).toBeGreaterThan(3)
    expect(made.brief.wants.every(w => w.loads?.length)).toBe(true)
    expect(made.outage.hours).toBe(house.hours)
  }
  expect(houseJob('no such house', library)).toBeNull()
})
