import { evaluate } from '../assess/evaluate'
import type { Equipment } from '../equipment'
import { freshet18 } from '../equipment/fixtures/parts'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import { applyOperation } from '../job/operations'
import type { Job } from '../job/schema'
import { simulate } from '../outage/chance'
import { planOf } from '../outage/plan'
import { adopted } from './adopt'
import { type Found, type SearchResult, searchSentence } from './front'
import { plannedDesign } from './planned'
import { search } from './search'
import {
  type Design,
  designName,
  generatorCost,
  type Space,
  sourceWith,
  spaceOf,
  sunCost,
  sunWeightLb,
} from './space'
import { expansionKey } from './stock'
import { alone, perform, type Task, type TaskResult } from './tasks'
import { labourRate, type Wishes, wishesSchema } from './wishes'

const wishes = (facts: Partial<Wishes> = {}): Wishes => ({ ...wishesSchema.parse({}), ...facts })
const weights = { weightLb: 40, price: 900 }

const catalogue: Equipment[] = [
  station({
    ...weights,
    id: 'small',
    name: 'Small',
    energyWh: 1200,
    continuousW: 1200,
    surgeW: 2400,
    expansion: { most: 1, energyWh: 1000, price: 700, weightLb: 30 },
    acInputW: 600,
  }),
  station({
    ...weights,
    id: 'large',
    name: 'Large',
    energyWh: 3600,
    price: 2600,
    weightLb: 80,
    acInputW: 1200,
    expansion: { most: 2, energyWh: 3000, price: 1800, weightLb: 60 },
    solar: { count: 1, minV: 12, maxV: 60, maxW: 500 },
  }),
  { ...freshet18, price: 1000, weightLb: 48 },
  {
    kind: 'solar-module',
    id: 'module',
    name: 'Module',
    version: 1,
    stcW: 200,
    vocV: 24,
    vmpV: 20,
    iscA: 10,
    vocPctPerC: -0.3,
    folding: false,
    price: 200,
    weightLb: 25,
  },
]

const house = (hours = 24): Job =>
  job(
    [
      circuit(1, {
        tier: 1,
        loads: [
          load(300, {
            id: 'fridge',
            dutyFraction: { value: 0.4, from: 'assumed' },
            pattern: { kind: 'cycling', cycleMinutes: 30 },
          }),
        ],
      }),
      circuit(2, { loads: [load(60, { id: 'lights', dutyFraction: { value: 0.3, from: 'assumed' } })] }),
    ],
    {
      hookup: { method: 'undecided', bondingPlug: false },
      outage: {
        hours,
        startFraction: 1,
        reserveFraction: 0.1,
        deratingFraction: 1,
        season: 'summer',
        beginsH: 18,
      },
    },
  )

/** Every design looked at in full: all checks, all draws, no bound, nothing dropped early. */
function bruteForce(space: Space, draws: number, seed: number): Found[] {
  const all: Found[] = []
  const checks = new Map(
    space.kins.map(kin => {
      const got = perform(space, { kind: 'checks', kins: [kin] })
      return [kin, got.kind === 'checks' ? got.kins[0] : undefined]
    }),
  )
  const trips = new Map<number, number[]>()
  for (const [h, head] of space.heads.entries())
    for (const [m, method] of space.methods.entries())
      for (const [g, generator] of space.generators.entries())
        for (const [s, sun] of space.suns.entries()) {
          const design: Design = { head: h, method: m, generator: g, sun: s }
          const source = sourceWith(head, generator, sun)
          const own = checks.get(head.kin)?.methods[m]
          if (!source || !own || own.drops.some(d => d.id === 'hook-up' || d.id === 'unserved')) continue
          const here = plannedDesign(space, source, method).job
          if (evaluate(here).findings.some(f => f.severity === 'stop' && f.id !== 'energy.short')) continue
          const tripped = trips.get(head.kin) ?? tripsOf(space, { h, m, seed, draws })
          trips.set(head.kin, tripped)
          const raced = perform(space, {
            kind: 'race',
            seed,
            items: [{ ...design, draws: Array.from({ length: draws }, (_, d) => d) }],
          })
          const lasted = raced.kind === 'race' ? (raced.lasted[0] ?? []) : []
          const hits = lasted.filter((l, d) => l && !tripped[d]).length
          all.push({
            design,
            name: designName(space, design),
            plans: [],
            toOrder: [],
            price: Math.round(
              head.price +
                generatorCost(generator) +
                sunCost(sun) +
                (own.price ?? 0) +
                own.hours * labourRate,
            ),
            weightLb: head.weightLb + (generator?.equipment.weightLb ?? 0) + sunWeightLb(sun),
            hours: own.hours,
            chance: { fraction: hits / draws, low: 0, high: 1 },
            bestBy: [],
          })
        }
  return all
}

function tripsOf(space: Space, { h, m, seed, draws }: { h: number; m: number; seed: number; draws: number }) {
  const got = perform(space, { kind: 'trips', head: h, method: m, seed, draws })
  return got.kind === 'trips' ? got.trips : []
}

const measures = {
  price: (f: Found) => f.price,
  weight: (f: Found) => f.weightLb,
  hours: (f: Found) => f.hours,
}
const frontBy = (found: readonly Found[], of: (f: Found) => number) => {
  let best = 0
  return [...found]
    .sort((a, b) => of(a) - of(b) || b.chance.fraction - a.chance.fraction)
    .flatMap(f => {
      if (f.chance.fraction <= best) return []
      best = f.chance.fraction
      return [[Math.round(of(f) * 10) / 10, f.chance.fraction]]
    })
}

describe('search', () => {
  const draws = 25
  const space = (of = house(), w: Partial<Wishes> = {}): Space => {
    const whole = spaceOf(of, catalogue, wishes(w))
    // the reduced catalogue of the brute force: fewer sizes of sun
    return { ...whole, suns: whole.suns.slice(0, 4), raw: (whole.raw / whole.suns.length) * 4 }
  }

  test('its fronts by price, weight and hours are those of brute force', async () => {
    const s = space(house(30), {})
    s.suns.splice(3)
    // every other source and way of connecting
    s.heads = s.heads.filter((_, n) => n % 2 === 0)
    s.methods = s.methods.filter((_, n) => n % 2 === 0)
    // fuel that does not last for ever
    s.generators = [null, { equipment: freshet18, gallons: 0.25, owned: false }]
    const got = await search(s, alone(s), { seed: 5, draws })
    const all = bruteForce(s, draws, 5)
    for (const by of ['price', 'weight', 'hours'] as const) {
      const brute = frontBy(all, measures[by])
      const front = got.front.filter(f => f.bestBy.includes(by))
      expect(frontBy(front, measures[by])).toEqual(brute)
      expect(front).toHaveLength(brute.length)
    }
    expect(got.front.length).toBeGreaterThan(2)
  })

  test('comes out the same whoever does the work, in whatever order', async () => {
    const s = space()
    const backwards = async (tasks: Task[]): Promise<TaskResult[]> => {
      const answers: TaskResult[] = new Array(tasks.length)
      for (let i = tasks.length - 1; i >= 0; i--) {
        const task = tasks[i]
        // over the wire and back, as a worker or a queue has it
        if (task) answers[i] = JSON.parse(JSON.stringify(perform(space(), JSON.parse(JSON.stringify(task)))))
      }
      return answers
    }
    expect(await search(s, backwards, { seed: 5, draws })).toEqual(
      await search(s, alone(s), { seed: 5, draws }),
    )
  })

  test('every design is accounted for: allowed, or dropped with a reason', async () => {
    const s = space()
    const got: SearchResult = await search(s, alone(s), { draws: 10 })
    expect(got.dropped.reduce((sum, d) => sum + d.designs, 0) + got.allowed).toBe(got.raw)
    expect(got.dropped.every(d => d.sentence.length > 8)).toBe(true)
    expect(searchSentence(got)).toMatch(
      /designs looked at, .* allowed: the cheapest that lasts in .* of 100 is/,
    )
  })

  test('wishes are kept', async () => {
    const got = async (w: Partial<Wishes>) => {
      const s = space(house(), w)
      return { s, r: await search(s, alone(s), { draws: 10 }) }
    }
    const quiet = await got({ noGenerator: true })
    expect(quiet.r.front.every(f => f.design.generator === 0)).toBe(true)
    expect(quiet.r.leftOut).toContainEqual({
      family: 'Designs with a generator',
      sentence: 'No generator was asked for.',
    })
    const light = await got({ onePerson: true })
    expect(light.r.front.every(f => (light.s.heads[f.design.head]?.heaviestLb ?? 99) <= 50)).toBe(true)
    const cheap = await got({ mostPrice: 2000 })
    expect(cheap.r.front.every(f => f.price <= 2000)).toBe(true)
    expect(cheap.r.dropped.some(d => d.id === 'wish: price')).toBe(true)
  })

  test('from stock alone: what is short is dropped and said; without that wish it is told what to order', async () => {
    const whole = space(house(20), {})
    const { front } = await search({ ...whole, stock: { large: 1 } }, alone(whole), { draws: 10 })
    expect(front.some(f => f.toOrder.includes('1 × Small'))).toBe(true)
    expect(front.flatMap(f => f.toOrder)).not.toContain('1 × Large')
    const stock = { large: 1, [expansionKey('large')]: 1 }
    const s: Space = { ...space(house(20), { fromStock: true }), stock }
    const got = await search(s, alone(s), { draws: 10 })
    expect(got.dropped.find(d => d.id === 'wish: stock')?.sentence).toMatch(/^1 × Small is not in stock\.$/)
    expect(got.front.length).toBeGreaterThan(0)
    for (const f of got.front) {
      expect(f.toOrder).toEqual([])
      expect(f.name).toMatch(/^Large( with 1 expansion unit)?,/)
    }
    expect(got.dropped.reduce((sum, d) => sum + d.designs, 0) + got.allowed).toBe(got.raw)
  })

  test('an outage that nothing outlasts is said to be one, family by family', async () => {
    const s = space(house(720), { noGenerator: true })
    s.suns.splice(1)
    const got = await search(s, alone(s), { draws: 10 })
    expect(got.front).toEqual([])
    expect(searchSentence(got)).toMatch(/none lasts\.$/)
    expect(got.leftOut.map(l => l.family)).toEqual(expect.arrayContaining(['Small', 'Large']))
  })

  test('a design found is taken up as one change, and lasts as long as it was found to', async () => {
    const s = space(house(30))
    const { front } = await search(s, alone(s), { seed: 1, draws: 100 })
    expect(front.length).toBeGreaterThan(1)
    for (const found of front) {
      const operation = adopted(s, found.design)
      const after = operation && applyOperation(s.job, operation)
      if (!after?.ok) throw new Error(`${found.name} cannot be taken up`)
      const plan = planOf(after.value)
      if (!plan.ok) throw new Error(`${found.name} cannot be simulated`)
      const { chance } = simulate(plan.value, { seed: 1, exactly: 100 })
      expect(Math.abs(chance.lasts.fraction - found.chance.fraction)).toBeLessThanOrEqual(0.03)
    }
  })

  test('what a fix of the hook-up cures is planned with the design, and said', async () => {
    const of = house(30)
    const guarded: Job = {
      ...of,
      panels: of.panels.map(p => ({
        ...p,
        circuits: p.circuits.map(c => ({ ...c, protection: 'arc-fault' as const })),
      })),
    }
    const method = 'sub-panel-interlock'
    const s = { ...space(guarded), methods: [method as typeof method] }
    const { front } = await search(s, alone(s), { draws: 10 })
    const [found] = front
    expect(found?.plans).toEqual(['Plan: each neutral follows its hot'])
    const operation = found && adopted(s, found.design)
    expect(operation?.hookup.neutrals).toBe('follow their hots')
    const after = operation && applyOperation(s.job, operation)
    const stops = after?.ok ? evaluate(after.value).findings.filter(f => f.severity === 'stop') : []
    expect(stops.map(f => f.id).filter(id => id !== 'energy.short')).toEqual([])
  })
})
