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
  // what hangs on one wire alone goes first, the bars last: little is filled in
  const degree = new Map<string, number>()
  for (const { a, b, ohms } of branches)
    for (const id of [find(a), find(b)])
      if (id !== root) degree.set(id, (degree.get(id) ?? 0) + (ohms === 0 ? 0 : 1))
  const index = new Map([...degree].sort((x, y) => x[1] - y[1]).map(([id], n) => [id, n] as const))
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

/** Gauss: the conductances of a network are symmetric and outweigh each other along the diagonal, so that no pivot has to be looked for. Zeros are skipped: most are. */
function eliminate(rows: readonly Float64Array[], n: number, width: number) {
  for (let c = 0; c < n; c++) {
    const pivot = rows[c]
    if (!pivot) continue
    const by = pivot[c] ?? 1
    const used: number[] = []
    for (let k = c + 1; k < width; k++) if (pivot[k] !== 0) used.push(k)
    for (let r = c + 1; r < n; r++) {
      const row = rows[r]
      const lead = row?.[c] ?? 0
      if (!row || lead === 0) continue
      const f = lead / by
      for (const k of used) row[k] = (row[k] ?? 0) - f * (pivot[k] ?? 0)
    }
  }
  for (let c = n - 1; c >= 0; c--) {
    const row = rows[c]
    if (!row) continue
    for (let g = n; g < width; g++) {
      let value = row[g] ?? 0
      for (let k = c + 1; k < n; k++) if (row[k] !== 0) value -= (row[k] ?? 0) * (rows[k]?.[g] ?? 0)
      row[g] = value / (row[c] ?? 1)
    }
  }
}
