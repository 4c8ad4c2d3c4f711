// Where the thing that had the focus goes away, what stood round it takes the focus: it never falls to the page, from
// where a keyboard would have to begin anew.
'use client'
import { useEffect } from 'react'

const FOCUSABLE = 'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea, [tabindex]'
/** Frames until menus and dialogs have given the focus back. */
const SETTLED = 4

export function useFocusKept(): void {
  useEffect(() => {
    let around: Element[] = []
    const remember = ({ target }: FocusEvent): void => {
      around = []
      for (let one = target instanceof Element ? target : null; one; one = one.parentElement) around.push(one)
    }
    const settle = (frames: number): void => {
      if (frames) return void requestAnimationFrame(() => settle(frames - 1))
      const [held] = around
      if (!held || held.isConnected || document.activeElement !== document.body) return
      const near = around.find((one) => one.isConnected && one !== document.body && one !== document.documentElement)
      const next = near?.querySelector<HTMLElement>(FOCUSABLE) ?? document.getElementById('content')
      next?.focus({ preventScroll: true })
    }
    const after = (): void => settle(SETTLED)
    document.addEventListener('focusin', remember)
    document.addEventListener('keyup', after)
    document.addEventListener('click', after)
    return () => {
      document.removeEventListener('focusin', remember)
      document.removeEventListener('keyup', after)
      document.removeEventListener('click', after)
    }
  }, [])
}
