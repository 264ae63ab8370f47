import { groundingOf } from '../assess/grounding'
import { circuitNeeds, named } from '../assess/needs'
import { methodOf } from '../hookup/method'
import { wayLimit } from '../hookup/way'
import { asPlanned } from '../job/as-planned'
import { feederOf, placeText, reachedPanels, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import type { Panel } from '../panel/schema'
import { arrangementNames } from '../source/arrangement'
import { voltsOf } from '../source/design'
import { chargeW } from '../source/inputs'
import { capacityOf } from '../source/store'
import { plural, quantity } from '../units/format'

/** What a part of the one-line is drawn as. */
export type PartKind =
  | 'utility'
  | 'meter'
  | 'panel'
  | 'switch'
  | 'interlock'
  | 'breaker'
  | 'inlet'
  | 'unit'
  | 'inverter'
  | 'bank'
  | 'generator'
  | 'array'
  | 'combiner'
  | 'transformer'
  | 'loads'
  | 'solar'

export interface Part {
  id: string
  kind: PartKind
  title: string
  lines: string[]
  /** the screen and place where it is changed */
  goto: { view: 'source' | 'hook-up' | 'panel'; field?: string }
  /** neutral and ground joined here, or kept apart */
  bond?: 'bonded' | 'floating' | 'not stated'
  /** the grounding electrode of the service */
  electrode?: boolean
}

export interface Line {
  from: string
  to: string
  label: string[]
  /** a flexible cord, taken away after the outage */
  cord?: boolean
  /** only one of the two lines that meet can be closed */
  exclusive?: boolean
}

/** The whole installation as one line stands for all conductors: parts, and what joins them. */
export interface OneLine {
  parts: Part[]
  lines: Line[]
  /** what the drawing cannot show and must say */
  notes: string[]
}

const most = 7
const listed = (names: string[]) =>
  names.length > most ? [...names.slice(0, most), `and ${names.length - most} more`] : names

/** The one-line of a job as planned, from the same document as every figure. */
export function oneLineOf(found: Job): OneLine {
  const { job } = asPlanned(found)
  const parts: Part[] = []
  const lines: Line[] = []
  const method = methodOf(job.hookup.method)
  const add = (part: Part) => {
    parts.push(part)
    return part.id
  }
  const join = (from: string, to: string, label: string[] = [], more: Partial<Line> = {}) =>
    lines.push({ from, to, label, ...more })

  add({ id: 'utility', kind: 'utility', title: 'Utility', lines: ['120/240 V'], goto: { view: 'panel' } })
  add({ id: 'meter', kind: 'meter', title: 'Meter', lines: [], goto: { view: 'panel' } })
  join('utility', 'meter')
  const tied = tiedPanel(job)
  const alone = method.neutral === 'stand-alone'
  const needs = circuitNeeds(job)
  for (const panel of job.panels) {
    const service = panel.supply === 'service'
    add({
      id: `panel-${panel.id}`,
      kind: 'panel',
      // what is only planned is marked as on the panel
      title: found.panels.some(p => p.id === panel.id) ? panel.name : `+ ${panel.name}`,
      lines: panelLines(panel),
      goto: { view: 'panel' },
      bond: (service ? panel.neutralBonded !== false : panel.neutralBonded) ? 'bonded' : 'floating',
      ...(service && { electrode: true }),
    })
  }
  // what feeds each panel: the meter, a feeder, or the transfer in between
  const transfer = transferPart(job)
  if (transfer) add(transfer)
  for (const panel of job.panels) {
    const id = `panel-${panel.id}`
    const from = feederOf(job, panel)
    const isTied = panel === tied
    const through = transfer && isTied && (transfer.kind === 'interlock' || transfer.kind === 'inverter')
    const label = from
      ? [
          `${from.circuit.breakerA} A, ${placeText(job, from.panel, from.circuit)}`,
          wireText(from.circuit.wire),
        ]
      : panel.mainA === undefined
        ? []
        : [`${panel.mainA} A`]
    const origin = from ? `panel-${from.panel.id}` : (planned(job, panel) ?? 'meter')
    if (through) {
      join(origin, transfer.id, label.filter(Boolean), { exclusive: transfer.kind === 'interlock' })
      join(transfer.id, id)
    } else join(origin, id, label.filter(Boolean))
  }
  const head = sourceParts(job, add, join)
  const reached = reachedPanels(job)
  const picked = needs.filter(n => n.circuit.picked && !n.feeds && (alone || reached.has(n.panel.id)))
  if (transfer && head && transfer.kind !== 'inverter') {
    const last = pathParts(job, head, add, join)
    join(last.id, transfer.id, last.label, { exclusive: true, ...(last.cord && { cord: true }) })
  } else if (alone && head) {
    const cord = job.hookup.path?.find(l => l.kind === 'cord')
    add({
      id: 'appliances',
      kind: 'loads',
      title: 'Plugged in',
      lines: listed(picked.filter(n => n.served).map(named)),
      goto: { view: 'panel' },
    })
    join(head, 'appliances', cord ? [cord.name ?? 'cord', cordText(cord)] : ['cord'], { cord: true })
  }
  loadParts(job, { transfer, alone, picked, add, join })
  return { parts, lines, notes: notesOf(job) }
}

type Add = (part: Part) => string
type Join = (from: string, to: string, label?: string[], more?: Partial<Line>) => void

const wireText = (wire: { material: string; size: string } | undefined) =>
  wire ? `${wire.size} AWG ${wire.material === 'al' ? 'aluminum' : 'copper'}` : ''
const cordText = (link: { size?: string | undefined; lengthFt?: number | undefined }) =>
  [link.size ? `${link.size} AWG` : '', link.lengthFt ? `${link.lengthFt} ft` : ''].filter(Boolean).join(', ')

const panelLines = (panel: Panel) => [
  [panel.mainA === undefined ? 'main lugs' : `main ${panel.mainA} A`, panel.busA ? `bus ${panel.busA} A` : '']
    .filter(Boolean)
    .join(', '),
  ...(panel.series ? [panel.series] : []),
]

/** A panel whose feeder nobody knows hangs behind the service, or behind the first other one that it does not feed itself. */
const planned = (job: Job, panel: Panel) => {
  if (panel.supply === 'service') return null
  const other =
    job.panels.find(p => p !== panel && p.supply === 'service') ??
    job.panels.find(p => p !== panel && feederOf(job, p)?.panel !== panel)
  return other ? `panel-${other.id}` : null
}

function transferPart(job: Job): Part | null {
  const { hookup, source } = job
  const method = methodOf(hookup.method)
  const goto = { view: 'hook-up', field: 'method' } as const
  if (method.transfer === 'interlock')
    return {
      id: 'transfer',
      kind: 'interlock',
      title: hookup.interlock?.name ?? 'Interlock',
      lines: [
        `backfed ${hookup.backfed?.breakerA ?? 30} A 2-pole`,
        hookup.backfed?.heldDown === false ? 'no hold-down' : 'held down',
      ],
      goto,
    }
  if (method.transfer === 'switch') {
    const device = hookup.switch
    return {
      id: 'transfer',
      kind: 'switch',
      title: device?.name ?? method.short,
      lines: [
        ...(device ? [`${plural(device.positions, 'position')}, input ${device.inputA} A`] : []),
        device?.switchesNeutral || method.neutral === 'switched'
          ? 'switches hot and neutral'
          : 'switches hots only',
      ],
      goto,
    }
  }
  if (hookup.method === 'managed-panel')
    return {
      id: 'transfer',
      kind: 'switch',
      title: hookup.managed?.name ?? method.short,
      lines: [
        hookup.managed ? `${hookup.managed.circuits} circuits, ${hookup.managed.inputA} A` : '',
        'automatic, sheds',
      ].filter(Boolean),
      goto,
    }
  if (hookup.method === 'critical-subpanel') {
    const unit = source?.units.find(u => u.equipment.kind === 'inverter')?.equipment
    return {
      id: 'transfer',
      kind: 'inverter',
      title: unit?.name ?? 'Inverter',
      lines: [
        ...(unit ? [`${quantity(unit.continuousW, 'W')}, ${voltsOf(unit)} V`] : []),
        ...(unit?.kind === 'inverter' && unit.transferA
          ? [`own transfer, ${unit.transferA} A`]
          : ['own transfer']),
      ],
      goto: { view: 'source' },
      ...(unit && { bond: neutralOf(unit) }),
    }
  }
  if (method.transfer === 'none')
    return { id: 'transfer', kind: 'breaker', title: 'Backfed breaker', lines: ['NO INTERLOCK'], goto }
  return null
}

const neutralOf = (unit: { neutral?: 'floating' | 'bonded' | 'not stated' | undefined }) =>
  unit.neutral ?? 'not stated'

/** The source from its stores to where the path begins; the id of that part, or null where it is the transfer itself. */
function sourceParts(job: Job, add: Add, join: Join): string | null {
  const { source } = job
  if (!source) return null
  const critical = job.hookup.method === 'critical-subpanel'
  const atSource = (field: string) => ({ view: 'source', field }) as const
  const ids = source.units.map((unit, n) => {
    const { equipment } = unit
    const wired = critical && equipment.kind === 'inverter' && n === 0
    const id = wired ? 'transfer' : `unit-${unit.id}`
    if (!wired)
      add({
        id,
        kind:
          equipment.kind === 'generator' ? 'generator' : equipment.kind === 'inverter' ? 'inverter' : 'unit',
        title: equipment.name,
        lines: [
          `${quantity(equipment.continuousW, 'W')}, ${voltsOf(equipment)} V`,
          ...(unit.expansionUnits ? [`with ${plural(unit.expansionUnits, 'expansion unit')}`] : []),
          ...(capacityOf(unit) && !unit.bank ? [quantity(capacityOf(unit), 'Wh')] : []),
        ],
        goto: atSource('units'),
        bond: job.hookup.bondingPlug ? 'bonded' : neutralOf(equipment),
      })
    if (unit.bank) {
      add({
        id: `bank-${unit.id}`,
        kind: 'bank',
        title: unit.bank.equipment.name,
        lines: [
          `${unit.bank.series} in series × ${unit.bank.parallel}`,
          `${unit.bank.series * unit.bank.equipment.unitV} V dc`,
        ],
        goto: atSource('units'),
      })
      join(`bank-${unit.id}`, id, ['dc'])
    }
    for (const array of source.arrays?.filter(a => a.unitId === unit.id) ?? []) {
      add({
        id: `array-${array.id}`,
        kind: 'array',
        title: `${array.series * array.parallel} × ${array.module.name}`,
        lines: [
          `${array.series} in series × ${array.parallel}`,
          quantity(array.series * array.parallel * array.module.stcW, 'W'),
        ],
        goto: atSource(`array-${array.id}`),
      })
      join(`array-${array.id}`, id, ['dc'])
    }
    return id
  })
  if (source.generator) {
    add({
      id: 'generator',
      kind: 'generator',
      title: source.generator.equipment.name,
      lines: [quantity(source.generator.equipment.continuousW, 'W'), source.generator.where],
      goto: atSource('generator'),
      bond: source.generator.equipment.neutral,
    })
    const watts = chargeW(job)
    const [first] = ids
    if (first) join('generator', first, ['charges', ...(watts ? [quantity(watts, 'W')] : [])], { cord: true })
  }
  const [first = null] = ids
  if (source.arrangement === 'combined' || source.arrangement === 'independent') {
    add({
      id: 'combiner',
      kind: 'combiner',
      title: source.arrangement === 'combined' ? (source.combiner?.name ?? 'Combiner') : 'No combiner',
      lines: [source.arrangement === 'combined' ? '120/240 V, synchronised' : 'one leg each, no fixed phase'],
      goto: atSource('arrangement'),
    })
    for (const id of ids) join(id, 'combiner', [], { cord: true })
    return 'combiner'
  }
  if (source.arrangement === 'autotransformer' && source.autotransformer) {
    add({
      id: 'transformer',
      kind: 'transformer',
      title: source.autotransformer.name,
      lines: ['120 to 120/240 V', quantity(source.autotransformer.continuousW, 'W')],
      goto: atSource('arrangement'),
    })
    if (first) join(first, 'transformer', [], { cord: true })
    return 'transformer'
  }
  return first === 'transfer' ? null : first
}

/** Cord and adapters as a line's label, the inlet as a part; what reaches the transfer, and its label. */
function pathParts(
  job: Job,
  head: string,
  add: Add,
  join: Join,
): { id: string; label: string[]; cord: boolean } {
  const path = job.hookup.path ?? []
  const arrangement = job.source ? arrangementNames[job.source.arrangement] : ''
  const portable = path.filter(l => l.kind === 'cord' || l.kind === 'adapter')
  const label = portable.flatMap(l => [
    l.name ?? l.kind,
    ...(l.kind === 'cord' ? [cordText(l.name?.includes('ft') ? { size: l.size } : l)] : []),
  ])
  const inlet = path.find(l => l.kind === 'inlet')
  const type = inlet?.from ?? job.hookup.inlet?.type ?? job.hookup.switch?.inlet
  add({
    id: 'inlet',
    kind: 'inlet',
    title: inlet?.name ?? job.hookup.inlet?.name ?? 'Inlet',
    lines: [[type ?? 'type open', inlet ? `${inlet.ratingA} A` : ''].filter(Boolean).join(', ')],
    goto: { view: 'hook-up', field: 'path' },
  })
  join(head, 'inlet', [...label, arrangement].filter(Boolean), { cord: true })
  const wire = path.find(l => l.kind === 'wire')
  return {
    id: 'inlet',
    label: wire ? [cordText(wire), wire.material === 'al' ? 'aluminum' : 'copper'] : [],
    cord: false,
  }
}

function loadParts(
  job: Job,
  {
    transfer,
    alone,
    picked,
    add,
    join,
  }: {
    transfer: Part | null
    alone: boolean
    picked: ReturnType<typeof circuitNeeds>
    add: Add
    join: Join
  },
) {
  const throughSwitch = transfer?.kind === 'switch'
  const tied = tiedPanel(job)
  if (throughSwitch) {
    join(`panel-${tied.id}`, 'transfer', [plural(picked.length, 'hot')], { exclusive: true })
    add({
      id: 'switched',
      kind: 'loads',
      title: plural(picked.length, 'picked circuit'),
      lines: listed(picked.map(n => (n.place === null ? named(n) : `${n.place}: ${named(n)}`))),
      goto: { view: 'hook-up', field: 'positions' },
    })
    join('transfer', 'switched')
  }
  for (const panel of job.panels) {
    const mine = circuitNeeds(job).filter(n => n.panel.id === panel.id && !n.feeds)
    const solar = mine.filter(n => n.circuit.purpose === 'solar')
    for (const n of solar) {
      add({
        id: `pv-${n.circuit.id}`,
        kind: 'solar',
        title: n.circuit.label || 'Grid-tied solar',
        lines: ['grid-tied', `${n.circuit.breakerA} A`],
        goto: { view: 'panel' },
      })
      join(`panel-${panel.id}`, `pv-${n.circuit.id}`)
    }
    const own = picked.filter(n => n.panel.id === panel.id)
    const rest = mine.filter(
      n => n.circuit.purpose !== 'solar' && !own.some(o => o.circuit.id === n.circuit.id),
    ).length
    if (!throughSwitch && !alone && own.length) {
      add({
        id: `picked-${panel.id}`,
        kind: 'loads',
        title: plural(own.length, 'picked circuit'),
        lines: listed(own.map(named)),
        goto: { view: 'panel' },
      })
      join(`panel-${panel.id}`, `picked-${panel.id}`)
    }
    if (rest) {
      add({
        id: `rest-${panel.id}`,
        kind: 'loads',
        title: plural(rest, 'other circuit'),
        lines: [],
        goto: { view: 'panel' },
      })
      join(`panel-${panel.id}`, `rest-${panel.id}`)
    }
  }
}

function notesOf(job: Job): string[] {
  const { bonds, neutral, ground } = groundingOf(job)
  const limit = job.source ? wayLimit(job) : null
  const method = methodOf(job.hookup.method)
  return [
    `Hook-up: ${method.name}.`,
    ...(job.source
      ? [
          `Arrangement: ${arrangementNames[job.source.arrangement]}${job.source.arrangement === 'one-leg' ? `, ${job.source.liveLeg} live` : ''}.`,
        ]
      : []),
    neutral === 'unknown'
      ? 'Neutral-to-ground bonds while the source runs: not to be said before the hook-up is chosen.'
      : `Neutral-to-ground bonds while the source runs: ${bonds.length ? bonds.map(b => b.where).join('; ') : 'none'}.`,
    ground === 'interrupted'
      ? 'EQUIPMENT GROUND INTERRUPTED.'
      : 'Equipment ground runs with every line, unswitched.',
    ...(limit ? [`Each hot of the way in is limited by the ${limit.name}.`] : []),
    ...(job.hookup.sourceNeutral === 'left off' ? ['NEUTRAL OF THE SOURCE LEFT OFF.'] : []),
    ...(job.hookup.bondingPlug ? ['A bonding plug is fitted at the source.'] : []),
  ]
}
