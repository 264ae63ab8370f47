import type { CircuitNeed } from '../assess/needs'
import type { Proof } from '../commission/scene'
import { reachedPanels } from '../job/panels'
import type { Panel } from '../panel/schema'
import { directoryOf } from '../work/directory'
import { isLocked, staysOff } from './steps'

/** How a breaker, or a position, stands while the source carries the house. */
export type Stands = 'on' | 'off' | 'locked'

export interface DrawnPlace {
  /** as it is printed beside it */
  name: string
  label: string
  stands: Stands
  /** the lower place of a two-pole breaker, or of a tandem */
  continued: boolean
}

/** A small picture: a panel with its two rows of breakers, or a switch with its positions; as things stand on the source. */
export type Drawing =
  | {
      kind: 'panel'
      name: string
      /** the main, on the source; null where there is none */
      main: 'on' | 'off' | null
      rows: [DrawnPlace[], DrawnPlace[]][]
    }
  | { kind: 'switch'; places: DrawnPlace[] }

export function drawingsOf(p: Proof): Drawing[] {
  if (p.joined === 'no') return []
  if (p.method.serves === 'positions') return [switchOf(p)]
  const reached = reachedPanels(p.job)
  return p.job.panels.filter(panel => reached.has(panel.id)).map(panel => panelOf(p, panel))
}

function switchOf({ served }: Proof): Drawing {
  const places = [...served]
    .sort((a, b) => (a.place ?? 0) - (b.place ?? 0))
    .map(
      (n): DrawnPlace => ({
        name: String(n.place ?? ''),
        label: n.circuit.label,
        stands: 'on',
        continued: false,
      }),
    )
  return { kind: 'switch', places }
}

function panelOf(p: Proof, panel: Panel): Drawing {
  const off = new Set(staysOff(p).map(n => n.circuit.id))
  const stands = (n: CircuitNeed): Stands =>
    off.has(n.circuit.id) ? (isLocked(p, n) ? 'locked' : 'off') : 'on'
  const state = p.states.source[`main ${panel.id}`]
  return {
    kind: 'panel',
    name: panel.name,
    main: state === undefined ? null : state === 'on' ? 'on' : 'off',
    rows: directoryOf(p.job, panel).map(([left, right]) => {
      const [a, b] = [left, right].map(place =>
        place.entries.map(
          ({ need, continued }): DrawnPlace => ({
            name: `${place.name}${need.circuit.half ?? ''}`,
            label: need.circuit.label,
            stands: stands(need),
            continued,
          }),
        ),
      )
      return [a ?? [], b ?? []]
    }),
  }
}
