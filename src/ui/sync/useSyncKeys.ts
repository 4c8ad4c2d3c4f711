// The keys of Sync.
'use client'
import { useEffect } from 'react'
import { isShortcut } from '../parts/isTyping'
import type { Stitching } from './useStitching'

/** Fine steps of the arrow keys, with Shift and with Alt. */
const FINE_MS = 10
const FINEST_MS = 1

/** What a key press means here; null where it means nothing. */
function actionFor(event: KeyboardEvent, on: Stitching): (() => void) | null {
  const withCtrl = event.ctrlKey || event.metaKey
  if (withCtrl) return event.key.toLowerCase() === 'z' ? (event.shiftKey ? on.redo : on.undo) : null
  const step = event.altKey ? FINEST_MS : event.shiftKey ? FINE_MS : on.frameMs
  if (event.altKey && !event.key.startsWith('Arrow')) return null
  switch (event.key) {
    case ' ':
      return on.toggle
    case 'Enter':
      return on.stitchHere
    case 'ArrowUp':
      return () => on.step(-1)
    case 'ArrowDown':
      return () => on.step(1)
    case 'ArrowLeft':
      return () => on.nudge(-step)
    case 'ArrowRight':
      return () => on.nudge(step)
    case 'Backspace':
    case 'Delete':
      return () => {
        if (on.change) on.remove(on.change)
      }
    default:
      return LETTERS[event.key.toLowerCase()]?.(on, event.shiftKey) ?? null
  }
}

const LETTERS: Record<string, (on: Stitching, withShift: boolean) => () => void> = {
  h: (on) => on.hearAround,
  l: (on) => on.likeThis,
  s: (on) => on.nextSpeed,
  n: (on) => on.nextTodo,
  y: (on) => on.confirm,
  c: (on) => on.nextCandidate,
  x: (on, withShift) => (withShift ? on.roundNotDone : on.notDone),
}

export function useSyncKeys(on: Stitching): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!isShortcut(event)) return
      // A row that was pressed keeps the focus; Enter and space mean the change in it, not another press.
      const pressed = event.target instanceof HTMLButtonElement && !event.target.dataset.choose
      const action = pressed && (event.key === ' ' || event.key === 'Enter') ? null : actionFor(event, on)
      if (!action) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [on])
}
