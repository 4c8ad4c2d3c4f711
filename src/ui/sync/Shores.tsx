// The two shores on a canvas: zoom, scroll along, seek by pressing the sound, choose and move a stitch by its knot.
'use client'
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react'
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react'
import { unpackPeaks, type PeakLevel } from '@/core/hear/peaks'
import { drawShores, placeOf, timeAt } from '@/core/look/shores'
import { stretchesOf } from '@/core/look/terrain'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import type { FootageProgress } from '@/server/progress'
import { IconButton } from '../parts/Button'
import { useCanvas, useSize } from '../parts/useCanvas'
import { useTheme } from '../parts/useTheme'
import { texts } from '../texts'
import type { Change } from './ChangeList'

const words = texts.score
const CLOSEST_MS = 1500
const GRASP_PX = 9

interface Props {
  segments: Segment[]
  changes: Change[]
  chosen: number
  fit: { offsetMs: number; driftPpm: number }
  footage: FootageProgress
  nowMs: Ms
  playing: boolean
  onSeek: (ms: Ms) => void
  onChoose: (index: number, andSeek?: boolean) => void
  onDrop: (index: number, ms: Ms) => void
}

export function Shores({
  segments,
  changes,
  chosen,
  fit,
  footage,
  nowMs,
  playing,
  onSeek,
  onChoose,
  onDrop,
}: Props): ReactNode {
  const { palette } = useTheme()
  const levels = usePeaks(footage)
  const footageMs = footage.facts?.durationMs ?? 1
  const [span, setSpan] = useState(footageMs)
  const [from, setFrom] = useState(0)
  const [dragged, setDragged] = useState<{ index: number; ms: Ms } | null>(null)
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const view = useMemo(() => ({ fromMs: from, toMs: from + span, width }), [from, span, width])
  const stretches = useMemo(() => {
    const place = (ms: Ms): Ms => fit.offsetMs + ms * (1 + fit.driftPpm / 1e6)
    return stretchesOf(segments).map((one) => ({ ...one, startMs: place(one.startMs), endMs: place(one.endMs) }))
  }, [segments, fit])
  const threads = useMemo(
    () =>
      changes.map((change, index) => ({
        plannedMs: change.plannedMs,
        footageMs: dragged?.index === index ? dragged.ms : change.footageMs,
        selected: index === chosen,
        strength:
          change.origin === 'reckoned'
            ? ('reckoned' as const)
            : change.origin === 'unsure'
              ? ('unsure' as const)
              : ('sure' as const),
      })),
    [changes, chosen, dragged],
  )
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, wide: number, tall: number) => {
      drawShores(pen, stretches, threads, levels, {
        width: wide,
        height: tall,
        fromMs: view.fromMs,
        toMs: view.toMs,
        palette,
        playheadMs: nowMs,
        footageMs,
      })
    },
    [stretches, threads, levels, view, palette, nowMs, footageMs],
  )
  const canvas = useCanvas(draw)

  const show = useCallback(
    (nextSpan: number, centreMs: Ms, share = 0.5) => {
      const bounded = Math.min(footageMs, Math.max(CLOSEST_MS, nextSpan))
      setSpan(bounded)
      setFrom(Math.max(0, Math.min(footageMs - bounded, centreMs - bounded * share)))
    },
    [footageMs],
  )
  // The chosen change and the playhead are kept in sight: followed as they move, not when the user scrolls away.
  const focusMs = changes[chosen]?.footageMs
  const [followed, setFollowed] = useState({ focusMs, nowMs })
  if (followed.focusMs !== focusMs || followed.nowMs !== nowMs) {
    setFollowed({ focusMs, nowMs })
    const within = (start: Ms): Ms => Math.max(0, Math.min(footageMs - span, start))
    if (playing && (nowMs > from + span * 0.92 || nowMs < from)) setFrom(within(nowMs - span * 0.1))
    else if (followed.focusMs !== focusMs && focusMs !== undefined && (focusMs < from || focusMs > from + span))
      setFrom(within(focusMs - span / 2))
  }
  useEffect(() => {
    const element = frame.current
    if (!element) return
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault()
      const share = (event.clientX - element.getBoundingClientRect().left) / width
      if (event.ctrlKey || event.metaKey) show(span * (event.deltaY < 0 ? 0.8 : 1.25), from + span * share, share)
      else
        setFrom((now) => Math.max(0, Math.min(footageMs - span, now + ((event.deltaX || event.deltaY) / width) * span)))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  }, [width, span, from, footageMs, show])

  const pointerX = (event: PointerEvent): number => event.clientX - event.currentTarget.getBoundingClientRect().left
  const knotAt = (x: number): number =>
    changes.findIndex((change) => Math.abs(placeOf(change.footageMs, view) - x) <= GRASP_PX)
  const onDown = (event: PointerEvent<HTMLCanvasElement>): void => {
    const index = knotAt(pointerX(event))
    if (index < 0) return onSeek(timeAt(pointerX(event), view))
    onChoose(index)
    event.currentTarget.setPointerCapture(event.pointerId)
    setDragged({ index, ms: changes[index]?.footageMs ?? 0 })
  }
  const onMove = (event: PointerEvent<HTMLCanvasElement>): void => {
    if (dragged) setDragged({ ...dragged, ms: Math.max(0, timeAt(pointerX(event), view)) })
  }
  const onUp = (): void => {
    if (dragged && Math.abs(dragged.ms - (changes[dragged.index]?.footageMs ?? 0)) > span / width)
      onDrop(dragged.index, dragged.ms)
    setDragged(null)
  }
  const zoomBy = (factor: number): void => show(span * factor, focusMs ?? from + span / 2)
  return (
    <section ref={frame} className="relative min-h-[320px] flex-1 border-t-4 border-ink">
      <canvas
        ref={canvas}
        className="absolute inset-0 h-full w-full touch-none"
        onPointerDown={onDown}
        onPointerMove={onMove}
        onPointerUp={onUp}
        onPointerCancel={() => setDragged(null)}
        role="img"
        aria-label={`${changes.length} changes, score above, sound below`}
      />
      <div className="absolute right-3 bottom-7 flex bg-paper">
        <IconButton label={words.zoomOut} disabled={span >= footageMs} onClick={() => zoomBy(1.8)}>
          <ZoomOut size={18} />
        </IconButton>
        <IconButton label={words.zoomFit} disabled={span >= footageMs} onClick={() => show(footageMs, 0)}>
          <Maximize2 size={17} />
        </IconButton>
        <IconButton label={words.zoomIn} disabled={span <= CLOSEST_MS} onClick={() => zoomBy(1 / 1.8)}>
          <ZoomIn size={18} />
        </IconButton>
      </div>
    </section>
  )
}

function usePeaks(footage: FootageProgress): PeakLevel[] {
  const [levels, setLevels] = useState<PeakLevel[]>([])
  useEffect(() => {
    if (!footage.hasPeaks) return
    const halt = new AbortController()
    void fetch(`/api/footage/${footage.id}/peaks`, { signal: halt.signal })
      .then(async (response) => {
        if (response.ok) setLevels(unpackPeaks(new Uint8Array(await response.arrayBuffer())))
      })
      .catch(() => {})
    return () => halt.abort()
  }, [footage.id, footage.hasPeaks])
  return levels
}
