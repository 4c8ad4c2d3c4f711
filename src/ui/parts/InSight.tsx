// A part of a long page that is drawn only while it is near the window. Out of sight it keeps its height and nothing
// else, so that a score of hundreds of sections costs what the ones on the screen cost.
'use client'
import { useCallback, useEffect, useRef, useState, type FocusEvent, type ReactNode } from 'react'

/** Drawn so far before it comes into sight that scrolling does not meet an empty place. */
const AHEAD = '900px 0px'

type Meet = (near: boolean) => void
const met = new WeakMap<Element, Meet>()
let watcher: IntersectionObserver | null = null
/** One observer for all parts: hundreds of their own would cost more than they spare. */
const watching = (): IntersectionObserver =>
  (watcher ??= new IntersectionObserver(
    (entries) => {
      for (const entry of entries) met.get(entry.target)?.(entry.isIntersecting)
    },
    { rootMargin: AHEAD },
  ))

interface Props {
  /** About what it will take, in CSS pixels, until it was drawn once. */
  heightPx: number
  /** Drawn at once: for what is in sight when the page opens. */
  first: boolean
  children: ReactNode
}

/** What holds the focus stays drawn until it loses it: half a word may stand in it. */
export function InSight({ heightPx, first, children }: Props): ReactNode {
  const holder = useRef<HTMLDivElement>(null)
  const [{ near, keptPx }, setDrawn] = useState({ near: first, keptPx: heightPx })
  const away = useRef(false)
  const leave = useCallback(
    () =>
      setDrawn((before) => ({
        near: false,
        keptPx: before.near ? (holder.current?.offsetHeight ?? before.keptPx) : before.keptPx,
      })),
    [],
  )
  useEffect(() => {
    const element = holder.current
    if (!element) return
    met.set(element, (isNear) => {
      away.current = !isNear
      if (isNear) setDrawn((before) => ({ ...before, near: true }))
      else if (!element.contains(document.activeElement)) leave()
    })
    watching().observe(element)
    return () => {
      watching().unobserve(element)
      met.delete(element)
    }
  }, [leave])
  const onBlur = (event: FocusEvent<HTMLDivElement>): void => {
    if (away.current && !event.currentTarget.contains(event.relatedTarget)) leave()
  }
  return (
    <div ref={holder} style={near ? undefined : { height: keptPx }} onBlur={onBlur}>
      {near && children}
    </div>
  )
}
