import { applied, circuit, job, load } from '../job/fixtures/jobs'
import { newJob } from '../job/new'
import type { Operation } from '../job/operations'
import type { Job } from '../job/schema'
import { bare } from '../panel/schema'
import { firstSteps } from './first-steps'
import { circuitNeeds } from './needs'
import { isWaiting, requestsOf } from './requests'
import {
  aboutRequest,
  answerSchema,
  answerSent,
  askedOfCustomer,
  fileSent,
  photoSent,
  saidText,
} from './sent'

const asked = (j: Job) => requestsOf(j, circuitNeeds(j))
const keys = (j: Job) => asked(j).map(r => r.key)
const id = (n: number) => `5a1de000-0000-4000-8000-00000000000${n}`
const sender = { by: 'Ada', on: '2026-02-01' }
const pump = load(500, { id: 'pump', name: 'Sump pump', nature: 'motor' })
const kettle = load(1200, { id: 'kettle', name: 'Kettle', runningW: { value: 1200, from: 'typical value' } })

describe('what is to be sent', () => {
  test('a bare job asks for the panel, its list, its label, the wall and a year of use', () => {
    expect(keys(newJob({ title: 'A', place: '', spaces: 12, mainA: 100 }))).toEqual([
      'photo:panel:main',
      'photo:directory:main',
      'photo:sticker:main',
      'photo:wall',
      'interval-data',
    ])
  })

  test('with a second panel each is named', () => {
    const j = job([])
    const two = { ...j, panels: [...j.panels, bare('sub', 'Sub-panel, cellar', 8, 60)] }
    expect(asked(two).map(r => r.title)).toEqual(
      expect.arrayContaining([
        'The breaker panel of Main panel, door open',
        'The breaker panel of Sub-panel, cellar, door open',
      ]),
    )
  })

  test('what the brief says is there is to be photographed; what it does not say is not', () => {
    const j = job([], {
      brief: { wants: [], solar: 'yes', inlet: 'yes', generator: 'unknown', vehicle: 'no' },
    })
    expect(keys(j).filter(k => k.startsWith('photo:') && k.split(':').length === 2)).toEqual([
      'photo:wall',
      'photo:solar',
      'photo:inlet',
    ])
  })

  test('of picked circuits: a motor without its start and a large typical value; not what was metered, small or left out', () => {
    const j = job([
      circuit(1, { loads: [pump] }),
      circuit(2, {
        loads: [kettle, load(60, { id: 'lamp', runningW: { value: 60, from: 'typical value' } })],
      }),
      circuit(3, { loads: [load(900, { id: 'metered' })] }),
      circuit(4, { picked: false, loads: [{ ...pump, id: 'other' }] }),
    ])
    const plates = asked(j).filter(r => r.wants === 'nameplate')
    expect(plates.map(r => r.key)).toEqual(['nameplate:c1:pump', 'nameplate:c2:kettle'])
    expect(plates.map(r => r.why)).toEqual([
      expect.stringMatching(/start is taken as \d+ times running/),
      'Its watts are only a typical value so far.',
    ])
  })

  test('the largest motor of the brief is asked for until its amps are known or a circuit carries it', () => {
    const brief = { wants: [], largestMotor: 'Well pump' }
    expect(keys(job([], { brief }))).toContain('nameplate:largest-motor')
    expect(keys(job([], { brief: { ...brief, lockedRotorA: 40 } }))).not.toContain('nameplate:largest-motor')
    const carried = { ...brief, wants: [{ id: 'w', name: 'Well pump', circuitIds: ['c1'] }] }
    expect(keys(job([circuit(1)], { brief: carried }))).not.toContain('nameplate:largest-motor')
  })

  test('the burner is asked for while no picked load is known to refuse a floating source', () => {
    const brief = { wants: [], heat: 'gas or oil burner' as const }
    expect(keys(job([], { brief }))).toContain('nameplate:burner')
    const boiler = { ...kettle, id: 'boiler', needsBond: true }
    expect(keys(job([circuit(1, { loads: [boiler] })], { brief }))).not.toContain('nameplate:burner')
  })

  test('a year of use is not asked for once a panel’s demand is known', () => {
    expect(keys(job([]))).toContain('interval-data')
    expect(
      keys(job([], { panel: { demandW: { value: 6000, from: 'utility data' } as never } })),
    ).not.toContain('interval-data')
  })

  test('what a person added stands last, and waits like the rest', () => {
    const j = applied(job([]), {
      op: 'putRequest',
      request: { key: 'own:1', state: 'to ask', own: { title: 'The attic hatch', why: 'To see the run.' } },
    })
    const last = asked(j).at(-1)
    expect(last).toMatchObject({ title: 'The attic hatch', wants: 'words', state: 'to ask' })
    expect(last && isWaiting(last)).toBe(true)
  })
})

describe('what comes in', () => {
  const j = job([circuit(1, { loads: [pump] })])
  const picture = { id: id(1), width: 800, height: 600 }
  const key = 'photo:panel:main'

  test('a photograph goes under its request, with a name and what it shows; the second is numbered', () => {
    const one = applied(j, ...photoSent(j, key, picture, sender))
    const two = applied(one, ...photoSent(one, key, { ...picture, id: id(2) }, sender))
    expect(two.photos).toMatchObject([
      { name: 'The breaker panel, door open', about: { kind: 'panel', panelId: 'main' }, by: 'Ada' },
      { name: 'The breaker panel, door open (2)', request: key },
    ])
    expect(asked(two).find(r => r.key === key)).toMatchObject({ state: 'received', photos: [{}, {}] })
  })

  test('a request that is gone takes nothing', () => {
    for (const came of [
      photoSent(j, 'photo:solar', picture, sender),
      answerSent(j, { key: 'nameplate:c9:x', text: 'no' }, sender),
      fileSent(j, 'nothing', { id: id(3), name: 'a', bytes: 1 }, sender),
    ])
      expect(came).toEqual([])
  })

  test('answers are told in one line', () => {
    const told = (answer: Parameters<typeof saidText>[0]) => saidText({ ...answer, ...sender })
    expect(told({ ...sender, unknown: true })).toBe('does not know')
    expect(told({ ...sender, text: 'in the cellar' })).toBe('in the cellar')
    expect(told({ ...sender, file: { id: id(3), name: 'year.xml', bytes: 9 } })).toBe('file year.xml')
    expect(told({ ...sender, plate: { volts: 120, amps: 9.8 }, text: 'behind it' })).toMatch(
      /120 V.*9\.8 A.*behind it/,
    )
  })

  test('an empty answer is refused; one that does not know is an answer', () => {
    const told = (answer: object) => answerSchema.safeParse({ key: 'k', ...answer })
    expect(told({}).error?.issues[0]?.message).toMatch(/is empty: fill in at least one field/)
    expect(told({ plate: {} }).success).toBe(false)
    expect(told({ unknown: true }).success).toBe(true)
  })

  test('the customer sees what is open first and nothing that was refused', () => {
    const put = (request: string, state: 'refused' | 'good enough' | 'received'): Operation => ({
      op: 'putRequest',
      request: { key: request, state },
    })
    const seen = askedOfCustomer(
      applied(
        j,
        put(key, 'good enough'),
        put('photo:wall', 'refused'),
        put('photo:sticker:main', 'received'),
      ),
    )
    expect(seen.map(r => r.key)).not.toContain('photo:wall')
    expect(seen.map(r => r.state)).toEqual(['open', 'open', 'open', 'here', 'enough'])
    expect(seen.at(-1)?.key).toBe(key)
  })

  test.each([
    ['photo:wall', { kind: 'wall' }],
    ['photo:panel:main', { kind: 'panel', panelId: 'main' }],
    ['photo:panel:gone', { kind: 'other' }],
    ['nameplate:c1:pump', { kind: 'load', circuitId: 'c1', loadId: 'pump' }],
    ['nameplate:c1:gone', { kind: 'other' }],
    ['nameplate:medical', { kind: 'other' }],
  ])('%s shows what it names while that is there', (of, about) => {
    expect(aboutRequest(j, of)).toEqual(about)
  })
})

test('the first steps are done one after another, and picking with nothing said of loads is not enough', () => {
  const done = (j: Job) => firstSteps(j).map(s => s.done)
  const bare = newJob({ title: 'A', place: '', spaces: 12, mainA: 100 })
  expect(done(bare)).toEqual([false, false, false, false, false, false])
  const picked = job([circuit(1), circuit(2, { loads: [pump] })])
  expect(done(picked)).toEqual([false, true, true, false, true, true])
  expect(done(job([circuit(1, { loads: [pump] }), circuit(2, { picked: false })]))[3]).toBe(true)
})
