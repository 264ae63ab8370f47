/** One path between two points: ohms, and volts that something makes in it, which push from `b` to `a`. */
export interface Branch {
  a: string
  b: string
  ohms: number
  /** by which of the sources that no phase ties together */
  emf?: { volts: number; by: number }
  /** what a clamp finds it by */
  name?: string
}

/** Volts of every point by each source: they add as phasors. */
export interface Solved {
  /** volts from `b` to `a`, as a meter shows them */
  volts: (a: string, b: string) => number
  /** amps in all branches of a name */
  amps: (name: string) => number
  /** volts times amps that every branch with an emf gives, W at unity power factor */
  given: (by: number) => number
}

/** What nothing else ties down leaks to ground by this, Ω: a meter’s own impedance, and air. */
const leakOhms = 50e6

/** Joins whose ohms are nothing are one point. */
function points(branches: readonly Branch[]) {
  const up = new Map<string, string>()
  const find = (id: string): string => {
    const next = up.get(id)
    if (next === undefined || next === id) return id
    const root = find(next)
    up.set(id, root)
    return root
  }
  for (const { a, b } of branches) for (const id of [a, b]) if (!up.has(id)) up.set(id, id)
  for (const { a, b, ohms } of branches) if (ohms === 0) up.set(find(a), find(b))
  return find
}

/**
 * Nodal analysis: a resistive network at one frequency, its sources by superposition, each group with its own angle. `ground` is where the volts are counted from.
 * @param anglesRad angle of each group of sources
 */
export function solve(
  branches: readonly Branch[],
  ground: string,
  anglesRad: readonly number[],
  leaks = true,
): Solved {
  const find = points(branches)
  const root = find(ground)
  const index = new Map<string, number>()
  for (const { a, b } of branches)
    for (const id of [find(a), find(b)]) if (id !== root && !index.has(id)) index.set(id, index.size)
  const n = index.size
  const groups = anglesRad.length
  const width = n + groups
  const rows = Array.from({ length: n }, () => new Float64Array(width))
  const at = (id: string) => index.get(find(id)) ?? -1
  const add = (i: number, j: number, value: number) => {
    const row = rows[i]
    if (row && j >= 0) row[j] = (row[j] ?? 0) + value
  }
  for (const { a, b, ohms, emf } of branches) {
    if (ohms === 0) continue
    const g = 1 / ohms
    const [i, j] = [at(a), at(b)]
    if (i === j) continue
    if (i >= 0) {
      add(i, i, g)
      add(i, j, -g)
    }
    if (j >= 0) {
      add(j, j, g)
      add(j, i, -g)
    }
    if (emf) {
      if (i >= 0) add(i, n + emf.by, g * emf.volts)
      if (j >= 0) add(j, n + emf.by, -g * emf.volts)
    }
  }
  for (let i = 0; i < n; i++) add(i, i, leaks ? 1 / leakOhms : 1e-12)
  eliminate(rows, n, width)
  const volt = (id: string, group: number): number => {
    const i = at(id)
    return i < 0 ? 0 : (rows[i]?.[n + group] ?? 0)
  }
  const sum = (of: (group: number) => number) => {
    let [re, im] = [0, 0]
    for (let k = 0; k < groups; k++) {
      const value = of(k)
      re += value * Math.cos(anglesRad[k] ?? 0)
      im += value * Math.sin(anglesRad[k] ?? 0)
    }
    return Math.hypot(re, im)
  }
  const through = ({ a, b, ohms, emf }: Branch, group: number) =>
    ((emf?.by === group ? emf.volts : 0) - (volt(a, group) - volt(b, group))) / ohms
  return {
    volts: (a, b) => sum(k => volt(a, k) - volt(b, k)),
    amps: name =>
      sum(k =>
        branches.reduce(
          (total, branch) => (branch.name === name && branch.ohms > 0 ? total + through(branch, k) : total),
          0,
        ),
      ),
    given: by =>
      branches.reduce(
        (total, branch) =>
          branch.emf?.by === by
            ? total + through(branch, by) * (volt(branch.a, by) - volt(branch.b, by))
            : total,
        0,
      ),
  }
}

/** Gauss–Jordan with the largest pivot of its column. */
function eliminate(rows: Float64Array[], n: number, width: number) {
  for (let c = 0; c < n; c++) {
    let best = c
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r]?.[c] ?? 0) > Math.abs(rows[best]?.[c] ?? 0)) best = r
    const [pivot, other] = [rows[best], rows[c]]
    if (!pivot || !other) continue
    rows[c] = pivot
    rows[best] = other
    const by = pivot[c] ?? 1
    for (let k = c; k < width; k++) pivot[k] = (pivot[k] ?? 0) / by
    for (let r = 0; r < n; r++) {
      const row = rows[r]
      const f = row?.[c] ?? 0
      if (r === c || !row || f === 0) continue
      for (let k = c; k < width; k++) row[k] = (row[k] ?? 0) - f * (pivot[k] ?? 0)
    }
  }
}
