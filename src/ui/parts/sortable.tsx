// Lists whose items are moved by pointer, or by keyboard from their grips.
'use client'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DndContextProps,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core'
import { restrictToVerticalAxis } from '@dnd-kit/modifiers'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical } from 'lucide-react'
import { useId, useMemo, type CSSProperties, type ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'

// Under one name each, as new options would draw every grip of every list again.
const POINTER = { activationConstraint: { distance: 4 } }
const KEYBOARD = { coordinateGetter: sortableKeyboardCoordinates }
const MODIFIERS = [restrictToVerticalAxis]

export function SortableList({
  keys,
  onMove,
  children,
}: {
  keys: string[]
  onMove: (from: number, to: number) => void
  children: ReactNode
}): ReactNode {
  // The same list of keys under the same name: a new one would draw every item of the list again.
  const joined = keys.join('\n')
  const items = useMemo(() => (joined ? joined.split('\n') : []), [joined])
  const sensors = useSensors(useSensor(PointerSensor, POINTER), useSensor(KeyboardSensor, KEYBOARD))
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (over && active.id !== over.id) onMove(keys.indexOf(String(active.id)), keys.indexOf(String(over.id)))
  }
  const accessibility = useMemo(() => wordsFor(items), [items])
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      modifiers={MODIFIERS}
      onDragEnd={onDragEnd}
      accessibility={accessibility}
    >
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** What is said while a row is moved: its place, and of how many. */
function wordsFor(items: readonly string[]): DndContextProps['accessibility'] {
  const words = texts.drag
  const place = (id: UniqueIdentifier | undefined): [number, number] => [items.indexOf(String(id)) + 1, items.length]
  return {
    screenReaderInstructions: { draggable: words.how },
    announcements: {
      onDragStart: ({ active }) => words.up(...place(active.id)),
      onDragOver: ({ over }) => (over ? words.over(...place(over.id)) : undefined),
      onDragEnd: ({ active, over }) => words.down(...place((over ?? active).id)),
      onDragCancel: ({ active }) => words.back(...place(active.id)),
    },
  }
}

export function moveWithin<T>(items: T[], from: number, to: number): void {
  const [item] = items.splice(from, 1)
  if (item !== undefined) items.splice(to, 0, item)
}

export function useGrip(id: string): {
  setNodeRef: (node: HTMLElement | null) => void
  style: CSSProperties
  grip: ReactNode
} {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id })
  const style = {
    transform: CSS.Translate.toString(transform),
    transition,
    ...(isDragging ? { zIndex: 10, position: 'relative' as const, opacity: 0.85 } : {}),
  }
  const grip = (
    <button
      type="button"
      aria-label={texts.score.move}
      className="inline-grid h-9 w-7 shrink-0 cursor-grab touch-none place-items-center text-quiet hover:text-ink"
      {...attributes}
      {...listeners}
    >
      <GripVertical size={18} />
    </button>
  )
  return { setNodeRef, style, grip }
}
