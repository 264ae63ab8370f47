import { circuitOf, placeText } from '../job/panels'
import { changeId, type PlannedChange, panelPutUp } from '../plan/change'
import { figure, plural, together } from '../units/format'
import type { Conductor, Device, End, Route } from '../work/wiring/parts'
import { scheduleOf } from '../work/wiring/schedule'
import { type Drafted, hold, panelNamed, type Scene, stands, task, torqueHold } from './draft'
import type { Phase, Wire } from './task'

const screws: ReadonlySet<Device['kind']> = new Set([
  'breaker',
  'lugs',
  'neutral bar',
  'ground bar',
  'inverter',
  'disconnect',
  'inlet',
  'receptacle',
  'bank',
])

/** What of the plan a route serves: the run that the job has of it. */
function runOf({ job }: Scene, route: Route): string[] {
  const wire = job.hookup.path?.find(l => l.kind === 'wire')
  const usual = (r: NonNullable<Scene['job']['hookup']['runs']>[number]) =>
    r.serves ?? (r.name === wire?.name ? 'inlet' : r.conductors > 4 ? 'circuits' : 'feeder')
  const is = route.id.startsWith('feeder')
    ? 'feeder'
    : route.id.startsWith('inlet')
      ? 'inlet'
      : route.id === 'led-over'
        ? 'circuits'
        : null
  const run = job.hookup.runs?.find(r => usual(r) === is)
  return run ? [`run:${run.id}`] : []
}

/** The changes that a conductor makes: by the breaker, panel or circuit at its ends. */
function changesOf({ job }: Scene, conductor: Conductor): string[] {
  const { circuitId, from, to } = conductor
  const devices = [from.device, to.device]
  const makes = (c: PlannedChange): boolean => {
    switch (c.kind) {
      case 'add':
        return devices.includes(`breaker-${c.circuit.id}`)
      case 'backfeed':
        return devices.includes('backfed')
      case 'panel':
      case 'intercept':
        return devices.includes(`main-${panelPutUp(c)?.id}`)
      case 'lead':
      case 'cord':
      case 'receptacle':
        return c.circuitId === circuitId
      case 'land':
        return c.places.some(p => p.circuitId === circuitId)
      default:
        return false
    }
  }
  return job.planned.filter(makes).map(changeId)
}

const wireOf =
  ({ plan }: Scene) =>
  ({ mark, colour, function: what, from, to }: Conductor): Wire => {
    const name = (end: End) => plan.devices.find(d => d.id === end.device)?.name ?? end.device
    return { mark, colour, ground: what === 'ground', from: name(from), to: name(to) }
  }

/** Where the ends of a conductor are bare. */
function metalOf(scene: Scene, { circuitId, from, to }: Conductor): string[] {
  const device = (end: End) => scene.plan.devices.find(d => d.id === end.device)
  const partner = (id: string) => {
    const neutral = circuitOf(scene.planned, id)?.circuit.neutral
    return neutral?.kind === 'shared' ? [id, neutral.with] : [id]
  }
  return [
    ...[from, to].flatMap(end => {
      const at = device(end)
      if (!at) return []
      const panel = panelNamed(scene, at.within)
      if (panel)
        return [`bus ${panel.id}`, ...(end.device === `main-${panel.id}` ? [`line ${panel.id}`] : [])]
      if (at.kind === 'switch' || at.kind === 'managed panel') return ['switch in']
      if (at.kind === 'inverter') return ['inverter in', 'inverter out']
      return at.kind === 'inlet' || at.kind === 'transformer' || end.device.startsWith('transformer')
        ? ['inlet']
        : []
    }),
    ...(circuitId === null ? [] : partner(circuitId).flatMap(id => [`circuit ${id}`, `load ${id}`])),
  ]
}

/** Ends of routes that stand there already, and are closed until power is off. */
const closedEnds = (scene: Scene, route: Route) =>
  [...new Set([route.from, route.to])].flatMap(end => {
    const panel = panelNamed(scene, end)
    return panel && stands(scene, panel.id) ? [panel] : []
  })

const bringsNothing = (route: Route) => route.from === route.to

function raceways(scene: Scene, route: Route, led: readonly Conductor[]): Drafted[] {
  if (!route.raceway || bringsNothing(route)) return []
  const closed = closedEnds(scene, route)
  const at = { view: 'wire' as const, of: route.id }
  const made = `${route.raceway.tradeSize} in ${route.raceway.kind}`
  const changes = runOf(scene, route)
  const bought = led.filter(c => c.comes === 'bought')
  const leads = led.some(c => c.comes === 'with its device')
  const bends = route.bendsDeg
    ? `${figure(route.bendsDeg)}° of bends, ${route.pullPoints ? plural(route.pullPoints, 'pull box', 'pull boxes') : 'at most 360° between pulls'}.`
    : ''
  const lay = task({
    id: `raceway:${route.id}`,
    phase: 'raceways',
    work: 'raceway',
    count: route.lengthFt,
    text: `Lay ${made}, ${figure(route.lengthFt)} ft: ${route.name}`,
    lines: [
      ...(closed.length
        ? [
            `${together(closed.map(p => p.name))} ${closed.length > 1 ? 'stay' : 'stays'} closed: end it at the knockout, and open nothing.`,
          ]
        : []),
      ...(bends ? [bends] : []),
      ...(route.through === 'fire-rated'
        ? ['It crosses a fire-rated wall: seal it with a listed system (NEC 300.21).']
        : []),
      ...(route.wet ? ['Wet place: fittings and wire for it (NEC 300.9).'] : []),
    ],
    changes,
    at,
  })
  const count = Math.max(1, bought.length)
  const pulled = closed.map(panel =>
    task({
      id: `enter:${route.id}:${panel.id}`,
      phase: 'enter',
      work: 'pull',
      count,
      share: 0.5,
      text: `Open a knockout of ${panel.name} for ${made} and bring in ${leads ? 'the leads' : plural(led.filter(c => c.comes !== 'there already').length, 'wire')}`,
      lines: [
        'Shavings fall on a cloth, not into the bus.',
        'Fitting with its locknut and bushing; then the wires, each with its mark at both ends.',
      ],
      changes,
      metal: [`bus ${panel.id}`],
      wires: led.map(wireOf(scene)),
      panelId: panel.id,
      at,
    }),
  )
  if (closed.length || !bought.length) return [lay, ...pulled]
  return [
    lay,
    task({
      id: `pull:${route.id}`,
      phase: 'raceways',
      work: 'pull',
      count,
      share: 0.5,
      text: `Pull ${plural(count, 'wire')}: ${route.name}`,
      lines: ['Each with its mark at both ends.'],
      changes,
      restsOn: [lay.id],
      wires: bought.map(wireOf(scene)),
      at,
    }),
  ]
}

const phaseOf: Record<Conductor['function'], Phase> = {
  ground: 'ground',
  neutral: 'neutral',
  hot: 'hots',
  plus: 'hots',
  minus: 'hots',
  sense: 'devices',
}
const verbs: Partial<Record<Phase, string>> = { ground: 'Ground', neutral: 'Neutral', hots: 'Hots' }

/** Every conductor made up in a task: by route what belongs to no circuit, by circuit the rest; ground, neutral and hots apart. */
export function tasksOfWiring(scene: Scene): Drafted[] {
  const { plan, planned } = scene
  const rows = new Map(scheduleOf(plan).map(r => [r.id, r]))
  const routes = new Map(plan.routes.map(r => [r.id, r]))
  const splices = new Map(plan.splices.map(s => [s.device, s]))
  const kinds = new Map(plan.devices.map(d => [d.id, d]))
  const ways = plan.routes.flatMap(r =>
    raceways(
      scene,
      r,
      plan.conductors.filter(c => c.route === r.id),
    ),
  )
  const groups = new Map<string, Conductor[]>()
  for (const c of plan.conductors) {
    const dc = c.function === 'plus' || c.function === 'minus'
    const what = dc ? 'dc' : phaseOf[c.function]
    const key = c.circuitId === null ? `${what}:${c.route}` : `${what}:${c.circuitId}`
    groups.set(key, [...(groups.get(key) ?? []), c])
  }
  const made = [...groups].flatMap(([id, all]): Drafted[] => {
    const [first] = all
    // wires that lie there already are no work of their own
    if (!first || all.every(c => c.comes === 'there already')) return []
    const dc = id.startsWith('dc:')
    const phase = dc ? 'devices' : phaseOf[first.function]
    const { circuitId } = first
    const fed = circuitId === null ? undefined : circuitOf(planned, circuitId)
    const name = fed
      ? `${placeText(planned, fed.panel, fed.circuit)} ${fed.circuit.label || 'unlabelled'}`
      : (routes.get(first.route)?.name ?? first.route)
    const joints = [
      ...new Set(all.flatMap(c => [c.from.device, c.to.device]).filter(d => kinds.get(d)?.kind === 'splice')),
    ]
    const ends = all.filter(c => [c.from, c.to].some(e => screws.has(kinds.get(e.device)?.kind ?? 'splice')))
    const shared =
      fed?.circuit.neutral.kind === 'shared'
        ? circuitOf(planned, fed.circuit.neutral.with)?.circuit
        : undefined
    const panel =
      fed?.panel ??
      [first.from, first.to].flatMap(e => panelNamed(scene, kinds.get(e.device)?.within ?? '') ?? [])[0]
    return [
      task({
        id,
        phase,
        work: dc ? 'battery' : fed ? workOfCircuit(scene, circuitId ?? '') : 'pull',
        // a wire is pulled, and made up; a circuit is led with its neutral
        ...(dc
          ? {
              count: Math.max(
                1,
                new Set(all.flatMap(c => [c.from.device, c.to.device]).filter(d => d.startsWith('bank')))
                  .size,
              ),
            }
          : fed
            ? {
                share: groups.has(`neutral:${circuitId}`)
                  ? phase === 'neutral'
                    ? 0.3
                    : phase === 'hots'
                      ? 0.7
                      : 0.2
                  : 1,
              }
            : { count: all.length, share: 0.5 }),
        text: dc ? `Join the batteries: ${name}` : `${verbs[phase] ?? 'Sense wires'}: ${name}`,
        lines: [
          ...(dc
            ? [
                'Disconnect open and locked, fuse out. The posts of a battery are live whatever is switched: cover all but the one in hand, insulated tools, no ring or watch.',
                'Minus first, then plus; cables of one bank of one length.',
              ]
            : []),
          ...(phase === 'hots' && fed
            ? [
                'Test the wire once more before a hand goes to it. Lift one hot, finish it, tug it; then the next.',
              ]
            : []),
          ...(shared && phase !== 'ground'
            ? [
                `It shares its neutral with ${shared.label || 'another circuit'}: both are off, and that neutral is never open while either is on (NEC 300.13(B)).`,
              ]
            : []),
          ...all.filter(c => c.comes !== 'there already').flatMap(c => lineOf(c.id)),
          ...joints
            .flatMap(d => splices.get(d)?.name ?? [])
            .filter((n, i, a) => a.indexOf(n) === i)
            .map(n => `Splice with ${n}.`),
        ],
        changes: [...new Set(all.flatMap(c => changesOf(scene, c)))],
        // a wire is made up once it is pulled
        restsOn: ways.filter(w => all.some(c => c.route === w.at.of)).map(w => w.id),
        metal: [...new Set(all.flatMap(c => metalOf(scene, c)))],
        holds: [
          ...joints.map(d =>
            hold(
              id,
              'tug',
              `Tug every wire of ${kinds.get(d)?.name ?? 'the splice'}: initials of who pulled.`,
              { of: d },
            ),
          ),
          ...(ends.length ? [torqueHold(id, ends)] : []),
          ...(dc
            ? [
                hold(id, 'lock', 'Battery disconnect open, locked and tagged before the first cable.', {
                  of: 'battery',
                }),
              ]
            : []),
        ],
        wires: all.map(wireOf(scene)),
        circuitIds: circuitId === null ? [] : [circuitId],
        panelId: panel?.id ?? null,
        at: { view: 'wire', of: first.route },
      }),
    ]
    function lineOf(conductor: string): string[] {
      const r = rows.get(conductor)
      if (!r) return []
      const strip = [r.stripFromIn, r.stripToIn].filter(s => s > 0)
      return [
        `${r.mark}: ${r.sizeAwg === 'its own' ? 'its own lead' : `${r.sizeAwg} AWG ${r.metal}`}, ${r.colour}, ${figure(r.cutFt)} ft; from ${r.from} to ${r.to}${strip.length ? `; strip ${together([...new Set(strip.map(s => `${figure(s)} in`))])}` : ''}.`,
      ]
    }
  })
  return [...ways, ...made]
}

function workOfCircuit({ job }: Scene, circuitId: string) {
  const of = job.planned.find(
    c =>
      (c.kind === 'lead' && c.circuitId === circuitId) ||
      (c.kind === 'land' && c.places.some(p => p.circuitId === circuitId)),
  )
  return of?.kind === 'lead' ? 'lead' : of?.kind === 'land' ? 'land' : 'splice'
}
