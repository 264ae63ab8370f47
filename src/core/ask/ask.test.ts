import { circuitNeeds } from '../assess/needs'
import { isWaiting, requestsOf } from '../assess/requests'
import {
  aboutRequest,
  answerSchema,
  answerSent,
  askedOfCustomer,
  fileSent,
  photoSent,
  saidText,
} from '../assess/sent'
import { circuit, job, load } from '../job/fixtures/jobs'
import { applyOperation, type Operation } from '../job/operations'
import { type Job, jobSchema } from '../job/schema'
import { type Brief, briefSchema } from './brief'
import { answerText, askedOf, isOpen, likelyWants, questions } from './questions'

const brief = (facts: Partial<Brief> = {}): Brief => ({ wants: [], ...facts })
const pump = circuit(1, {
  id: 'pump',
  picked: true,
  loads: [load(900, { id: 'motor', name: 'Well pump', nature: 'motor' })],
})
const house = job([pump])
const asking = (facts: Partial<Job> = {}) => ({ ...house, ...facts })
const keys = (of: Job) => requestsOf(of, circuitNeeds(of)).map(r => r.key)
const done = (of: Job, operations: Operation[]) =>
  operations.reduce((was, operation) => {
    const next = applyOperation(was, operation)
    if (!next.ok) throw new Error(next.faults[0]?.message)
    return next.value
  }, of)
const by = { by: 'Customer', on: '2026-03-01' }
const wall = 'photo:wall'
const stateOf = (of: Job, key = wall) => requestsOf(of, circuitNeeds(of)).find(r => r.key === key)?.state

test('an answer opens the questions that it makes matter, and closes them again', () => {
  const asked = (facts: Partial<Brief>) => askedOf(brief(facts)).map(q => q.key)
  expect(asked({})).not.toContain('generatorNeutral')
  expect(asked({ generator: 'yes' })).toEqual(expect.arrayContaining(['generatorW', 'generatorNeutral']))
  expect(asked({ generator: 'no' })).not.toContain('generatorW')
  expect(asked({ largestMotor: 'pump' })).toContain('lockedRotorA')
})

test('every question fills one field of the brief, by values that the brief takes', () => {
  expect(new Set(questions.map(q => q.key)).size).toBe(questions.length)
  const none = Object.keys(briefSchema.shape).filter(k => !questions.some(q => q.key === k))
  expect(none).toEqual(['wants'])
  for (const { key, answering } of questions)
    if (answering.by === 'choice')
      for (const [value] of answering.options)
        expect(briefSchema.safeParse(brief({ [key]: value })).success).toBe(true)
})

test('“not known yet” is an answer that stays open; figures are said with their units', () => {
  expect(isOpen(brief(), 'water')).toBe(true)
  expect(isOpen(brief({ water: 'unknown' }), 'water')).toBe(true)
  expect(isOpen(brief({ water: 'utility' }), 'water')).toBe(false)
  const said = (facts: Partial<Brief>, key: (typeof questions)[number]['key']) => {
    const question = questions.find(q => q.key === key)
    return question && answerText(brief(facts), question)
  }
  expect(said({ vehicleKeepFraction: 0.29 }, 'vehicleKeepFraction')).toBe('29 %')
  expect(said({ budget: 12_500 }, 'budget')).toBe('$12,500')
  expect(said({ water: 'own well' }, 'water')).toBe('an own well')
  expect(said({}, 'water')).toBeNull()
})

test('what is likely wanted is offered once, whatever its letters', () => {
  const offered = likelyWants(
    brief({ water: 'own well', wants: [{ id: 'w', name: 'WELL PUMP', circuitIds: [] }] }),
  )
  expect(offered).not.toContain('Well pump')
  expect(offered).toContain('Refrigerator')
  expect(likelyWants(brief({ medical: 'yes', medicalWhat: 'oxygen' }))[0]).toBe('oxygen')
})

test('requests follow from what is there, and go when it is known', () => {
  expect(keys(asking())).toEqual(
    expect.arrayContaining([wall, 'photo:panel:main', 'nameplate:pump:motor', 'interval-data']),
  )
  expect(keys(asking({ brief: brief({ generator: 'yes', inlet: 'unknown' }) }))).toEqual(
    expect.arrayContaining(['photo:generator']),
  )
  const motor = asking({ brief: brief({ largestMotor: 'pump' }) })
  expect(keys(motor)).toContain('nameplate:largest-motor')
  expect(keys(asking({ brief: brief({ largestMotor: 'pump', lockedRotorA: 40 }) }))).not.toContain(
    'nameplate:largest-motor',
  )
  const read = load(900, {
    id: 'motor',
    nature: 'motor',
    start: { method: 'locked-rotor', lockedRotorA: { value: 40, from: 'nameplate' } },
  })
  expect(keys(job([{ ...pump, loads: [read] }]))).not.toContain('nameplate:pump:motor')
})

test('what is sent is received; a refused request is asked of nobody', () => {
  const id = '6f2d2a0e-3c1b-4a53-9c7e-1f6d0c2b8a11'
  const sent = done(house, photoSent(house, wall, { id, width: 40, height: 30 }, by))
  expect(jobSchema.safeParse(sent).success).toBe(true)
  expect(stateOf(sent)).toBe('received')
  expect(sent.photos[0]?.about).toEqual({ kind: 'wall' })
  const again = photoSent(sent, wall, { id, width: 40, height: 30 }, by)[0]
  expect(again?.op === 'addPhoto' && again.photo.name).toMatch(/\(2\)$/)

  const plate = answerSent(house, { key: 'nameplate:pump:motor', plate: { volts: 240, amps: 8 } }, by)
  const told = askedOfCustomer(done(house, plate))
  expect(told.at(-1)).toMatchObject({ key: 'nameplate:pump:motor', state: 'here', said: '240 V, 8 A' })

  const refused = done(house, [{ op: 'putRequest', request: { key: wall, state: 'refused' } }])
  expect(askedOfCustomer(refused).map(a => a.key)).not.toContain(wall)
  expect(
    requestsOf(refused, circuitNeeds(refused))
      .filter(isWaiting)
      .map(r => r.key),
  ).not.toContain(wall)
})

test('what the job no longer asks for is not taken; an empty answer neither', () => {
  const file = { id: '6f2d2a0e-3c1b-4a53-9c7e-1f6d0c2b8a11', name: 'use.csv', bytes: 6 }
  expect(answerSent(house, { key: 'photo:solar', text: 'it is gone' }, by)).toEqual([])
  expect(photoSent(house, 'photo:solar', { id: file.id, width: 1, height: 1 }, by)).toEqual([])
  expect(fileSent(house, 'none', file, by)).toEqual([])
  expect(stateOf(done(house, fileSent(house, 'interval-data', file, by)), 'interval-data')).toBe('received')
  for (const empty of [{}, { plate: {} }, { text: '' }])
    expect(answerSchema.safeParse({ key: wall, ...empty }).success).toBe(false)
  expect(saidText({ ...by, unknown: true })).toBe('does not know')
})

test('a request tells what its picture shows, and what is gone shows something else', () => {
  expect(aboutRequest(house, 'photo:sticker:main')).toEqual({ kind: 'panel', panelId: 'main' })
  expect(aboutRequest(house, 'nameplate:pump:motor')).toEqual({
    kind: 'load',
    circuitId: 'pump',
    loadId: 'motor',
  })
  for (const key of ['nameplate:pump:gone', 'photo:panel:gone', 'own:1'])
    expect(aboutRequest(house, key)).toEqual({ kind: 'other' })
})
