import dynamic from 'next/dynamic'
import { Fragment, type KeyboardEvent, type MouseEvent, memo, useMemo, useRef, useState } from 'react'
import { bodyOf, bodySpaces } from '@/core/panel/body'
import {
  columnOf,
  feedOf,
  halvesOf,
  legOf,
  occupancy,
  positionText,
  rowOf,
  spaceName,
  spacesOf,
} from '@/core/panel/positions'
import type { Circuit } from '@/core/panel/schema'
import { marksOf } from '@/core/plan/marks'
import { shownCircuits, shownPanel, shownPanels, useWorkspace } from '../workspace/store'
import { Breaker, FreeSpace } from './Breaker'
import styles from './PanelDrawing.module.css'
import { useDrop } from './useDrop'

/** Fetched when a pointer comes near. */
const DragLayer = dynamic(() => import('./DragLayer').then(m => m.DragLayer), { ssr: false })

const busWords = { live: 'live', dead: 'dead', 'not fed': 'not fed' } as const

interface Props {
  onAdd: (space: number, half?: 'a' | 'b') => void
  /** a pointer or the focus comes to the panel */
  onNear?: () => unknown
}

/** The drawn panel: every breaker a control, the bus a channel between the columns that is wet where the leg is live. */
export const PanelDrawing = memo(function PanelDrawing({ onAdd, onNear }: Props) {
  const panel = useWorkspace(shownPanel)
  const states = useWorkspace(shownCircuits)
  const plan = useWorkspace(s => s.evaluation.plan)
  const tied = useWorkspace(s => s.evaluation.buses)
  const reached = useWorkspace(s => s.evaluation.reached.includes(panel.id))
  const panels = useWorkspace(shownPanels)
  const selectedId = useWorkspace(s => s.selectedId)
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const moving = useWorkspace(s => s.moving?.id)
  const over = useWorkspace(s => s.moving?.to)
  const move = useWorkspace(s => s.move)
  const aim = useWorkspace(s => s.aim)
  const drop = useDrop(panel)
  const [focused, setFocused] = useState('')
  const drawing = useRef<HTMLFieldSetElement>(null)
  const [near, setNear] = useState(false)
  const buses = reached ? tied : ({ L1: 'not fed', L2: 'not fed' } as const)

  const at = useMemo(() => occupancy(panel.circuits), [panel.circuits])
  const mover = panel.circuits.find(c => c.id === moving)
  const feeds = new Map(panels.flatMap(p => (p.feederId ? [[p.feederId, p.name] as const] : [])))
  const byId = new Map(states.map(s => [s.id, s]))
  const marks = marksOf(plan)
  const tabStop =
    panel.circuits.some(c => c.id === focused) || focused.startsWith('free')
      ? focused
      : (at.get(1)?.[0]?.id ?? 'free1')

  const cellOf = (event: { target: EventTarget }) =>
    event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('[data-cell]') : null
  const spaceUnder = (event: { target: EventTarget }) => {
    const cell =
      cellOf(event) ??
      (event.target instanceof HTMLElement
        ? (event.target.closest('[data-circuit]')?.querySelector<HTMLElement>('[data-cell]') ?? null)
        : null)
    return cell ? Number(cell.dataset.space) : null
  }

  const onKeyDown = (event: KeyboardEvent) => {
    const cell = cellOf(event)
    if (!cell || event.target !== cell) return
    const space = Number(cell.dataset.space)
    if (event.key === 'm' && !event.ctrlKey && !event.metaKey && !event.altKey) {
      event.preventDefault()
      return move(
        panel.circuits.some(c => c.id === cell.dataset.cell && !mover) ? (cell.dataset.cell ?? null) : null,
      )
    }
    if (mover && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault()
      return drop(space)
    }
    if (mover && event.key === 'Escape') {
      event.preventDefault()
      return move(null)
    }
    const next = neighbour(drawing.current, cell, event.key)
    if (next === undefined) return
    event.preventDefault()
    if (!next) return
    next.focus()
    aim(Number(next.dataset.space))
  }
  const onClick = (event: MouseEvent) => {
    const space = mover ? spaceUnder(event) : null
    if (space === null) return
    event.preventDefault()
    // a finger has not hovered: its first tap shows what the move would change, the second makes it
    if (space === over) drop(space)
    else aim(space)
  }
  const spaces = Array.from({ length: panel.spaces }, (_, i) => i + 1)
  const drawn = new Set<Circuit>()
  return (
    <>
      <fieldset
        ref={drawing}
        className={styles.panel}
        data-feeds={panel.feedsFrom}
        data-moving={mover !== undefined}
        onKeyDown={onKeyDown}
        onPointerEnter={() => {
          setNear(true)
          onNear?.()
        }}
        onClick={onClick}
        onMouseOver={event => {
          const space = mover ? spaceUnder(event) : null
          if (space !== null) aim(space)
        }}
        onFocus={() => onNear?.()}
      >
        <legend className="visually-hidden">
          {panel.name}: arrows move, space picks, Enter opens the circuit, M moves the breaker
        </legend>
        <div className={styles.main}>
          <span>{panel.name}</span>
          <b>{panel.mainA === undefined ? 'Main lugs' : `Main ${panel.mainA} A`}</b>
          <span>
            {panel.supply === 'service' ? 'Service panel' : 'Fed from another panel'}
            {panel.busA !== undefined && ` · bus ${panel.busA} A`}
          </span>
        </div>
        <div className={styles.grid}>
          {spaces.map(space => (
            <Fragment key={space}>
              {bus(space)}
              {place(space)}
            </Fragment>
          ))}
        </div>
      </fieldset>
      {near && <DragLayer drawing={drawing.current} />}
    </>
  )

  function place(space: number) {
    const here = at.get(space)
    const [first] = here ?? []
    if (!first) return free(space)
    if (!first.half) return first.position === space ? breaker(first, false) : null
    // a tandem or a quad: drawn once, at its upper space, whole
    const body = bodyOf(
      panel.circuits.map(c => (c.tie ? { ...c, tie: undefined } : c)),
      { ...first, tie: undefined },
    )
    const members = panel.circuits.filter(c => c === first || body.some(b => b.id === c.id))
    if (members.some(c => drawn.has(c))) return null
    for (const c of members) drawn.add(c)
    const taken = bodySpaces(members)
    const halves = new Set(members.flatMap(halvesOf))
    return (
      <div
        className={styles.module}
        data-column={columnOf(space)}
        style={{ gridRow: `${rowOf(space)} / span ${taken.length}` }}
      >
        {taken.flatMap(s =>
          (['a', 'b'] as const).map(half => {
            const circuit = members.find(c => halvesOf(c)[0] === s + half)
            if (circuit) return breaker(circuit, true)
            return halves.has(s + half) ? null : free(s, half)
          }),
        )}
      </div>
    )
  }

  function free(space: number, half?: 'a' | 'b') {
    const cell = `free${space}${half ?? ''}`
    return (
      <FreeSpace
        key={cell}
        space={space}
        name={`${spaceName(panel, space)}${half?.toUpperCase() ?? ''}`}
        leg={legOf(panel, space)}
        {...(half && { half })}
        unusable={panel.unusable.includes(space)}
        tabStop={cell === tabStop}
        moving={mover !== undefined}
        onFocus={setFocused}
        onAdd={onAdd}
      />
    )
  }

  function breaker(circuit: Circuit, inModule: boolean) {
    const state = byId.get(circuit.id)
    const { neutral, tie, position: space } = circuit
    const other = (id: string | undefined) => panel.circuits.find(c => c.id === id)
    const partner = neutral.kind === 'shared' ? other(neutral.with) : undefined
    const tied = other(tie?.with)
    const feeding = feeds.get(circuit.id)
    const notes = [
      ...(feeding ? [`feeds ${feeding}`] : []),
      ...(circuit.purpose === 'solar' ? ['feeds in'] : []),
      ...(partner ? [`N with ${positionText(panel, partner)}`] : []),
      ...(tied
        ? [`${tie?.kind === 'handle' ? 'handle tie' : 'common trip'} ${positionText(panel, tied)}`]
        : []),
    ]
    return (
      <Fragment key={circuit.id}>
        <Breaker
          id={circuit.id}
          space={space}
          rows={spacesOf(circuit).length}
          inModule={inModule}
          position={positionText(panel, circuit)}
          label={circuit.label}
          breakerA={circuit.breakerA}
          tier={circuit.tier}
          traced={circuit.traced?.found ?? 'no'}
          leg={state?.leg ?? feedOf(panel, circuit)}
          feed={state?.feed ?? 'no-source'}
          picked={circuit.picked}
          meanW={state?.meanW ?? 0}
          hasLoads={circuit.loads.length > 0}
          notes={notes.map(n => ` · ${n}`).join('')}
          mark={marks.get(circuit.id)?.sign ?? ''}
          planned={marks.get(circuit.id)?.words ?? ''}
          selected={circuit.id === selectedId}
          moving={mover !== undefined}
          tabStop={circuit.id === tabStop}
          act={act}
          select={select}
          onFocus={setFocused}
        />
        {partner &&
          partner.position > space &&
          columnOf(partner.position) === columnOf(space) &&
          !inModule && (
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
  }

  function bus(space: number) {
    if (space % 2 === 0) return null
    const leg = legOf(panel, space)
    return (
      <span className={styles.bus} data-bus={buses[leg]} data-leg={leg} style={{ gridRow: rowOf(space) }}>
        {leg}
        {space <= 3 && <small>{busWords[buses[leg]]}</small>}
      </span>
    )
  }
})

/** The cell that an arrow, Home or End leads to; null at the edge, undefined for any other key. */
function neighbour(
  drawing: HTMLElement | null,
  from: HTMLElement,
  key: string,
): HTMLElement | null | undefined {
  if (!drawing || !['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End'].includes(key))
    return undefined
  const column = columnOf(Number(from.dataset.space))
  const cells = [...drawing.querySelectorAll<HTMLElement>('[data-cell]')]
  const inColumn = (side: string) => cells.filter(c => columnOf(Number(c.dataset.space)) === side)
  const own = inColumn(column)
  const here = own.indexOf(from)
  switch (key) {
    case 'ArrowUp':
      return own[here - 1] ?? null
    case 'ArrowDown':
      return own[here + 1] ?? null
    case 'Home':
      return own[0] ?? null
    case 'End':
      return own.at(-1) ?? null
  }
  const to = key === 'ArrowLeft' ? 'left' : 'right'
  if (to === column) return null
  const row = rowOf(Number(from.dataset.space))
  // the one that stands beside it, or reaches down to it
  return inColumn(to).findLast(c => rowOf(Number(c.dataset.space)) <= row) ?? null
}
