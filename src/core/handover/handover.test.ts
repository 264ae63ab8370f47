import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { fernbrook } from '@/server/seeds/jobs/fernbrook'
import { millStreet } from '@/server/seeds/jobs/mill-street'
import { livedIn } from '@/server/seeds/lived-in'
import { evaluate } from '../assess/evaluate'
import { applied } from '../job/fixtures/jobs'
import { applyOperation } from '../job/operations'
import type { Job } from '../job/schema'
import type { Visit } from '../job/visits'
import { dueOf, yearAfter } from './due'
import { livedText } from './lived'
import { packOf, packSchema, standsAgainst } from './pack'
import { standingOf, visitTold } from './standing'

const visit = (job: Job, facts: Partial<Visit> = {}): Visit => ({
  id: 'v1',
  kind: 'load',
  on: '2027-03-01',
  by: 'Ann',
  text: '',
  before: standingOf(job, 4),
  ...facts,
})

test('a visit tells nothing where nothing changed, and of a change the figures, the lines of the directory, the lines of the card', () => {
  const opened = visit(alderHollow)
  expect(visitTold(alderHollow, opened)).toEqual({
    figures: [],
    directory: { came: [], went: [] },
    card: { came: [], went: [] },
  })
  const moved = applied(alderHollow, { op: 'selectCircuit', circuitId: 'c9', picked: false })
  const told = visitTold(moved, opened)
  expect(told.directory).toEqual({
    came: ['9 Playroom lights, 15 A'],
    went: ['9 Playroom lights, 15 A, lives on the source'],
  })
  expect(told.card.went).toContain('   - 5 Playroom lights')
  const energy = told.figures.find(f => f.id === 'need:energy')
  expect(energy?.after).toBeLessThan(energy?.before ?? 0)
  expect(energy?.after).toBe(evaluate(moved).balance.find(l => l.id === 'energy')?.need)
  // moved back, nothing is left to be printed
  const back = applied(moved, { op: 'selectCircuit', circuitId: 'c9', picked: true })
  expect(visitTold(back, opened).directory).toEqual({ came: [], went: [] })
})

test('visits are kept, closed, and put right by their id; what cannot be is told by its field', () => {
  const opened = applied(millStreet, { op: 'openVisit', visit: visit(millStreet) })
  const closed = applied(
    applied(opened, { op: 'openVisit', visit: visit(millStreet, { text: 'a dryer' }) }),
    { op: 'closeVisit', id: 'v1', done: 'moved to 11', on: '2027-03-02' },
  )
  expect(closed.visits).toMatchObject([{ text: 'a dryer', done: 'moved to 11', closedOn: '2027-03-02' }])
  expect(applied(closed, { op: 'closeVisit', id: 'none', done: '', on: '2027-03-02' })).toEqual(closed)
  const refused = applyOperation(millStreet, {
    op: 'setHandOver',
    facts: { warranties: [{ unitId: 'u1', from: '2027-01-01', until: '2026-01-01' }] },
  })
  expect(refused).toMatchObject({ ok: false, faults: [{ path: 'handOver.warranties[0].until' }] })
})

test('a year later is the same day, the 29th of February the 28th; the yearly test counts from the last one that was closed', () => {
  expect(['2026-02-17', '2028-02-29', '2027-12-31'].map(d => yearAfter(d))).toEqual([
    '2027-02-17',
    '2029-02-28',
    '2028-12-31',
  ])
  expect(dueOf(millStreet)).toEqual([])
  const handed = livedIn(fernbrook, 'Ann')
  expect(dueOf(handed)).toEqual([
    { what: 'yearly test', text: 'Yearly test', on: '2028-02-16' },
    { what: 'warranty ends', text: 'Warranty of Rill 6 ends', on: '2031-02-16' },
  ])
  const open = { ...handed, visits: [...(handed.visits ?? []), visit(fernbrook)] }
  expect(dueOf(open)[0]).toMatchObject({ what: 'visit open', on: '2027-03-01' })
})

test('an outage lived through is held against what was worked out, both ways', () => {
  const said = (hours: number, carried: 'all of it' | 'some of it', predictedH: number | null = 8) =>
    livedText({ hours, carried, predictedH })
  expect(said(5, 'all of it')).toMatch(/8 h: as it should be/)
  expect(said(11, 'all of it')).toMatch(/longer than that/)
  expect(said(5, 'some of it')).toMatch(/it should have. Look at what was on/)
  expect(said(11, 'some of it')).toMatch(/longer than it can/)
  expect(said(5, 'all of it', null)).toMatch(/stores nothing/)
})

test('a pack is made though stops stand open, and says so first; what was accepted stands with name and reason', () => {
  const made = { n: 1, firm: 'Firm', on: '2026-03-01', revision: 2, estimates: [], jobSha256: 'a'.repeat(64) }
  const pack = packOf(millStreet, made)
  expect(packSchema.parse(pack)).toEqual(pack)
  expect(standsAgainst(pack).some(l => pack.stops.includes(l))).toBe(pack.stops.length > 0)
  const bare = packOf({ ...millStreet, source: undefined }, made)
  expect(standsAgainst(bare)).toContain('There is no card: must be chosen before there is a card.')
  const minded = evaluate(millStreet).findings.find(f => f.severity === 'mind')
  if (!minded) throw new Error('nothing to accept')
  const accepted = applied(millStreet, {
    op: 'acceptFinding',
    acceptance: { key: minded.key, by: 'Ann', on: '2026-02-01', reason: 'they know' },
  })
  expect(packOf(accepted, made).accepted).toEqual([
    { sentence: minded.sentence, by: 'Ann', on: '2026-02-01', reason: 'they know' },
  ])
})
