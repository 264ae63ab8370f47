import { tailrace5k, weirgateCombiner } from '../equipment/fixtures/parts'
import type { Adapter, Cord } from '../equipment/hookup-kinds'
import type { Link } from '../hookup/design'
import { circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { evaluate } from './evaluate'
import { ampsAt, gapsIn, linkOf, outletOwner, pathOutlet, pathSide, proposedPath, withAdapter } from './path'

const cord: Cord = {
  kind: 'cord',
  id: 'cord-30',
  name: 'Cord L14-30',
  version: 1,
  from: 'L14-30',
  to: 'L14-30',
  ratingA: 30,
  size: '10',
  lengthFt: 25,
  listed: true,
}
const adapter: Adapter = {
  kind: 'adapter',
  id: 'tt-l14',
  name: 'TT-30 to L14-30',
  version: 1,
  from: 'TT-30',
  to: 'L14-30',
  ratingA: 30,
  listed: true,
}
const inlet = (hookup: Partial<Job['hookup']> = {}): Job['hookup'] => ({
  method: 'interlocked-inlet',
  bondingPlug: false,
  ...hookup,
})
const split = {
  station: splitStation({ outlets: [{ type: 'L14-30', count: 1 }] }),
  arrangement: 'split-phase' as const,
}

describe('the outlet that the path begins at', () => {
  test('the one its first plug goes into, else the one that carries most', () => {
    const outlets = {
      station: station({
        outlets: [
          { type: '5-20', count: 2 },
          { type: 'TT-30', count: 1 },
        ],
      }),
    }
    expect(pathOutlet(job([], { source: outlets }))).toEqual({ type: 'TT-30' })
    const small: Link = { ...linkOf({ ...cord, from: '5-20' }, 'l1') }
    expect(pathOutlet(job([], { source: outlets, hookup: inlet({ path: [small] }) }))).toEqual({
      type: '5-20',
    })
  })

  test('with two hots apart an outlet of one hot is passed over', () => {
    const both = {
      ...split,
      station: splitStation({
        outlets: [
          { type: 'TT-30', count: 1 },
          { type: 'L14-20', count: 1 },
        ],
      }),
    }
    expect(pathOutlet(job([], { source: both }))).toEqual({ type: 'L14-20' })
  })

  test('its own limit counts where it is below its connector’s', () => {
    expect(ampsAt({ type: 'L14-30' })).toBe(30)
    expect(ampsAt({ type: 'L14-30', limitA: 25 })).toBe(25)
    expect(ampsAt({ type: '5-15', limitA: 40 })).toBe(15)
  })

  test('no source, no outlet; the combiner’s or the transformer’s where that is where one plugs in', () => {
    const { source: _, ...none } = job([])
    expect(pathOutlet(none as Job)).toBeNull()
    const owner = (source: object) => outletOwner(job([], { source }))
    expect(owner({})).toBe('Test station')
    expect(owner({ arrangement: 'combined', combiner: weirgateCombiner })).toBe('combiner')
    expect(owner({ arrangement: 'autotransformer', autotransformer: tailrace5k })).toBe('transformer-5k')
    const { outlets: _o, ...wired } = tailrace5k
    expect(owner({ arrangement: 'autotransformer', autotransformer: wired })).toBe('Test station')
  })
})

describe('what of the legs flows through it', () => {
  const side = (source: object) => {
    const { source: of } = job([], { source })
    if (!of) throw new Error('no source')
    return pathSide(of)
  }
  test('tied: all of it at 120 V; split phase: each leg by itself at 240 V', () => {
    expect(side({})).toEqual({ volts: 120, apart: false, lossFactor: 1 })
    expect(side(split)).toEqual({ volts: 240, apart: true, lossFactor: 1 })
  })
  test('ahead of a wired transformer all flows through one hot, its losses on top', () => {
    const { outlets: _, ...wired } = tailrace5k
    expect(side({ arrangement: 'autotransformer', autotransformer: wired })).toEqual({
      volts: 120,
      apart: false,
      lossFactor: 1 / 0.94,
    })
    expect(side({ arrangement: 'autotransformer', autotransformer: tailrace5k }).apart).toBe(true)
  })

  test('1,800 VA on L1 and 600 on L2: 20 A flow tied, 15 A split', () => {
    const circuits = [circuit(1, { loads: [load(1800)] }), circuit(3, { loads: [load(600)] })]
    const dropV = (source: object) =>
      evaluate(job(circuits, { source, hookup: inlet({ path: [linkOf(cord, 'l1')] }) })).path?.result.dropV ??
      0
    const tied = dropV({ station: station({ outlets: [{ type: 'L14-30', count: 1 }] }) })
    const apart = dropV(split)
    // the same cord: what is lost is in proportion to what flows
    expect(apart).toBeGreaterThan(0)
    expect(tied / apart).toBeCloseTo(20 / 15, 6)
  })

  test('without a path or a source nothing is worked', () => {
    expect(evaluate(job([])).path).toBeNull()
  })
})

describe('where it does not join', () => {
  test('a plug that does not fit is a gap, with the adapter that may stand there and the catalogue’s', () => {
    const j = job([], { hookup: inlet({ path: [linkOf(cord, 'l1')] }) })
    expect(gapsIn(j, [adapter])).toMatchObject([
      { at: 0, receptacle: 'TT-30', plug: 'L14-30', known: adapter },
    ])
    expect(gapsIn(j, [])[0]?.known).toBeUndefined()
    expect(
      gapsIn(job([], { source: split, hookup: inlet({ path: [linkOf(cord, 'l1')] }) }), [adapter]),
    ).toEqual([])
  })

  test('a gap between two links is told at the second; the adapter put there closes it', () => {
    const path = [linkOf({ ...cord, to: 'TT-30' }, 'a'), linkOf(cord, 'b')]
    const j = job([], { source: split, hookup: inlet({ path }) })
    const [gap] = gapsIn(j, [adapter])
    expect(gap).toMatchObject({ at: 1, receptacle: 'TT-30', plug: 'L14-30' })
    const mended = withAdapter(path, gap?.at ?? 0, adapter, 'x')
    expect(mended.map(l => l.id)).toEqual(['a', 'x', 'b'])
    expect(gapsIn(job([], { source: split, hookup: inlet({ path: mended }) }), [adapter])).toEqual([])
  })

  test('an adapter with a breaker of its own brings it along', () => {
    const [link] = withAdapter([], 0, { ...adapter, breakerA: 20 }, 'x')
    expect(link).toMatchObject({ kind: 'adapter', ownBreakerA: 20, listed: true })
  })
})

describe('a path to begin with', () => {
  const has = { cords: [cord], adapters: [adapter], inlets: [] }
  test('outlet, adapter where one may be, cord, inlet, wire, breaker', () => {
    const links = proposedPath(job([], { hookup: inlet() }), has)
    expect(links?.map(l => l.kind)).toEqual(['adapter', 'cord', 'inlet', 'wire', 'breaker'])
    expect(proposedPath(job([], { source: split, hookup: inlet() }), has)?.map(l => l.kind)).toEqual([
      'cord',
      'inlet',
      'wire',
      'breaker',
    ])
  })

  test.each([
    [15, '12'],
    [20, '12'],
    [30, '10'],
    [40, '8'],
    [50, '6'],
  ])('behind a backfed breaker of %d A the wire is %s AWG', (breakerA, size) => {
    const big = {
      kind: 'inlet' as const,
      id: 'i',
      name: 'Inlet 50',
      version: 1,
      type: '14-50' as const,
      ratingA: 50,
    }
    const links = proposedPath(
      job([], { hookup: inlet({ inlet: big, backfed: { breakerA, heldDown: true } }) }),
      has,
    )
    expect(links?.find(l => l.kind === 'wire')).toMatchObject({ size, ratingA: breakerA })
  })

  test('an appliance that is plugged in takes one cord; an undecided hook-up none', () => {
    const by = (method: Job['hookup']['method']) =>
      proposedPath(job([], { source: split, hookup: { method, bondingPlug: false } }), has)
    expect(by('cord-and-plug')?.map(l => l.kind)).toEqual(['cord'])
    expect(by('undecided')).toBeNull()
  })
})
