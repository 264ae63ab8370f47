import { compareMethods } from '../assess/compare-methods'
import { groundingOf } from '../assess/grounding'
import { gapsIn, pathOutlet, proposedPath, withAdapter } from '../assess/path'
import {
  freshet18,
  inletL1430,
  interlockW,
  riffle6,
  ripple410,
  tailrace5k,
} from '../equipment/fixtures/parts'
import type { Adapter, Cord } from '../equipment/hookup-kinds'
import { oneLineSvg } from '../formats/one-line-svg'
import { circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { oneLineOf } from '../work/one-line'
import { methodIds } from './method'

const head = { version: 1, listed: true, ratingA: 30 }
const cord: Cord = {
  ...head,
  kind: 'cord',
  id: 'cord',
  name: 'Cord',
  from: 'L14-30',
  to: 'L14-30',
  size: '10',
  lengthFt: 25,
}
const adapter: Adapter = { ...head, kind: 'adapter', id: 'ad', name: 'Adapter', from: 'TT-30', to: 'L14-30' }
const catalogue = [riffle6, interlockW, inletL1430, cord, adapter]
const hookup = (facts: Partial<Job['hookup']>) => ({
  hookup: { method: 'interlocked-inlet' as const, bondingPlug: false, ...facts },
})
const house = [
  circuit(3, { tier: 1, loads: [load(300)] }),
  circuit(5, { loads: [load(200)] }),
  circuit(7, { poles: 2, tier: 1, loads: [load(400)] }),
]
const split = { source: { station: splitStation(), arrangement: 'split-phase' as const } }
const named = (j: Job) => new Map(compareMethods(j, catalogue).map(m => [m.method, m]))

test('every method is judged on the house, one recommended, and each of the rest has a reason of its own', () => {
  const methods = compareMethods(job(house, split), catalogue)
  expect(methods.map(m => m.method).sort()).toEqual(
    methodIds.filter(m => m !== 'undecided' && m !== 'backfeed-unprotected').sort(),
  )
  expect(methods.filter(m => m.recommended)).toHaveLength(1)
  for (const m of methods) expect(m.reason.length).toBeGreaterThan(20)
})

test('reasons come from the job: what stays dark, what must be automatic, what is full, what it may cost', () => {
  const plain = named(job(house, split))
  expect(plain.get('extension-cords')?.reason).toMatch(/leaves 7·9 circuit 7 dark, which must run/)
  expect(plain.get('single-circuit-switch')).toMatchObject({ serves240: 0, of240: 1 })
  expect(plain.get('critical-subpanel')?.reason).toMatch(/needs an inverter with its own transfer/)
  const must = named(job(house, { ...split, brief: { wants: [], automatic: 'must' } }))
  expect(must.get('interlocked-inlet')?.reason).toMatch(/must come on by itself/)
  const full = Array.from({ length: 12 }, (_, i) => circuit(i + 1, { loads: [load(20)] }))
  expect(named(job(full, split)).get('interlocked-inlet')?.reason).toMatch(/Main panel is full/)
  const cheap = job(house, {
    ...split,
    ...hookup({ method: 'undecided' }),
    brief: { wants: [], budget: 100 },
  })
  const priced = compareMethods(cheap, [{ ...riffle6, price: 330 }])
  expect(priced.find(m => m.method === 'multi-circuit-switch')?.reason).toMatch(
    /begins at \$420; \$100 were named/,
  )
})

test('a burner is not reached by cords; circuits led away take any leg; the pair of breakers has its place beside the main', () => {
  const burner = job([circuit(3, { tier: 1, loads: [load(90, { needsBond: true })] })], {
    source: { arrangement: 'one-leg', liveLeg: 'L1' },
  })
  const methods = named(burner)
  expect(methods.get('extension-cords')?.served).toEqual([])
  expect(methods.get('interlocked-inlet')?.served).toEqual([])
  expect(methods.get('multi-circuit-switch')?.served).toEqual(['3 circuit 3'])
  expect(methods.get('interlocked-inlet')?.facts.backfed?.space).toBe(2)
})

test('bonds are counted where they are: the house, inside a unit, a plug, a panel fed from another', () => {
  const where = (j: Job) => groundingOf(j).bonds.map(b => b.at)
  expect(where(job([], hookup({})))).toEqual(['house'])
  expect(
    where(job([], { ...hookup({ bondingPlug: true }), source: { station: station({ neutral: 'bonded' }) } })),
  ).toEqual(['house', 'unit', 'plug'])
  expect(where(job([], hookup({ method: 'single-circuit-switch' })))).toEqual([])
  const fed = job([], { ...hookup({}), panel: { supply: 'fed from another panel', neutralBonded: true } })
  expect(where(fed)).toEqual(['house', 'panel'])
  // the device chosen decides over the habit of its kind
  expect(groundingOf(job([], hookup({ method: 'single-circuit-switch', switch: riffle6 }))).neutral).toBe(
    'hots-only',
  )
})

test('a path is proposed from outlet to breaker, with the adapter that may exist; a gap names what is missing', () => {
  const parts = { cords: [cord], adapters: [adapter], inlets: [inletL1430] }
  const j = job(house, hookup({ inlet: inletL1430 }))
  const path = proposedPath(j, parts)
  expect(path?.map(l => l.kind)).toEqual(['adapter', 'cord', 'inlet', 'wire', 'breaker'])
  const broken = job(house, hookup({ path: path?.slice(1) }))
  expect(pathOutlet(broken)?.type).toBe('TT-30')
  const [gap] = gapsIn(broken, [adapter])
  expect(gap).toMatchObject({ at: 0, receptacle: 'TT-30', plug: 'L14-30', known: { id: 'ad' } })
  const mended = withAdapter(broken.hookup.path ?? [], 0, adapter, 'x')
  expect(gapsIn(job(house, hookup({ path: mended })), [adapter])).toEqual([])
  expect(proposedPath(job(house, hookup({ method: 'undecided' })), parts)).toBeNull()
})

const parts = (j: Job) => oneLineOf(j).parts.map(p => p.kind)

test('the one-line holds what the job holds, joins all of it, and marks bonds and the electrode', () => {
  const j = job(house, {
    ...hookup({ inlet: inletL1430, interlock: interlockW }),
    source: {
      station: station({ solar: { count: 1, minV: 10, maxV: 60 } }),
      arrangement: 'autotransformer',
      autotransformer: tailrace5k,
      generator: { equipment: freshet18, gallons: 2, where: 'outdoors', owned: true },
      arrays: [{ id: 'a', unitId: 'u1', module: ripple410, series: 1, parallel: 1, owned: false }],
    },
  })
  expect(parts(j).sort()).toEqual(
    [
      'utility',
      'meter',
      'panel',
      'interlock',
      'unit',
      'array',
      'generator',
      'transformer',
      'inlet',
      'loads',
    ].sort(),
  )
  const { parts: drawn, lines } = oneLineOf(j)
  const joined = new Set(lines.flatMap(l => [l.from, l.to]))
  expect(drawn.filter(p => !joined.has(p.id))).toEqual([])
  expect(drawn.find(p => p.kind === 'panel')).toMatchObject({ bond: 'bonded', electrode: true })
  expect(lines.filter(l => l.exclusive)).toHaveLength(2)
})

test('each hook-up draws its own transfer: a switch with its hots, an inverter that passes through, cords that never meet the house', () => {
  expect(parts(job(house, hookup({ method: 'multi-circuit-switch', switch: riffle6 })))).toContain('switch')
  expect(parts(job(house, hookup({ method: 'backfeed-unprotected' })))).toContain('breaker')
  const alone = oneLineOf(job(house, hookup({ method: 'extension-cords' })))
  expect(alone.lines.some(l => l.from.startsWith('unit') && l.to !== 'appliances')).toBe(false)
  const grid = job([circuit(2, { purpose: 'solar', poles: 2, picked: false })], hookup({}))
  expect(parts(grid)).toContain('solar')
})

test('the drawing is whole XML whatever the names hold, the same each time, and links each part where asked', () => {
  const odd = { ...job(house, hookup({})), title: '<&"\u0001>'.repeat(9) }
  const sheet = { firm: 'A & B', revision: 3, on: '2026-03-01' }
  const svg = oneLineSvg(odd, sheet, p => `/x#${p.id}`)
  expect(svg).toBe(oneLineSvg(odd, sheet, p => `/x#${p.id}`))
  expect(svg).not.toContain('\u0001')
  expect(svg).not.toMatch(/NaN|undefined/)
  expect(svg.match(/<a /g)?.length).toBe(oneLineOf(odd).parts.length)
  expect(oneLineSvg(odd, sheet)).not.toContain('<a ')
})
