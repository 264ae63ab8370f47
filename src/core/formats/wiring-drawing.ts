import { Graph, layout } from '@dagrejs/dagre'
import type { Conductor, Device, End, WiringPlan } from '../work/wiring/parts'
import { shortened } from './svg-text'

/** A piece of a drawing, in px from the upper left: for a screen, a sheet or a file alike. */
export type Shape =
  | { kind: 'box'; x: number; y: number; w: number; h: number; weight: 'enclosure' | 'device' }
  | {
      kind: 'text'
      x: number
      y: number
      size: number
      bold: boolean
      text: string
      end?: boolean
      /** with a rim of paper, where it lies on lines */
      rimmed?: boolean
    }
  | { kind: 'dot'; x: number; y: number }
  | Wire

/** A conductor as a line from terminal to terminal. */
export interface Wire {
  kind: 'wire'
  id: string
  /** from end to end; between two of them it leaves and comes in level, by so much */
  points: readonly Point[]
  pulls: readonly [number, number][]
  ink: WireInk
  /** it lies there already */
  there: boolean
  circuitId: string | null
  route: string
}

export interface Point {
  x: number
  y: number
}

export type WireInk = 'black' | 'red' | 'white' | 'green' | 'bare'

export interface Drawing {
  width: number
  height: number
  shapes: Shape[]
}

const rowPx = 17
const headPx = 20
const padPx = 8
const gapPx = 6
const charPx = 5.9
const widestChars = 44
const apartPx = 200
const loopPx = 46
const lanePx = 3.5
const inWalls = 'the house'

interface Row {
  device: Device
  terminal: string
  text: string
}
interface Block {
  device: Device
  /** a line of its own with the name; a splice is one row */
  head: string | null
  rows: Row[]
}

/** A device with the terminals that something ends at. */
function blockOf(device: Device, used: ReadonlySet<string>): Block {
  const [only] = device.terminals
  if (device.kind === 'splice' && only)
    return { device, head: null, rows: [{ device, terminal: only.id, text: device.name }] }
  return {
    device,
    head: device.name === device.within ? null : device.name,
    rows: device.terminals
      .filter(t => used.has(keyOf({ device: device.id, terminal: t.id })))
      .map(t => ({ device, terminal: t.id, text: t.name })),
  }
}

const heightOf = (blocks: readonly Block[]) =>
  headPx + blocks.reduce((sum, b) => sum + (b.head ? rowPx : 0) + b.rows.length * rowPx + gapPx, 0) + padPx
const widthOf = (name: string, blocks: readonly Block[]) =>
  Math.max(
    130,
    2 * padPx +
      20 +
      charPx *
        Math.min(
          widestChars,
          Math.max(
            name.length * 1.1,
            ...blocks.flatMap(b => [(b.head?.length ?? 0) * 1.2, ...b.rows.map(r => r.text.length + 2)]),
          ),
        ),
  )

/** The ink that a wire’s colour is drawn with. */
export function inkOf(c: Pick<Conductor, 'colour' | 'function' | 'leg'>): WireInk {
  const [word] = c.colour.split(',')
  if (word === 'black' || word === 'red' || word === 'white' || word === 'green' || word === 'bare')
    return word
  // as it comes, as found: by what it does
  if (c.function === 'neutral') return 'white'
  if (c.function === 'ground') return 'green'
  return c.function === 'plus' || c.leg === 'L2' ? 'red' : 'black'
}

const keyOf = ({ device, terminal }: End) => `${device}\u0000${terminal}`

/**
 * The wiring plan as a drawing: enclosures side by side in the order in which power comes, devices in them with their terminals, each
 * conductor a line in its colour with its mark. Places by dagre.
 */
export function wiringDrawing(plan: WiringPlan): Drawing {
  if (!plan.conductors.length) return { width: 0, height: 0, shapes: [] }
  const used = new Set(plan.conductors.flatMap(c => [keyOf(c.from), keyOf(c.to)]))
  const byEnclosure = new Map<string, Block[]>()
  for (const device of plan.devices) {
    const block = blockOf(device, used)
    if (block.rows.length) byEnclosure.set(device.within, [...(byEnclosure.get(device.within) ?? []), block])
  }
  const within = new Map(plan.devices.map(d => [d.id, d.within]))
  const graph = new Graph()
  graph.setGraph({ rankdir: 'LR', nodesep: 36, ranksep: apartPx, marginx: 20, marginy: 20 })
  graph.setDefaultEdgeLabel(() => ({}))
  for (const [name, blocks] of byEnclosure)
    graph.setNode(name, { width: widthOf(name, blocks), height: heightOf(blocks) })
  for (const c of plan.conductors) {
    const [a, b] = [within.get(c.from.device), within.get(c.to.device)]
    if (a === undefined || b === undefined || a === b) continue
    // the wires in the walls stand before the panel that they come out of
    const [first, then] = b === inWalls ? [b, a] : [a, b]
    if (!graph.hasEdge(then, first)) graph.setEdge(first, then)
  }
  layout(graph)
  const shapes: Shape[] = []
  const places = new Map<string, { y: number; left: number; right: number }>()
  for (const [name, blocks] of byEnclosure) {
    const { x, y, width: w, height: h } = graph.node(name)
    const [left, top] = [x - w / 2, y - h / 2]
    const most = Math.floor((w - 2 * padPx) / charPx)
    shapes.push({ kind: 'box', x: left, y: top, w, h, weight: 'enclosure' })
    shapes.push({
      kind: 'text',
      x: left + padPx,
      y: top + 14,
      size: 12,
      bold: true,
      text: shortened(name, most),
    })
    let at = top + headPx
    for (const { device, head, rows } of blocks) {
      const tall = (head ? rowPx : 0) + rows.length * rowPx
      const framed = device.kind !== 'splice'
      if (framed) shapes.push({ kind: 'box', x: left + 4, y: at, w: w - 8, h: tall, weight: 'device' })
      if (head) {
        shapes.push({
          kind: 'text',
          x: left + padPx + 2,
          y: at + 12,
          size: 11,
          bold: true,
          text: shortened(head, most),
        })
      }
      if (head) at += rowPx
      for (const { terminal, text } of rows) {
        places.set(keyOf({ device: device.id, terminal }), { y: at + rowPx / 2, left, right: left + w })
        shapes.push({
          kind: 'text',
          x: left + padPx + 10,
          y: at + 12,
          size: 10,
          bold: false,
          text: shortened(text, most),
        })
        at += rowPx
      }
      at += gapPx
    }
  }
  let inside = 0
  const told = new Set<string>()
  const lanes = new Map<string, number>()
  const laneOf = (key: string) => {
    const n = lanes.get(key) ?? 0
    lanes.set(key, n + 1)
    return n
  }
  for (const c of plan.conductors) {
    const [a, b] = [places.get(keyOf(c.from)), places.get(keyOf(c.to))]
    if (!a || !b) continue
    const [from, to] = [within.get(c.from.device) ?? '', within.get(c.to.device) ?? '']
    const same = from === to
    const forth = a.left + a.right < b.left + b.right
    // several that end together lie beside each other
    const beside = laneOf(`${keyOf(c.from)} ${keyOf(c.to)}`) * lanePx
    // inside one enclosure it goes out on the right and comes back
    const first = { x: same || forth ? a.right : a.left, y: a.y + beside }
    const last = { x: same || !forth ? b.right : b.left, y: b.y + beside }
    const over = same ? [] : between(graph, from, to, laneOf(`${from} ${to}`) * lanePx)
    const points = [first, ...over, last]
    const loop = loopPx + (same ? (inside++ % 5) * 7 : 0)
    const pulls = points.slice(1).map((p, n): [number, number] => {
      if (same) return [loop, loop]
      const pull = Math.max(50, Math.abs(p.x - (points[n]?.x ?? p.x)) * 0.45) * (forth ? 1 : -1)
      return [pull, -pull]
    })
    shapes.push({
      kind: 'wire',
      id: c.id,
      points,
      pulls,
      ink: inkOf(c),
      there: c.comes === 'there already',
      circuitId: c.circuitId,
      route: c.route,
    })
    shapes.push({ kind: 'dot', x: first.x, y: a.y }, { kind: 'dot', x: last.x, y: b.y })
    if (!same && c.comes !== 'there already' && !beside) {
      // where another wire is told of at that end already, this one is told of at its other
      const here = !told.has(keyOf(c.from))
      told.add(keyOf(here ? c.from : c.to))
      const end = here ? first : last
      const rightward = here === forth
      shapes.push({
        kind: 'text',
        x: rightward ? end.x + 7 : end.x - 7,
        y: (here ? a : b).y - 3,
        size: 9,
        bold: false,
        text: shortened(`${c.mark} · ${c.size ? `${c.size} ` : ''}${c.colour}`, 36),
        rimmed: true,
        ...(!rightward && { end: true }),
      })
    }
  }
  const { width = 0, height = 0 } = graph.graph()
  return { width: Math.ceil(width + loopPx + 30), height: Math.ceil(height), shapes }
}

/** Where a line between two enclosures that do not stand side by side passes those between. */
function between(graph: Graph, from: string, to: string, lane: number): Point[] {
  const forth = graph.hasEdge(from, to)
  const points: Point[] = graph.edge(forth ? from : to, forth ? to : from)?.points ?? []
  // of one rank to the next dagre gives both borders and the middle
  const over = points.length > 3 ? points.slice(1, -1).filter((_, n) => n % 2 === 1) : []
  const shifted = over.map(p => ({ x: p.x, y: p.y + lane }))
  return forth ? shifted : shifted.reverse()
}
