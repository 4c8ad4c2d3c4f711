// The keys of Sync.
'use client'
import { useEffect } from 'react'
import { isShortcut } from '../parts/isTyping'
import type { Stitching } from './useStitching'

/** A fine step of the arrow keys, with shift. */
const FINE_MS = 10

/** What a key press means here; null where it means nothing. */
function actionFor(event: KeyboardEvent, on: Stitching): (() => void) | null {
  const withCtrl = event.ctrlKey || event.metaKey
  if (withCtrl) return event.key.toLowerCase() === 'z' ? (event.shiftKey ? on.redo : on.undo) : null
  const step = event.shiftKey ? FINE_MS : on.frameMs
  switch (event.key) {
    case ' ':
      return on.toggle
    case 'Enter':
      return on.stitchHere
    case 'ArrowUp':
      return () => on.choose(on.chosen - 1)
    case 'ArrowDown':
      return () => on.choose(on.chosen + 1)
    case 'ArrowLeft':
      return () => on.nudge(-step)
    case 'ArrowRight':
      return () => on.nudge(step)
    case 'h':
    case 'H':
      return on.hearAround
    case 'Backspace':
    case 'Delete':
      return () => {
        if (on.change) on.remove(on.change)
      }
    default:
      return null
  }
}

export function useSyncKeys(on: Stitching): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!isShortcut(event) || event.altKey) return
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
