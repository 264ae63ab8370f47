import {
  DndContext,
  type DragEndEvent,
  type DragOverEvent,
  MouseSensor,
  type Over,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { CSS } from '@dnd-kit/utilities'
import { useEffect, useMemo } from 'react'
import { outside } from '../common/Sortable'
import { shownPanel, useWorkspace } from '../workspace/store'
import { useDrop } from './useDrop'

/** What a move means is told by the strip beside the panel, for the eye and for the ear. */
const quiet = () => undefined
const silent = {
  announcements: { onDragStart: quiet, onDragOver: quiet, onDragEnd: quiet, onDragCancel: quiet },
  screenReaderInstructions: { draggable: '' },
}

/**
 * Dragging, laid over the drawn panel: breakers are carried by mouse, pen or finger to the space that they are let go over. It
 * is fetched when a pointer comes near, and takes hold of what is drawn already: nothing of the panel is drawn anew for it.
 */
export function DragLayer({ drawing }: { drawing: HTMLElement | null }) {
  const panel = useWorkspace(shownPanel)
  const move = useWorkspace(s => s.move)
  const aim = useWorkspace(s => s.aim)
  const drop = useDrop(panel)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  )
  const spaceOf = (over: Over | null) => {
    const space: unknown = over?.data.current?.space
    return typeof space === 'number' ? space : null
  }
  const onDragOver = ({ over }: DragOverEvent) => {
    const space = spaceOf(over)
    if (space !== null) aim(space)
  }
  const onDragEnd = ({ over }: DragEndEvent) => {
    const space = spaceOf(over)
    if (space !== null) drop(space)
    // where it cannot stand it stays, and the move is over: it was let go
    move(null)
  }
  // the panel is looked at anew whenever something stands elsewhere
  const cells = useMemo(
    () =>
      [...(drawing?.querySelectorAll<HTMLElement>('[data-cell]') ?? [])].map(cell => ({
        id: cell.dataset.cell ?? '',
        space: Number(cell.dataset.space),
        place: cell.closest<HTMLElement>('[data-circuit]') ?? cell,
        circuit: panel.circuits.some(c => c.id === cell.dataset.cell),
      })),
    [drawing, panel],
  )
  return (
    <DndContext
      id={`panel ${panel.id}`}
      sensors={sensors}
      collisionDetection={pointerWithin}
      accessibility={{ ...silent, ...outside() }}
      onDragStart={({ active }) => move(String(active.id))}
      onDragOver={onDragOver}
      onDragEnd={onDragEnd}
      onDragCancel={() => move(null)}
    >
      {cells.map(c => (
        <Spot key={c.id} {...c} />
      ))}
      {cells.map(c => c.circuit && <Handle key={c.id} {...c} />)}
    </DndContext>
  )
}

interface Cell {
  id: string
  space: number
  place: HTMLElement
}

/** A space that a breaker can be let go over. */
function Spot({ id, space, place }: Cell) {
  const { setNodeRef } = useDroppable({ id: `at ${id}`, data: { space } })
  useEffect(() => setNodeRef(place), [setNodeRef, place])
  return null
}

/** A breaker that can be carried. */
function Handle({ id, place }: Cell) {
  const { listeners, setNodeRef, transform } = useDraggable({ id })
  useEffect(() => setNodeRef(place), [setNodeRef, place])
  useEffect(() => {
    const begin = (event: MouseEvent | TouchEvent) =>
      listeners?.[event.type === 'mousedown' ? 'onMouseDown' : 'onTouchStart']?.({ nativeEvent: event })
    place.addEventListener('mousedown', begin)
    place.addEventListener('touchstart', begin, { passive: true })
    return () => {
      place.removeEventListener('mousedown', begin)
      place.removeEventListener('touchstart', begin)
    }
  }, [listeners, place])
  useEffect(() => {
    if (!transform) return
    place.style.transform = CSS.Translate.toString(transform) ?? ''
    place.style.zIndex = '3'
    return () => {
      place.style.transform = ''
      place.style.zIndex = ''
    }
  }, [transform, place])
  return null
}
