import fc from 'fast-check'
import { load } from '../job/fixtures/jobs'
import { origins } from '../working'
import { drawn } from './draw'
import {
  bySchool,
  edited,
  sourcesOf,
  withChosen,
  withFigure,
  withLog,
  withoutChoice,
  withoutLog,
  withStart,
} from './evidence'
import { type Figure, type Known, type Load, loadSchema } from './load'
import type { Log } from './log'
import { worked } from './log-of'

const typical = (facts: Partial<Load> = {}): Load =>
  load(140, {
    runningW: { value: 140, from: 'typical value', low: 90, high: 220 },
    dutyFraction: { value: 0.35, from: 'typical value', season: 'winter' },
    idleW: { value: 3, from: 'typical value' },
    nature: 'compressor',
    start: { method: 'multiple', multiple: { value: 5, from: 'typical value' } },
    ...facts,
  })
const log = (facts: Partial<Log> = {}): Log => ({
  id: 'log',
  name: '48 h',
  kind: 'plug-in meter',
  on: '2026-02-10',
  spans: [
    { hours: 24, energyWh: 1100 },
    { hours: 24, energyWh: 1000 },
  ],
  runningW: 118,
  idleW: 2,
  ...facts,
})

test('a meter’s word comes into force, the typical value is kept beside it, and the mean is that of load-log', () => {
  const metered = withLog(typical(), log({ inrushA: 9 }))
  expect(metered.runningW).toMatchObject({
    value: 118,
    from: 'metered',
    others: [{ value: 140, from: 'typical value' }],
  })
  expect(drawn(metered).dailyWh).toBeCloseTo(worked(log()).result.dailyWh, 9)
  expect(metered.start).toMatchObject({ method: 'inrush', inrushA: { value: 9 } })
  expect(metered.otherStarts).toHaveLength(1)
  expect(loadSchema.safeParse(metered).success).toBe(true)
})

test('levels of a two-stage log keep the mean too; a chosen plate’s watts take no foreign levels', () => {
  const staged = log({
    runningW: 650,
    stages: [{ W: 320, shareFraction: 0.7 }],
    idleW: 10,
    spans: [{ hours: 48, energyWh: 8700 }],
  })
  expect(drawn(withLog(typical(), staged)).dailyWh).toBeCloseTo(worked(staged).result.dailyWh, 9)
  const plate = typical({ runningW: { value: 400, from: 'nameplate', chosen: true } })
  const kept = withLog(plate, staged)
  expect([kept.runningW.value, kept.stages]).toEqual([400, undefined])
  expect(loadSchema.safeParse(kept).success).toBe(true)
})

test('a log taken away leaves what was known before it', () => {
  const before = typical()
  const after = withoutLog(withLog(before, log({ inrushA: 9 })), 'log')
  expect(after).toMatchObject({
    runningW: before.runningW,
    dutyFraction: before.dutyFraction,
    start: before.start,
    logs: [],
  })
  const two = withLog(withLog(before, log()), log({ id: 'second', name: 'second', runningW: 130 }))
  expect(withoutLog(two, 'second').runningW).toMatchObject({ value: 118, document: '48 h' })
})

test('a worse source waits beside the better one; the person’s choice stands until it is taken back', () => {
  const metered: Figure = { value: 118, from: 'metered' }
  const withPlate = withFigure(metered, { value: 150, from: 'nameplate' })
  expect([withPlate.value, withPlate.others?.[0]?.value]).toEqual([118, 150])
  const chosen = withChosen(withPlate, 'nameplate')
  expect(chosen).toMatchObject({ value: 150, chosen: true })
  expect(chosen && withFigure(chosen, { value: 120, from: 'metered' }).value).toBe(150)
  expect(chosen && withoutChoice(chosen)).toMatchObject({ value: 118 })
  expect(withChosen(metered, 'catalogue')).toBeNull()
  expect(edited(metered, 90, 'assumed')).toMatchObject({ value: 90, chosen: true, others: [{ value: 118 }] })
})

test('measured inrush goes before locked rotor, that before a multiple; a planned soft starter stays', () => {
  const plate = withStart(typical(), {
    method: 'locked-rotor',
    lockedRotorA: { value: 24, from: 'nameplate' },
  })
  expect(plate.start?.method).toBe('locked-rotor')
  const soft: Load = {
    ...plate,
    start: { method: 'locked-rotor', lockedRotorA: { value: 24, from: 'nameplate' }, softStartFraction: 0.4 },
  }
  expect(
    withStart(soft, { method: 'locked-rotor', lockedRotorA: { value: 26, from: 'nameplate' } }).start,
  ).toMatchObject({
    lockedRotorA: { value: 26 },
    softStartFraction: 0.4,
  })
})

test('each school alone: the plate with the habit, the meter, and what neither has told', () => {
  const known = withFigure({ ...withLog(typical(), log()).runningW }, { value: 200, from: 'nameplate' })
  const both: Load = { ...withLog(typical(), log()), runningW: known }
  expect(bySchool(both, 'nameplate').load).toMatchObject({
    runningW: { value: 200 },
    dutyFraction: { value: 0.35 },
  })
  expect(bySchool(both, 'metered')).toMatchObject({ load: { runningW: { value: 118 } }, missing: ['start'] })
  expect(bySchool(typical(), 'metered').missing.sort()).toEqual([
    'dutyFraction',
    'idleW',
    'runningW',
    'start',
  ])
  // a plate that knows no habit takes it as always on
  expect(bySchool(load(60), 'nameplate').load.dutyFraction).toEqual({ value: 1, from: 'assumed' })
})

test('no source is ever lost, and without a choice the best is in force', () => {
  const known = fc.record({
    value: fc.double({ min: 0, max: 500, noNaN: true }),
    from: fc.constantFrom(...origins),
  })
  fc.assert(
    fc.property(known, fc.array(known, { maxLength: 12 }), (first, more) => {
      const figure = more.reduce<Figure>((now, one: Known) => withFigure(now, one), first)
      const said = new Map([first, ...more].map(k => [k.from, k.value]))
      const kept = sourcesOf(figure)
      expect(new Map(kept.map(k => [k.from, k.value]))).toEqual(said)
      expect(kept[0]?.from).toBe(figure.from)
      for (const from of said.keys())
        expect(withoutChoice(withChosen(figure, from) ?? figure).from).toBe(figure.from)
    }),
  )
})
