'use client'
import { Fragment, type KeyboardEvent, useMemo, useRef, useState } from 'react'
import { columnOf, legOf, occupancy, rowOf, spacesOf } from '@/core/panel/positions'
import { useWorkspace } from '../workspace/store'
import { Breaker, FreeSpace } from './Breaker'
import styles from './PanelDrawing.module.css'

const busWords = { live: 'live', dead: 'dead', 'not fed': 'not fed' } as const

/** The drawn panel: every breaker a control, the bus a channel between the columns that is wet where the leg is live. */
export function PanelDrawing({ onAdd }: { onAdd: (space: number) => void }) {
  const panel = useWorkspace(s => s.job.panel)
  const states = useWorkspace(s => s.evaluation.circuits)
  const buses = useWorkspace(s => s.evaluation.buses)
  const selectedId = useWorkspace(s => s.selectedId)
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const [focused, setFocused] = useState(1)
  const drawing = useRef<HTMLFieldSetElement>(null)

  const at = useMemo(() => occupancy(panel.circuits), [panel.circuits])
  const firstOf = (space: number) => at.get(space)?.position ?? space
  const tabStop = firstOf(Math.min(focused, panel.spaces))

  const onKeyDown = (event: KeyboardEvent) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-space]')
    if (!cell || event.target !== cell) return
    const space = Number(cell.dataset.space)
    const below = (at.get(space)?.poles ?? 1) === 2 ? 4 : 2
    const wanted = {
      ArrowUp: space - 2,
      ArrowDown: space + below,
      ArrowLeft: space % 2 === 0 ? space - 1 : null,
      ArrowRight: space % 2 === 1 ? space + 1 : null,
      Home: space % 2 === 1 ? 1 : 2,
      End: space % 2 === 1 ? panel.spaces - 1 : panel.spaces,
    }[event.key]
    if (wanted === undefined) return
    event.preventDefault()
    if (wanted === null || wanted < 1 || wanted > panel.spaces) return
    const target = firstOf(wanted)
    setFocused(target)
    drawing.current?.querySelector<HTMLElement>(`[data-space="${target}"]`)?.focus()
  }

  const spaces = Array.from({ length: panel.spaces }, (_, i) => i + 1)
  return (
    <fieldset ref={drawing} className={styles.panel} onKeyDown={onKeyDown}>
      <legend className="visually-hidden">
        {panel.name}: arrows move, space picks, Enter opens the circuit
      </legend>
      <div className={styles.main}>
        <span>{panel.name}</span>
        <b>Main {panel.mainA} A</b>
        <span>{panel.supply === 'service' ? 'Service panel' : 'Fed from another panel'}</span>
      </div>
      <div className={styles.grid}>
        {spaces.map(space => {
          const circuit = at.get(space)
          if (!circuit) {
            return (
              <Fragment key={space}>
                {bus(space)}
                <FreeSpace
                  space={space}
                  tabIndex={space === tabStop ? 0 : -1}
                  onFocus={setFocused}
                  onAdd={onAdd}
                />
              </Fragment>
            )
          }
          if (circuit.position !== space) return <Fragment key={space}>{bus(space)}</Fragment>
          const state = states.find(s => s.id === circuit.id)
          const { neutral } = circuit
          const partner =
            neutral.kind === 'shared' ? panel.circuits.find(c => c.id === neutral.with) : undefined
          return (
            <Fragment key={space}>
              {bus(space)}
              <Breaker
                id={circuit.id}
                space={space}
                rows={spacesOf(circuit).length}
                position={state?.position ?? String(space)}
                label={circuit.label}
                breakerA={circuit.breakerA}
                tier={circuit.tier}
                traced={circuit.traced !== undefined}
                leg={state?.leg ?? legOf(space)}
                feed={state?.feed ?? 'no-source'}
                picked={circuit.picked}
                meanW={state?.meanW ?? 0}
                hasLoads={circuit.loads.length > 0}
                neutralWith={partner?.position ?? null}
                selected={circuit.id === selectedId}
                tabIndex={space === tabStop ? 0 : -1}
                act={act}
                select={select}
                onFocus={setFocused}
              />
              {partner && partner.position > space && columnOf(partner.position) === columnOf(space) && (
                <span
                  className={styles.shared}
                  data-column={columnOf(space)}
                  style={{ gridRow: `${rowOf(space)} / ${rowOf(partner.position) + 1}` }}
                  aria-hidden="true"
                >
                  N
                </span>
              )}
            </Fragment>
          )
        })}
      </div>
    </fieldset>
  )

  function bus(space: number) {
    if (space % 2 === 0) return null
    const leg = legOf(space)
    return (
      <span className={styles.bus} data-bus={buses[leg]} style={{ gridRow: rowOf(space) }}>
        {leg}
        {space <= 3 && <small>{busWords[buses[leg]]}</small>}
      </span>
    )
  }
}
