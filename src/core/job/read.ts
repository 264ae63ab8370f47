import { fail, fault, type Outcome, ok, parseWith } from '../outcome'
import { bare } from '../panel/schema'
import { withHookupChanges } from './hookup-changes'
import { formatVersion, type Job, jobSchema } from './schema'

/** Turns a document of the version it stands for into one of the next. */
export type Upgrade = (document: Record<string, unknown>) => Record<string, unknown>

/** Upgrades by the version they start from. */
const upgrades: Readonly<Record<number, Upgrade>> = {
  // 2: a job keeps calculations of the bench
  1: document => ({ ...document, calculations: [] }),
  // 3: a brief, requests and photographs; several panels, with numbering, bus legs, tandems and ties
  2: ({ panel, ...document }) => ({
    ...document,
    brief: { wants: [] },
    requests: [],
    photos: [],
    panels: [upgradedPanel(panel)],
  }),
  // 4: loads keep every source of a figure, patterns, levels and logs; conditions of the outage; utility data. All may be missing.
  3: document => document,
  // 5: a source of several units with their parts; the hook-up's equipment, path, positions and runs; acceptances
  4: document => ({
    ...document,
    ...(isRecord(document.source) && { source: upgradedSource(document.source) }),
  }),
  // 6: how an outage is lived through, and its weather; tilt and bearing of arrays. All may be missing.
  5: document => document,
  // 7: facts that judgement needs, all of which may be missing; what a bank is charged with at most got its full name
  6: document => ({
    ...document,
    ...(isRecord(document.source) && { source: withBanks(document.source) }),
  }),
  // 8: what is planned is told apart from what was found; what the hook-up asks for is listed when it is read
  7: document => ({ ...document, planned: [] }),
  // 9: what is decided of the wiring by hand. It may be missing.
  8: document => document,
  // 10: what is wanted says what it draws before a circuit carries it. All of it may be missing.
  9: document => document,
  // 11: what the field wrote down. It may be missing.
  10: document => document,
  // 12: what was proven, and what was taken over of it. All of it may be missing.
  11: document => document,
  // 13: what was handed over, and the visits afterwards. All of it may be missing.
  12: document => document,
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value)

function upgradedPanel(panel: unknown): unknown {
  if (!isRecord(panel)) return panel
  const circuits = Array.isArray(panel.circuits) ? panel.circuits.map(upgradedCircuit) : panel.circuits
  return { ...bare('main', 'Main panel', 8), ...panel, circuits }
}

function upgradedSource({ station, expansionUnits, ...source }: Record<string, unknown>): unknown {
  return { units: [{ id: 'u1', equipment: station, expansionUnits, owned: false }], ...source }
}

function withBanks(source: Record<string, unknown>): unknown {
  const renamed = (unit: unknown): unknown => {
    if (!isRecord(unit) || !isRecord(unit.bank) || !isRecord(unit.bank.equipment)) return unit
    const { chargeA, ...equipment } = unit.bank.equipment
    return {
      ...unit,
      bank: {
        ...unit.bank,
        equipment: { ...equipment, ...(chargeA !== undefined && { maxChargeA: chargeA }) },
      },
    }
  }
  return { ...source, units: Array.isArray(source.units) ? source.units.map(renamed) : source.units }
}

function upgradedCircuit(circuit: unknown): unknown {
  if (!isRecord(circuit)) return circuit
  const { traced } = circuit
  return {
    purpose: 'loads',
    ...circuit,
    ...(isRecord(traced) && { traced: { found: 'known', ...traced } }),
  }
}

/**
 * A job document of this or any earlier format version, checked and brought up to date.
 * Faults: not an object, no or a newer `formatVersion`, anything the schema refuses.
 */
export function readJob(raw: unknown): Outcome<Job> {
  const upgraded = upgradeTo(formatVersion, upgrades, raw)
  if (!upgraded.ok) return upgraded
  const read = parseWith(jobSchema, upgraded.value)
  return read.ok ? ok(withHookupChanges(read.value)) : read
}

/** Walks the upgrades one version at a time up to `current`. */
export function upgradeTo(
  current: number,
  steps: Readonly<Record<number, Upgrade>>,
  raw: unknown,
): Outcome<Record<string, unknown>> {
  if (raw === null || typeof raw !== 'object' || Array.isArray(raw))
    return fail(fault('$', 'is not a job document: it should be a JSON object with a formatVersion'))
  let document: Record<string, unknown> = { ...raw }
  const version = document.formatVersion
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return fail(fault('formatVersion', 'is missing or no whole number: is this a Spillway job document?'))
  if (version > current)
    return fail(
      fault(
        'formatVersion',
        `is ${version}; this Spillway reads up to ${current}. Update Spillway, then read the file again`,
      ),
    )
  for (let at = version; at < current; at++) {
    const step = steps[at]
    if (!step) return fail(fault('formatVersion', `is ${version}, which can no longer be upgraded`))
    document = { ...step(document), formatVersion: at + 1 }
  }
  return { ok: true, value: document }
}

/** The largest job document anyone has a use for, in bytes. */
export const largestJobBytes = 2_000_000

/** A job document from text: truncated or foreign text is a fault on `$`. */
export function readJobText(text: string): Outcome<Job> {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    const why = error instanceof SyntaxError ? error.message : 'unreadable'
    return fail(fault('$', `is not whole JSON (${why}): the file may be cut short; export it again`))
  }
  return readJob(raw)
}
