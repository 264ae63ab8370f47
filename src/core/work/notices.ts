import { inEdition } from '../articles'
import { groundingOf } from '../assess/grounding'
import { circuitNeeds, supplyOf } from '../assess/needs'
import { kindName } from '../equipment'
import type { UnitEquipment } from '../equipment/source-kinds'
import { methodOf } from '../hookup/method'
import { asPlanned } from '../job/as-planned'
import { feederOf, placeText, reachedPanels, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { changeId, panelPutUp } from '../plan/change'
import { opposed } from '../source/arrangement'
import { capacityOf } from '../source/store'
import { plural, quantity, together } from '../units/format'
import { wiringPlan } from './wiring'
import { scheduleOf } from './wiring/schedule'

/** On what a label is printed: a warning is read from where one stands, a marker is wrapped round a wire. */
export const noticeSizes = {
  large: { name: 'Notices, 2 × 4 in', sheet: '10' },
  small: { name: 'Labels, 1 × 2⅝ in', sheet: '30' },
  marker: { name: 'Wire markers, ½ × 1¾ in', sheet: '80' },
} as const
export type NoticeSize = keyof typeof noticeSizes

/** Where a notice is stuck, as it is drawn. */
export type NoticeSpot = 'service' | 'panel' | 'switch' | 'inlet' | 'inverter' | 'battery' | 'wires'

/** One label or notice: what it says, to whom it is owed, where it goes. */
export interface Notice {
  id: string
  size: NoticeSize
  /** the word that is read first */
  head: string
  lines: string[]
  /** the article that asks for it; null: good practice */
  article: string | null
  spot: NoticeSpot
  /** in words */
  where: string
}

/** What a notice says, in one line: what is printed anew when it differs. */
export const saidBy = ({ head, lines, where }: Notice): string => [head, ...lines, where].join(' | ')

/** A source as a stranger at the service equipment calls it. */
const typeOf = ({ kind }: Pick<UnitEquipment, 'kind'>) =>
  kind === 'station'
    ? 'portable power station'
    : kind === 'inverter'
      ? 'battery with inverter'
      : kindName[kind]

/** Every label and notice of a job, from its plan, its wiring and where neutral and ground are joined; what cannot be said yet is told. */
export function noticesOf(found: Job): { notices: Notice[]; open: string[] } {
  const { job } = asPlanned(found)
  const open: string[] = []
  const notices: Notice[] = []
  const add = (n: Notice) => notices.push({ ...n, article: n.article && inEdition(n.article, job.edition) })
  const method = methodOf(job.hookup.method)
  const tied = tiedPanel(job)
  const { source, hookup } = job
  const through = method.transfer !== 'unplugging' && method.transfer !== 'unknown' && source !== undefined
  if (through) {
    sourceNotices()
    if (hookup.inlet || hookup.switch) inletNotice()
    if (method.transfer === 'interlock' && hookup.backfed) backfedNotice()
  }
  panelNotices()
  positionLabels()
  lockNotices()
  ownNotices()
  sensors()
  wireMarkers()
  return { notices, open }

  function sourceNotices() {
    if (!source) return
    const types = [...new Set(source.units.map(u => typeOf(u.equipment)))]
    const watts = source.units.reduce((sum, u) => sum + u.equipment.continuousW, 0)
    const Wh = source.units.reduce((sum, u) => sum + capacityOf(u), 0)
    const stands = hookup.inlet?.name ?? hookup.switch?.name ?? 'where it stands'
    const service = job.panels.find(p => p.supply === 'service')
    const at = service ? `service equipment: ${service.name}` : 'service equipment of the building'
    add({
      id: 'standby',
      size: 'large',
      head: 'CAUTION: TWO SOURCES OF SUPPLY',
      lines: [
        `Optional standby: ${together(types)}, ${quantity(watts, 'W')}${Wh ? `, ${quantity(Wh, 'Wh')}` : ''}.`,
        method.transfer === 'automatic'
          ? `It stands at the ${tied.name} and starts by itself.`
          : `It is connected at ${stands}, for ${tied.name}.`,
        'Open both, lock both, prove dead.',
      ],
      article: 'NEC 702.7(A)',
      spot: 'service',
      where: at,
    })
    const { neutral } = groundingOf(job)
    if (neutral === 'hots-only')
      add({
        id: 'electrode',
        size: 'large',
        head: 'WARNING',
        lines: [
          'Shock hazard exists if the grounding electrode conductor or bonding jumper connection in this equipment is removed while the alternate source is energized.',
        ],
        article: 'NEC 702.7(B)',
        spot: 'service',
        where: at,
      })
    const supply = supplyOf(job)
    if (supply && !opposed(supply.arrangement))
      for (const panel of job.panels.filter(p => reachedPanels(job).has(p.id)))
        add({
          id: `single:${panel.id}`,
          size: 'large',
          head: 'WARNING: SINGLE 120-VOLT SUPPLY',
          lines: ['Do not connect multiwire branch circuits while on the standby source.'],
          article: 'NEC 710.15(C) where article 710 applies',
          spot: 'panel',
          where: `on the door of ${panel.name}`,
        })
    const bank = source.units.find(u => u.bank)
    if (bank?.bank)
      add({
        id: 'battery',
        size: 'large',
        head: 'BATTERY DISCONNECT',
        lines: [
          `${bank.bank.equipment.name}: nominal ${quantity(bank.bank.series * bank.bank.equipment.unitV, 'V')} dc, ${quantity(capacityOf(bank), 'Wh')}.`,
          'Short-circuit current, by the maker: ________ A. Date: ________',
        ],
        article: 'NEC 480.7, 706.15',
        spot: 'battery',
        where: 'at the battery disconnect',
      })
    if (method.transfer === 'automatic')
      add({
        id: 'inverter',
        size: 'small',
        head: 'STARTS BY ITSELF',
        lines: [`Output live without the utility. Off at the battery disconnect.`],
        article: 'NEC 110.22(A)',
        spot: 'inverter',
        where: 'on the inverter, and on the door of the panel that it feeds',
      })
  }

  function inletNotice() {
    const { neutral } = groundingOf(job)
    const at = hookup.inlet?.name ?? `the inlet of ${hookup.switch?.name}`
    if (neutral !== 'hots-only' && neutral !== 'switched') {
      open.push(
        `${at}: whether it is for a bonded or a floating neutral cannot be said before the hook-up is chosen (NEC 702.7(C)).`,
      )
      return
    }
    const bonded = neutral === 'switched'
    add({
      id: 'inlet',
      size: 'large',
      head: 'WARNING',
      lines: [
        bonded
          ? 'For connection of a separately derived (bonded neutral) system only.'
          : 'For connection of a nonseparately derived (floating neutral) system only.',
        ...(hookup.inlet ? [`${quantity(hookup.inlet.ratingA, 'A')}, ${hookup.inlet.type}.`] : []),
        'Generator outdoors only, away from openings.',
      ],
      article: 'NEC 702.7(C)',
      spot: 'inlet',
      where: `beside ${at}`,
    })
  }

  function backfedNotice() {
    const at =
      hookup.backfed?.space === undefined
        ? 'the backfed breaker'
        : `the backfed breaker at ${placeText(job, tied, { position: hookup.backfed.space, poles: 2 })}`
    add({
      id: 'backfed',
      size: 'small',
      head: 'BACKFED: DO NOT RELOCATE',
      lines: ['Fed from the standby source. Never on with the main.'],
      article: 'NEC 408.36(D), 110.22(A)',
      spot: 'panel',
      where: `${tied.name}: beside ${at}`,
    })
  }

  function panelNotices() {
    const up = new Set(found.planned.flatMap(c => panelPutUp(c)?.id ?? []))
    for (const panel of job.panels) {
      const from = feederOf(job, panel)
      if (!from && panel.supply === 'service') continue
      if (!from && !up.has(panel.id)) continue
      add({
        id: `fed:${panel.id}`,
        size: 'small',
        head: panel.name.toUpperCase(),
        lines: [
          from
            ? `Fed from ${from.panel.name}, ${placeText(job, from.panel, from.circuit)}, ${quantity(from.circuit.breakerA, 'A')}${method.transfer === 'automatic' && panel === tied ? ', through the inverter' : ''}.`
            : 'Fed from: ________',
        ],
        article: 'NEC 408.4(B)',
        spot: 'panel',
        where: `on the door of ${panel.name}`,
      })
    }
  }

  function positionLabels() {
    const device = hookup.switch ?? hookup.managed
    if (method.serves !== 'positions' || !device) return
    for (const n of circuitNeeds(job)) {
      if (n.place === null) continue
      add({
        id: `position:${n.place}`,
        size: 'small',
        head: `${n.place} · ${n.leg === 'both' ? '240 V' : n.leg}`,
        lines: [`${n.position} ${n.circuit.label || 'unlabelled'}, ${quantity(n.circuit.breakerA, 'A')}`],
        article: 'NEC 110.22(A), 408.4(A)',
        spot: 'switch',
        where: `${device.name}: position ${n.place}`,
      })
    }
  }

  function lockNotices() {
    for (const panel of job.panels)
      for (const c of panel.circuits)
        if (c.lockedOff)
          add({
            id: `lock:${c.id}`,
            size: 'small',
            head: 'KEEP OFF ON BATTERY',
            lines: [
              `${placeText(job, panel, c)} ${c.label || 'unlabelled'}: locked off while the standby source feeds this panel.`,
            ],
            article: 'NEC 110.25',
            spot: 'panel',
            where: `${panel.name}: beside ${placeText(job, panel, c)}`,
          })
  }

  function ownNotices() {
    for (const c of found.planned)
      if (c.kind === 'notice' && c.origin !== 'hook-up')
        add({
          id: changeId(c),
          size: 'large',
          head: 'NOTICE',
          lines: [c.text],
          article: null,
          spot: 'panel',
          where: `at the ${c.where}`,
        })
  }

  function sensors() {
    if (!found.planned.some(c => c.kind === 'mount' && c.device === 'current transformers')) return
    for (const leg of ['L1', 'L2'])
      add({
        id: `ct:${leg}`,
        size: 'marker',
        head: `CT ${leg}`,
        lines: ['arrow as its drawing'],
        article: null,
        spot: 'wires',
        where: `on the lead of the current transformer of ${leg}, at both ends`,
      })
  }

  function wireMarkers() {
    for (const r of scheduleOf(wiringPlan(found))) {
      if (r.comes === 'there already') continue
      for (const end of ['from', 'to'] as const)
        add({
          id: `wire:${r.id}:${end}`,
          size: 'marker',
          head: r.mark,
          lines: [`${r.sizeAwg} · ${r.function}`],
          article: null,
          spot: 'wires',
          where: `on its end at ${end === 'from' ? r.from : r.to}`,
        })
    }
  }
}

/** Notices that are not printed yet as they read now, by what was printed last. */
export const unprinted = (job: Job, notices: readonly Notice[]): Notice[] => {
  const printed = new Map(job.work?.printed?.map(p => [p.id, p.said]))
  return notices.filter(n => printed.get(n.id) !== saidBy(n))
}

/** How many of each size. */
export const countText = (notices: readonly Notice[]): string =>
  together(
    (Object.keys(noticeSizes) as NoticeSize[]).flatMap(size => {
      const count = notices.filter(n => n.size === size).length
      return count
        ? [
            size === 'marker'
              ? plural(count, 'wire marker')
              : size === 'large'
                ? plural(count, 'notice')
                : plural(count, 'label'),
          ]
        : []
    }),
  )
