import type { Draft } from 'immer'
import * as z from 'zod'
import { type Fault, fault } from '../../outcome'
import { bodyOf } from '../../panel/body'
import { moved } from '../../panel/move'
import { type Circuit, circuitSchema, type Panel, tracedSchema } from '../../panel/schema'
import { circuitOf, placeText } from '../panels'
import type { Job } from '../schema'
import { assign, clearing, idSchema, operation, words } from './operation'
import { circuitName, leavePositions, onCircuit, onPanel, panelAt } from './reach'
import { leaveWants } from './wants'

/** Breakers and the circuits behind them, as the survey finds them. */

const circuitWord = (key: string) => ({ breakerA: 'rating', traced: 'tracing' })[key] ?? words(key)
const foundWords = { known: 'known', doubtful: 'doubtful', nothing: 'nothing died' } as const

export const circuitOperations = {
  addCircuit: operation(
    'addCircuit',
    { panelId: idSchema.optional(), circuit: circuitSchema },
    {
      apply: ({ panelId, circuit }) =>
        onPanel(panelId, panel => {
          if (panel.circuits.some(c => c.id === circuit.id))
            return [fault('panels', `already hold a circuit ${circuit.id}`)]
          panel.circuits.push(circuit)
          sort(panel)
        }),
      describe: (before, { panelId, circuit }) => {
        const panel = panelAt(before, panelId)
        return `added ${panel ? placeText(before, panel, circuit) : circuit.position} ${circuit.label || 'unlabelled'}`
      },
    },
  ),
  editCircuit: operation(
    'editCircuit',
    {
      circuitId: idSchema,
      facts: circuitSchema.omit({ id: true, position: true, loads: true, picked: true, tie: true }).partial(),
      /** facts to leave out again */
      clear: clearing(['wire', 'traced', 'half', 'type', 'lockedOff']),
    },
    {
      apply: ({ circuitId, facts, clear }) =>
        onCircuit(circuitId, (circuit, panel) => {
          const was = circuit.neutral
          assign<Circuit>(circuit, facts)
          for (const key of clear ?? []) delete circuit[key]
          if (facts.neutral) pairNeutrals(panel, circuit, was)
        }),
      describe: (before, { circuitId, facts, clear }) =>
        `edited ${circuitName(before, circuitId)} (${[...Object.keys(facts), ...(clear ?? [])].map(circuitWord).join(', ')})`,
    },
  ),
  removeCircuit: operation(
    'removeCircuit',
    { circuitId: idSchema },
    {
      apply: ({ circuitId }) =>
        onCircuit(circuitId, (circuit, panel, job) => {
          leavePartner(panel, circuit.neutral)
          untie(panel, circuit)
          leaveWants(job, panel, circuit)
          panel.circuits = panel.circuits.filter(c => c.id !== circuit.id)
          for (const other of job.panels) if (other.feederId === circuit.id) delete other.feederId
          leavePositions(job)
        }),
      describe: (before, { circuitId }) => `removed ${circuitName(before, circuitId)}`,
    },
  ),
  tieBreakers: operation(
    'tieBreakers',
    {
      circuitId: idSchema,
      tie: z.strictObject({ with: idSchema, kind: z.enum(['handle', 'common trip']) }).nullable(),
    },
    {
      apply: ({ circuitId, tie }) =>
        onCircuit(circuitId, (circuit, panel) => {
          untie(panel, circuit)
          const partner = tie && panel.circuits.find(c => c.id === tie.with)
          if (!tie || !partner) return
          untie(panel, partner)
          circuit.tie = tie
          partner.tie = { with: circuit.id, kind: tie.kind }
        }),
      describe: (before, { circuitId, tie }) =>
        tie
          ? `tied ${circuitName(before, circuitId)} to ${circuitName(before, tie.with)}`
          : `untied ${circuitName(before, circuitId)}`,
    },
  ),
  traceCircuit: operation(
    'traceCircuit',
    { circuitId: idSchema, traced: tracedSchema },
    {
      apply: ({ circuitId, traced }) =>
        onCircuit(circuitId, circuit => {
          circuit.traced = traced
        }),
      describe: (before, { circuitId, traced }) =>
        `traced ${circuitName(before, circuitId)}: ${foundWords[traced.found]}`,
    },
  ),
  moveBreaker: operation(
    'moveBreaker',
    {
      circuitId: idSchema,
      toPosition: z.int(),
      /** to another panel: with its wire, and whatever comes out with it */
      toPanelId: idSchema.optional(),
    },
    {
      apply: ({ circuitId, toPosition, toPanelId }) =>
        onCircuit(circuitId, (circuit, panel, job) => {
          if (toPanelId !== undefined && toPanelId !== panel.id)
            return moveAcross(job, panel, circuit, toPanelId, toPosition)
          const move = moved(panel, circuit, toPosition)
          if (!move.ok) return [fault('panels', move.why)]
          for (const c of panel.circuits) {
            const place = move.places.get(c.id)
            if (place) c.position = place.position
            if (place?.half) c.half = place.half
            else if (place) delete c.half
          }
          sort(panel)
        }),
      describe: (before, { circuitId, toPosition, toPanelId }) => {
        const found = circuitOf(before, circuitId)
        const panel = before.panels.find(p => p.id === toPanelId) ?? found?.panel
        const to =
          panel && found ? placeText(before, panel, { ...found.circuit, position: toPosition }) : toPosition
        return `moved ${circuitName(before, circuitId)} to ${to}`
      },
    },
  ),
  selectCircuit: operation(
    'selectCircuit',
    { circuitId: idSchema, picked: z.boolean() },
    {
      apply: ({ circuitId, picked }) =>
        onCircuit(circuitId, circuit => {
          circuit.picked = picked
        }),
      describe: (before, { circuitId, picked }) =>
        `${picked ? 'picked' : 'dropped'} ${circuitName(before, circuitId)}`,
    },
  ),
}

const sort = (panel: Draft<Panel>) => {
  panel.circuits.sort((a, b) => a.position - b.position || (a.half ?? '').localeCompare(b.half ?? ''))
}

/** Both hots of a shared neutral name each other; whoever was paired before goes back to a neutral of its own. */
function pairNeutrals(panel: Draft<Panel>, circuit: Draft<Circuit>, was: Circuit['neutral']) {
  leavePartner(panel, was)
  const now = circuit.neutral
  if (now.kind !== 'shared') return
  const partner = panel.circuits.find(c => c.id === now.with)
  if (!partner) return
  leavePartner(panel, partner.neutral)
  partner.neutral = { kind: 'shared', with: circuit.id }
  circuit.neutral = now
}

function leavePartner(panel: Draft<Panel>, neutral: Circuit['neutral']) {
  if (neutral.kind !== 'shared') return
  const partner = panel.circuits.find(c => c.id === neutral.with)
  if (partner) partner.neutral = { kind: 'own' }
}

function untie(panel: Draft<Panel>, circuit: Draft<Circuit>) {
  const partner = panel.circuits.find(c => c.id === circuit.tie?.with)
  delete circuit.tie
  if (partner) delete partner.tie
}

/** Takes a breaker's circuits, and what comes out with them, to free spaces of another panel. */
function moveAcross(
  job: Draft<Job>,
  from: Draft<Panel>,
  circuit: Draft<Circuit>,
  toPanelId: string,
  toPosition: number,
): Fault[] | void {
  const to = job.panels.find(p => p.id === toPanelId)
  if (!to) return [fault('panels', `no longer hold the panel ${toPanelId}`)]
  if (to.feederId === circuit.id)
    return [fault('panels', 'cannot take the breaker that feeds this very panel')]
  const body = bodyOf(from.circuits, circuit)
  const left = body.find(c => c.neutral.kind === 'shared' && !body.some(o => isPartner(c, o)))
  if (left)
    return [
      fault(
        'panels',
        `cannot part ${left.label || 'the circuit'} from the circuit that shares its neutral: tie the two, and they move together`,
      ),
    ]
  const shift = toPosition - circuit.position
  for (const c of body) c.position += shift
  from.circuits = from.circuits.filter(c => !body.includes(c))
  to.circuits.push(...body)
  sort(to)
}

const isPartner = (a: Circuit, b: Circuit) => a.neutral.kind === 'shared' && a.neutral.with === b.id
