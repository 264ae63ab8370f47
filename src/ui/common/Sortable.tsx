import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  rectSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { IconButton } from '@mui/material'
import { GripVertical } from 'lucide-react'
import { type CSSProperties, type ReactNode, useId } from 'react'

/** A mouse that moved a little, a finger that stayed a while, or space on the grip. */
const useDragSensors = () =>
  useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
    // a page that still glides has another place under it when it is put down than was told
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      scrollBehavior: 'auto',
    }),
  )

interface Props<T> {
  items: readonly T[]
  /** how a thing is called where it is told that it moves */
  nameOf: (item: T) => string
  onMove: (from: number, to: number) => void
  /** the places stay and two things change theirs, instead of one moving between the others */
  exchange?: boolean
  children: (item: T, at: number) => ReactNode
}

/** Things whose order counts: dragged by mouse, finger or keys, and told as they move. The children are `SortableItem`s. */
export function Sortable<T extends { id: string }>({ items, nameOf, onMove, exchange, children }: Props<T>) {
  const id = useId()
  const sensors = useDragSensors()
  const indexOf = (key: UniqueIdentifier | undefined) => items.findIndex(i => i.id === key)
  const told = (key: UniqueIdentifier) => {
    const item = items[indexOf(key)]
    return item ? nameOf(item) : ''
  }
  const place = (key: UniqueIdentifier | undefined) => `place ${indexOf(key) + 1} of ${items.length}`
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Picked up ${told(active.id)}, ${place(active.id)}.`,
    // over itself is no news
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${told(active.id)} is over ${place(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) => `${told(active.id)} stands at ${place((over ?? active).id)}.`,
    onDragCancel: ({ active }) => `${told(active.id)} stays at ${place(active.id)}.`,
  }
  const end = ({ active, over }: DragEndEvent) => {
    const [from, to] = [indexOf(active.id), indexOf(over?.id)]
    if (to >= 0 && from !== to) onMove(from, to)
  }
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        // its live region stands outside the list that is sorted
        ...outside(),
        announcements,
        screenReaderInstructions: { draggable: 'Space picks it up, arrows move it, space puts it down.' },
      }}
      onDragEnd={end}
    >
      <SortableContext items={items.map(i => i.id)} strategy={exchange ? stay : rectSortingStrategy}>
        {items.map(children)}
      </SortableContext>
    </DndContext>
  )
}

const stay = () => null

/** Where what is told to the ear is put, once there is a page. */
export const outside = () => (typeof document === 'undefined' ? {} : { container: document.body })

/** The same list with one thing moved. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list]
  const [one] = next.splice(from, 1)
  if (one !== undefined) next.splice(to, 0, one)
  return next
}

interface ItemProps {
  id: string
  name: string
  /** given the grip, the ref and the style of the thing while it moves */
  children: (
    grip: ReactNode,
    bind: { ref: (node: HTMLElement | null) => void; style: CSSProperties },
  ) => ReactNode
}

/** One thing of a `Sortable`, with the grip by which it is dragged. */
export function SortableItem({ id, name, children }: ItemProps) {
  const {
    attributes,
    listeners,
    setNodeRef,
    setActivatorNodeRef,
    transform,
    transition,
    isDragging,
    isOver,
  } = useSortable({ id })
  const grip = (
    <IconButton
      ref={setActivatorNodeRef}
      size="small"
      aria-label={`Move ${name}`}
      sx={{ cursor: 'grab', touchAction: 'manipulation' }}
      {...attributes}
      {...listeners}
    >
      <GripVertical size={16} aria-hidden />
    </IconButton>
  )
  return children(grip, {
    ref: setNodeRef,
    style: {
      transform: CSS.Translate.toString(transform),
      transition,
      ...(isDragging
        ? { zIndex: 2, background: 'var(--mui-palette-background-paper)', boxShadow: 'var(--mui-shadows-4)' }
        : isOver && { outline: '2px dashed var(--mui-palette-primary-main)' }),
    },
  })
}
