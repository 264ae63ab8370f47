import { type CircuitNeed, circuitNeeds } from '../assess/needs'
import type { Job } from '../job/schema'
import { positionText, spacesOf } from '../panel/positions'
import type { Panel } from '../panel/schema'

/** A sheet of labels, all lengths in inches; `pitch` is from the start of one label to the start of the next. */
export interface LabelSheet {
  key: string
  name: string
  page: { width: number; height: number }
  across: number
  down: number
  label: { width: number; height: number }
  margin: { top: number; left: number }
  pitch: { x: number; y: number }
}

const letter = { width: 8.5, height: 11 }

/** Common sizes of label sheets, by their own measures. */
export const labelSheets: readonly LabelSheet[] = [
  {
    key: '30',
    name: '1 × 2⅝ in, 30 a sheet',
    page: letter,
    across: 3,
    down: 10,
    label: { width: 2.625, height: 1 },
    margin: { top: 0.5, left: 0.1875 },
    pitch: { x: 2.75, y: 1 },
  },
  {
    key: '80',
    name: '½ × 1¾ in, 80 a sheet',
    page: letter,
    across: 4,
    down: 20,
    label: { width: 1.75, height: 0.5 },
    margin: { top: 0.5, left: 0.28125 },
    pitch: { x: 2.0625, y: 0.5 },
  },
  {
    key: '10',
    name: '2 × 4 in, 10 a sheet',
    page: letter,
    across: 2,
    down: 5,
    label: { width: 4, height: 2 },
    margin: { top: 0.5, left: 0.15625 },
    pitch: { x: 4.1875, y: 2 },
  },
]

/** Continuous tape by its width: a strip for each side of the panel, a cell as high as the breaker beside it. */
export const labelTapes = [
  { key: 'tape-12', name: 'continuous tape, 12 mm (½ in)', widthIn: 0.47 },
  { key: 'tape-18', name: 'continuous tape, 18 mm (¾ in)', widthIn: 0.71 },
  { key: 'tape-24', name: 'continuous tape, 24 mm (1 in)', widthIn: 0.94 },
] as const

/** From one space of the panel to the next, in: a full-size breaker. */
export const spacePitchIn = 1

export interface Label {
  id: string
  place: string
  text: string
  rating: string
  leg: CircuitNeed['leg']
  picked: boolean
}

/** A label for every breaker of a panel, from the top. */
export function labelsOf(job: Job, panel: Panel): Label[] {
  return circuitNeeds(job)
    .filter(n => n.panel.id === panel.id)
    .map(n => ({
      id: n.circuit.id,
      place: n.position,
      text: n.circuit.label || 'unlabelled',
      rating: `${n.circuit.breakerA} A`,
      leg: n.leg,
      picked: n.circuit.picked,
    }))
}

/** Labels laid out on pages of a sheet, the first `skip` places left out because they are used up. */
export function labelPages<T>(
  labels: readonly T[],
  { across, down }: LabelSheet,
  skip: number,
): (T | null)[][] {
  const perPage = across * down
  const start = Math.max(0, Math.min(Math.floor(skip) || 0, perPage - 1))
  const all: (T | null)[] = [...Array.from({ length: start }, () => null), ...labels]
  return Array.from({ length: Math.ceil(all.length / perPage) }, (_, page) =>
    all.slice(page * perPage, (page + 1) * perPage),
  )
}

/** One cell of a tape: what it says, and how many spaces high it is. */
export interface TapeCell {
  key: string
  spaces: number
  labels: Label[]
}

/** The strip for one side of the panel: as long as the side, free places blank. */
export function tapeOf(job: Job, panel: Panel, side: 'left' | 'right'): TapeCell[] {
  const labels = new Map(labelsOf(job, panel).map(l => [l.id, l]))
  const cells: TapeCell[] = []
  for (let space = side === 'left' ? 1 : 2; space <= panel.spaces; ) {
    // a quad or a run of breakers that overlap by halves becomes one cell
    let end = space
    const here = new Set<string>()
    for (let s = space; s <= end; s += 2)
      for (const c of panel.circuits)
        if (spacesOf(c).includes(s)) {
          here.add(c.id)
          end = Math.max(end, ...spacesOf(c))
        }
    cells.push({
      key: positionText(panel, { position: space, poles: 1 }),
      spaces: (end - space) / 2 + 1,
      labels: [...here].flatMap(id => labels.get(id) ?? []),
    })
    space = end + 2
  }
  return cells
}
