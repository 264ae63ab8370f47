import type { Evaluated } from '../assess/evaluated'
import { type Bond, groundingOf } from '../assess/grounding'
import { type CircuitNeed, named, supplyOf } from '../assess/needs'
import { methodOf } from '../hookup/method'
import { newPanelId } from '../job/new-panel'
import type { SimpleOperation } from '../job/operations'
import { movesCircuits, reachedPanels, servesWhole, tiedPanel } from '../job/panels'
import { toPlan } from '../plan/change'
import { arrangementNames, opposed } from '../source/arrangement'
import { shortName } from '../source/short-name'
import { quantity, together } from '../units/format'
import { ordinaryAmpacityA } from '../units/tables/conductors'
import { sharedNeutral } from '../wiring/shared-neutral'
import type { Said } from './finding'

/** Neutral, ground, bonding. */

const bondTarget = { view: 'hook-up', field: 'bonding' } as const

export function bonds(evaluated: Evaluated): Said[] {
  const { job, needs } = evaluated
  const { source, hookup } = job
  const found: Said[] = serviceUnbonded(evaluated)
  if (!source) return found
  const name = shortName(source)
  const { neutral, bonds: all, most, groundFaultUnit, unknownUnit, unknown } = groundingOf(job)
  // a panel that joins the two is judged by itself, and so is the house
  const elsewhere = (b: Bond) => b.at !== 'panel' && b.at !== 'house'
  const own = most.filter(elsewhere)
  const house = most.some(b => b.at === 'house')
  const bonded = all.some(elsewhere)
  const floats = source.units.every(u => u.equipment.neutral === 'floating')
  const what = `Neutral and ground are joined ${together(own.map(b => (b.at === 'plug' ? 'by the bonding plug' : b.where)))}`
  const unplug = hookup.bondingPlug ? [{ label: 'Take the bonding plug out', operations: plug(false) }] : []
  const generator = own.some(b => b.at === 'generator')
  if (own.length > 1 && !house)
    found.push({
      id: 'bond.two',
      severity: 'stop',
      sentence: `${what}, and their neutrals are joined: two bonds.`,
      why: 'Neutral current takes the ground wires between the two; ground-fault devices trip.',
      remedy: generator
        ? 'Keep one: a generator that floats, a charger that isolates it, or units that float.'
        : 'Keep one: take the bonding plug out, or use units that float.',
      article: 'NEC 250.30',
      target: bondTarget,
      fixes: unplug,
    })
  if (own.length > 0 && house)
    found.push({
      id: 'bond.two',
      severity: 'stop',
      sentence: `${what}, and the hook-up leaves the house’s own neutral-to-ground bond in force: two bonds.`,
      why: 'Neutral current takes the ground wires; ground-fault devices trip; metal can carry voltage.',
      remedy: generator
        ? 'Use a generator that floats, let it charge through a charger that isolates, or choose a hook-up that switches the neutral too.'
        : 'Use a floating source, take the bonding plug out, or choose a hook-up that switches the neutral too.',
      article: 'NEC 250.24, 250.30',
      target: bondTarget,
      fixes: unplug,
    })
  if (!bonded && neutral === 'switched' && !unknown.length)
    found.push({
      id: 'bond.none',
      severity: 'stop',
      sentence: `The hook-up switches the neutral and the ${name} floats: nothing bonds neutral to ground while it runs.`,
      why: 'A fault to metal would not trip a breaker.',
      remedy: 'The source is separately derived: put the one bond at the source, as its instructions allow.',
      article: 'NEC 250.30(A)',
      target: bondTarget,
      fixes: [{ label: 'Fit a bonding plug at the source', operations: plug(true) }],
    })
  const burners = needs.filter(n => n.circuit.picked && n.circuit.loads.some(l => l.needsBond))
  if (!bonded && neutral === 'stand-alone' && burners.length)
    found.push({
      id: 'bond.none',
      severity: 'stop',
      sentence: `${together(burners.map(named))} proves its flame through ground and will lock out on the ${name}, whose neutral floats.`,
      why: 'Without a neutral-to-ground bond the flame signal has no way back: no heat, on the coldest night.',
      remedy:
        'Standing alone, a bonding plug cures it. It is forbidden once the house’s own bond is connected.',
      article: 'NEC 250.34, and the burner’s instructions',
      target: bondTarget,
      fixes: [{ label: 'Fit a bonding plug at the source', operations: plug(true) }],
    })
  // once the way is drawn somebody has to say so
  const unsaid = hookup.sourceNeutral === undefined && (hookup.path?.length ?? 0) > 0
  if (neutral === 'hots-only' && (unsaid || hookup.sourceNeutral === 'unknown'))
    found.push(notLanded(job, false))
  if (neutral === 'hots-only' && hookup.sourceNeutral === 'left off') found.push(notLanded(job, true))
  if (groundFaultUnit && neutral === 'hots-only')
    found.push({
      id: 'bond.gfci-trip',
      severity: 'mind',
      sentence: `The ${groundFaultUnit.name}’s ground-fault outlets feed a panel whose neutral is bonded: they ${groundFaultUnit.floats ? 'may' : 'will'} trip.`,
      why: groundFaultUnit.floats
        ? 'Whatever little of the neutral current returns by ground is seen as a fault, also where the unit itself floats.'
        : 'Part of the neutral current returns by ground and the device sees a fault.',
      remedy:
        'Use an outlet without ground-fault protection where the instructions give one, or another source.',
      article: 'NEC 250.6, and the unit’s instructions',
      target: bondTarget,
      fixes: [],
    })
  if (!bonded && floats && neutral === 'stand-alone')
    found.push({
      id: 'phantom.expected',
      severity: 'mind',
      sentence: `On the floating ${name} a meter will show odd volts from each conductor to ground.`,
      why: 'Filter capacitors leak a little; a high-impedance meter shows it. It alarms people every time.',
      remedy: 'Tell the customer, and confirm with a low-impedance meter.',
      target: bondTarget,
      fixes: [],
    })
  if (unknownUnit)
    found.push({
      id: 'source-bond.unknown',
      severity: 'ask',
      sentence: `The ${unknownUnit}’s data do not say whether its neutral is bonded.`,
      why: 'Whether there is one bond, none or two cannot be judged.',
      remedy:
        'Unplugged from everything, measure neutral to ground at its outlet with the inverter off, on, and passing through: ohms while it is off, and volts with a small load while it runs. A relay that bonds only while it inverts reads open when it is off.',
      target: bondTarget,
      fixes: [],
    })
  if (unknown.length)
    found.push({
      id: 'source-bond.unknown',
      severity: 'ask',
      sentence: `Nobody stated it, and it decides how many bonds there are: ${together(unknown)}.`,
      why: 'Joined, the bonds on both sides count together; isolated, each side stands by itself.',
      remedy:
        'Read the sheet, or measure it: everything off and unplugged, ohms from neutral to neutral; then with the inverter on, and passing through. Enter it with the equipment.',
      target: bondTarget,
      fixes: [],
    })
  if (neutral === 'unknown')
    found.push({
      id: 'switch-neutral.unknown',
      severity: 'ask',
      sentence: 'How the source is connected is not decided, so the neutral-to-ground bond cannot be judged.',
      why: 'There must be exactly one bond; which source is right depends on whether the neutral is switched.',
      remedy: 'Choose the hook-up beside the source.',
      article: 'NEC 250.24, 250.30',
      target: bondTarget,
      fixes: [],
    })
  return found
}

/** A service whose neutral was found not to be bonded: nothing behind it has a way back for a fault. */
function serviceUnbonded({ job }: Evaluated): Said[] {
  return job.panels
    .filter(p => p.supply === 'service' && p.neutralBonded === false)
    .map(panel => ({
      id: 'service.unbonded',
      severity: 'stop',
      sentence: `Neutral and ground were found apart in ${panel.name}, which the service feeds: nothing bonds them.`,
      why: 'A fault to metal does not trip a breaker, on the utility as on the source.',
      remedy:
        'Look for the bond at a disconnect or meter main ahead of it, and enter it as fed from there; if there is none, fit the main bonding jumper before anything else.',
      article: 'NEC 250.24, 250.28',
      target: { view: 'panel', circuitIds: [], panelId: panel.id, field: 'neutralBonded' },
      fixes: [],
    }))
}

function notLanded(job: Evaluated['job'], leftOff: boolean): Said {
  return {
    id: 'neutral.not-landed',
    severity: leftOff ? 'stop' : 'ask',
    sentence: leftOff
      ? `The neutral of the source is left off ${tiedPanel(job).name}: its 120 V loads return by ground, or not at all.`
      : `Whether the neutral of the source reaches the neutral bar of ${tiedPanel(job).name} is not known.`,
    why: 'That the neutrals are “joined elsewhere” does not carry the current: the two legs float against each other, and 120 V loads see anything up to 240 V.',
    remedy:
      'Carry the neutral with its hots through cord, inlet and raceway, and land it on the neutral bar.',
    article: 'NEC 200.3, 300.3(B)',
    target: { view: 'hook-up', field: 'source-neutral' },
    fixes: [
      { label: 'Plan it landed', operations: [{ op: 'setHookup', facts: { sourceNeutral: 'lands' } }] },
    ],
  }
}

const plug = (bondingPlug: boolean): SimpleOperation[] => [{ op: 'setHookup', facts: { bondingPlug } }]

/** Each shared pair once, upper breaker first. */
function allPairs(needs: readonly CircuitNeed[]): [CircuitNeed, CircuitNeed][] {
  return needs.flatMap(a => {
    const { neutral, id } = a.circuit
    if (neutral.kind !== 'shared') return []
    const b = needs.find(n => n.circuit.id === neutral.with)
    return b && id < b.circuit.id ? [[a, b] as [CircuitNeed, CircuitNeed]] : []
  })
}

/** Those of which at least one half is picked. */
const pickedPairs = (needs: readonly CircuitNeed[]) =>
  allPairs(needs).filter(([a, b]) => a.circuit.picked || b.circuit.picked)

/** Two hots on one leg, or on legs that are tied: their currents add in the neutral, whatever the source does. */
export function neutralSharedOverload({ job, needs, figures }: Evaluated): Said[] {
  const supply = supplyOf(job)
  const { output } = figures
  if (!supply?.throughPanel || !output) return []
  const reached = reachedPanels(job)
  const wholePanel = servesWhole(job) && supply.arrangement === 'tied'
  // where a whole panel is fed, whoever switches breakers can switch these on too
  const left = wholePanel
    ? allPairs(needs).filter(
        ([a, b]) =>
          !(a.circuit.picked && b.circuit.picked) &&
          reached.has(a.panel.id) &&
          !a.circuit.lockedOff &&
          !b.circuit.lockedOff,
      )
    : []
  const fed = pickedPairs(needs).filter(
    ([a, b]) => a.served && b.served && (!opposed(supply.arrangement) || a.leg === b.leg),
  )
  return [...fed, ...left].flatMap(([a, b]) => {
    const { neutral, known } = neutralOf(a, b)
    const { result, working } = sharedNeutral.compute({
      arrangement: supply.arrangement === 'independent' && a.leg !== b.leg ? 'independent' : 'tied',
      breakerAA: a.circuit.breakerA,
      breakerBA: b.circuit.breakerA,
      neutral,
      sourceBreakerA: output.outlet?.amps ?? Math.floor(output.legW.L1 / 120),
    })
    if (result.ok) return []
    const picked = a.circuit.picked && b.circuit.picked
    const how =
      a.leg === b.leg && supply.arrangement !== 'tied'
        ? `with both on ${a.leg}`
        : `with ${arrangementNames[supply.arrangement]}`
    return [
      {
        id: 'neutral.shared-overload',
        severity: picked ? 'stop' : 'fix',
        sentence: `${named(a)} and ${named(b)} share a neutral of ${neutral.size} AWG${known ? '' : ' (size assumed)'}, good for ${quantity(result.neutralA, 'A')}; ${how} it can carry ${quantity(result.worstNeutralA, 'A')}${picked ? '' : ', once somebody switches both on: the whole panel is fed'}.`,
        why: 'The two currents add in the neutral, and no breaker watches it: it overheats inside the wall.',
        remedy: !picked
          ? 'Lock one of the two off while the source feeds the panel, and mark it: SINGLE 120-VOLT SUPPLY, no multiwire circuits.'
          : `Drop one of the two, put them on opposite legs under split phase, or feed from an outlet whose breaker is at most ${quantity(result.neutralA, 'A')}.`,
        article: 'NEC 210.4, 310.16; 710.15(C) where article 710 applies',
        target: { view: 'panel', circuitIds: [a.circuit.id, b.circuit.id] },
        working,
        fixes: [a, b].map(n =>
          picked
            ? {
                label: `Drop ${named(n)}`,
                operations: [{ op: 'selectCircuit', circuitId: n.circuit.id, picked: false }],
              }
            : {
                label: `Plan a lock on ${named(n)}`,
                operations: [toPlan({ kind: 'lock', circuitId: n.circuit.id })],
              },
        ),
      } satisfies Said,
    ]
  })
}

/** The shared neutral's wire: the smaller of what is recorded on either circuit, else the size their breakers usually have. */
function neutralOf(a: CircuitNeed, b: CircuitNeed) {
  const wires = [a.circuit.wire, b.circuit.wire].filter(w => w !== undefined)
  const amps = (w: (typeof wires)[number]) => ordinaryAmpacityA(w.material, w.size) ?? 0
  const [smaller] = wires.sort((x, y) => amps(x) - amps(y))
  return {
    neutral: smaller ?? { material: 'cu' as const, size: usualSize(a, b) },
    known: smaller !== undefined,
  }
}

const usualSize = (a: CircuitNeed, b: CircuitNeed) => {
  const most = Math.max(a.circuit.breakerA, b.circuit.breakerA)
  return most <= 15 ? '14' : most <= 20 ? '12' : most <= 30 ? '10' : '6'
}

export function neutralSharedSplit({ job, needs }: Evaluated): Said[] {
  const { transfer, serves } = methodOf(job.hookup.method)
  const moves = movesCircuits(job)
  if (transfer !== 'switch' && serves !== 'positions' && !moves) return []
  const apart = pickedPairs(needs)
    .filter(([a, b]) => a.place !== null && b.place !== null && !besideEachOther(a.place, b.place))
    .map(
      ([a, b]) =>
        ({
          id: 'neutral.shared-split',
          severity: 'stop',
          sentence: `${named(a)} and ${named(b)} share a neutral and stand on positions ${a.place} and ${b.place}, which can be thrown apart.`,
          why: 'With one hot on the source and the other on the utility, both supplies return through one neutral.',
          remedy:
            'Put them on two positions side by side that one handle tie throws, or give one a neutral of its own.',
          target: { view: 'hook-up', field: 'positions' },
          fixes: [],
        }) satisfies Said,
    )
  const split = pickedPairs(needs)
    .filter(([a, b]) => a.circuit.picked !== b.circuit.picked)
    .map(([a, b]) => {
      const [moved, left] = a.circuit.picked ? [a, b] : [b, a]
      const together = moves && a.panel.id === newPanelId && b.panel.id === newPanelId
      return {
        id: 'neutral.shared-split',
        severity: together ? 'fix' : 'stop',
        sentence: together
          ? `${named(left)} goes to the new panel with ${named(moved)}, whose neutral it shares, and nobody reckons with its load.`
          : `${named(moved)} goes to the ${moves ? 'new panel' : 'switch'}, but ${named(left)}, which shares its neutral, stays ${moves ? 'where it is' : 'on the utility'}.`,
        why: together
          ? 'The two hots of one neutral never part: what one carries over, the other carries too, and the source feeds it.'
          : 'Two supplies would return through one neutral: it can carry both currents, and both are live when one is off.',
        remedy: together
          ? 'Pick it and enter what it feeds, or drop both, or pull a neutral of its own.'
          : 'Move both hots together, or neither, or pull a neutral of its own.',
        article: 'NEC 300.3(B), 210.4',
        target: { view: 'panel', circuitIds: [moved.circuit.id, left.circuit.id] },
        fixes: [
          {
            label: `Pick ${named(left)} too`,
            operations: [{ op: 'selectCircuit', circuitId: left.circuit.id, picked: true }],
          },
          {
            label: `Drop ${named(moved)}`,
            operations: [{ op: 'selectCircuit', circuitId: moved.circuit.id, picked: false }],
          },
        ],
      } satisfies Said
    })
  return [...split, ...apart]
}

/** The two positions of one pair, which a handle tie joins. */
const besideEachOther = (a: number, b: number) => Math.ceil(a / 2) === Math.ceil(b / 2)

export function neutralUnknown({ needs }: Evaluated): Said[] {
  const unsure = needs.filter(n => n.circuit.picked && n.circuit.neutral.kind === 'unknown')
  if (!unsure.length) return []
  return [
    {
      id: 'neutral.unknown',
      severity: 'ask',
      sentence: `Whether ${together(unsure.map(named))} ${unsure.length > 1 ? 'have neutrals of their own' : 'has a neutral of its own'} is not known.`,
      why: 'A shared neutral adds up on tied legs and must not be parted by a switch.',
      remedy:
        'With the cover off and power off, follow the cable: three insulated wires in one sheath mean a shared neutral.',
      article: 'NEC 210.4',
      target: { view: 'panel', circuitIds: unsure.map(n => n.circuit.id) },
      fixes: [],
    },
  ]
}
