// The keys of the floor, a presenter's clicker among them. The one that matters is large: Space.
'use client'
import { useEffect } from 'react'
import type { Mark } from '@/core/floor/events'
import { isShortcut } from '../parts/isTyping'

export interface FloorKeys {
  main: () => void
  forward: () => void
  back: () => void
  repeat: () => void
  open: () => void
  mark: (mark: Mark) => void
}

export function useFloorKeys({ main, forward, back, repeat, open, mark }: FloorKeys): void {
  useEffect(() => {
    const actions: Record<string, () => void> = {
      ' ': main,
      Enter: main,
      ArrowRight: forward,
      PageDown: forward,
      ArrowLeft: back,
      PageUp: back,
      ArrowUp: repeat,
      ArrowDown: open,
      g: () => mark('good'),
      a: () => mark('again'),
    }
    const onKey = (event: KeyboardEvent): void => {
      const action = actions[event.key]
      if (!action || event.repeat || event.ctrlKey || event.metaKey || event.altKey || !isShortcut(event)) return
      // Whoever went to a button by Tab presses that.
      const onButton = event.target instanceof HTMLElement && event.target.closest('[role=toolbar] button')
      if (onButton && (event.key === ' ' || event.key === 'Enter')) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [main, forward, back, repeat, open, mark])
}
