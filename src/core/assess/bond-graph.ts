import { neutralOf } from '../hookup/neutral-of'
import { reachedPanels, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'

/**
 * Neutral and ground of the whole installation while the source runs, as a graph: places that have a neutral are nodes, and
 * what joins their neutrals are edges. A bond at a node counts for everything that its neutral is joined to. Nothing that
 * nobody stated is guessed: an unknown counts only where it changes what is found.
 */

export type NodeKind = 'house' | 'panel' | 'unit' | 'plug' | 'generator' | 'transformer' | 'combiner'

export interface NeutralNode {
  id: string
  kind: NodeKind
  /** as it stands in a sentence: `inside the Weirgate 36` */
  where: string
  name: string
  /** neutral and ground joined there */
  bond: 'bonded' | 'floating' | 'not stated'
  /** something that makes volts stands there */
  source: boolean
}

export interface NeutralEdge {
  from: string
  to: string
  joins: 'joined' | 'isolated' | 'not stated'
  /** what makes it, for the question: `the Lockstone’s neutral, source side to house side` */
  by: string
}

export interface NeutralGraph {
  nodes: NeutralNode[]
  edges: NeutralEdge[]
  /** the node whose neutral the loads on the source return to; null while nothing says how it is connected */
  output: string[]
}

/** The graph of a job, as it stands while the source runs. */
export function neutralGraph(job: Job): NeutralGraph {
  const { source, hookup } = job
  const nodes: NeutralNode[] = []
  const edges: NeutralEdge[] = []
  const neutral = neutralOf(job)
  const add = (node: NeutralNode) => {
    nodes.push(node)
    return node.id
  }
  const join = (from: string, to: string, joins: NeutralEdge['joins'], by: string) =>
    edges.push({ from, to, joins, by })

  const meetsHouse = neutral === 'hots-only'
  if (meetsHouse || charged(job)) addHouse(job, add, join)
  const units = source?.units ?? []
  for (const { id, equipment } of units)
    add({
      id: `unit-${id}`,
      kind: 'unit',
      name: equipment.name,
      where: `inside the ${equipment.name}`,
      bond: equipment.neutral ?? 'not stated',
      source: true,
    })
  let heads = units.map(u => `unit-${u.id}`)
  const [first] = heads
  const between =
    source?.arrangement === 'autotransformer' && source.autotransformer
      ? { kind: 'transformer' as const, equipment: source.autotransformer, of: heads.slice(0, 1) }
      : source?.arrangement === 'combined' && source.combiner
        ? { kind: 'combiner' as const, equipment: source.combiner, of: heads }
        : null
  if (between?.of.length) {
    const { kind, equipment, of } = between
    const { name, neutral: through = 'not stated' } = equipment
    const id = add({ id: kind, kind, name, where: `at the ${name}`, bond: 'floating', source: true })
    for (const head of of) join(head, id, through, `the ${name}: its neutral, source side to house side`)
    heads = [id]
  }
  // a plug without a unit still shows where it would be
  if (hookup.bondingPlug && (first || !meetsHouse)) {
    const id = add({
      id: 'plug',
      kind: 'plug',
      name: 'bonding plug',
      where: 'the bonding plug',
      bond: 'bonded',
      source: false,
    })
    if (first) join(first, id, 'joined', 'the bonding plug')
  }
  addGenerator(job, add, join)
  if (meetsHouse && hookup.sourceNeutral !== 'left off')
    for (const head of heads)
      join(head, panelNode(tiedPanel(job).id, job), 'joined', 'the neutral of the hook-up')
  // through a switch that throws the neutral too, the circuits return to the source alone: one system for all its units
  if (neutral === 'switched')
    for (const head of heads.slice(1))
      join(heads[0] ?? head, head, 'joined', 'the neutrals of the switched circuits')
  return { nodes, edges, output: heads }
}

const charged = ({ source }: Job) => source?.charging?.from === 'a circuit of the panel it feeds'

const panelNode = (id: string, job: Job) =>
  job.panels.find(p => p.id === id)?.supply === 'service' ? 'house' : `panel-${id}`

type Add = (node: NeutralNode) => string
type Join = (from: string, to: string, joins: NeutralEdge['joins'], by: string) => void

function addHouse(job: Job, add: Add, join: Join) {
  const service = job.panels.find(p => p.supply === 'service')
  const unbonded = job.panels.some(p => p.supply === 'service' && p.neutralBonded === false)
  add({
    id: 'house',
    kind: 'house',
    name: service?.name ?? 'service',
    where: 'the service of the house',
    bond: unbonded ? 'floating' : 'bonded',
    source: false,
  })
  const reached = reachedPanels(job)
  for (const panel of job.panels) {
    if (panel.supply === 'service' || !reached.has(panel.id)) continue
    const id = add({
      id: `panel-${panel.id}`,
      kind: 'panel',
      name: panel.name,
      where: panel.name,
      bond: panel.neutralBonded ? 'bonded' : 'floating',
      source: false,
    })
    join('house', id, 'joined', `the feeder of ${panel.name}`)
  }
}

/** What feeds the AC input: a generator, or a circuit of the house. Through an isolating charger its neutral ends there. */
function addGenerator(job: Job, add: Add, join: Join) {
  const { source } = job
  for (const unit of source?.units ?? []) {
    const { equipment } = unit
    const passes = equipment.kind === 'station' || equipment.kind === 'inverter'
    const through = passes ? (equipment.inputNeutral ?? 'not stated') : 'isolated'
    const by = `the ${equipment.name}: its neutral, AC input to output`
    if (charged(job) && unit === source?.units[0]) join('house', `unit-${unit.id}`, through, by)
    const { generator } = source ?? {}
    if (!generator || unit !== source?.units[0]) continue
    const id = add({
      id: 'generator',
      kind: 'generator',
      name: generator.equipment.name,
      where: `inside the ${generator.equipment.name}`,
      bond: generator.equipment.neutral,
      source: true,
    })
    join(id, `unit-${unit.id}`, generator.through === 'an isolating charger' ? 'isolated' : through, by)
  }
}

/** Everything whose neutrals are joined, as one system; `joined` says which unknown edges are taken as joined. */
export function systemsOf(
  { nodes, edges }: Pick<NeutralGraph, 'nodes' | 'edges'>,
  joined: (edge: NeutralEdge) => boolean = e => e.joins === 'joined',
): NeutralNode[][] {
  const root = new Map(nodes.map(n => [n.id, n.id]))
  const find = (id: string): string => {
    const up = root.get(id)
    return up === undefined || up === id ? id : find(up)
  }
  for (const edge of edges) if (joined(edge)) root.set(find(edge.from), find(edge.to))
  const systems = new Map<string, NeutralNode[]>()
  for (const node of nodes) {
    const at = find(node.id)
    systems.set(at, [...(systems.get(at) ?? []), node])
  }
  return [...systems.values()]
}

/** What the bonds come to: of the system that the loads return to, and of any other that holds two. */
export interface Counted {
  /** bonds of the output's system, in order */
  bonds: NeutralNode[]
  /** of the fullest system with a source in it */
  most: NeutralNode[]
  house: boolean
}

/** The bonds under one reading of what is not stated. */
function countedUnder(
  graph: NeutralGraph,
  isJoined: (e: NeutralEdge) => boolean,
  isBonded: (n: NeutralNode) => boolean,
) {
  const systems = systemsOf(graph, isJoined)
  const bondsOf = (system: readonly NeutralNode[]) => system.filter(isBonded)
  const [head] = graph.output
  const own = systems.find(s => s.some(n => n.id === head)) ?? systems[0] ?? []
  const most = systems
    .filter(s => s.some(n => n.source))
    .map(bondsOf)
    .reduce((a, b) => (b.length > a.length ? b : a), bondsOf(own))
  return { bonds: bondsOf(own), most, house: own.some(n => n.kind === 'house') }
}

/** The bonds as stated, and the unknowns that would change the verdict, in words. */
export function bondsOf(graph: NeutralGraph): { counted: Counted; matters: string[] } {
  const counted = countedUnder(
    graph,
    e => e.joins === 'joined',
    n => n.bond === 'bonded',
  )
  const edges = graph.edges.filter(e => e.joins === 'not stated')
  const verdict = ({ bonds, most }: Counted) => `${Math.min(2, most.length)} ${Math.min(1, bonds.length)}`
  const names = [...new Set(edges.map(e => e.by))]
  // each unknown way of joining, taken one way and the other, whatever the rest is
  const matters = names.filter(name => {
    const others = names.filter(n => n !== name)
    return Array.from({ length: 2 ** others.length }, (_, bits) => {
      const on = new Set(others.filter((_, i) => bits & (1 << i)))
      const under = (joined: boolean) =>
        verdict(
          countedUnder(
            graph,
            e =>
              e.joins === 'joined' || (e.joins === 'not stated' && (e.by === name ? joined : on.has(e.by))),
            n => n.bond === 'bonded',
          ),
        )
      return under(true) !== under(false)
    }).some(Boolean)
  })
  return { counted, matters }
}
