import type { ViewOfWork } from './where'

/** Kinds of parts, in the order of a list; how much more than needed is bought: what is cut, dropped or split. A row for each. */
export const partKinds = {
  device: { name: 'Devices', wasteFraction: 0 },
  breaker: { name: 'Breakers and what belongs to them', wasteFraction: 0 },
  wire: { name: 'Wire', wasteFraction: 0.1 },
  raceway: { name: 'Raceway', wasteFraction: 0.1 },
  fitting: { name: 'Fittings and straps', wasteFraction: 0 },
  connector: { name: 'Connectors', wasteFraction: 0.1 },
  box: { name: 'Boxes and receptacles', wasteFraction: 0 },
  cord: { name: 'Cords and adapters', wasteFraction: 0 },
  label: { name: 'Labels and notices', wasteFraction: 0 },
  sundry: { name: 'Sundries', wasteFraction: 0 },
} as const
export type PartKind = keyof typeof partKinds

/** Why a part is on the list, and where that is decided. */
export interface Why {
  text: string
  at: ViewOfWork
  quantity: number
}

/** One part of a job: how much of it the plan asks, exactly, and how much is fetched for that. */
export interface PartLine {
  /** the same part has the same key in every job, price book and stock */
  key: string
  kind: PartKind
  name: string
  unit: 'each' | 'ft'
  /** what the plan asks */
  quantity: number
  /** with waste, whole where it is counted */
  needed: number
  /** $ for one, where the catalogue of the firm says so */
  catalogueUsd: number | null
  why: Why[]
}

/** A part that something asks for. */
export interface Asked {
  key: string
  kind: PartKind
  name: string
  unit?: 'ft'
  quantity: number
  catalogueUsd?: number | undefined
  why: string
  at: ViewOfWork
}

/** Each part once, with all that asks for it; in the order of the kinds, and of the names. */
export function summed(asked: readonly Asked[]): PartLine[] {
  const lines = new Map<string, PartLine>()
  for (const a of asked) {
    if (a.quantity <= 0) continue
    const line = lines.get(a.key) ?? {
      key: a.key,
      kind: a.kind,
      name: a.name,
      unit: a.unit ?? 'each',
      quantity: 0,
      needed: 0,
      catalogueUsd: a.catalogueUsd ?? null,
      why: [],
    }
    line.quantity += a.quantity
    line.why.push({ text: a.why, at: a.at, quantity: a.quantity })
    lines.set(a.key, line)
  }
  const order = Object.keys(partKinds)
  return [...lines.values()]
    .map(line => ({ ...line, needed: neededOf(line) }))
    .sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind) || byName.compare(a.name, b.name))
}

const byName = new Intl.Collator('en', { numeric: true })

function neededOf({ kind, unit, quantity }: PartLine): number {
  const more = quantity * (1 + partKinds[kind].wasteFraction)
  return unit === 'ft' ? more : Math.ceil(more - 1e-9)
}
