import fc from 'fast-check'
import { evaluate } from '../assess/evaluate'
import { landingProblem, landingsFrom } from '../assess/landing'
import { circuitNeeds } from '../assess/needs'
import { solvePositions } from '../assess/positions'
import { loadSolver, type SolveProgram } from '../hookup/solver'
import { feedOf, legOf } from '../panel/positions'
import { bare, type Panel } from '../panel/schema'
import { changeId } from '../plan/change'
import { oneLineOf } from '../work/one-line'
import { asPlanned } from './as-planned'
import { applied, circuit, job, load, splitStation } from './fixtures/jobs'
import { withHookupChanges } from './hookup-changes'
import { newPanelId } from './new-panel'
import { applyOperation, type Operation } from './operations'
import { readJob } from './read'
import type { Job } from './schema'

let solve: SolveProgram
beforeAll(async () => {
  solve = await loadSolver()
})

const shared = (with_: string) => ({ neutral: { kind: 'shared' as const, with: with_ } })
const house = job(
  [
    circuit(1, { loads: [load(900)] }),
    circuit(3, { loads: [load(800)], ...shared('c5') }),
    circuit(5, { loads: [load(100)], ...shared('c3') }),
    circuit(2, { loads: [load(700)], protection: 'arc-fault' }),
    circuit(4, { picked: false }),
    circuit(6, { poles: 2, loads: [load(1000)] }),
  ],
  {
    panel: { spaces: 20 },
    hookup: { method: 'undecided', bondingPlug: false },
    source: { station: splitStation(), arrangement: 'split-phase' },
  },
)
const choose = (method: Job['hookup']['method']): Operation => ({ op: 'setHookup', facts: { method } })
const built = (of: Job) => asPlanned(of).job.panels.find(p => p.id === newPanelId)
const at = (of: Job) => Object.fromEntries(built(of)?.circuits.map(c => [c.id, c.position]) ?? [])
const kinds = (of: Job) => of.planned.map(c => c.kind)

test('it stands with its feeder and a place for each circuit from the moment the method is chosen', () => {
  const chosen = applied(house, choose('critical-subpanel'))
  expect(chosen.panels).toBe(house.panels)
  expect(kinds(chosen)).toEqual(['panel', 'add', 'land', 'land', 'land', 'land', 'notice'])
  const [main] = asPlanned(chosen).job.panels
  const panel = built(chosen)
  expect(main?.circuits.map(c => c.id)).toEqual(['c4', 'new-panel-feeder'])
  expect(panel).toMatchObject({
    supply: 'fed from another panel',
    neutralBonded: false,
    feederId: 'new-panel-feeder',
  })
  // its guard is there again, and the hots of one neutral stand one above the other under a tie
  expect(panel?.circuits.find(c => c.id === 'c2')?.protection).toBe('arc-fault')
  const [a, b] = ['c3', 'c5'].map(id => panel?.circuits.find(c => c.id === id))
  expect(Math.abs((a?.position ?? 0) - (b?.position ?? 0))).toBe(2)
  expect([a?.tie, b?.tie]).toEqual([
    { with: 'c5', kind: 'handle' },
    { with: 'c3', kind: 'handle' },
  ])
  // everything that is picked is fed, by the new panel alone
  expect(circuitNeeds(chosen).filter(n => n.served !== n.circuit.picked)).toEqual([])
  expect(evaluate(chosen).reached).toEqual([newPanelId])
})

test('changing one’s mind takes back what the method asked for, and nothing else', () => {
  const own = applied(house, { op: 'planMove', circuitId: 'c1', toPosition: 15 })
  const there = applied(own, choose('critical-subpanel'))
  expect(kinds(there)).toContain('land')
  expect(applied(there, choose('undecided'))).toEqual(own)
  const less = applied(there, { op: 'selectCircuit', circuitId: 'c2', picked: false })
  expect(less.planned.map(changeId)).toEqual(there.planned.map(changeId).filter(id => id !== 'land:c2'))
  expect(
    applied(less, { op: 'selectCircuit', circuitId: 'c2', picked: true }).planned.map(changeId).sort(),
  ).toEqual(there.planned.map(changeId).sort())
})

test('without room for its feeder it is not there yet; the fix of that finding brings it', () => {
  const full = job(
    Array.from({ length: 11 }, (_, i) => circuit(i + 1, { picked: i < 2, loads: [load(100)] })).filter(
      c => c.position !== 4,
    ),
    { hookup: { method: 'sub-panel-interlock', bondingPlug: false } },
  )
  expect(built(full)).toBeUndefined()
  const fix = evaluate(full).findings.find(f => f.id === 'panel.no-space')?.fixes[0]
  const mended = applied(full, { op: 'applyFix', label: 'room', operations: fix?.operations ?? [] })
  expect(kinds(mended)).toEqual(expect.arrayContaining(['move', 'add', 'panel', 'land']))
  expect(built(mended)?.mainA).toBe(60)
})

test('the landing is solved like switch positions: balanced, pins kept, each with its price', () => {
  const chosen = applied(house, choose('critical-subpanel'))
  const pinned = applied(chosen, { op: 'planMove', circuitId: 'c1', toPosition: 7 })
  expect(at(pinned)).toMatchObject({ c1: 7 })
  expect(pinned.hookup.landings).toEqual([{ circuitId: 'c1', position: 7, pinned: true }])
  const problem = landingProblem({ job: pinned }, circuitNeeds(pinned))
  if (!problem) throw new Error('no problem')
  const plan = solvePositions(problem, solve)
  expect(plan.pinCosts.map(p => p.circuitId)).toEqual(['c1'])
  const solved = applied(pinned, { op: 'setHookup', facts: { landings: landingsFrom(problem, plan) } })
  expect(at(solved)).toMatchObject({ c1: 7 })
  const imbalance = (of: Job) => evaluate(of).legs?.imbalanceFraction ?? 1
  expect(imbalance(solved)).toBeLessThanOrEqual(imbalance(pinned))
  const panel = built(solved)
  const feeds = panel?.circuits.map(c => feedOf(panel, c)) ?? []
  expect(feeds.filter(f => f === 'L1').length).toBe(feeds.filter(f => f === 'L2').length)
})

test('whatever is picked, pinned and sized, each circuit has one place, pairs are opposed, and nothing is impossible', () => {
  const circuitId = fc.constantFrom('c1', 'c2', 'c3', 'c4', 'c5', 'c6')
  const step: fc.Arbitrary<Operation> = fc.oneof(
    fc.record({ op: fc.constant('selectCircuit' as const), circuitId, picked: fc.boolean() }),
    fc.record({
      op: fc.constant('planMove' as const),
      circuitId,
      toPosition: fc.integer({ min: 1, max: 24 }),
    }),
    fc.record({
      op: fc.constant('setHookup' as const),
      facts: fc.oneof(
        fc.record({ newPanel: fc.record({ spaces: fc.constantFrom(8, 12, 20) }) }),
        fc.record({ movedPlaces: fc.constantFrom('placed anew' as const, 'in the old order' as const) }),
      ),
    }),
  )
  const steps = fc.array(step, { maxLength: 8 })
  fc.assert(
    fc.property(steps, said => {
      const end = said.reduce<Job>(
        (now, step) => {
          const outcome = applyOperation(now, step)
          return outcome.ok ? outcome.value : now
        },
        applied(house, choose('critical-subpanel')),
      )
      expect(end.panels.map(p => p.circuits.map(c => c.position))).toEqual(
        house.panels.map(p => p.circuits.map(c => c.position)),
      )
      // what a person moved to a place that a landing had freed is told when that landing is gone; nothing else fails
      expect(asPlanned(end).undone.filter(u => u.change.kind !== 'move')).toEqual([])
      const panel = built(end)
      const [x, y] = ['c3', 'c5'].map(id => panel?.circuits.find(c => c.id === id))
      if (panel && x && y) expect(legOf(panel, x.position)).not.toBe(legOf(panel, y.position))
    }),
    { numRuns: 60 },
  )
})

const studio = house

describe('a new panel in the feeder', () => {
  const fed = (facts: Partial<Job['hookup']> = {}, panel: Partial<Panel> = {}) =>
    job([circuit(1, { loads: [load(300)] }), circuit(2, { poles: 2, picked: false })], {
      panel: { supply: 'fed from another panel', neutralBonded: false, mainA: 100, ...panel },
      hookup: {
        method: 'sub-panel-interlock',
        bondingPlug: false,
        intercepts: true,
        backfed: { breakerA: 30, heldDown: true },
        ...facts,
      },
    })
  const house = (j: Job) => asPlanned(j).job

  test('takes the place of the fed panel, feeds it on through a breaker as large as its main, and holds the source’s', () => {
    const j = fed()
    const [main, between] = house(j).panels
    expect(between).toMatchObject({ id: newPanelId, mainA: 100, neutralBonded: false })
    expect(between?.circuits).toMatchObject([{ poles: 2, breakerA: 100 }])
    expect(main?.feederId).toBe(between?.circuits[0]?.id)
    expect(house(j).hookup.panelId).toBe(newPanelId)
    expect(j.planned.find(c => c.kind === 'backfeed')).toMatchObject({ panelId: newPanelId })
    expect(j.panels.map(p => p.id)).toEqual(['main'])
  })

  test('everything behind it is still fed: no figure of the balance changes by it', () => {
    const figures = (j: Job) => evaluate(j).balance.map(l => [l.id, l.need, l.have, l.verdict])
    expect(figures(fed())).toEqual(figures({ ...fed(), planned: [] }))
    expect(evaluate(fed()).reached.sort()).toEqual(['main', newPanelId])
  })

  test('its feeder is not among the two-poles that stay off where one leg is live', () => {
    const j = fed()
    const one = { ...j, source: j.source && { ...j.source, arrangement: 'one-leg' as const } }
    const told = evaluate(one)
      .cautions.map(c => c.text)
      .join(' ')
    expect(told).toMatch(/Every two-pole breaker stays off .*2·4/)
    expect(told).not.toMatch(/Feeder of the/)
  })

  test('where the feeder’s own breaker is known it ends in the new panel', () => {
    const j = fed()
    const up = { ...circuit(5, { id: 'up', poles: 2, breakerA: 100, picked: false }) }
    const whole = withHookupChanges({
      ...j,
      panels: [
        ...j.panels.map(p => ({ ...p, mark: 'M', feederId: 'up' })),
        { ...bare('house', 'House panel', 12, 200), mark: 'H', circuits: [up] },
      ],
      hookup: { ...j.hookup, panelId: 'main' },
    })
    expect(asPlanned(whole).undone.map(u => u.why)).toEqual([])
    const { panels } = house(whole)
    expect(panels.find(p => p.id === newPanelId)?.feederId).toBe('up')
    const drawn = oneLineOf(whole).lines.map(l => `${l.from} ${l.to}`)
    expect(drawn).toEqual(
      expect.arrayContaining([
        'panel-house transfer',
        `transfer panel-${newPanelId}`,
        `panel-${newPanelId} panel-main`,
      ]),
    )
  })

  test('a main larger than any breaker is fed on through the largest there is, and the document still opens', () => {
    const j = fed({}, { mainA: 400, busA: 400 })
    expect(house(j).panels[1]).toMatchObject({ mainA: 200, busA: 200, circuits: [{ breakerA: 200 }] })
    expect(readJob(JSON.parse(JSON.stringify(j))).ok).toBe(true)
  })

  test('the source’s breaker and the one that feeds on do not share a space; a bus bears its feeder', () => {
    const at = (space: number) => fed({ backfed: { breakerA: 30, heldDown: true, space } })
    expect([1, 2].map(space => house(at(space)).panels[1]?.circuits[0]?.position)).toEqual([2, 1])
    const large = applied(studio, choose('critical-subpanel'), {
      op: 'setHookup',
      facts: { newPanel: { feederA: 175 } },
    })
    expect(built(large)?.busA).toBe(175)
  })

  test('on the service itself it cannot be: told once, with why, and nothing of it is done', () => {
    const j = fed({}, { supply: 'service', neutralBonded: true })
    const hindered = evaluate(j).findings.filter(f => f.id === 'plan.hindered')
    expect(hindered).toHaveLength(1)
    expect(hindered[0]?.sentence).toMatch(/is the service itself: ahead of it are the utility’s conductors/)
    expect(house(j).panels.map(p => p.id)).toEqual(['main'])
  })

  test('taken back, exactly what it asked for goes', () => {
    const back = applied(fed(), { op: 'setHookup', facts: { intercepts: false } })
    expect(back.planned.filter(c => c.kind === 'intercept')).toEqual([])
    expect(back.panels).toEqual(fed().panels)
    const again = applied(back, { op: 'setHookup', facts: { intercepts: true } })
    expect(again.planned).toEqual(fed().planned)
  })
})
