import * as fc from 'fast-check'
import { usualHabits } from '../../hookup/wiring-choices'
import { applied, circuit, job } from '../fixtures/jobs'
import { type Job, jobSchema } from '../schema'
import { applyOperation, describeOperation, type Operation } from '.'

/** What is decided of the wiring by hand: said, taken back, refused by its field. */

const start = job([circuit(1)])
const box = (of: string, leftFt = 0) => ({ of, leftFt, bottomFt: 4, widthFt: 1, heightFt: 2 })
const why = (operation: Operation, from: Job = start) => {
  const outcome = applyOperation(from, operation)
  return outcome.ok ? '' : outcome.faults.map(f => `${f.path} ${f.message}`).join('; ')
}
const told = (operation: Operation, from: Job = start) => describeOperation(from, operation)

test('a habit is set and left again; none left, nothing of it stays in the document', () => {
  const set = applied(start, { op: 'setHabits', facts: { raceway: 'FMC', growth: true } })
  expect(set.wiring).toEqual({ habits: { raceway: 'FMC', growth: true } })
  const less = applied(set, { op: 'setHabits', facts: {}, clear: ['growth'] })
  expect(less.wiring?.habits).toEqual({ raceway: 'FMC' })
  expect(applied(less, { op: 'setHabits', facts: {}, clear: ['raceway'] })).toEqual(start)
})

test('habits are refused by their field, and the usual ones hold', () => {
  expect(applied(start, { op: 'setHabits', facts: usualHabits }).wiring?.habits).toEqual(usualHabits)
  expect(why({ op: 'setHabits', facts: { slackFt: 0 } })).toMatch(
    /wiring\.habits\.slackFt must be from 0\.5 to 10 ft/,
  )
})

test('what is said of a way adds up, and is said once for each', () => {
  const one = applied(
    start,
    { op: 'setRoute', facts: { id: 'inlet', lengthFt: 20 } },
    { op: 'setRoute', facts: { id: 'feeder', wet: true } },
    { op: 'setRoute', facts: { id: 'inlet', bendsDeg: 90, conduit: 'PVC40' } },
  )
  expect(one.wiring?.routes).toEqual([
    { id: 'feeder', wet: true },
    { id: 'inlet', lengthFt: 20, bendsDeg: 90, conduit: 'PVC40' },
  ])
  const twice = { ...start, wiring: { routes: [{ id: 'a' }, { id: 'a' }] } }
  expect(jobSchema.safeParse(twice).error?.issues[0]).toMatchObject({
    path: ['wiring', 'routes', 1],
    message: 'repeats the route a',
  })
})

test('a wire is chosen by its way and mark, chosen anew in place, and left to the plan again', () => {
  const wire = { route: 'inlet', mark: 'IN L1', size: '8' as const }
  const chosen = applied(
    start,
    { op: 'chooseWire', wire },
    { op: 'chooseWire', wire: { ...wire, size: '6' } },
  )
  expect(chosen.wiring?.wires).toEqual([{ ...wire, size: '6' }])
  expect(applied(chosen, { op: 'proposeWire', route: 'inlet', mark: 'IN L1' })).toEqual(start)
  expect(applied(chosen, { op: 'proposeWire', route: 'inlet', mark: 'IN L2' }).wiring).toEqual(chosen.wiring)
})

test('boxes on the wall: placed, moved in place, taken off; beyond a wall they are refused', () => {
  const two = applied(
    start,
    { op: 'placeOnWall', box: box('inlet') },
    { op: 'placeOnWall', box: box('switch', 3) },
  )
  const moved = applied(two, { op: 'placeOnWall', box: box('inlet', 7) })
  expect(moved.wiring?.sketch?.boxes.map(b => [b.of, b.leftFt])).toEqual([
    ['inlet', 7],
    ['switch', 3],
  ])
  const off = applied(moved, { op: 'takeOffWall', of: 'inlet' }, { op: 'takeOffWall', of: 'switch' })
  expect(off).toEqual(start)
  expect(why({ op: 'placeOnWall', box: { ...box('inlet'), widthFt: 0 } })).toMatch(
    /widthFt must be from 0\.1 to 20 ft/,
  )
  expect(why({ op: 'placeOnWall', box: box('inlet', 5000) })).toMatch(/leftFt must be from −?-?100 to 200 ft/)
})

test('a photograph behind the wall is one of the job; gone from behind it, its width goes too', () => {
  expect(why({ op: 'setWallPhoto', photoId: 'none' })).toMatch(
    /^photoId is no photograph of this job any more/,
  )
  const photo = {
    id: '00000000-0000-4000-8000-00000000000a',
    name: 'wall.jpg',
    by: 'Designer',
    on: '2026-01-01',
    width: 800,
    height: 600,
    turns: 0 as const,
    about: { kind: 'panel' as const, panelId: 'main' },
    marks: [],
  }
  const withOne = { ...start, photos: [photo] }
  const behind = applied(withOne, { op: 'setWallPhoto', photoId: photo.id, widthFt: 9 })
  expect(behind.wiring?.sketch).toEqual({ boxes: [], photoId: photo.id, photoWidthFt: 9 })
  expect(applied(behind, { op: 'setWallPhoto', photoId: null })).toEqual(withOne)
})

test('each is told in a line that names what it did', () => {
  expect([
    told({ op: 'setHabits', facts: { oneSizeUp: true } }),
    told({ op: 'setRoute', facts: { id: 'inlet', lengthFt: 9 }, clear: ['wet'] }),
    told({ op: 'chooseWire', wire: { route: 'inlet', mark: 'IN N', size: '4' } }),
    told({ op: 'proposeWire', route: 'inlet', mark: 'IN N' }),
    told({ op: 'placeOnWall', box: box('inlet', 2.5) }),
    told({ op: 'takeOffWall', of: 'inlet' }),
    told({ op: 'setWallPhoto', photoId: null }),
    told({ op: 'chooseJoint', of: 'splice-c1', with: 'lever-2' }),
    told({ op: 'chooseJoint', of: 'splice-c1', with: null }),
  ]).toEqual([
    'changed how it is wired: one size up',
    'changed the route inlet: length ft, wet',
    'chose 4 AWG for IN N',
    'left the size of IN N to the plan',
    'placed inlet on the wall, 2.5 ft from the left, 4 ft up',
    'took inlet off the sketch of the wall',
    'took the photograph from behind the sketch',
    'chose lever-2 for splice-c1',
    'left splice-c1 to the plan',
  ])
})

test('whatever is decided in whatever order: each box, way and wire stands once, and the survey is as it was', () => {
  const operation: fc.Arbitrary<Operation> = fc.oneof(
    fc
      .tuple(fc.constantFrom('inlet', 'switch'), fc.integer({ min: 0, max: 90 }))
      .map(([of, left]): Operation => ({ op: 'placeOnWall', box: box(of, left) })),
    fc.constantFrom('inlet', 'switch').map((of): Operation => ({ op: 'takeOffWall', of })),
    fc
      .tuple(fc.constantFrom('inlet', 'feeder'), fc.integer({ min: 1, max: 99 }))
      .map(([id, lengthFt]): Operation => ({ op: 'setRoute', facts: { id, lengthFt } })),
    fc
      .constantFrom('inlet', 'feeder')
      .map((id): Operation => ({ op: 'setRoute', facts: { id }, clear: ['lengthFt'] })),
    fc
      .constantFrom('8' as const, '6' as const)
      .map((size): Operation => ({ op: 'chooseWire', wire: { route: 'inlet', mark: 'IN L1', size } })),
    fc.constant<Operation>({ op: 'proposeWire', route: 'inlet', mark: 'IN L1' }),
  )
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 25 }), operations => {
      const { wiring, ...rest } = applied(start, ...operations)
      const { wiring: _, ...was } = start
      expect(rest).toEqual(was)
      for (const keys of [
        wiring?.sketch?.boxes.map(b => b.of),
        wiring?.routes?.map(r => r.id),
        wiring?.wires?.map(w => w.mark),
      ])
        expect(new Set(keys).size).toBe(keys?.length ?? 0)
      // the last word counts
      const last = operations.findLast(o => o.op === 'chooseWire' || o.op === 'proposeWire')
      expect(wiring?.wires?.[0]?.size).toBe(last?.op === 'chooseWire' ? last.wire.size : undefined)
    }),
  )
})
