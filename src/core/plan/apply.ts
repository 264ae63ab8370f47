import type { Load } from '../loads/load'
import { checkPanels } from '../panel/panels'
import { positionText, spaceName } from '../panel/positions'
import { besideEachOther, type Circuit, type Panel } from '../panel/schema'
import { changeId, changeKinds, type Place, type PlannedChange, panelPutUp } from './change'
import { isMove, movesAhead } from './placement'

/** A change that cannot be done to this house, and why. */
export interface Undone {
  change: PlannedChange
  why: string
  /** another change that could not be done beside it */
  against?: PlannedChange
}

export interface Applied {
  panels: readonly Panel[]
  undone: Undone[]
}

/** The panels after one change, or the sentence that says what it lacks. */
type Step = readonly Panel[] | string

const gone = 'the circuit it is about is no longer there'

function onCircuit(
  panels: readonly Panel[],
  circuitId: string,
  act: (circuit: Circuit, panel: Panel) => Circuit | string,
): Step {
  const at = panels.find(p => p.circuits.some(c => c.id === circuitId))
  const circuit = at?.circuits.find(c => c.id === circuitId)
  if (!at || !circuit) return gone
  const now = act(circuit, at)
  if (typeof now === 'string') return now
  return panels.map(p => (p === at ? { ...p, circuits: p.circuits.map(c => (c === circuit ? now : c)) } : p))
}

const inOrder = (circuits: readonly Circuit[]) =>
  [...circuits].sort((a, b) => a.position - b.position || (a.half ?? '').localeCompare(b.half ?? ''))

/** The load with a soft starter before its motor; null where its start is not known by locked-rotor amps. */
const withSoftStart = (load: Load, softStartFraction: number): Load | null =>
  load.start?.method === 'locked-rotor' ? { ...load, start: { ...load.start, softStartFraction } } : null

/** One change done to the panels, by references alone: whether the panel bears it is seen afterwards. */
function done(panels: readonly Panel[], change: PlannedChange): Step {
  switch (change.kind) {
    case 'panel':
      return panels.some(p => p.id === change.panel.id)
        ? 'a panel of that name is there already'
        : [...panels, { ...change.panel, circuits: [] }]
    case 'intercept':
      return intercepted(panels, change)
    case 'add': {
      if (panels.some(p => p.circuits.some(c => c.id === change.circuit.id)))
        return 'its breaker is there already'
      if (!panels.some(p => p.id === change.panelId)) return 'the panel it is to stand in is not there'
      return panels.map(p =>
        p.id === change.panelId ? { ...p, circuits: inOrder([...p.circuits, change.circuit]) } : p,
      )
    }
    case 'remove':
      if (!panels.some(p => p.circuits.some(c => c.id === change.circuitId))) return gone
      return panels.map(p => ({ ...p, circuits: withoutCircuit(p.circuits, change.circuitId) }))
    case 'move': {
      const circuits = new Map(panels.flatMap(p => p.circuits.map(c => [c.id, c] as const)))
      if (change.places.some(p => !circuits.has(p.circuitId))) return gone
      if (change.places.some(p => !panels.some(o => o.id === p.panelId)))
        return 'the panel it goes to is not there'
      const moving = new Set(change.places.map(p => p.circuitId))
      return panels.map(panel => {
        const coming = change.places.flatMap(place => {
          const circuit = place.panelId === panel.id ? circuits.get(place.circuitId) : undefined
          if (!circuit) return []
          const { half: _, ...rest } = circuit
          return [{ ...rest, position: place.position, ...(place.half && { half: place.half }) }]
        })
        const staying = panel.circuits.filter(c => !moving.has(c.id))
        return coming.length || staying.length < panel.circuits.length
          ? { ...panel, circuits: inOrder([...staying, ...coming]) }
          : panel
      })
    }
    case 'land':
      return landed(panels, change.places)
    case 'exchange': {
      const { breakerA, type, protection } = change
      return onCircuit(panels, change.circuitId, (circuit, panel) =>
        type !== undefined && panel.breakerTypes.length && !panel.breakerTypes.includes(type)
          ? `the sticker of ${panel.name} does not list ${type}`
          : {
              ...circuit,
              ...(breakerA !== undefined && { breakerA }),
              ...(type !== undefined && { type }),
              ...(protection !== undefined && { protection }),
            },
      )
    }
    case 'tie': {
      const tied = (circuitId: string, partner: string) => (step: Step) =>
        typeof step === 'string'
          ? step
          : onCircuit(step, circuitId, c =>
              c.tie && c.tie.with !== partner
                ? `${c.label || 'a breaker'} is tied to another already`
                : { ...c, tie: { with: partner, kind: change.tie } },
            )
      return tied(change.with, change.circuitId)(tied(change.circuitId, change.with)(panels))
    }
    case 'lock':
      return onCircuit(panels, change.circuitId, c => ({ ...c, lockedOff: true }))
    case 'guard':
      return onCircuit(panels, change.circuitId, c => ({ ...c, outletProtection: true }))
    case 'cord':
    case 'soft-start':
      return onCircuit(panels, change.circuitId, circuit => {
        const load = circuit.loads.find(l => l.id === change.loadId)
        if (!load) return 'the load it is about is no longer there'
        const now =
          change.kind === 'cord'
            ? { ...load, connection: 'plug' as const }
            : withSoftStart(load, change.softStartFraction)
        if (!now) return 'a soft starter needs the motor’s locked-rotor amps'
        return { ...circuit, loads: circuit.loads.map(l => (l === load ? now : l)) }
      })
    case 'bond':
      return panels.some(p => p.id === change.panelId)
        ? panels.map(p => (p.id === change.panelId ? { ...p, neutralBonded: change.joined } : p))
        : 'the panel it is about is no longer there'
    case 'filler':
    case 'backfeed':
      return panels.some(p => p.id === change.panelId) ? panels : 'the panel it is about is no longer there'
    case 'lead':
    case 'receptacle':
      return panels.some(p => p.circuits.some(c => c.id === change.circuitId)) ? panels : gone
    case 'mount':
    case 'position-breaker':
    case 'run':
    case 'notice':
      return panels
  }
}

/** A new panel takes the place of another in its feeder, and feeds it on. */
function intercepted(
  panels: readonly Panel[],
  { feeds, panel, feeder }: Extract<PlannedChange, { kind: 'intercept' }>,
): Step {
  const fed = panels.find(p => p.id === feeds)
  if (!fed) return 'the panel that it feeds is no longer there'
  if (panels.some(p => p.id === panel.id)) return 'a panel of that name is there already'
  if (fed.supply === 'service')
    return `${fed.name} is the service itself: ahead of it are the utility’s conductors, and its bond would have to move`
  const { feederId: _, ...rest } = panel
  const between = {
    ...rest,
    ...(fed.feederId !== undefined && { feederId: fed.feederId }),
    circuits: [feeder],
  }
  return [...panels.map(p => (p === fed ? { ...p, feederId: feeder.id } : p)), between]
}

/** Circuits on new breakers in another panel: a tie whose partner stays is undone, and two hots of one neutral get one. */
function landed(panels: readonly Panel[], places: readonly Place[]): Step {
  const circuits = new Map(panels.flatMap(p => p.circuits.map(c => [c.id, c] as const)))
  if (places.some(p => !circuits.has(p.circuitId))) return gone
  if (places.some(p => !panels.some(o => o.id === p.panelId))) return 'the panel it goes to is not there'
  const going = new Set(places.map(p => p.circuitId))
  return panels.map(panel => {
    const staying = panel.circuits
      .filter(c => !going.has(c.id))
      .map(c => {
        const { tie, ...untied } = c
        return tie && going.has(tie.with) ? untied : c
      })
    const coming = places.flatMap((place): Circuit[] => {
      const circuit = place.panelId === panel.id ? circuits.get(place.circuitId) : undefined
      if (!circuit) return []
      const { half: _, type: __, tie, neutral, ...rest } = circuit
      const partner = neutral.kind === 'shared' ? neutral.with : tie?.with
      const kept = partner !== undefined && going.has(partner)
      return [
        {
          ...rest,
          neutral,
          position: place.position,
          ...(kept && { tie: { with: partner, kind: tie?.kind ?? 'handle' } }),
        },
      ]
    })
    return coming.length || staying.length < panel.circuits.length
      ? { ...panel, circuits: inOrder([...staying, ...coming]) }
      : panel
  })
}

function withoutCircuit(circuits: readonly Circuit[], circuitId: string): Circuit[] {
  return circuits
    .filter(c => c.id !== circuitId)
    .map(c => {
      const { tie, ...untied } = c
      const apart = tie?.with === circuitId ? untied : c
      return apart.neutral.kind === 'shared' && apart.neutral.with === circuitId
        ? { ...apart, neutral: { kind: 'own' as const } }
        : apart
    })
}

/** What the panels cannot be, said once: overlaps, legs, pairs, and where the sticker takes no tandem. */
function fault(panels: readonly Panel[], planned: ReadonlySet<string>): string | null {
  let said: string | null = null
  checkPanels(panels, (path, message) => {
    const [, n, , i] = path
    const panel = typeof n === 'number' ? panels[n] : undefined
    const circuit = typeof i === 'number' ? panel?.circuits[i] : undefined
    said ??= `${circuit ? `${circuit.label || `the breaker at ${panel ? positionText(panel, circuit) : ''}`} ` : ''}${message}`
  })
  if (said) return said
  for (const panel of panels) {
    const takes = panel.tandemSpaces
    const bad = takes && panel.circuits.find(c => c.half && planned.has(c.id) && !takes.includes(c.position))
    if (bad) return `the sticker of ${panel.name} lists no tandem at ${spaceName(panel, bad.position)}`
  }
  return null
}

/** Circuits whose place is a plan’s, not the survey’s. */
const placed = (changes: readonly PlannedChange[]) =>
  new Set(
    changes.flatMap(c =>
      c.kind === 'move' || c.kind === 'land'
        ? c.places.map(p => p.circuitId)
        : c.kind === 'add'
          ? [c.circuit.id]
          : [],
    ),
  )

const inTurn = (changes: readonly PlannedChange[]) =>
  [...changes].sort((a, b) => changeKinds[a.kind].turn - changeKinds[b.kind].turn)

/**
 * The panels as found with the changes done to them. Which comes first in the list does not matter to what they become. A
 * change that this house does not bear is left out and told, the later one of two that claim the same; the panels are always
 * possible ones where they were so as found.
 */
export function withChanges(found: readonly Panel[], changes: readonly PlannedChange[]): Applied {
  if (!changes.length) return { panels: found, undone: [] }
  const whole = allAtOnce(found, changes)
  return hinders(whole) ? oneByOne(found, changes) : { panels: whole, undone: [] }
}

/** All of them, or the one that cannot be and why. */
function allAtOnce(found: readonly Panel[], changes: readonly PlannedChange[]): readonly Panel[] | Undone {
  let panels = found
  for (const change of inTurn(changes)) {
    const step = done(panels, change)
    if (typeof step === 'string') return { change, why: step }
    panels = step
  }
  const last = changes.at(-1)
  const why = panels === found ? null : fault(panels, placed(changes))
  return why === null || !last ? panels : { change: last, why }
}

const hinders = (outcome: readonly Panel[] | Undone): outcome is Undone => 'change' in outcome

/** As many as can be, the earlier before the later, each where what it rests on is among them. */
function oneByOne(found: readonly Panel[], changes: readonly PlannedChange[]): Applied {
  let panels = found
  const borne: PlannedChange[] = []
  let waiting = changes.map((change): Undone => ({ change, why: '' }))
  for (let grew = true; grew; ) {
    grew = false
    const still: Undone[] = []
    for (const { change } of waiting) {
      const outcome = allAtOnce(found, [...borne, change])
      if (!hinders(outcome)) {
        panels = outcome
        borne.push(change)
        grew = true
      } else
        still.push(
          outcome.change === change
            ? outcome
            : {
                change,
                why: `then another change could not be done: ${outcome.why}`,
                against: outcome.change,
              },
        )
    }
    waiting = still
  }
  return { panels, undone: waiting }
}

/** Each change by its id with the ids of those that must be done before it: they make what it is about, or free its place. */
export function restsOn(found: readonly Panel[], changes: readonly PlannedChange[]): Map<string, string[]> {
  const moves = changes.filter(isMove)
  const byCircuit = (circuitId: string, ...kinds: PlannedChange['kind'][]) =>
    changes.filter(
      o =>
        kinds.includes(o.kind) &&
        (o.kind === 'move'
          ? o.places.some(p => p.circuitId === circuitId)
          : o.kind === 'add'
            ? o.circuit.id === circuitId
            : 'circuitId' in o && o.circuitId === circuitId),
    )
  const panelOf = (panelId: string) => changes.filter(o => panelPutUp(o)?.id === panelId)
  const stood = new Map(found.flatMap(p => p.circuits.map(c => [c.id, { panel: p, circuit: c }] as const)))
  const cleared = (panelId: string, spaces: readonly number[]) =>
    changes.filter(o => {
      const ids =
        o.kind === 'remove'
          ? [o.circuitId]
          : o.kind === 'move' || o.kind === 'land'
            ? o.places.map(p => p.circuitId)
            : []
      return ids.some(id => {
        const at = stood.get(id)
        return (
          at?.panel.id === panelId &&
          [at.circuit.position, ...(at.circuit.poles === 2 ? [at.circuit.position + 2] : [])].some(s =>
            spaces.includes(s),
          )
        )
      })
    })
  const two = (position: number, poles: 1 | 2) => (poles === 2 ? [position, position + 2] : [position])
  const ahead = (change: PlannedChange): PlannedChange[] => {
    switch (change.kind) {
      case 'move':
        return [
          ...movesAhead(found, change, moves),
          ...change.places.flatMap(p => [
            ...panelOf(p.panelId),
            ...byCircuit(p.circuitId, 'add'),
            ...cleared(p.panelId, two(p.position, stood.get(p.circuitId)?.circuit.poles ?? 1)).filter(
              o => o.kind === 'remove',
            ),
          ]),
        ]
      case 'land':
        return change.places.flatMap(p => [...panelOf(p.panelId), ...byCircuit(p.circuitId, 'add', 'move')])
      case 'add':
        return [
          ...panelOf(change.panelId),
          ...cleared(change.panelId, two(change.circuit.position, change.circuit.poles)),
        ]
      case 'tie': {
        const [a, b] = [stood.get(change.circuitId), stood.get(change.with)]
        // where they stood side by side as found, they need not be brought together
        const beside = a && b && a.panel === b.panel && besideEachOther(a.circuit, b.circuit)
        return [change.circuitId, change.with].flatMap(id =>
          byCircuit(id, ...(beside ? [] : ['move' as const]), 'add'),
        )
      }
      case 'panel':
        return change.panel.feederId === undefined ? [] : byCircuit(change.panel.feederId, 'add')
      case 'bond':
        return panelOf(change.panelId)
      case 'filler':
        return [...panelOf(change.panelId), ...cleared(change.panelId, [change.space])]
      default:
        return 'circuitId' in change ? byCircuit(change.circuitId, 'add') : []
    }
  }
  return new Map(
    changes.map(change => [
      changeId(change),
      [
        ...new Set(
          ahead(change)
            .filter(o => o !== change)
            .map(changeId),
        ),
      ],
    ]),
  )
}

/** These and every change that rests on one of them. */
export function withFollowers(
  found: readonly Panel[],
  changes: readonly PlannedChange[],
  ids: readonly string[],
): Set<string> {
  const rests = restsOn(found, changes)
  const all = new Set(ids)
  for (let grew = true; grew; ) {
    grew = false
    for (const [id, ahead] of rests)
      if (!all.has(id) && ahead.some(a => all.has(a))) {
        all.add(id)
        grew = true
      }
  }
  return all
}
