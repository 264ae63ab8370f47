import fc from 'fast-check'
import { demoJobs } from '@/server/seeds/jobs'
import type { CircuitNeed } from '../assess/needs'
import { proofOf } from '../commission/scene'
import { withHookupChanges, withoutHookup } from '../job/hookup-changes'
import type { Job } from '../job/schema'
import { jobArrangements } from '../source/arrangement'
import { cardOf } from './card'
import { directionsOf, isLocked, staysOff } from './steps'
import { walkCard } from './walk'

/** What a panel may be in the field: any picks, importance, compressors, handles in common, breakers kept off. */
const houses = fc
  .record({
    base: fc.constantFrom(...demoJobs.map(d => d.job)),
    method: fc.constantFrom(
      'interlocked-inlet' as const,
      'sub-panel-interlock' as const,
      'extension-cords' as const,
      null,
    ),
    arrangement: fc.constantFrom(...jobArrangements),
    seeds: fc.array(fc.nat(9999), { minLength: 50, maxLength: 50 }),
  })
  .map(({ base, method, arrangement, seeds }): Job => {
    const fed = new Set(base.panels.map(p => p.feederId))
    const panels = base.panels.map(panel => {
      const circuits = panel.circuits.map((c, n) => {
        const seed = seeds[n % seeds.length] ?? 0
        const loads = c.loads.map(l =>
          seed % 5 === 0 && l.nature === 'plain' ? { ...l, nature: 'compressor' as const } : l,
        )
        return fed.has(c.id) || c.purpose !== 'loads'
          ? c
          : {
              ...c,
              loads,
              picked: seed % 3 !== 0,
              tier: ((seed % 3) + 1) as 1 | 2 | 3,
              ...(seed % 11 === 0 && { lockedOff: true }),
            }
      })
      // one-poles above each other may share a handle
      const tied = circuits.map((c, n) => {
        const other = circuits.find(
          o => c.poles === 1 && o.poles === 1 && !c.half && !o.half && o.position === c.position + 2,
        )
        return {
          c,
          other: (seeds[n % seeds.length] ?? 0) % 7 === 0 && !c.tie && !other?.tie ? other : undefined,
        }
      })
      const pairs = new Map<string, string>()
      for (const { c, other } of tied)
        if (other && !pairs.has(c.id) && !pairs.has(other.id)) {
          pairs.set(c.id, other.id)
          pairs.set(other.id, c.id)
        }
      return {
        ...panel,
        circuits: circuits.map(c => {
          const other = pairs.get(c.id)
          return other ? { ...c, tie: { with: other, kind: 'handle' as const } } : c
        }),
      }
    })
    const job = { ...base, panels }
    const bare = withoutHookup(job)
    const next =
      method === null || method === base.hookup.method
        ? job
        : withHookupChanges({
            ...bare,
            hookup: { ...bare.hookup, method, backfed: { breakerA: 30, heldDown: true } },
          })
    return next.source ? { ...next, source: { ...next.source, arrangement } } : next
  })

const nameOf = (n: CircuitNeed) => `${n.position} ${n.circuit.label || 'unlabelled'}`

test('in any house, whatever is picked, tied and arranged, the card works out both ways, and names all that lives', () => {
  let walked = 0
  fc.assert(
    fc.property(houses, job => {
      const card = cardOf(job)
      if (!card.ok) return
      walked++
      const p = proofOf(job)
      // all that may be wrong is what the reader said: locked off, and on one handle with what lives
      const off = staysOff(p)
      const pairs = p.served.flatMap(s => {
        const other = off.find(n => n.circuit.id === s.circuit.tie?.with)
        return other ? [[nameOf(s), nameOf(other), isLocked(p, other)] as const] : []
      })
      expect(pairs.every(([, , locked]) => locked)).toBe(true)
      // one of each such pair comes on, or stays dark: the card says so, and nothing else is wrong
      const { wrong } = card.value
      const named = wrong.map(w => w.of)
      expect(named.filter(of => !pairs.some(pair => pair.includes(of)))).toEqual([])
      expect(pairs.filter(([a, b]) => !named.includes(a) && !named.includes(b))).toEqual([])
      const directions = directionsOf(p)
      if (!directions) throw new Error('a card without directions')
      const { alive, ends } = walkCard(p, directions)
      if (!wrong.length) expect(alive).toEqual(expect.arrayContaining(p.served.map(nameOf)))
      expect(ends.back).toMatchObject(p.states.utility)
      // what stays off is named once: locked, or left off
      const both = card.value.locked.filter(c => card.value.leftOff.includes(c))
      expect(both).toEqual([])
    }),
    { numRuns: 150 },
  )
  expect(walked).toBeGreaterThan(60)
})

test.each([
  [
    'multi-circuit-switch',
    'Alder Hollow',
    ['look', 'sourceBring', 'cordIn', 'sourceOn', 'positionsSource', 'positionsSource'],
    ['sure', 'positionsOff', 'positionsLine', 'positionsLine', 'sourceOff', 'cordOut', 'recharge'],
  ],
  [
    'interlocked-inlet',
    'Saltmarsh',
    [
      'look',
      'branchesOff',
      'mainOff',
      'sourceBring',
      'cordIn',
      'sourceOn',
      'backfedOn',
      'breakersOn',
      'breakersOn',
    ],
    [
      'sure',
      'branchesOff',
      'backfedOff',
      'mainOn',
      'sourceOff',
      'cordOut',
      'othersOn',
      'breakersOn',
      'recharge',
    ],
  ],
  ['critical-subpanel', 'Quarry', ['look', 'itselfThere', 'itselfSparing'], ['itselfBack']],
  [
    'cord-and-plug',
    'Fernbrook',
    ['look', 'sourceBring', 'sourceOn', 'plugsSource'],
    ['sure', 'plugsHouse', 'sourceOff', 'recharge'],
  ],
])('the lines of a card by %s stand in the order of hands', (_, title, to, back) => {
  const job = demoJobs.map(d => d.job).find(j => j.title.startsWith(title))
  const card = job && cardOf(job)
  if (!card?.ok) throw new Error('no card')
  expect(card.value.to.map(l => l.say)).toEqual(to)
  expect(card.value.back.map(l => l.say)).toEqual(back)
})
