/** Watts of a circuit as they were read when it came on, against its loads. */

/** A load as it counts then, W. */
export interface RunningLoad {
  id: string
  name: string
  W: number
  idleW: number
}

/** A reading agrees within this share of what is expected, and within these watts: ours; volts alone move a heater by a tenth. */
export const wattsShare = 0.15
export const wattsLeast = 10

/** What those that ran draw together with what the rest idles at, and between which a reading agrees with it. W. */
export function wattsExpected(
  loads: readonly RunningLoad[],
  ran?: readonly string[],
): { W: number; from: number; to: number } {
  const W = loads.reduce((sum, l) => sum + (!ran || ran.includes(l.id) ? l.W : l.idleW), 0)
  const by = Math.max(wattsLeast, wattsShare * W)
  return { W, from: Math.max(0, W - by), to: W + by }
}

/** A reading shared out over the loads that ran, by what each was taken to draw; what idles keeps its figure. W, by load. */
export function sharedOut(
  W: number,
  loads: readonly RunningLoad[],
  ran?: readonly string[],
): { id: string; name: string; W: number }[] {
  const running = loads.filter(l => !ran || ran.includes(l.id))
  const idle = loads.filter(l => !running.includes(l)).reduce((sum, l) => sum + l.idleW, 0)
  const all = running.reduce((sum, l) => sum + l.W, 0)
  const left = Math.max(0, W - idle)
  return running.map(l => ({
    id: l.id,
    name: l.name,
    W: all > 0 ? (left * l.W) / all : left / running.length,
  }))
}
