import * as fc from 'fast-check'
import { wiringDrawing } from '../../formats/wiring-drawing'
import { wiringSvg } from '../../formats/wiring-svg'
import type { WiringChoices } from '../../hookup/wiring-choices'
import { applied, circuit, job, splitStation } from '../../job/fixtures/jobs'
import { type Job, jobSchema } from '../../job/schema'
import { bare, type Circuit } from '../../panel/schema'
import { conduitKinds } from '../../units/tables/conduit'
import { partsOfJob } from '../parts'
import { workOfJob } from '../parts/tasks'
import { wiringPlan } from '.'
import { made } from './fixtures/made'
import { scheduleOf } from './schedule'

/** Houses that nobody thought of: any circuits, any hook-up, any habits, any way. What holds for every plan holds for these. */

const aCircuit = (position: number) =>
  fc
    .record({
      breakerA: fc.constantFrom(15, 20, 30, 50),
      material: fc.constantFrom('cu' as const, 'al' as const),
      known: fc.boolean(),
      protection: fc.constantFrom('none' as const, 'arc-fault' as const),
      picked: fc.boolean(),
    })
    .map(
      ({ known, material, ...facts }): Circuit =>
        circuit(position, {
          ...facts,
          wire: known
            ? { material, size: facts.breakerA > 30 ? '4' : material === 'al' ? '8' : '10' }
            : undefined,
        }),
    )
const circuits = fc
  .uniqueArray(fc.integer({ min: 1, max: 24 }), { minLength: 1, maxLength: 14 })
  .chain(positions => fc.tuple(...positions.map(aCircuit)))

const device = { version: 1 } as const
const inlet = fc
  .constantFrom(
    ['L14-30', 30] as const,
    ['14-50', 50] as const,
    ['L5-30', 30] as const,
    ['TT-30', 30] as const,
  )
  .map(([type, ratingA]) => ({ kind: 'inlet' as const, id: 'in', name: 'Inlet', ...device, type, ratingA }))
const aSwitch = fc.record({ neutral: fc.boolean(), positions: fc.integer({ min: 2, max: 10 }) }).map(s => ({
  kind: 'transfer-switch' as const,
  id: 'sw',
  name: 'Switch',
  ...device,
  positions: s.positions,
  positionLimitsA: Array.from({ length: s.positions }, () => 20),
  inputA: 30,
  volts: '120/240' as const,
  switchesNeutral: s.neutral,
}))

const choices: fc.Arbitrary<WiringChoices> = fc.record({
  habits: fc.record(
    {
      feederMetal: fc.constantFrom('cu' as const, 'al' as const),
      raceway: fc.constantFrom(...conduitKinds),
      connectors: fc.constantFrom('twist-on' as const, 'lever' as const),
      oneSizeUp: fc.boolean(),
      growth: fc.boolean(),
    },
    { requiredKeys: [] },
  ),
  routes: fc.uniqueArray(
    fc.record(
      {
        id: fc.constantFrom('inlet', 'led-over', 'feeder', 'whip-switch'),
        lengthFt: fc.double({ min: 0.5, max: 2000, noNaN: true }),
        bendsDeg: fc.constantFrom(0, 90, 360, 720),
        wet: fc.boolean(),
        conduit: fc.constantFrom(...conduitKinds),
      },
      { requiredKeys: ['id'] },
    ),
    { selector: r => r.id },
  ),
  wires: fc.constantFrom([], [{ route: 'inlet', mark: 'IN L1', size: '2' as const }]),
})

const house: fc.Arbitrary<Job> = fc
  .record({
    circuits,
    inlet,
    transfer: aSwitch,
    wiring: choices,
    method: fc.constantFrom(
      'multi-circuit-switch' as const,
      'interlocked-inlet' as const,
      'sub-panel-interlock' as const,
      'critical-subpanel' as const,
      'cord-and-plug' as const,
    ),
    neutrals: fc.constantFrom('follow their hots' as const, 'stay behind' as const, undefined),
    split: fc.boolean(),
    exists: fc.subarray(['switch', 'inlet', 'interlock'] as const),
  })
  .map(({ circuits, inlet, transfer, wiring, method, neutrals, split, exists }) => {
    const picked = circuits.filter(c => c.picked)
    const base = job([], {
      ...(split && {
        source: {
          units: [{ id: 'u', equipment: splitStation(), expansionUnits: 0, owned: false }],
          arrangement: 'split-phase',
          liveLeg: 'L1',
        },
      }),
      hookup: { method: 'undecided', bondingPlug: false },
    })
    return applied(
      { ...base, panels: [{ ...bare('main', 'Main panel', 40, 200), circuits }], wiring },
      {
        op: 'setHookup',
        facts: {
          method,
          inlet,
          exists,
          ...(neutrals && { neutrals }),
          ...(method === 'multi-circuit-switch' && {
            switch: transfer,
            positions: picked
              .slice(0, transfer.positions)
              .map((c, n) => ({ position: n + 1, circuitId: c.id, pinned: false })),
          }),
          ...(method !== 'multi-circuit-switch' && { backfed: { breakerA: 30, heldDown: true } }),
        },
      },
    )
  })

test('any house: a valid document whose wires end where they are held, in raceways that hold them or are told', () => {
  fc.assert(
    fc.property(house, j => {
      expect(jobSchema.safeParse(j).success).toBe(true)
      const plan = wiringPlan(j)
      made(plan)
      expect(new Set(plan.conductors.map(c => c.id)).size).toBe(plan.conductors.length)
      expect(JSON.stringify([plan, scheduleOf(plan)])).not.toMatch(/NaN|Infinity|undefined/)
      for (const r of plan.routes) {
        const fits = !r.raceway || (r.fillFraction ?? 9) <= (r.mayFillFraction ?? 0) + 1e-9
        expect([r.id, fits || plan.open.some(o => o.at === r.id && /full/.test(o.text))]).toEqual([
          r.id,
          true,
        ])
        expect([r.id, r.bendsDeg <= 360 || !r.raceway || r.pullPoints > 0]).toEqual([r.id, true])
      }
      // what protects a bought hot is no more than it carries there, or it was chosen by hand
      for (const c of plan.conductors)
        if (c.function === 'hot' && c.comes === 'bought' && c.cutFt > 0) expect(c.size).not.toBeNull()
    }),
    { numRuns: 150 },
  )
})

test('any house: every foot of bought wire and every splice is on the list once, and the list says why', () => {
  fc.assert(
    fc.property(house, j => {
      const plan = wiringPlan(j)
      const parts = partsOfJob(j)
      const sum = (kind: string) =>
        parts.filter(p => p.kind === kind).reduce((total, p) => total + p.quantity, 0)
      const feet = plan.conductors.filter(c => c.comes === 'bought').reduce((total, c) => total + c.cutFt, 0)
      expect(Math.abs(sum('wire') - feet)).toBeLessThan(1e-6)
      expect(sum('connector')).toBe(plan.splices.length)
      expect(parts.every(p => p.why.length > 0 && p.needed >= p.quantity - 1e-9)).toBe(true)
      expect(workOfJob(j).tasks.every(t => Number.isFinite(t.minutes) && t.minutes >= 0)).toBe(true)
    }),
    { numRuns: 100 },
  )
})

test('any house: the drawing has every wire on it, and its file is whole', () => {
  fc.assert(
    fc.property(house, j => {
      const plan = wiringPlan(j)
      const wires = wiringDrawing(plan).shapes.filter(s => s.kind === 'wire')
      expect(wires).toHaveLength(plan.conductors.length)
      expect(wiringSvg(plan, j.title)).toMatch(/^<svg [\s\S]*<\/svg>\n$/)
    }),
    { numRuns: 40 },
  )
})
