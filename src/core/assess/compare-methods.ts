import type { Severity } from '../checks/finding'
import { type Equipment, ofKind } from '../equipment'
import type { Interlock } from '../equipment/hookup-kinds'
import { type Hookup, type HookupDevice, hookupDevices } from '../hookup/design'
import { type Labour, usualLabour } from '../hookup/labour'
import { type MethodFacts, type MethodId, methodIds, methodOf } from '../hookup/method'
import { positionCount, positionLeg } from '../hookup/position'
import { asPlanned } from '../job/as-planned'
import { withHookupChanges, withoutHookup } from '../job/hookup-changes'
import { intercepts, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { roomFor } from '../panel/room'
import { plural, quantity, sentenceStart, together } from '../units/format'
import { evaluate } from './evaluate'
import { circuitNeeds, named } from './needs'

/** A range of our own estimate, or of the firm's prices. */
export interface Range {
  least: number
  most: number
}

/** One way of connecting, on this house. */
export interface MethodHere {
  method: MethodId
  name: string
  short: string
  chosen: boolean
  recommended: boolean
  /** why it is the one, or the sentence against it */
  reason: string
  /** picked circuits that it would carry */
  served: string[]
  unserved: string[]
  serves240: number
  of240: number
  spaces: string
  dailyUse: boolean
  automatic: boolean
  steps: string[]
  seconds: Range
  neutral: string
  devices: string[]
  labourHours: Range
  /** devices of the catalogue with a price, and small parts, $; null where a device has no price */
  price: Range | null
  findings: Record<Severity, number>
  stops: string[]
  /** the hook-up facts that choosing it sets */
  facts: Partial<Hookup>
}

const compared = methodIds.filter(id => id !== 'undecided' && id !== 'backfeed-unprotected')

/** Checks that tell of the source, the loads or missing facts, and weigh on every method alike. */
const ofTheMethod = new Set([
  'transfer.missing',
  'interlock.wrong-space',
  'interlock.not-listed',
  'backfeed.no-hold-down',
  'appliance-cord.jurisdiction',
  'pv.on-island',
  'bond.two',
  'bond.none',
  'bond.gfci-trip',
  'neutral.left-behind',
  'neutral.shared-split',
  'neutral.shared-overload',
  'passthrough.forbidden',
  'charge.loop',
  'v240.unserved',
  'v240.bridge',
  'leg.dead',
  'auto.full-load',
  'power.over',
  'va.over',
  'position.none',
  'position.limit',
  'transfer.limit',
  'protection.lost',
  'cord.hard-wired',
  'switch.volts',
  'interlock.limit',
  'interlock.no-main',
  'input.limit',
  'panel.no-space',
  'panel.not-fed',
  'whip.reach',
  'mount.wet',
  'utility-return.blind',
])

/**
 * Every method on this house, the recommended one first: what it would serve, need, cost and do to people, from the job
 * itself with only the hook-up changed; and for each of the rest the strongest reason against, in one sentence. Hours are the
 * firm's own where it gave some. Without a catalogue devices are unknown, and nothing that needs one is priced.
 */
export function compareMethods(
  found: Job,
  catalogue: readonly Equipment[],
  labour: Labour = usualLabour,
): MethodHere[] {
  const { job } = asPlanned(withoutHookup(found))
  const judged = compared.map(method => judge(found, method, catalogue, labour))
  const ranked = judged.sort((a, b) => b.score - a.score)
  const [best] = ranked
  if (!best) return []
  return ranked.map(({ score: _, against, ...here }, n) => ({
    ...here,
    recommended: n === 0,
    // the first is not beyond reproach: what holds against it is said too
    reason:
      n === 0
        ? `${forIt(here, job)}${against ? ` Against it: ${against}` : ''}`
        : (against ?? comparedWith(here, best)),
  }))
}

type Judged = Omit<MethodHere, 'recommended' | 'reason'> & { score: number; against: string | null }

/** The job with the method planned as the catalogue lets it. */
export function withMethod(found: Job, method: MethodId, catalogue: readonly Equipment[]): Job {
  const same = found.hookup.method === method
  const job = same ? found : withoutHookup(found)
  const facts = same ? job.hookup : factsFor(job, method, catalogue)
  return withHookupChanges({
    ...job,
    hookup: {
      bondingPlug: job.hookup.bondingPlug,
      ...placeFacts(job),
      ...facts,
      ...existing(job, method),
      method,
    },
  })
}

/** What a planned method costs in parts and hours, and what keeps it from being at all; from the job that has it. */
export function effortOf(
  here: Job,
  circuits: number,
  labour: Labour = usualLabour,
): { labourHours: Range; price: Range | null; missing: string | null; automatic: boolean } {
  const about = methodOf(here.hookup.method)
  return {
    labourHours: labourOf(here.hookup.method, Math.max(1, circuits), labour),
    price: priceOf(about, here.hookup, here),
    missing:
      missingFor(here, about) ??
      (spacesOf(here, about).kind === 'none' ? `${spacesOf(here, about).text}.` : null),
    automatic: about.automatic ?? false,
  }
}

function judge(job: Job, method: MethodId, catalogue: readonly Equipment[], labour: Labour): Judged {
  const about = methodOf(method)
  const here = withMethod(job, method, catalogue)
  const facts: Partial<Hookup> =
    job.hookup.method === method
      ? job.hookup
      : { ...factsFor(job, method, catalogue), ...existing(job, method) }
  const evaluation = evaluate(here)
  const needs = circuitNeeds(here).filter(n => n.circuit.picked && !n.feeds)
  const most = Math.min(about.most ?? Infinity, positionsOf(job, about, facts))
  // where circuits are led away, the leg that feeds them is chosen anew
  const takesAnyLeg = about.serves === 'positions' || about.serves === 'moved circuits'
  const can = needs
    .filter(
      n => !job.source || n.feed === 'live' || n.feed === 'no-position' || (takesAnyLeg && n.feed === 'dead'),
    )
    // plugs carry no two-pole, hard-wired load; a position takes its breaker or none
    .filter(n => about.serves !== 'appliances' || n.volts === 120)
    // what is wired in, a burner first of all, is not reached by cords; a conversion reaches it
    .filter(
      n =>
        method !== 'extension-cords' ||
        !n.circuit.loads.some(l => l.connection === 'hard-wired' || (l.needsBond && l.connection !== 'plug')),
    )
    // one leg live gives no 240 V, wherever a circuit is led
    .filter(n => n.volts === 120 || !job.source || n.feed !== 'bridge')
    .sort((a, b) => a.circuit.tier - b.circuit.tier)
  const served: typeof can = []
  let taken = 0
  for (const n of can) {
    const poles = about.serves === 'positions' ? n.circuit.poles : 1
    if (taken + poles > most) continue
    taken += poles
    served.push(n)
  }
  const found = evaluation.findings.filter(f => ofTheMethod.has(f.id))
  const count = (severity: Severity) => found.filter(f => f.severity === severity).length
  const findings = { stop: count('stop'), fix: count('fix'), mind: count('mind'), ask: count('ask') }
  const labourHours = labourOf(method, Math.max(1, served.length), labour)
  const devices = devicesOf(here.hookup)
  const room = spacesOf(asPlanned(withoutHookup(here)).job, about)
  const missing = missingFor(job, about)
  const stops = found.filter(f => f.severity === 'stop').map(f => f.sentence)
  const base = {
    method,
    name: about.name,
    short: about.short,
    chosen: job.hookup.method === method,
    served: served.map(named),
    unserved: needs.filter(n => !served.includes(n)).map(named),
    serves240: served.filter(n => n.volts === 240).length,
    of240: needs.filter(n => n.volts === 240).length,
    spaces: room.text,
    dailyUse: about.dailyUse ?? false,
    automatic: about.automatic ?? false,
    steps: [...(about.steps ?? [])],
    seconds: secondsOf(about, served.length, facts),
    neutral: neutralText[about.neutral],
    devices: needsDevice(about, here.hookup)
      ? ['not known: no catalogue']
      : devices.map(({ device, there }) => `${device.name}${there ? ' (there)' : ''}`),
    labourHours,
    price: priceOf(about, here.hookup, job),
    findings,
    stops,
    facts: { ...facts, method },
  }
  const tierOne = needs.filter(n => n.circuit.tier === 1)
  const lostOne = tierOne.filter(n => !served.includes(n))
  const mustAuto = job.brief.automatic === 'must' && !base.automatic
  const nobody = job.brief.atHome === 'nobody lives there' && !base.automatic && about.serves !== 'appliances'
  const temporary = method === 'extension-cords' && needs.length > 1
  const daily = (job.brief.dailyUse ?? 'no') !== 'no' && !base.dailyUse
  const overBudget = job.brief.budget !== undefined && (base.price?.least ?? 0) > job.brief.budget
  const score =
    served.length * 10 -
    lostOne.length * 40 -
    findings.stop * 25 -
    findings.fix * 8 -
    findings.mind * 1.5 -
    (missing ? 200 : 0) -
    (mustAuto ? 120 : 0) -
    (job.brief.automatic === 'would be nice' && !base.automatic ? 4 : 0) -
    (nobody ? 15 : 0) -
    (temporary ? 90 : 0) -
    (daily ? 10 : 0) -
    (overBudget ? 40 : 0) -
    (room.kind === 'none' ? 30 : room.kind === 'by moving' ? 5 : 0) -
    labourHours.most * 0.9 -
    (base.price?.most ?? 2000) / 160
  const against =
    missing ??
    (mustAuto ? 'It must come on by itself; this one waits for a hand.' : null) ??
    (lostOne.length
      ? `It leaves ${together(lostOne.slice(0, 3).map(named))}${lostOne.length > 3 ? ' and more' : ''} dark, which must run.`
      : null) ??
    (room.kind === 'none' ? `${room.text}.` : null) ??
    (overBudget
      ? `It begins at ${quantity(base.price?.least ?? 0, '$')}; ${quantity(job.brief.budget ?? 0, '$')} were named as the most.`
      : null) ??
    (temporary
      ? 'Cords lie on the floor and feed nothing that is hard-wired: for a storm, not for good.'
      : null)
  return { ...base, score, against }
}

const neutralText = {
  unknown: 'not to be said yet',
  'hots-only': 'stays tied to the house: the source must float',
  switched: 'switched too: the bond moves to the source',
  'stand-alone': 'never meets the house',
} as const

/** What stays of the hook-up whatever the method: where it is tied, and where its neutrals go. */
const placeFacts = ({ hookup }: Job): Partial<Hookup> => ({
  ...(hookup.panelId && { panelId: hookup.panelId }),
  ...(hookup.neutrals && { neutrals: hookup.neutrals }),
  ...(hookup.ground && { ground: hookup.ground }),
  ...(hookup.sourceNeutral && { sourceNeutral: hookup.sourceNeutral }),
  ...(hookup.exists && { exists: hookup.exists }),
})

/** What stands in the house already and this way of connecting uses: nothing to buy, and its limits count. */
function existing({ hookup }: Job, method: MethodId): Partial<Hookup> {
  const about = methodOf(method)
  const has = (device: HookupDevice) => hookup.exists?.includes(device) ?? false
  const switches = about.transfer === 'switch' && has('switch') && hookup.switch
  const fits = switches && (method !== 'single-circuit-switch' || switches.positions === 1)
  return {
    ...(fits && { switch: switches }),
    ...(fits && has('secondSwitch') && hookup.secondSwitch && { secondSwitch: hookup.secondSwitch }),
    ...(method === 'managed-panel' && has('managed') && hookup.managed && { managed: hookup.managed }),
    ...(about.besideMain && has('interlock') && hookup.interlock && { interlock: hookup.interlock }),
    ...(about.transfer === 'interlock' && has('inlet') && hookup.inlet && { inlet: hookup.inlet }),
  }
}

/** What choosing a method brings along: the device of the catalogue that fits this job best, and where its breaker goes. */
export function factsFor(found: Job, method: MethodId, catalogue: readonly Equipment[]): Partial<Hookup> {
  const { job } = asPlanned(withoutHookup(found))
  const about = methodOf(method)
  const panel = tiedPanel(job)
  const poles = job.panels
    .flatMap(p => p.circuits)
    .filter(c => c.picked)
    .reduce((sum, c) => sum + c.poles, 0)
  const switches = ofKind(catalogue, 'transfer-switch').sort((a, b) => a.positions - b.positions)
  const inlets = ofKind(catalogue, 'inlet')
  if (method === 'single-circuit-switch') {
    const device = switches.find(s => s.positions === 1)
    return device ? { switch: device } : {}
  }
  if (method === 'multi-circuit-switch') {
    const many = switches.filter(s => s.positions > 1)
    const device = many.find(s => s.positions >= poles) ?? many.at(-1)
    return device ? { switch: device } : {}
  }
  if (method === 'managed-panel') {
    const [device] = ofKind(catalogue, 'managed-panel')
    return device ? { managed: device } : {}
  }
  if (about.transfer !== 'interlock') return {}
  const inlet = inlets.find(i => i.type === 'L14-30')
  const interlock = interlockFor(panel.series, ofKind(catalogue, 'interlock'))
  const room = roomFor(panel, 2, about.besideMain ? 'beside the main' : 'anywhere')
  const space = about.besideMain && room.kind !== 'none' ? room.spaces[0] : undefined
  return {
    ...(inlet && { inlet }),
    ...(interlock && about.besideMain && { interlock }),
    backfed: { breakerA: 30, heldDown: true, ...(space !== undefined && { space }) },
  }
}

const interlockFor = (series: string, all: readonly Interlock[]) => all.find(i => i.fits.includes(series))

/** Positions that a circuit can be fed from: with one leg live only those on it. */
function positionsOf(job: Job, about: MethodFacts, facts: Partial<Hookup>): number {
  const count = positionCount(facts) ?? Infinity
  if (about.serves !== 'positions' || job.source?.arrangement !== 'one-leg' || !Number.isFinite(count))
    return count
  const { liveLeg } = job.source
  return Array.from({ length: count }, (_, i) => i + 1).filter(
    at => positionLeg(facts, at, liveLeg) === liveLeg,
  ).length
}

function missingFor(job: Job, about: MethodFacts): string | null {
  if (about.needs) {
    const own = job.source?.units.some(u => u.equipment.kind === 'inverter' && u.equipment.ownTransfer)
    if (!own)
      return `It needs ${about.needs}; ${job.source ? 'the source chosen here has none' : 'no source is chosen yet'}.`
  }
  // an inverter that transfers by itself is wired on: nothing of it plugs in; one without can feed any manual method
  const wiredOn =
    job.source?.units.every(u => u.equipment.kind === 'inverter' && u.equipment.ownTransfer) ?? false
  if (wiredOn && about.transfer !== 'automatic')
    return 'The inverter is wired on and transfers by itself: this would put a second transfer behind it.'
  return null
}

function labourOf(method: MethodId, circuits: number, { tasks }: Labour): Range {
  const hours = tasks.find(t => t.method === method) ??
    methodOf(method).hours ?? { least: 0, most: 0, eachMost: 0 }
  const more = circuits - 1
  return { least: hours.least + more * hours.eachMost * 0.6, most: hours.most + more * hours.eachMost }
}

const devicesOf = (facts: Partial<Hookup>) =>
  hookupDevices.flatMap(key => {
    const device = facts[key]
    return device ? [{ device, there: facts.exists?.includes(key) ?? false }] : []
  })

/** Whether it cannot be without a device that nobody has chosen and no catalogue offered. */
const needsDevice = (about: MethodFacts, facts: Partial<Hookup>): boolean =>
  about.transfer === 'switch'
    ? !facts.switch
    : about.serves === 'positions'
      ? !facts.managed
      : about.transfer === 'interlock' && !facts.inlet

function priceOf(about: MethodFacts, facts: Partial<Hookup>, job: Job): Range | null {
  if (needsDevice(about, facts)) return null
  // what is there already costs nothing
  const devices = devicesOf(facts).flatMap(({ device, there }) => (there ? [] : [device]))
  if (devices.some(d => d.price === undefined)) return null
  const sum = devices.reduce((total, d) => total + (d.price ?? 0), 0)
  const parts = about.parts ?? { least: 0, most: 0 }
  const moved =
    about.serves === 'moved circuits' && !intercepts(job.hookup)
      ? job.panels.flatMap(p => p.circuits).filter(c => c.picked).length * 12
      : 0
  return { least: sum + parts.least + moved, most: sum + parts.most + moved * 2 }
}

/** Seconds of the changeover, by hand: our estimate of half a minute a step and some seconds a circuit. */
function secondsOf(about: MethodFacts, circuits: number, facts: Partial<Hookup>): Range {
  if (about.automatic) {
    const within = facts.managed?.transferSeconds ?? 1
    return { least: 0, most: Math.max(1, within) }
  }
  const each = about.serves === 'appliances' ? 40 : about.transfer === 'switch' ? 5 : 8
  const steps = (about.steps ?? []).length
  return { least: 15 * steps + each * circuits * 0.6, most: 40 * steps + each * circuits }
}

function spacesOf(
  job: Job,
  about: MethodFacts,
): { kind: 'there' | 'by moving' | 'none' | 'nothing'; text: string } {
  if (!about.spaces) return { kind: 'nothing', text: 'none in the panel' }
  if (intercepts(job.hookup)) return { kind: 'nothing', text: 'none: it stands in the feeder' }
  const panel = tiedPanel(job)
  const where = about.besideMain ? 'beside the main' : 'anywhere'
  const room = roomFor(panel, about.spaces, where)
  const what = `${about.spaces}${about.besideMain ? ' beside the main' : ' one above the other'}`
  if (room.kind === 'there') return { kind: 'there', text: `${what}: free` }
  if (room.kind === 'by moving')
    return { kind: 'by moving', text: `${what}: free after ${plural(room.moves.length, 'move')}` }
  return {
    kind: 'none',
    text: `${what}: ${room.free ? `only ${room.free} free in ${panel.name}, and not there` : `${panel.name} is full`}`,
  }
}

function forIt(here: Omit<MethodHere, 'recommended' | 'reason'>, job: Job): string {
  const all = here.unserved.length === 0
  const carries = all
    ? `all ${plural(here.served.length, 'picked circuit')}`
    : `${here.served.length} of ${here.served.length + here.unserved.length} picked circuits`
  const more = [
    ...(here.automatic && job.brief.automatic !== 'no' ? ['comes on by itself'] : []),
    ...(here.of240 && here.serves240 === here.of240 ? ['gives 240 V'] : []),
    ...(here.dailyUse && (job.brief.dailyUse ?? 'no') !== 'no' ? ['works beside the utility every day'] : []),
    ...(here.findings.stop === 0 ? ['has nothing that stops it'] : []),
  ]
  return `Carries ${carries}${more.length ? `, ${together(more)}` : ''}; ${methodOf(here.method).strong}.`
}

/** The sentence against, by what it gives away beside the best. */
function comparedWith(here: Omit<MethodHere, 'recommended' | 'reason'>, best: MethodHere | Judged): string {
  const fewer = best.served.length - here.served.length
  if (fewer > 0)
    return `It carries ${plural(fewer, 'circuit')} fewer than the ${best.short.toLowerCase()}: not ${together(here.unserved.slice(0, 3))}${here.unserved.length > 3 ? ' and more' : ''}.`
  const [stop] = here.stops
  if (here.findings.stop > best.findings.stop && stop) return stop
  const dearer = (here.price?.least ?? 0) - (best.price?.least ?? 0)
  const longer = here.labourHours.most - best.labourHours.most
  if (here.findings.fix > best.findings.fix)
    return `It leaves ${plural(here.findings.fix, 'thing')} to put right, the ${best.short.toLowerCase()} ${best.findings.fix || 'none'}.`
  if (dearer > 0 && longer > 0)
    return `About ${quantity(dearer, '$')} more in parts and up to ${quantity(longer, 'h')} more work than the ${best.short.toLowerCase()}, for the same circuits.`
  if (dearer > 0)
    return `About ${quantity(dearer, '$')} more in parts than the ${best.short.toLowerCase()}, for the same circuits.`
  if (longer > 0)
    return `Up to ${quantity(longer, 'h')} more work than the ${best.short.toLowerCase()}, for the same circuits.`
  return `${sentenceStart(methodOf(here.method).weak)}.`
}
