// The two shores on a canvas: zoom, scroll along, seek by pressing the sound, choose and move a stitch by its knot. The
// playhead is moved over them, without drawing them anew.
'use client'
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react'
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react'
import type { Evidence } from '@/core/evidence'
import { filesInRow } from '@/core/filesInRow'
import { heardRows } from '@/core/look/heardRows'
import { belowSound, drawShores, placeOf, playheadTopOf, timeAt, type Thread } from '@/core/look/shores'
import { stretchesOf } from '@/core/look/terrain'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import type { ReelProgress } from '@/server/progress'
import { IconButton } from '../parts/Button'
import { lengthOf } from '../parts/ReelVideo'
import { useCanvas, useSize } from '../parts/useCanvas'
import { useTheme } from '../parts/useTheme'
import type { VideoClock } from '../parts/useVideoClock'
import type { Change } from './changes'
import { HushMenu } from './HushMenu'
import { usePeaks } from './usePeaks'
import type { Stitching } from './useStitching'
import { useWindowOnTime, type WindowOnTime } from './useWindowOnTime'

const words = texts.score
const GRASP_PX = 9
/** How far above the rows of what was heard the zoom buttons stand, inside the sound. */
const BUTTONS_PX = 8
const strengthOf = (origin: Change['origin']): Thread['strength'] =>
  origin === 'wasNotDone' ? 'reckoned' : origin === 'unsure' || origin === 'reckoned' ? origin : 'sure'

interface Props {
  segments: Segment[]
  on: Stitching
  reel: ReelProgress
  heard: readonly Evidence[]
  clock: VideoClock
  playing: boolean
}

export function Shores({ segments, on, reel, heard, clock, playing }: Props): ReactNode {
  const { palette } = useTheme()
  const levels = usePeaks(reel.files)
  const rows = useMemo(() => heardRows(heard), [heard])
  const borders = useMemo(() => bordersOf(reel), [reel])
  const frame = useRef<HTMLDivElement>(null)
  const { changes, chosen, change, summary, footageMs } = on
  const view = useWindowOnTime({ frame, footageMs, focusMs: change?.footageMs, clock, playing })
  const { height } = useSize(frame)
  const [dragged, setDragged] = useState<{ index: number; ms: Ms } | null>(null)
  const stretches = useMemo(() => {
    const place = (ms: Ms): Ms => summary.offsetMs + ms * (1 + summary.driftPpm / 1e6)
    return stretchesOf(segments).map((one) => ({ ...one, startMs: place(one.startMs), endMs: place(one.endMs) }))
  }, [segments, summary])
  const threads = useMemo(
    () =>
      changes.map(({ plannedMs, footageMs: ms, origin }, index): Thread => ({
        plannedMs,
        footageMs: dragged?.index === index ? dragged.ms : ms,
        selected: index === chosen,
        strength: strengthOf(origin),
      })),
    [changes, chosen, dragged],
  )
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, width: number, height: number) =>
      drawShores(
        pen,
        { stretches, threads, levels, heard: rows, hushed: on.hushed, borders },
        { ...view, width, height, palette, footageMs },
      ),
    [stretches, threads, levels, rows, on.hushed, borders, view, palette, footageMs],
  )
  const canvas = useCanvas(draw)

  const pointerX = (event: PointerEvent): number => event.clientX - event.currentTarget.getBoundingClientRect().left
  const onDown = (event: PointerEvent<HTMLCanvasElement>): void => {
    const x = pointerX(event)
    const index = changes.findIndex((one) => Math.abs(placeOf(one.footageMs, view) - x) <= GRASP_PX)
    if (index < 0) return on.seek(timeAt(x, view))
    on.choose(index)
    event.currentTarget.setPointerCapture(event.pointerId)
    setDragged({ index, ms: changes[index]?.footageMs ?? 0 })
  }
  const onMove = (event: PointerEvent<HTMLCanvasElement>): void => {
    if (dragged) setDragged({ ...dragged, ms: Math.max(0, timeAt(pointerX(event), view)) })
  }
  const onUp = (): void => {
    const pixelMs = (view.toMs - view.fromMs) / view.width
    if (dragged && Math.abs(dragged.ms - (changes[dragged.index]?.footageMs ?? 0)) > pixelMs)
      on.moveTo(dragged.index, dragged.ms)
    setDragged(null)
  }
  return (
    <section ref={frame} className="relative min-h-[320px] flex-1 overflow-hidden border-t-4 border-ink">
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
      <Playhead clock={clock} view={view} top={playheadTopOf(height, rows.length)} colour={palette.signal} />
      <div className="absolute right-3 flex bg-paper" style={{ bottom: belowSound(rows.length) + BUTTONS_PX }}>
        <HushMenu rows={rows} hushed={on.hushed} onHush={on.hush} />
        <IconButton label={words.zoomOut} disabled={view.widest} onClick={() => view.zoomBy(1.8)}>
          <ZoomOut size={18} />
        </IconButton>
        <IconButton label={words.zoomFit} disabled={view.widest} onClick={view.showAll}>
          <Maximize2 size={17} />
        </IconButton>
        <IconButton label={words.zoomIn} disabled={view.closest} onClick={() => view.zoomBy(1 / 1.8)}>
          <ZoomIn size={18} />
        </IconButton>
      </div>
    </section>
  )
}

/** Where the second file begins, and every one after it. */
const bordersOf = ({ files }: ReelProgress): Ms[] => filesInRow(files.map(lengthOf)).beginMs.slice(1)

interface PlayheadProps {
  clock: VideoClock
  view: WindowOnTime
  /** In pixels. */
  top: number
  colour: string
}

/** Moved by the clock itself: no frame of the video draws anything anew. */
function Playhead({ clock, view, top, colour }: PlayheadProps): ReactNode {
  const mark = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const move = (ms: Ms): void => {
      if (mark.current) mark.current.style.transform = `translateX(${placeOf(ms, view) - 1}px)`
    }
    move(clock.nowMs())
    return clock.follow(move)
  }, [clock, view])
  return (
    <div
      ref={mark}
      aria-hidden="true"
      className="pointer-events-none absolute left-0 w-0.5"
      style={{ top, bottom: 0, background: colour }}
    />
  )
}
