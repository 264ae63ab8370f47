import fc from 'fast-check'
import { demoJobs } from '@/server/seeds/jobs'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { fernbrook } from '@/server/seeds/jobs/fernbrook'
import { ospreyPoint } from '@/server/seeds/jobs/osprey-point'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { methodIds } from '../hookup/method'
import { standing } from '../job/as-planned'
import { withHookupChanges, withoutHookup } from '../job/hookup-changes'
import type { Job } from '../job/schema'
import { type House, houseOfJob } from './house'
import { isolationOf, stillLive } from './isolate'
import { act, liveIn, ordinaryDay } from './live'
import { isolatedChanges } from './work'

const houses: [string, House][] = demoJobs.flatMap(({ job }) =>
  methodIds.map((method): [string, House] => [
    `${job.title}, ${method}`,
    houseOfJob(
      method === job.hookup.method ? job : { ...job, hookup: { ...job.hookup, method }, planned: [] },
    ),
  ]),
)
const told = (job: Job, place: string) => {
  const { cuts, uncut, staysLive } = isolationOf(houseOfJob(job), place)
  return {
    cuts: cuts.map(c => `${c.supply.kind}: ${c.handle.name} ${c.setting}`),
    uncut: uncut.map(s => s.kind),
    staysLive: staysLive.map(p => p.id),
  }
}

test('every joint joins places that are there, by a setting that its handle has', () => {
  for (const [name, { places, supplies, handles, joints, nevers }] of houses) {
    const ids = new Set(places.map(p => p.id))
    const at = (id: string, setting: string) => handles.some(h => h.id === id && h.settings.includes(setting))
    expect([name, joints.filter(j => !ids.has(j.from) || !ids.has(j.to))]).toEqual([name, []])
    expect([name, supplies.filter(s => !ids.has(s.at))]).toEqual([name, []])
    expect([name, joints.filter(j => j.by && !at(j.by.handle, j.by.at))]).toEqual([name, []])
    expect([name, nevers.filter(n => !n.both.every(([id, s]) => at(id, s)))]).toEqual([name, []])
    expect([name, new Set(handles.map(h => h.id)).size]).toEqual([name, handles.length])
    expect([name, handles.filter(h => !h.settings.includes(h.open))]).toEqual([name, []])
  }
})

test('what is isolated is dead, whatever anybody does to the other handles meanwhile', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...houses),
      fc.nat(),
      fc.array(fc.nat(), { minLength: 60, maxLength: 60 }),
      ([, house], which, settings) => {
        const place = house.places[which % house.places.length]
        if (!place) return
        const { cuts, uncut, staysLive } = isolationOf(house, place.id)
        const held = new Map(cuts.map(c => [c.handle.id, c.setting]))
        const state = Object.fromEntries(
          house.handles.map((h, n) => [
            h.id,
            held.get(h.id) ?? h.settings[(settings[n % 60] ?? 0) % h.settings.length] ?? h.open,
          ]),
        )
        const live = liveIn(house, state).get(place.id) ?? new Set()
        expect([...live].filter(id => !uncut.some(s => s.id === id))).toEqual([])
        for (const beside of staysLive) expect(beside.within).toBe(place.within)
      },
    ),
    { numRuns: 400 },
  )
})

test('the main off leaves the line side live, and a backfed panel has a second way in', () => {
  expect(told(alderHollow, 'bus main')).toEqual({
    cuts: ['utility: the main of Main panel, garage off'],
    uncut: [],
    staysLive: ['line main'],
  })
  expect(told(alderHollow, 'line main').uncut).toEqual(['utility'])
  const coast = told(saltmarshLane, 'bus main')
  expect(coast.cuts).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/^utility: the main of /),
      expect.stringMatching(/^battery: the cord at the inlet out/),
      expect.stringMatching(/^solar: breaker .* off/),
    ]),
  )
  const wrong = stillLive(houseOfJob(saltmarshLane), 'bus main', ['main main'])
  expect([wrong.now.map(s => s.kind), wrong.could.map(s => s.kind).sort()]).toEqual([
    [],
    ['battery', 'battery', 'solar'],
  ])
})

test('a position of a switch has two ends: its breaker and the cord', () => {
  const house = houseOfJob(alderHollow)
  const led = house.places.find(p => p.id.startsWith('load '))
  expect(told(alderHollow, led?.id ?? '').cuts).toEqual([
    expect.stringMatching(/^utility: breaker .* off/),
    'battery: the cord at the inlet out',
  ])
})

test('behind an inverter with a battery a panel is live although the utility is cut off', () => {
  const { planned } = quarryRidge
  expect(planned.length).toBeGreaterThan(0)
  const house = houseOfJob(quarryRidge)
  const critical = house.places.find(p => p.id === 'inverter out')
  const now = stillLive(
    house,
    critical?.id ?? '',
    house.handles.filter(h => h.kind === 'main').map(h => h.id),
  )
  expect(now.now.map(s => s.kind)).toContain('battery')
  // it does not feed back: of the house panel the battery is no supply
  const [ahead] = quarryRidge.panels
  expect(told(quarryRidge, `bus ${ahead?.id}`).cuts.join()).not.toMatch(/battery/)
  expect(told(quarryRidge, 'inverter out').cuts.join()).toMatch(
    /battery: the battery disconnect of Millrace 8 off/,
  )
})

test('an interlock moves nothing that it forbids, and says why; what a handle makes live and dead is told', () => {
  const house = houseOfJob(ospreyPoint)
  const day = ordinaryDay(house)
  expect(act(house, day, 'backfed', 'on')).toEqual({ blocked: expect.stringMatching(/only one of the two/) })
  const off = act(house, day, 'main main', 'off')
  if ('blocked' in off) throw new Error(off.blocked)
  expect(off.lost).toContain('the bus of Boathouse panel')
  const fed = act(house, off.state, 'backfed', 'on')
  // the cord is out yet: the breaker alone makes nothing live
  expect('state' in fed && fed.made).toEqual([])
  expect(act(house, day, 'backfed', 'sideways')).toEqual({ blocked: expect.stringMatching(/no setting/) })
})

test('an appliance on its cord is no part of the panel: nothing of the source reaches it', () => {
  const house = houseOfJob({ ...fernbrook, hookup: { ...fernbrook.hookup, method: 'cord-and-plug' } })
  for (const place of house.places.filter(p => p.within.startsWith('panel')))
    expect(isolationOf(house, place.id).cuts.every(c => c.supply.kind === 'utility')).toBe(true)
})

test('solar follows what holds it up, and is a supply of its own all the same', () => {
  const house = houseOfJob(saltmarshLane)
  const solar = house.supplies.find(s => s.kind === 'solar')
  const dark = Object.fromEntries(house.handles.map(h => [h.id, h.kind === 'main' ? 'off' : h.settings[0]]))
  expect(liveIn(house, dark).get(solar?.at ?? '')).toBeUndefined()
  expect(
    isolationOf(house, solar?.at ?? '').cuts.length + isolationOf(house, solar?.at ?? '').uncut.length,
  ).toBeGreaterThan(0)
})

test('a panel fed from another is dead with its feeder off, whatever its own main does', () => {
  const fed = quarryRidge.panels.find(p => p.feederId)
  expect(told(quarryRidge, `line ${fed?.id}`).cuts).toEqual([
    'utility: breaker H 1·3 Studio sub-panel off',
    'solar: breaker H 1·3 Studio sub-panel off',
  ])
})

const jobs = demoJobs.flatMap(({ job }) =>
  methodIds.map(method => {
    const bare = withoutHookup(job)
    return method === job.hookup.method
      ? job
      : withHookupChanges({ ...bare, hookup: { ...bare.hookup, method } })
  }),
)

test('no planned change meets metal that is live, as found or as planned, whatever anybody does to the other handles', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...jobs),
      fc.array(fc.nat(), { minLength: 60, maxLength: 60 }),
      (job, settings) => {
        const pictures = [standing(job), job].map(j => houseOfJob(j))
        for (const { text, places, cuts, uncut } of isolatedChanges(job)) {
          const held = new Map(cuts.map(c => [c.handle.id, c.setting]))
          for (const house of pictures) {
            const live = liveIn(
              house,
              Object.fromEntries(
                house.handles.map((h, n) => [
                  h.id,
                  held.get(h.id) ?? h.settings[(settings[n % 60] ?? 0) % h.settings.length] ?? h.open,
                ]),
              ),
            )
            const met = places.flatMap(p => [...(live.get(p.id) ?? [])])
            expect([text, met.filter(id => !uncut.some(s => s.id === id))]).toEqual([text, []])
          }
        }
      },
    ),
    { numRuns: 150 },
  )
})

test('every change but a notice and what is plugged meets metal that the house has', () => {
  const nowhere = jobs.flatMap(job => isolatedChanges(job).filter(c => !c.places.length))
  expect(nowhere.filter(c => !/^notice:|:combiner$/.test(c.id)).map(c => c.id)).toEqual([])
})

test('work at a position, at an outlet, at a bank: what is off, what stays live there, and what no handle cuts off', () => {
  const of = (job: Job, id: RegExp) => {
    const found = isolatedChanges(job).find(c => id.test(c.id))
    return {
      off: found?.cuts.map(c => c.handle.name),
      live: found?.staysLive.map(p => p.id),
      uncut: found?.uncut.map(s => s.kind),
      could: found?.mainsOnly.could.map(s => s.kind),
    }
  }
  expect(of(alderHollow, /^lead:c2$/)).toEqual({
    off: ['the main of Main panel, garage', 'breaker 2 Boiler and circulators', 'the cord at the inlet'],
    live: ['line main'],
    uncut: [],
    could: ['battery'],
  })
  // the panel stays closed: only the other positions are beside the hands
  expect(of(alderHollow, /^position-breaker/).live).toEqual(expect.not.arrayContaining(['bus main']))
  expect(of(fernbrook, /^cord:/)).toMatchObject({ off: ['breaker 1 Unit heater'], live: [] })
  // a parted neutral carries the other circuit’s current
  const [panel] = alderHollow.panels
  const pair = panel?.circuits.filter(c => c.neutral.kind === 'shared') ?? []
  const outlet = { kind: 'guard' as const, circuitId: pair[0]?.id ?? '', origin: 'person' as const }
  expect(of({ ...alderHollow, planned: [outlet] }, /^guard/).off).toEqual(
    expect.arrayContaining(pair.slice(0, 2).map(c => expect.stringContaining(c.label))),
  )
  expect(pair.length).toBeGreaterThan(1)
  expect(of(quarryRidge, /^mount:inverter/).uncut).toEqual(['battery'])
  // a circuit that moves is told by the place where it is found
  expect(of(quarryRidge, /^land:s1$/).off).toEqual(
    expect.arrayContaining(['breaker H 1·3 Studio sub-panel', 'breaker S 1 Studio lights']),
  )
})

test('a run of circuits opens every panel that one of them is led over from', () => {
  const [own] = quarryRidge.panels.flatMap(p =>
    p.id === 'house' ? p.circuits.filter(c => c.poles === 1 && c.purpose === 'loads') : [],
  )
  const places = [{ circuitId: own?.id ?? '', panelId: 'new-panel', position: 10 }]
  const planned = [...quarryRidge.planned, { kind: 'land' as const, places, origin: 'person' as const }]
  const run = isolatedChanges({ ...quarryRidge, planned }).find(c => /Ten circuits/.test(c.text))
  expect(run?.places.map(p => p.id)).toEqual(expect.arrayContaining(['bus studio', 'bus house']))
  expect(run?.cuts.map(c => c.handle.id)).toContain('main house')
})
