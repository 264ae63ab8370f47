import type { TransferSwitch } from '../../equipment/hookup-kinds'
import { applied, circuit, job, load } from '../../job/fixtures/jobs'
import type { Job } from '../../job/schema'
import { conduitFill } from '../../wiring/conduit-fill'
import { equipmentGround } from '../../wiring/equipment-ground'
import { wiringPlan } from '.'
import { made } from './fixtures/made'
import { scheduleOf } from './schedule'
import { sizeWorking } from './sizes'

const six: TransferSwitch = {
  kind: 'transfer-switch',
  id: 'six',
  name: 'Six',
  version: 1,
  positions: 6,
  positionLimitsA: [20, 20, 20, 20, 20, 20],
  inputA: 30,
  volts: '120/240',
  switchesNeutral: false,
  whipIn: 18,
}
const inlet = { kind: 'inlet', id: 'in', name: 'Inlet', version: 1, type: 'L14-30', ratingA: 30 } as const
const at = (position: number, circuitId: string) => ({ position, circuitId, pinned: false })
const switched = (facts: Partial<Job['hookup']> = {}, circuits = [circuit(1), circuit(2)]) =>
  job(circuits, {
    hookup: {
      method: 'multi-circuit-switch',
      bondingPlug: false,
      switch: six,
      inlet,
      positions: [at(1, 'c1'), at(2, 'c2')],
      ...facts,
    },
  })
const rowsOf = (j: Job) => scheduleOf(wiringPlan(j)).map(r => `${r.mark}: ${r.from} → ${r.to}, ${r.sizeAwg}`)

test('a switch: each circuit from its breaker through its position and back to its own wire, the source to the input', () => {
  const j = switched()
  made(wiringPlan(j))
  const rows = rowsOf(j)
  const breaker = '1 circuit 1, 20 A breaker'
  for (const row of [
    `1 in: ${breaker}: L1 pole → Six: position 1, in, 12`,
    '1 out: Six: position 1, out → Splice of 1 circuit 1, hot 1: joint, 12',
    '1 circuit 1 hot 1: Splice of 1 circuit 1, hot 1: joint → 1 circuit 1: hot 1, 12',
    'N: Six: neutral → Neutral bar of Main panel: hole 1, 10',
    'IN L1: Inlet: L1 → Six: source L1, 10',
    'IN N: Inlet: neutral → Six: source neutral, 10',
    'IN G: Inlet: ground → Six: source ground, 10',
  ])
    expect(rows).toContain(row)
})

test('leads that come with a switch are as long as they are; what is bought is cut with something left at each end', () => {
  const { conductors, routes } = wiringPlan(switched())
  const lead = conductors.find(c => c.mark === '1 in')
  expect(lead).toMatchObject({ comes: 'with its device', cutFt: 1.5, colour: 'as it comes' })
  expect(conductors.find(c => c.mark === 'IN L1')).toMatchObject({
    comes: 'bought',
    cutFt: 16,
    colour: 'black',
  })
  expect(conductors.find(c => c.mark === 'IN L2')?.colour).toBe('red')
  // 18 in is a nipple: no adjustment, and it may be filled to 60 %
  expect(routes.find(r => r.id === 'whip-switch')).toMatchObject({ nipple: true, mayFillFraction: 0.6 })
})

test('a switch that takes the neutral along lifts it from the bar; nothing of the source ends there', () => {
  const one = { ...six, positions: 1, positionLimitsA: [20], volts: '120' as const, switchesNeutral: true }
  const j = switched({ method: 'single-circuit-switch', switch: one, positions: [at(1, 'c1')] })
  made(wiringPlan(j))
  const rows = rowsOf(j)
  expect(rows).toContain('1 N in: Neutral bar of Main panel: hole 1 → Six: position 1, neutral in, 12')
  expect(rows).toContain('1 N out: Six: position 1, neutral out → Splice of 1 circuit 1, neutral: joint, 12')
  expect(rows.filter(r => r.includes('Neutral bar'))).toHaveLength(1)
})

test('an inlet and its breaker: three wires and a ground, sized by what protects them, grounds by 250.122', () => {
  const j = job([circuit(3)], {
    hookup: {
      method: 'interlocked-inlet',
      bondingPlug: false,
      inlet: { ...inlet, type: '14-50', ratingA: 50 },
      backfed: { breakerA: 50, heldDown: true, space: 2 },
    },
  })
  const plan = wiringPlan(j)
  made(plan)
  expect(plan.conductors.map(c => [c.mark, c.size])).toEqual([
    ['IN L1', '6'],
    ['IN L2', '6'],
    ['IN N', '6'],
    ['IN G', '10'],
  ])
  const [route] = plan.routes
  const { sizes } = conduitFill.solve({
    conduit: 'EMT',
    conductors: [
      { size: '6', count: 3 },
      { size: '10', count: 1 },
    ],
    nipple: false,
  })
  const fitting = sizes.find(s => s.fits)
  expect(route?.raceway).toEqual({ kind: 'EMT', tradeSize: fitting?.tradeSize })
  expect(route?.fillFraction).toBeCloseTo(fitting?.fillFraction ?? 0, 9)
})

test('what the job says of the run is taken; a warm attic makes the wire thicker', () => {
  const hookup = (ambientC: number): Job['hookup'] => ({
    method: 'interlocked-inlet',
    bondingPlug: false,
    inlet,
    backfed: { breakerA: 30, heldDown: true },
    runs: [
      {
        id: 'r',
        name: 'Inlet to panel',
        breakerA: 30,
        material: 'cu',
        size: '10',
        insulationC: 90,
        conductors: 3,
        currentCarrying: 2,
        deratingKnown: true,
        conduit: 'PVC40',
        tradeSize: '1',
        lengthFt: 40,
        ambientC,
      },
    ],
    path: [{ id: 'l', kind: 'wire', name: 'Inlet to panel', ratingA: 30 }],
  })
  const plan = wiringPlan(job([circuit(3)], { hookup: hookup(30) }))
  expect(plan.routes[0]).toMatchObject({
    raceway: { kind: 'PVC40', tradeSize: '1' },
    lengthFt: 40,
    lengthFrom: 'job',
  })
  expect(plan.conductors[0]).toMatchObject({ size: '10', cutFt: 46 })
})

test('circuits led over: each by a splice and one raceway to its new breaker, a shared neutral once, one ground for all', () => {
  const pair = [
    circuit(1, { neutral: { kind: 'shared', with: 'c3' }, tie: { with: 'c3', kind: 'handle' } }),
    circuit(3, { neutral: { kind: 'shared', with: 'c1' }, tie: { with: 'c1', kind: 'handle' } }),
    circuit(5),
  ]
  const j = job(pair, {
    hookup: {
      method: 'sub-panel-interlock',
      bondingPlug: false,
      inlet,
      backfed: { breakerA: 30, heldDown: true },
    },
  })
  const plan = wiringPlan(j)
  made(plan)
  const over = plan.conductors.filter(c => c.route === 'led-over')
  expect(over.filter(c => c.function === 'hot')).toHaveLength(3)
  expect(over.filter(c => c.function === 'neutral')).toHaveLength(2)
  expect(over.filter(c => c.function === 'ground')).toHaveLength(1)
  // with the legs tied every neutral counts
  expect(plan.routes.find(r => r.id === 'led-over')?.currentCarrying).toBe(5)
  const ground = over.find(c => c.function === 'ground')
  expect(ground?.size).toBe(equipmentGround.solve({ material: 'cu', breakerA: 20, circuitSize: '12' }).size)
  // a feeder of four wires, neutrals and grounds apart
  const feeder = plan.conductors.filter(c => c.route === 'feeder')
  expect(feeder.map(c => c.function)).toEqual(['hot', 'hot', 'neutral', 'ground'])
  expect(new Set(feeder.map(c => c.to.device)).size).toBe(3)
})

test('two switches on one source: the inlet’s wires divide in a box, each to both', () => {
  const j = switched({
    secondSwitch: { ...six, id: 'two', name: 'Two' },
    positions: [at(1, 'c1'), at(8, 'c2')],
  })
  const plan = wiringPlan(j)
  made(plan)
  const rows = rowsOf(j)
  expect(rows).toContain('IN L1: Inlet: L1 → Splice of the source’s L1: joint, 10')
  expect(rows).toContain('IN2 L1: Splice of the source’s L1: joint → Two: source L1, 10')
  expect(rows.some(r => r.startsWith('8 out: Two: position 8, out → Splice of 2 circuit 2'))).toBe(true)
})

test('a hard-wired appliance: its wires end on a receptacle, and its maker is asked', () => {
  const heater = load(400, { id: 'h', name: 'Heater', connection: 'hard-wired' })
  const plan = wiringPlan(
    job([circuit(1, { loads: [heater] })], { hookup: { method: 'cord-and-plug', bondingPlug: false } }),
  )
  made(plan)
  expect(plan.conductors.filter(c => c.comes === 'bought').map(c => c.function)).toEqual([
    'hot',
    'neutral',
    'ground',
  ])
  expect(plan.open.map(o => o.text).join(' ')).toMatch(/Heater: its maker must allow cord and plug/)
})

test('aluminum asks for its connector; where nothing is wired that is said', () => {
  const al = switched({}, [circuit(1, { wire: { material: 'al', size: '10' } }), circuit(2)])
  expect(
    wiringPlan(al)
      .open.map(o => o.text)
      .join(' '),
  ).toMatch(/aluminum to copper, with a connector listed for both/)
  const cords = wiringPlan(job([circuit(1)], { hookup: { method: 'extension-cords', bondingPlug: false } }))
  expect(cords).toMatchObject({ conductors: [], routes: [] })
  expect(cords.open.map(o => o.text).join(' ')).toMatch(/Nothing is wired/)
})

test('one hot and both legs tied: a splice with a pigtail to each pole; of one leg alone the other pole stays empty', () => {
  const tied = (arrangement: 'tied' | 'one-leg') =>
    job([circuit(3)], {
      source: { arrangement, liveLeg: 'L2' },
      hookup: {
        method: 'interlocked-inlet',
        bondingPlug: false,
        inlet: { ...inlet, type: 'TT-30' },
        backfed: { breakerA: 30, heldDown: true },
      },
    })
  made(wiringPlan(tied('tied')))
  const rows = rowsOf(tied('tied'))
  expect(rows).toContain('IN L1: Inlet: L1 → Splice that ties both legs: joint, 10')
  expect(rows.filter(r => r.startsWith('tie L'))).toHaveLength(2)
  const one = rowsOf(tied('one-leg'))
  expect(one.filter(r => r.includes('pole'))).toEqual([
    'IN L2: Inlet: L2 → Backfed 30 A breaker: L2 pole, 10',
  ])
})

test('a two-pole takes two positions, each hot on its own leg', () => {
  const plan = wiringPlan(switched({ positions: [at(1, 'c1')] }, [circuit(1, { poles: 2 })]))
  made(plan)
  const leads = plan.conductors.filter(c => c.route === 'whip-switch' && c.circuitId === 'c1')
  expect(leads.map(c => [c.mark, c.leg])).toEqual([
    ['1 in', 'L1'],
    ['1 out', 'L1'],
    ['2 in', 'L2'],
    ['2 out', 'L2'],
  ])
})

test('what exists already is in the plan, and nothing of it is bought', () => {
  const plan = wiringPlan(switched({ exists: ['switch', 'inlet'] }))
  expect(
    plan.conductors.filter(c => c.route === 'inlet').every(c => c.comes === 'there already' && c.cutFt === 0),
  ).toBe(true)
  expect(plan.routes.find(r => r.id === 'inlet')?.raceway).toBeNull()
})

test('a raceway that the job names too small is told, with the size that holds them', () => {
  const run = {
    id: 'r',
    name: 'many',
    breakerA: 20,
    material: 'cu',
    size: '12',
    insulationC: 90,
    conductors: 12,
    currentCarrying: 12,
    deratingKnown: true,
    conduit: 'EMT',
    tradeSize: '1/2',
    lengthFt: 8,
  } as const
  const circuits = [1, 2, 3, 4, 5, 6].map(n => circuit(n))
  const plan = wiringPlan(
    job(circuits, { hookup: { method: 'sub-panel-interlock', bondingPlug: false, runs: [run] } }),
  )
  expect(plan.open.map(o => o.text).join(' ')).toMatch(
    /trade size 1\/2 would be \d+(\.\d+)? % full, 40 % may be: take /,
  )
})

test('the same job gives the same plan, kept by the job; without a pick nothing of a circuit is in it', () => {
  const j = switched()
  expect(wiringPlan(j)).toBe(wiringPlan(j))
  const none = wiringPlan(switched({}, [circuit(1, { picked: false }), circuit(2, { picked: false })]))
  expect(none.conductors.some(c => c.circuitId !== null)).toBe(false)
  expect(none.open.map(o => o.text).join(' ')).toMatch(/No circuit is picked/)
})

test('a wire that the job names is taken and judged: too thin is told, thicker takes its ground along, aluminum stays aluminum', () => {
  const named = (size: '12' | '6', material: 'cu' | 'al' = 'cu') =>
    wiringPlan(
      job([circuit(3)], {
        hookup: {
          method: 'interlocked-inlet',
          bondingPlug: false,
          inlet,
          backfed: { breakerA: 30, heldDown: true },
          path: [{ id: 'l', kind: 'wire', name: 'run', ratingA: 30, size, material, lengthFt: 20 }],
        },
      }),
    )
  expect(
    named('12')
      .open.map(o => o.text)
      .join(' '),
  ).toMatch(/IN L1: 12 AWG is too thin for 30 A there: 10 AWG is asked/)
  // 250.122(B): 10,380 × 26,240 ÷ 10,380 circular mils
  expect(named('6').conductors.find(c => c.mark === 'IN G')?.size).toBe('6')
  const al = named('12', 'al')
  expect(al.conductors.find(c => c.mark === 'IN L1')?.material).toBe('al')
  expect(al.open.map(o => o.text).join(' ')).toMatch(/12 AWG is too thin for 30 A there: 8 AWG is asked/)
})

test('what nobody knows is told: the size of a wire that is there, and of leads whose sheet is silent', () => {
  const { open } = wiringPlan(switched({}, [circuit(1, { wire: undefined }), circuit(2)]))
  expect(open.map(o => o.text).join(' ')).toMatch(/1 circuit 1 hot 1: its size is not known/)
  expect(open.map(o => o.text).join(' ')).toMatch(/Six to Main panel: the size of the leads is not stated/)
})

test('neutrals that are not decided are drawn along and told; those that stay behind are not drawn, and told with why', () => {
  const led = (neutrals?: 'follow their hots' | 'stay behind') =>
    wiringPlan(
      job([circuit(1)], {
        hookup: { method: 'sub-panel-interlock', bondingPlug: false, ...(neutrals && { neutrals }) },
      }),
    )
  const count = (p: ReturnType<typeof led>) =>
    p.conductors.filter(c => c.route === 'led-over' && c.function === 'neutral').length
  expect([count(led()), count(led('follow their hots')), count(led('stay behind'))]).toEqual([1, 1, 0])
  expect(
    led()
      .open.map(o => o.text)
      .join(' '),
  ).toMatch(/that is not decided yet/)
  expect(
    led('follow their hots')
      .open.map(o => o.text)
      .join(' '),
  ).not.toMatch(/neutrals/)
  expect(
    led('stay behind')
      .open.map(o => o.text)
      .join(' '),
  ).toMatch(/without their neutrals.*300\.3\(B\)/)
})

test('a managed panel: a current transformer round each hot of the service, two leads each, as they come', () => {
  const plan = wiringPlan(
    switched({
      method: 'managed-panel',
      switch: undefined,
      managed: {
        kind: 'managed-panel',
        id: 'm',
        name: 'Managed',
        version: 1,
        inputA: 30,
        positions: 4,
      } as never,
    }),
  )
  made(plan)
  const leads = plan.conductors.filter(c => c.function === 'sense')
  expect(leads.map(c => [c.mark, c.size, c.comes])).toEqual(
    ['L1 white', 'L1 black', 'L2 white', 'L2 black'].map(w => [`CT ${w}`, null, 'with its device']),
  )
  expect(plan.open.some(o => o.at === 'sense' && /arrow/.test(o.text))).toBe(true)
})

test('an autotransformer joins the run from the inlet in a box that holds its splices; each with a connector', () => {
  const source = switched().source
  if (!source) throw new Error('no source')
  const plan = wiringPlan({
    ...switched({
      method: 'interlocked-inlet',
      switch: undefined,
      positions: [],
      backfed: { breakerA: 30, heldDown: true, space: 5 },
    }),
    source: {
      ...source,
      autotransformer: {
        kind: 'autotransformer',
        id: 'at',
        name: 'Halver',
        version: 1,
        ratedW: 5000,
      } as never,
    },
  })
  made(plan)
  const joint = plan.conductors.flatMap(c => [c.from, c.to]).filter(e => e.device === 'transformer-L1')
  expect(joint).toHaveLength(3)
  expect(plan.conductors.some(c => c.to.device === 'backfed' && c.mark === 'IN on L1')).toBe(true)
  // 12 of 10 AWG at 2.5 in³, and three grounds for one
  expect(plan.boxes).toMatchObject([{ requiredIn3: 25, volumeIn3: 30.3 }])
  expect(plan.splices.every(s => s.connector !== null)).toBe(true)
})

test('an array on a wired inverter: plus and minus for 156 % of its short-circuit current, and what shuts it down', () => {
  const base = switched()
  const [unit] = base.source?.units ?? []
  if (!base.source || !unit) throw new Error('no source')
  const inverter = { kind: 'inverter', id: 'inv', name: 'Inverter', version: 1, continuousW: 5000 } as never
  const module = { kind: 'module', id: 'pv', name: 'Module', version: 1, stcW: 400, iscA: 14 } as never
  const of = (owned: boolean) =>
    wiringPlan({
      ...base,
      source: {
        ...base.source,
        units: [{ ...unit, equipment: inverter }],
        arrays: [{ unitId: unit.id, module, series: 6, parallel: 3, owned }],
      } as never,
    })
  const plan = of(false)
  // 42 A × 1.5625 = 65.6 A: 4 AWG carries 85 A at 75 °C, 6 AWG 65 A
  expect(plan.conductors.filter(c => c.mark.startsWith('PV')).map(c => [c.mark, c.size])).toEqual([
    ['PV 1 plus', '4'],
    ['PV 1 minus', '4'],
  ])
  expect(plan.open.map(o => o.text).join()).toMatch(/65\.6 A, 156 % .*690\.8.*690\.12/)
  expect(of(true).routes.some(r => r.id === 'array-1')).toBe(false)
})

test('a switched neutral is a system of its own: its bond and electrode are told', () => {
  const told = (switchesNeutral: boolean) =>
    wiringPlan(switched({ switch: { ...six, switchesNeutral } }))
      .open.map(o => o.text)
      .join('\n')
  expect(told(true)).toMatch(/separately derived system.*250\.30.*250\.34.*250\.66/)
  expect(told(false)).toMatch(/the only one, and the electrode of the house serves both/)
})

test('a run that says what it is goes before one that only looks like it', () => {
  const run = (id: string, facts: object) => ({
    id,
    name: id,
    breakerA: 30,
    material: 'cu' as const,
    size: '10' as const,
    insulationC: 75 as const,
    conductors: 3,
    currentCarrying: 2,
    deratingKnown: true,
    lengthFt: 5,
    ...facts,
  })
  const of = (...runs: ReturnType<typeof run>[]) =>
    wiringPlan(switched({ runs })).routes.find(r => r.id === 'inlet')?.lengthFt
  expect(of(run('any', {}))).toBe(10)
  expect(of(run('any', {}), run('said', { serves: 'inlet', lengthFt: 22 }))).toBe(22)
})

test('what leaves a method without wires is told: no position, nothing that moves, no way in for the source', () => {
  const said = (j: Job) =>
    wiringPlan(j)
      .open.map(o => o.text)
      .join('\n')
  expect(said(switched({ positions: [at(1, 'c1')] }))).toMatch(/1 picked circuit has no position yet/)
  expect(said(switched())).not.toMatch(/position yet/)
  const behind = (picked: boolean) =>
    applied(switched({ method: 'undecided', switch: undefined, positions: [] }, [circuit(1, { picked })]), {
      op: 'setHookup',
      facts: { method: 'critical-subpanel' },
      clear: ['inlet'],
    })
  expect(said(behind(false))).toMatch(/No new panel is planned, since nothing moves to it/)
  expect(said(behind(true))).toMatch(/no inverter that passes the utility through is in the source/)
  // what is carried is no storage of the house
  expect(said(behind(true))).not.toMatch(/Storage of/)
})

test('a new panel in a feeder: what fed the old one ends in it, and a breaker of its own feeds on, neutrals and grounds apart', () => {
  const base = switched({ method: 'undecided', switch: undefined, positions: [] })
  const [panel] = base.panels
  if (!panel) throw new Error('no panel')
  const fed = { ...base, panels: [{ ...panel, supply: 'fed from another panel' as const, mainA: 100 }] }
  const plan = wiringPlan(
    applied(fed, {
      op: 'setHookup',
      facts: { method: 'sub-panel-interlock', intercepts: true, backfed: { breakerA: 30, heldDown: true } },
    }),
  )
  made(plan)
  const rows = scheduleOf(plan)
  const of = (mark: string) => rows.find(r => r.mark === mark)
  expect(of('F1 L1')).toMatchObject({
    from: 'Feeder that fed Main panel: L1',
    to: '100 A main of Back-up panel: L1',
    comes: 'there already',
  })
  // 100 A at 60 °C: 1 AWG copper carries 110; a feeder may be rounded up from the 95 of 2 AWG (240.4(B))
  expect(of('F2 N')).toMatchObject({
    from: expect.stringMatching(/^Neutral bar of Back-up/),
    to: expect.stringMatching(/^Neutral bar of Main/),
    sizeAwg: '2',
  })
  expect(of('F2 G')?.from).toMatch(/^Ground bar of Back-up/)
  expect(of('IN L1')?.to).toMatch(/^Backfed 30 A breaker/)
})

test('articles are cited by the edition of the job, in what is told and in the workings', () => {
  const of = (edition: 2017 | 2020) => {
    const plan = wiringPlan({
      ...switched({
        switch: undefined,
        method: 'interlocked-inlet',
        backfed: { breakerA: 30, heldDown: true },
      }),
      edition,
    })
    const hot = plan.conductors.find(c => c.mark === 'IN L1')
    return hot && JSON.stringify(sizeWorking(hot, edition)?.rows)
  }
  expect(of(2020)).toMatch(/NEC 310\.16/)
  expect(of(2017)).toMatch(/table 310\.15\(B\)\(16\)/)
})
