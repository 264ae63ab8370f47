import { compareMethods } from '../assess/compare-methods'
import { evaluate } from '../assess/evaluate'
import { circuitNeeds } from '../assess/needs'
import { riffle6 } from '../equipment/fixtures/parts'
import { wayLimit } from '../hookup/way'
import { applied, circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import { type Job, jobSchema } from '../job/schema'
import { judged } from './fixtures/judged'

const findings = (j: Job) => evaluate(j).findings
const ids = (j: Job) => findings(j).map(f => f.id)
const found = (j: Job, id: string) => findings(j).find(f => f.id === id)

test.each(judged)('%s: %s', (_, id, wrong, cured) => {
  for (const j of [wrong, cured]) expect(jobSchema.safeParse(j).error?.issues ?? []).toEqual([])
  expect(ids(wrong)).toContain(id)
  expect(ids(cured)).not.toContain(id)
})

test('every fix offered for them settles its finding', () => {
  for (const [, , wrong] of judged)
    for (const f of findings(wrong))
      for (const { label, operations } of f.fixes) {
        const mended = applied(wrong, { op: 'applyFix', label, operations })
        expect([label, findings(mended).map(x => x.sentence)]).not.toEqual([
          label,
          expect.arrayContaining([f.sentence]),
        ])
      }
})

test('none of them ever says safe or approved', () => {
  for (const [, , wrong, cured] of judged)
    expect(JSON.stringify([evaluate(wrong), evaluate(cured)])).not.toMatch(/\bsafe\b|\bapproved\b/i)
})

const kettle = load(1700, { name: 'Kettle', dutyFraction: { value: 0.01, from: 'metered' } })
const path: Job['hookup']['path'] = [
  { id: 'c', kind: 'cord', from: 'TT-30', to: 'TT-30', ratingA: 30, size: '10', lengthFt: 25 },
  { id: 'b', kind: 'breaker', ratingA: 15 },
]
const behind15 = { hookup: { method: 'interlocked-inlet' as const, bondingPlug: false, path } }

test('the output names the link that limits it, rated and for hours', () => {
  const line = evaluate(job([circuit(1, { loads: [kettle] })], behind15)).balance.find(b => b.id === 'output')
  expect(line?.sentence).toMatch(/Output: 1,800 VA, by the 15 A breaker at 2; 1,440 VA of it for hours\./)
  expect([line?.need, line?.have]).toEqual([1700, 1800])
  const heater = evaluate(job([circuit(1, { loads: [load(1300)] })], behind15)).balance
  expect(heater.find(b => b.id === 'output')).toMatchObject({ need: 1300, have: 1440 })
})

test('a breaker of an adapter stands in the way; a link carries no more than its connectors', () => {
  const by = (link: Partial<NonNullable<Job['hookup']['path']>[number]>) =>
    wayLimit({
      hookup: {
        ...behind15.hookup,
        path: [{ id: 'a', kind: 'adapter', from: '14-50', to: 'L5-30', ratingA: 50, ...link }],
      },
    })?.name
  expect(by({ ownBreakerA: 20, name: 'Step' })).toBe('20 A breaker of the Step at 1')
  expect(by({})).toBe('30 A adapter at 1')
})

test('with one leg live methods count only the positions that it feeds, and a single position is on it', () => {
  const six = Array.from({ length: 6 }, (_, i) => circuit(i + 1, { breakerA: 15, loads: [load(50)] }))
  const one = job(six, {
    source: { arrangement: 'one-leg', liveLeg: 'L2' },
    hookup: { method: 'undecided', bondingPlug: false },
  })
  const served = (positions: number) =>
    compareMethods(one, [
      { ...riffle6, positions, positionLimitsA: Array.from({ length: positions }, () => 15) },
    ]).find(m => m.method === (positions > 1 ? 'multi-circuit-switch' : 'single-circuit-switch'))?.served
      .length
  expect(served(6)).toBe(3)
  expect(served(1)).toBe(1)
})

test('without a catalogue devices are not known and nothing that needs one is priced', () => {
  const here = compareMethods(job([circuit(1, { loads: [load(50)] })]), [])
  const at = (id: string) => here.find(m => m.method === id)
  expect(at('single-circuit-switch')).toMatchObject({ price: null, devices: ['not known: no catalogue'] })
  expect(at('extension-cords')?.price).not.toBeNull()
})

test('what is there already is used, costs nothing, and its limits count', () => {
  const there = job([circuit(1, { loads: [load(50)] })], {
    hookup: {
      method: 'undecided',
      bondingPlug: false,
      switch: { ...riffle6, name: 'Old box', price: 900, inputA: 10 },
      exists: ['switch'],
    },
  })
  const here = compareMethods(there, [{ ...riffle6, price: 300 }])
  const many = here.find(m => m.method === 'multi-circuit-switch')
  expect(many?.devices).toEqual(['Old box (there)'])
  expect(many?.price?.least).toBeLessThan(300)
  expect(many?.facts.switch?.inputA).toBe(10)
})

test('hours are the firm’s own where it gave some', () => {
  const here = (labour?: Parameters<typeof compareMethods>[2]) =>
    compareMethods(job([circuit(1)]), [riffle6], labour).find(m => m.method === 'multi-circuit-switch')
      ?.labourHours
  expect(here({ tasks: [{ method: 'multi-circuit-switch', least: 1, most: 2, eachMost: 0 }] })).toEqual({
    least: 1,
    most: 2,
  })
  expect(here()).toEqual({ least: 3, most: 4.5 })
})

test('two switches on one source: positions are numbered on, and each input is judged by its own', () => {
  const j = job([circuit(1, { loads: [load(3000)] }), circuit(2, { loads: [load(3000)] })], {
    source: { station: splitStation({ continuousW: 8000, legW: 4000 }), arrangement: 'split-phase' },
    hookup: {
      method: 'multi-circuit-switch',
      bondingPlug: false,
      switch: { ...riffle6, inputA: 20, name: 'First' },
      secondSwitch: { ...riffle6, inputA: 30, name: 'Second' },
      positions: [
        { circuitId: 'c1', position: 1, pinned: false },
        { circuitId: 'c2', position: 8, pinned: false },
      ],
    },
  })
  expect(jobSchema.safeParse(j).success).toBe(true)
  expect(
    findings(j)
      .filter(f => f.id === 'input.limit')
      .map(f => f.sentence),
  ).toEqual([expect.stringMatching(/25 A together; the input of the First/)])
})

test('a sub-panel in the feeder of a full panel takes all of it over: no spaces, nothing moved', () => {
  const crowded = Array.from({ length: 12 }, (_, i) => circuit(i + 1, { loads: [load(20)] }))
  const plan = (intercepts: boolean) =>
    job(crowded, { hookup: { method: 'sub-panel-interlock', bondingPlug: false, intercepts } })
  expect(ids(plan(false))).toContain('panel.no-space')
  expect(ids(plan(true))).not.toContain('panel.no-space')
})

test('moved circuits take legs anew in the panel they move to, both hots of a pair on opposite ones', () => {
  const onL1 = [1, 5, 9].map((at, n) => circuit(at, { loads: [load(300 + n)] }))
  const j = job(onL1, {
    hookup: { method: 'critical-subpanel', bondingPlug: false, movedPlaces: 'placed anew' },
    source: { station: splitStation(), arrangement: 'split-phase' },
  })
  const legs = (of: Job) => new Set(circuitNeeds(of).flatMap(n => (n.circuit.picked ? [n.leg] : [])))
  expect(legs(j)).toEqual(new Set(['L1', 'L2']))
  const one = applied(j, { op: 'setArrangement', arrangement: 'one-leg', liveLeg: 'L2' })
  expect(legs(one)).toEqual(new Set(['L2']))
  expect(circuitNeeds(one).every(n => n.served === n.circuit.picked)).toBe(true)
})

test('a plain Y makes no 240 V, whatever its plug looks like', () => {
  const unit = { equipment: station(), expansionUnits: 0, owned: false }
  const y = job([circuit(1, { poles: 2, loads: [load(300)] })], {
    source: {
      units: [
        { id: 'u1', ...unit },
        { id: 'u2', ...unit },
      ],
      arrangement: 'combined',
      combiner: {
        kind: 'combiner',
        id: 'y',
        name: 'Y',
        version: 1,
        pairs: [],
        synchronises: false,
        batteries: 'apart',
        outlets: [{ type: 'L14-30', count: 1 }],
      },
    },
  })
  expect(ids(y)).toContain('y-adapter')
  expect(evaluate(y).balance.find(b => b.id === 'v240')?.verdict).toBe('short')
})

test('a floating generator behind a ban whose scope is not stated is asked about; ground-fault outlets may trip', () => {
  const j = job([circuit(1)], {
    hookup: { method: 'interlocked-inlet', bondingPlug: false },
    source: {
      station: station({ passThrough: 'forbidden on a bonded neutral', groundFaultOutlets: true }),
      generator: {
        equipment: {
          kind: 'generator',
          id: 'g',
          name: 'G',
          version: 1,
          continuousW: 1800,
          surgeW: 2200,
          WhPerGallon: 5000,
          tankGallons: 1,
          neutral: 'floating',
        },
        gallons: 5,
        where: 'outdoors',
        owned: true,
      },
    },
  })
  expect(found(j, 'passthrough.forbidden')?.severity).toBe('ask')
  expect(found(j, 'bond.gfci-trip')?.sentence).toMatch(/may trip/)
  expect(found(j, 'bond.two')).toBeUndefined()
})

test('a soft starter is offered to a compressor, asked about for a motor that nobody named, not for two wires', () => {
  const started = (facts: object) =>
    found(
      job([
        circuit(1, {
          loads: [
            load(500, {
              nature: 'motor',
              start: { method: 'locked-rotor', lockedRotorA: { value: 60, from: 'nameplate' } },
              ...facts,
            }),
          ],
        }),
      ]),
      'start.over',
    )
  const offers = (facts: object) => started(facts)?.fixes.some(f => /soft starter/.test(f.label))
  expect(offers({ nature: 'compressor' })).toBe(true)
  expect(offers({ motorType: 'three-wire submersible' })).toBe(true)
  expect(offers({ motorType: 'two-wire submersible' })).toBe(false)
  expect(offers({})).toBe(false)
  expect(started({})?.remedy).toMatch(/Say which motor it is/)
})

test('lead loses to a fast discharge in a job as it does on the bench', () => {
  const lead = (W: number) =>
    evaluate(
      job([circuit(1, { loads: [load(W)] })], {
        outage: { hours: 4, startFraction: 1, reserveFraction: 0, deratingFraction: 1 },
        source: {
          units: [
            {
              id: 'u1',
              equipment: {
                kind: 'inverter',
                id: 'i',
                name: 'I',
                version: 1,
                continuousW: 4000,
                legW: 4000,
                surgeW: 8000,
                voltage: '120',
                batteryV: 48,
                idleW: 30,
                efficiencyFraction: 0.9,
                ownTransfer: false,
                neutral: 'floating',
              },
              bank: {
                equipment: {
                  kind: 'bank',
                  id: 'b',
                  name: 'B',
                  version: 1,
                  unitV: 12,
                  unitAh: 105,
                  chemistry: 'agm',
                  depthFraction: 0.5,
                  mostParallel: 4,
                },
                series: 4,
                parallel: 2,
              },
              expansionUnits: 0,
              owned: false,
            },
          ],
        },
      }),
    ).balance.find(b => b.id === 'hours')?.have
  // 210 Ah at 14.51 A: 0.5 × 210 ÷ 14.51 × (210 ÷ (14.51 × 20))^0.15
  expect(lead(600)).toBeCloseTo(6.892, 3)
})

test('once the way is drawn, neutral and ground are asked for until somebody says them', () => {
  const drawn = (facts: Partial<Job['hookup']> = {}) =>
    ids(job([circuit(1)], { hookup: { ...behind15.hookup, ...facts } }))
  expect(drawn()).toEqual(expect.arrayContaining(['neutral.not-landed', 'ground.unknown']))
  const said = drawn({ sourceNeutral: 'lands', ground: 'continuous' })
  expect(said).not.toContain('neutral.not-landed')
  expect(said).not.toContain('ground.unknown')
})

test.each<[string, unknown, RegExp]>([
  ['a fuse of 0 A', { source: { fuseA: 0 } }, /fuseA: must be from 1 to 2,?000 A/],
  [
    'a mode below its parts',
    { mode: { name: 'm', acW: 900, solarW: 300, totalW: 800 } },
    /totalW: is 800 W, below the 900 W that AC/,
  ],
  [
    'a position breaker above its most',
    { breakerA: 30 },
    /breakerA: is 30 A, but position 5 takes at most 20 A/,
  ],
  ['a lead gauge that is no size', { leadSize: '13' }, /leadSize: .*"14"/],
  ['more than there are', { position: 9 }, /positionDetails\.0\.position: is 9, but there are 6/],
])('%s is refused in words at its field', (_, change, message) => {
  const { source, mode, breakerA, leadSize, position } = change as {
    source?: { fuseA: number }
    mode?: object
    breakerA?: number
    leadSize?: string
    position?: number
  }
  const unit = {
    id: 'u1',
    equipment: station({ ...(mode && { chargeModes: [mode as never] }) }),
    expansionUnits: 0,
    owned: false,
    ...(source && {
      bank: {
        equipment: {
          kind: 'bank',
          id: 'b',
          name: 'B',
          version: 1,
          unitV: 48,
          unitAh: 100,
          chemistry: 'lfp',
          mostParallel: 2,
        },
        series: 1,
        parallel: 1,
        ...source,
      },
    }),
  }
  const wrong = {
    ...job([circuit(1)], {
      hookup: {
        method: 'multi-circuit-switch',
        bondingPlug: false,
        switch: {
          ...riffle6,
          positionDetails: [
            { position: position ?? 5, mostA: 20, ...(leadSize && { leadSize: leadSize as never }) },
          ],
        },
        positions: [{ circuitId: 'c1', position: 5, pinned: false, ...(breakerA && { breakerA }) }],
      },
    }),
    source: { units: [unit], arrangement: 'tied', liveLeg: 'L1' },
  }
  const { error } = jobSchema.safeParse(wrong)
  expect((error?.issues ?? []).map(i => `${i.path.join('.')}: ${i.message}`).join('\n')).toMatch(message)
})
