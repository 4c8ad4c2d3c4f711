// A part of a long page that is drawn only while it is near the window. Out of sight it keeps its height and nothing else,
// so that a score of hundreds of sections costs what the ones on the screen cost.
'use client'
import { useEffect, useRef, useState, type ReactNode } from 'react'

/** Drawn so far before it comes into sight that scrolling does not meet an empty place. */
const AHEAD = '900px 0px'

type Meet = (near: boolean) => void
const met = new WeakMap<Element, Meet>()
let watcher: IntersectionObserver | null = null
/** One observer for all parts: hundreds of their own would cost more than they spare. */
const watching = (): IntersectionObserver => (watcher ??= new IntersectionObserver((entries) => {
  for (const entry of entries) met.get(entry.target)?.(entry.isIntersecting)
}, { rootMargin: AHEAD }))

interface Props {
  /** About what it will take, in CSS pixels, until it was drawn once. */
  heightPx: number
  /** Drawn at once: for what is in sight when the page opens. */
  first: boolean
  children: ReactNode
}

/** What holds the focus stays drawn: half a word may stand in it. */
export function InSight({ heightPx, first, children }: Props): ReactNode {
  const holder = useRef<HTMLDivElement>(null)
  const [{ near, keptPx }, setDrawn] = useState({ near: first, keptPx: heightPx })
  useEffect(() => {
    const element = holder.current
    if (!element) return
    met.set(element, (isNear) => {
      if (isNear) setDrawn((before) => ({ ...before, near: true }))
      else if (!element.contains(document.activeElement)) setDrawn((before) => ({ near: false, keptPx: before.near ? element.offsetHeight : before.keptPx }))
    })
    watching().observe(element)
    return () => {
      watching().unobserve(element)
      met.delete(element)
    }
  }, [])
  return <div ref={holder} style={near ? undefined : { height: keptPx }}>{near && children}</div>
}
