import type { Job } from '../job/schema'
import { figureOf, lastRead, type TestEntry } from '../job/test-log'
import type { Unit } from '../source/design'
import { runtime } from '../source/runtime'
import { capacityOf, lossesOf } from '../source/store'

type ReadEntry = Extract<TestEntry, { kind: 'read' }>

/** Readings of a test’s kind, by what it is of: `watts` gives those of `watts:c5` under `c5`. */
export function readOf(job: Pick<Job, 'tests'>, kind: string): Map<string, ReadEntry> {
  const head = `${kind}:`
  return new Map(
    [...lastRead(job.tests?.log ?? [])].flatMap(([test, entry]) =>
      test.startsWith(head) ? [[test.slice(head.length), entry] as const] : [],
    ),
  )
}

/** Ohms of the whole way that a far outlet’s readings come to; null where they cannot tell: under half an ampere, or less than a volt. */
export function loopAsRead(
  entry: ReadEntry,
): { ohms: number; unloadedV: number; loadedV: number; amps: number } | null {
  const unloadedV = figureOf(entry, 'H–N') ?? figureOf(entry, 'H–H')
  const loadedV = figureOf(entry, 'loaded')
  const amps = figureOf(entry, 'amps')
  if (unloadedV === undefined || loadedV === undefined || amps === undefined || amps < 0.5) return null
  const dropV = unloadedV - loadedV
  return dropV < 1 ? null : { ohms: dropV / amps, unloadedV, loadedV, amps }
}

/** What a capacity test left of a unit’s label: delivered against what a new one would at that load. Null where it was no whole test. */
export function capacityAsRead(
  entry: ReadEntry,
  unit: Unit,
): { fraction: number; deliveredWh: number; expectedWh: number } | null {
  const [loadW, out, from, to] = ['loadW', 'Wh out', 'from', 'to'].map(k => figureOf(entry, k))
  if (!loadW || out === undefined || from === undefined || to === undefined || from <= to) return null
  const { idleW, efficiencyFraction } = lossesOf(unit.equipment)
  const { deliveredWh } = runtime.compute({
    capacityWh: capacityOf(unit),
    startFraction: from / 100,
    reserveFraction: to / 100,
    deratingFraction: 1,
    idleW,
    efficiencyFraction,
    loadW,
  }).result
  return { fraction: out / deliveredWh, deliveredWh: out, expectedWh: deliveredWh }
}
