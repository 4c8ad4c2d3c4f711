// Where the thing that had the focus goes away, what stood round it takes the focus: it never falls to the page, from
// where a keyboard would have to begin anew.
'use client'
import { useEffect } from 'react'

const FOCUSABLE = 'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea, [tabindex]'
/** Until menus and dialogs have given the focus back. A wait, as frames asked for at every key delay the drawing. */
const SETTLED_MS = 80

export function useFocusKept(): void {
  useEffect(() => {
    let around: Element[] = []
    const remember = ({ target }: FocusEvent): void => {
      around = []
      for (let one = target instanceof Element ? target : null; one; one = one.parentElement) around.push(one)
    }
    let waiting = 0
    const settle = (): void => {
      const [held] = around
      if (!held || held.isConnected || document.activeElement !== document.body) return
      const near = around.find((one) => one.isConnected && one !== document.body && one !== document.documentElement)
      const next = near?.querySelector<HTMLElement>(FOCUSABLE) ?? document.getElementById('content')
      next?.focus({ preventScroll: true })
    }
    const after = (): void => {
      window.clearTimeout(waiting)
      waiting = window.setTimeout(settle, SETTLED_MS)
    }
    document.addEventListener('focusin', remember)
    document.addEventListener('keyup', after)
    document.addEventListener('click', after)
    return () => {
      window.clearTimeout(waiting)
      document.removeEventListener('focusin', remember)
      document.removeEventListener('keyup', after)
      document.removeEventListener('click', after)
    }
  }, [])
}
