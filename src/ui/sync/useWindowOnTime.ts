// Which part of the footage the shores show: zoomed, scrolled, and brought to what is chosen or playing.
'use client'
import { useCallback, useEffect, useMemo, useState, type RefObject } from 'react'
import type { Ms } from '@/core/units'
import { useSize } from '../parts/useCanvas'
import type { VideoClock } from '../parts/useVideoClock'

const CLOSEST_MS = 1500

export interface WindowOnTime {
  fromMs: Ms
  toMs: Ms
  width: number
  widest: boolean
  closest: boolean
  zoomBy: (factor: number) => void
  showAll: () => void
}

interface Props {
  frame: RefObject<HTMLElement | null>
  footageMs: Ms
  /** Where the chosen change is. */
  focusMs: Ms | undefined
  clock: VideoClock
  playing: boolean
}

export function useWindowOnTime({ frame, footageMs, focusMs, clock, playing }: Props): WindowOnTime {
  const { width } = useSize(frame)
  const [span, setSpan] = useState(footageMs)
  const [from, setFrom] = useState(0)
  const within = useCallback((start: Ms): Ms => Math.max(0, Math.min(footageMs - span, start)), [footageMs, span])

  /** @param share where in the window `centreMs` comes to lie. */
  const show = useCallback(
    (nextSpan: number, centreMs: Ms, share = 0.5) => {
      const bounded = Math.min(footageMs, Math.max(CLOSEST_MS, nextSpan))
      setSpan(bounded)
      setFrom(Math.max(0, Math.min(footageMs - bounded, centreMs - bounded * share)))
    },
    [footageMs],
  )
  // The chosen change comes into sight when another is chosen or it moves; the user may scroll away from it.
  const [followed, setFollowed] = useState(focusMs)
  if (followed !== focusMs) {
    setFollowed(focusMs)
    if (focusMs !== undefined && (focusMs < from || focusMs > from + span)) setFrom(within(focusMs - span / 2))
  }
  useEffect(
    () =>
      clock.follow((nowMs) => {
        if (playing && (nowMs > from + span * 0.92 || nowMs < from)) setFrom(within(nowMs - span * 0.1))
      }),
    [clock, playing, from, span, within],
  )
  useEffect(() => {
    const element = frame.current
    if (!element) return
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault()
      const share = (event.clientX - element.getBoundingClientRect().left) / width
      if (event.ctrlKey || event.metaKey) show(span * (event.deltaY < 0 ? 0.8 : 1.25), from + span * share, share)
      else setFrom((now) => within(now + ((event.deltaX || event.deltaY) / width) * span))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  }, [frame, width, span, from, show, within])

  return useMemo(
    () => ({
      fromMs: from,
      toMs: from + span,
      width,
      widest: span >= footageMs,
      closest: span <= CLOSEST_MS,
      zoomBy: (factor) => show(span * factor, focusMs ?? from + span / 2),
      showAll: () => show(footageMs, 0),
    }),
    [from, span, width, footageMs, focusMs, show],
  )
}
