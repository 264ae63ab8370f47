import type { Want } from '../ask/brief'
import { tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { runningVA } from '../loads/load'
import { freeSpaces, legOf, otherLeg } from '../panel/positions'
import { breakerRatings, type Circuit, mostSpaces, type Panel } from '../panel/schema'

type Held = NonNullable<Want['loads']>[number]
type Waiting = Want & { loads: Held[] }

/** Wants that no circuit carries yet, and that say what they draw. */
export const waiting = ({ brief }: Pick<Job, 'brief'>): Waiting[] =>
  brief.wants.flatMap(w => (w.loads?.length && !w.circuitIds.length ? [{ ...w, loads: w.loads }] : []))

const known = new WeakMap<Job, Job>()

/** Spaces that an imagined panel has free beside its breakers. */
const spare = 6
const loadsEach = 12

/**
 * The job with a circuit of its own for everything that is wanted and on no circuit yet, so that what judges a design judges the first call
 * too, by the same figures. Its panel is as large as that asks; nothing of it is ever written to the job.
 */
export function imagined(job: Job): Job {
  const was = known.get(job)
  if (was) return was
  const made = withCircuits(job)
  known.set(job, made)
  return made
}

function withCircuits(job: Job): Job {
  const asked = waiting(job).flatMap(want =>
    ([120, 240] as const).flatMap(volts => {
      const loads = want.loads.filter(l => l.volts === volts).map(l => l.load)
      return loads.length ? [{ want, volts, loads }] : []
    }),
  )
  if (!asked.length) return job
  const tied = tiedPanel(job)
  let panel: Panel = { ...tied, circuits: [...tied.circuits] }
  // two-poles first: they find their pair of spaces while there are pairs
  for (const { want, volts, loads } of [...asked].sort((a, b) => b.volts - a.volts)) {
    const poles = volts === 240 ? 2 : 1
    let position = placeFor(panel, poles)
    if (position === null) {
      // of a panel without any space, what is not wanted makes room: it draws nothing from the source
      panel = {
        ...panel,
        circuits: panel.circuits.filter(c => c.picked || c.tie || c.neutral.kind === 'shared'),
      }
      position = placeFor(panel, poles)
    }
    if (position === null) {
      // and where nothing does, it joins another circuit, so that nothing that was asked for goes uncounted
      const fits = panel.circuits.filter(c => c.poles === poles && c.loads.length + loads.length <= loadsEach)
      const other = fits.find(c => c.picked) ?? fits[0]
      panel = {
        ...panel,
        circuits: panel.circuits.map(c =>
          c === other ? { ...c, picked: true, loads: [...c.loads, ...loads] } : c,
        ),
      }
      continue
    }
    const circuit: Circuit = {
      id: volts === 240 && want.loads.some(l => l.volts === 120) ? `${want.id.slice(0, 36)}-240` : want.id,
      position,
      poles,
      breakerA: breakerFor(loads, volts),
      label: want.name,
      purpose: 'loads',
      neutral: { kind: 'own' },
      protection: 'none',
      tier: want.nice ? 2 : 1,
      picked: true,
      loads,
    }
    panel = { ...grown(panel, spacesWith(panel, position, poles)), circuits: [...panel.circuits, circuit] }
  }
  const spaces = Math.min(mostSpaces, Math.max(panel.spaces, even(taken(panel) + spare)))
  return { ...job, panels: job.panels.map(p => (p === tied ? grown(panel, spaces) : p)) }
}

const even = (n: number) => n + (n % 2)
const taken = ({ circuits }: Panel) => circuits.reduce((sum, c) => sum + c.poles, 0)
const spacesWith = (panel: Panel, position: number, poles: 1 | 2) =>
  Math.max(panel.spaces, even(poles === 2 ? position + 2 : position))

/** The panel with so many spaces at least: rows beyond those that were found alternate on. */
function grown(panel: Panel, spaces: number): Panel {
  if (spaces <= panel.spaces) return panel
  if (typeof panel.busLegs === 'string') return { ...panel, spaces }
  const busLegs = [...panel.busLegs]
  while (busLegs.length < spaces / 2) busLegs.push(otherLeg(busLegs.at(-1) ?? 'L2'))
  return { ...panel, spaces, busLegs }
}

/** The first free place, away from the main, with its panel as large as it may grow; null where there is none. */
function placeFor(panel: Panel, poles: 1 | 2): number | null {
  const find = (from: number, to: number) => {
    const larger = grown(panel, to)
    const free = new Set(freeSpaces(to, panel.circuits, panel.unusable))
    for (let space = from; space <= to; space++) {
      if (!free.has(space)) continue
      if (poles === 1) return space
      if (free.has(space + 2) && legOf(larger, space) !== legOf(larger, space + 2)) return space
    }
    return null
  }
  // the first four spaces stay free for what is tied beside the main
  return find(5, panel.spaces) ?? find(panel.spaces + 1, mostSpaces) ?? find(1, mostSpaces)
}

/** The smallest standard breaker for an imagined circuit: 125 % of what its largest load draws (NEC 210.20(A)), 15 A at least. */
function breakerFor(loads: readonly Held['load'][], volts: number): number {
  const amps = Math.max(...loads.map(l => runningVA(l) / volts)) * 1.25
  return breakerRatings.find(a => a >= Math.max(15, amps)) ?? 200
}
