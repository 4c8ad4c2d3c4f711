// Draws the overlay over the picture, frame by frame, by the code that renders it.
'use client'
import { useCallback, useEffect, useMemo, useRef, type RefObject } from 'react'
import type { ShownSegment } from '@/core/cut/cut'
import { drawOverlay, type Frame } from '@/core/look/drawOverlay'
import type { LookWish } from '@/core/look/looks/family'
import {
  keyOf,
  overlayAt,
  overlayChanges,
  type OverlayChange,
  type OverlayState,
  type Viewing,
} from '@/core/look/overlay'
import type { Ms } from '@/core/units'
import { useFonts } from '../parts/useCanvas'
import type { VideoClock } from '../parts/useVideoClock'

interface Props {
  /** Of the output. */
  clock: VideoClock
  shown: readonly ShownSegment[]
  viewing: Viewing
  size: Frame
  look: LookWish
}

/** Grace for a frame's time, which is rounded, as a boundary's is not. */
const GRACE_MS = 1

/** @returns the canvas to draw on, and what stands on it. */
export function useOverlay({ clock, shown, viewing, size, look }: Props): {
  canvas: RefObject<HTMLCanvasElement | null>
  stateNow: () => OverlayState | null
  /** All that will ever be shown. */
  changes: readonly OverlayChange[]
} {
  const canvas = useRef<HTMLCanvasElement>(null)
  const drawn = useRef<string | null>(null)
  const fontsReady = useFonts()
  const changes = useMemo(() => overlayChanges(shown, viewing), [shown, viewing])
  const paint = useCallback(
    (outMs: Ms) => {
      const state = overlayAt(changes, outMs + GRACE_MS)
      const key = keyOf(state)
      const pen = canvas.current?.getContext('2d')
      if (!pen || !canvas.current || key === drawn.current) return
      drawn.current = key
      pen.clearRect(0, 0, size.width, size.height)
      if (state) drawOverlay(pen, state, size, look)
      canvas.current.dataset.count = state ? String(state.count ?? '') : ''
    },
    [changes, size, look],
  )
  useEffect(() => {
    drawn.current = null
    paint(clock.nowMs())
    return clock.follow(paint)
  }, [clock, paint, fontsReady])
  const stateNow = useCallback(() => overlayAt(changes, clock.nowMs() + GRACE_MS), [changes, clock])
  return { canvas, stateNow, changes }
}
