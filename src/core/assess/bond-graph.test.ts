import fc from 'fast-check'
import { freshet18, tailrace5k, weirgateCombiner } from '../equipment/fixtures/parts'
import { methodIds } from '../hookup/method'
import { job, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { bondsOf, type NeutralGraph, neutralGraph, systemsOf } from './bond-graph'

const joins = fc.constantFrom('joined' as const, 'isolated' as const)
const anyHouse = fc.record({
  method: fc.constantFrom(...methodIds),
  plug: fc.boolean(),
  lands: fc.constantFrom('lands' as const, 'left off' as const),
  unit: fc.constantFrom('bonded' as const, 'floating' as const),
  generator: fc.constantFrom('bonded' as const, 'floating' as const, null),
  input: joins,
  through: joins,
  kind: fc.constantFrom('tied' as const, 'autotransformer' as const, 'combined' as const),
})
const housed = (h: typeof anyHouse extends fc.Arbitrary<infer T> ? T : never): Job => {
  const equipment = station({ neutral: h.unit, inputNeutral: h.input })
  const unit = (id: string) => ({ id, equipment, expansionUnits: 0, owned: false })
  return job([], {
    hookup: { method: h.method, bondingPlug: h.plug, sourceNeutral: h.lands },
    source: {
      units: h.kind === 'combined' ? [unit('u1'), unit('u2')] : [unit('u1')],
      arrangement: h.kind,
      autotransformer: { ...tailrace5k, neutral: h.through },
      combiner: { ...weirgateCombiner, pairs: [], neutral: h.through },
      ...(h.generator && {
        generator: {
          equipment: { ...freshet18, neutral: h.generator },
          gallons: 5,
          where: 'outdoors' as const,
          owned: true,
        },
      }),
    },
  })
}

/** What a node is joined to, by walking the edges. */
function walked({ nodes, edges }: NeutralGraph, from: string): Set<string> {
  const seen = new Set([from])
  for (const id of seen)
    for (const e of edges)
      if (e.joins === 'joined' && (e.from === id || e.to === id)) seen.add(e.from === id ? e.to : e.from)
  return new Set(nodes.filter(n => seen.has(n.id)).map(n => n.id))
}

test('a bond counts for all that its neutral is joined to, as walking the edges finds; stated, nothing is asked', () => {
  fc.assert(
    fc.property(anyHouse, h => {
      const graph = neutralGraph(housed(h))
      const { counted, matters } = bondsOf(graph)
      const [head = ''] = graph.output
      const own = walked(graph, head)
      expect(counted.bonds.map(n => n.id).sort()).toEqual(
        graph.nodes
          .filter(n => own.has(n.id) && n.bond === 'bonded')
          .map(n => n.id)
          .sort(),
      )
      expect(systemsOf(graph).flat()).toHaveLength(graph.nodes.length)
      expect(matters).toEqual([])
    }),
  )
})

test('what is not stated is asked exactly where joined and isolated come to different counts', () => {
  fc.assert(
    fc.property(anyHouse, h => {
      const count = (input: 'joined' | 'isolated') => {
        const { counted } = bondsOf(neutralGraph(housed({ ...h, input })))
        return `${Math.min(2, counted.most.length)} ${Math.min(1, counted.bonds.length)}`
      }
      const silent = neutralGraph(housed(h))
      const edges = silent.edges.map(e =>
        /AC input/.test(e.by) ? { ...e, joins: 'not stated' as const } : e,
      )
      const { matters } = bondsOf({ ...silent, edges })
      expect(matters.length > 0).toBe(count('joined') !== count('isolated'))
    }),
  )
})
