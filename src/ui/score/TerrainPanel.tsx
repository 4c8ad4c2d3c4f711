// The terrain of the whole score, zoomable, with its ruler. An edge can be dragged where one number of the plan decides
// it.
'use client'
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react'
import { useCallback, useMemo, useRef, useState, type PointerEvent, type ReactNode, type RefObject } from 'react'
import { drawRuler } from '@/core/look/ruler'
import { drawTerrain, stretchAt, stretchesOf } from '@/core/look/terrain'
import type { Cast } from '@/core/score/cast'
import { fieldFor } from '@/core/score/edits'
import { expectedReps } from '@/core/score/reps'
import type { Expansion, Segment } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { countersOf, nameOf } from '@/core/words/en/names'
import { IconButton } from '../parts/Button'
import { useCanvas, useSize } from '../parts/useCanvas'
import { useTheme } from '../parts/useTheme'
import { scoreTexts as words } from '@/core/words/en/score'

const CLOSEST_MS = 20_000
const EDGE_PX = 6
const DRAGGED_PX = 3
const RULER_PX = 24

interface Props {
  expansion: Expansion
  selected: string | null
  onSelect: (id: string | null) => void
  /**
   * While an edge is dragged, `done` is false; the last call has it true, or a length of null to leave all as it was.
   */
  onResize: (segment: Segment, durationMs: number | null, done: boolean) => void
  cast: Cast
}

interface Drag {
  segment: Segment
  fromX: number
  durationMs: number
  msPerPx: number
}

export function TerrainPanel({ expansion, selected, onSelect, onResize, cast }: Props): ReactNode {
  const { palette } = useTheme()
  const { segments, totalMs } = expansion
  const stretches = useMemo(() => stretchesOf(segments), [segments])
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const [zoom, setZoom] = useState(1)
  const [scroll, setScroll] = useState(0)
  const mostZoom = Math.max(1, totalMs / CLOSEST_MS)
  const shownZoom = Math.min(zoom, mostZoom)
  const whole = Math.max(1, totalMs)
  const fromMs = width ? (scroll / (width * shownZoom)) * whole : 0
  const view = useMemo(() => ({ fromMs, toMs: fromMs + whole / shownZoom }), [fromMs, whole, shownZoom])

  const draw = useCallback(
    (pen: CanvasRenderingContext2D, wide: number, tall: number) => {
      pen.fillStyle = palette.paper
      pen.fillRect(0, 0, wide, tall)
      drawTerrain(pen, stretches, { width: wide, height: tall - RULER_PX, ...view, palette, selected, labels: true })
      pen.translate(0, tall - RULER_PX)
      drawRuler(pen, { width: wide, height: RULER_PX, ...view, totalMs, palette })
    },
    [stretches, view, palette, selected, totalMs],
  )
  const canvas = useCanvas(draw)

  const zoomTo = (next: number, centre = 0.5): void => {
    const bounded = Math.min(mostZoom, Math.max(1, next))
    const at = (scroll + width * centre) / (width * shownZoom)
    setZoom(bounded)
    requestAnimationFrame(() => {
      if (frame.current) frame.current.scrollLeft = at * width * bounded - width * centre
    })
  }
  const onPointer = usePointer({ segments, stretches, view, width, canvas, onSelect, onResize })
  const { drag, hover, edge } = onPointer
  const over = segments.find((segment) => segment.id === (drag?.segment.id ?? hover?.id))
  return (
    <section className="relative border-y-4 border-ink">
      <div
        ref={frame}
        className="h-[204px] overflow-x-auto overflow-y-hidden"
        tabIndex={0}
        aria-label={words.terrain}
        onScroll={(event) => setScroll(event.currentTarget.scrollLeft)}
        onWheel={(event) => {
          if (event.ctrlKey || event.metaKey)
            zoomTo(
              shownZoom * (event.deltaY < 0 ? 1.25 : 0.8),
              (event.clientX - event.currentTarget.getBoundingClientRect().left) / width,
            )
        }}
      >
        <div style={{ width: `${shownZoom * 100}%` }} className="h-full">
          <canvas
            ref={canvas}
            className={`sticky left-0 block h-full touch-pan-x ${edge || drag ? 'cursor-ew-resize' : ''}`}
            style={{ width: width || '100%' }}
            role="img"
            aria-label={`${segments.length} intervals, ${formatClock(totalMs)}`}
            {...onPointer.handlers}
          />
        </div>
      </div>
      <Zoom zoom={shownZoom} most={mostZoom} onZoom={zoomTo} />
      {over && (
        <p className="pointer-events-none absolute top-2 left-3 bg-bar px-3 py-1.5 text-on-bar tabular-nums">
          {drag ? aboutLength(over) : aboutSegment(over, cast, { atMs: hover?.atMs ?? over.startMs, totalMs })}
        </p>
      )}
    </section>
  )
}

const lengthWhileDragging = (drag: Drag, x: number): number =>
  Math.max(0, Math.round((drag.durationMs + (x - drag.fromX) * drag.msPerPx) / 1000) * 1000)

const lengthOf = (segment: Segment): string =>
  `${segment.estimated ? `${words.about} ` : ''}${formatLength(segment.durationMs)}`

const listed = (parts: readonly string[]): string => parts.filter(Boolean).join('  ·  ')

/** What a length becomes while its edge is dragged. */
function aboutLength(segment: Segment): string {
  const field = fieldFor(segment, segment.durationMs)
  const name = field ? (words.fields[String(field.path.at(-1))] ?? '') : ''
  return listed([nameOf(segment), lengthOf(segment), field ? words.becomes(name, formatLength(field.value)) : ''])
}

function aboutSegment(segment: Segment, cast: Cast, { atMs, totalMs }: { atMs: number; totalMs: number }): string {
  const reps = expectedReps(segment, cast)
  return listed([
    nameOf(segment),
    lengthOf(segment),
    ...countersOf(segment),
    reps ? words.aboutReps(reps) : '',
    segment.note,
    `${formatClock(atMs)} in, ${formatClock(totalMs - atMs)} left`,
  ])
}

function Zoom({ zoom, most, onZoom }: { zoom: number; most: number; onZoom: (zoom: number) => void }): ReactNode {
  return (
    <div className="absolute top-2 right-3 flex bg-paper">
      <IconButton label={words.zoomOut} disabled={zoom <= 1} onClick={() => onZoom(zoom / 1.6)}>
        <ZoomOut size={18} />
      </IconButton>
      <IconButton label={words.zoomFit} disabled={zoom <= 1} onClick={() => onZoom(1)}>
        <Maximize2 size={17} />
      </IconButton>
      <IconButton label={words.zoomIn} disabled={zoom >= most} onClick={() => onZoom(zoom * 1.6)}>
        <ZoomIn size={18} />
      </IconButton>
    </div>
  )
}

interface Pointed {
  drag: Drag | null
  hover: { id: string; atMs: number } | null
  /** The pointer is over an edge that can be dragged. */
  edge: boolean
  handlers: {
    onPointerMove: (event: PointerEvent) => void
    onPointerDown: (event: PointerEvent) => void
    onPointerUp: (event: PointerEvent) => void
    onPointerLeave: () => void
    onPointerCancel: () => void
  }
}

/** What the pointer is over, presses and drags on the terrain. */
function usePointer({
  segments,
  stretches,
  view,
  width,
  canvas,
  onSelect,
  onResize,
}: Pick<Props, 'onSelect' | 'onResize'> & {
  segments: readonly Segment[]
  stretches: ReturnType<typeof stretchesOf>
  view: { fromMs: number; toMs: number }
  width: number
  canvas: RefObject<HTMLCanvasElement | null>
}): Pointed {
  const [hover, setHover] = useState<Pointed['hover']>(null)
  const [edge, setEdge] = useState(false)
  const [drag, setDrag] = useState<Drag | null>(null)
  const placeOf = (clientX: number): number => clientX - (canvas.current?.getBoundingClientRect().left ?? 0)
  const msAt = (x: number): number => view.fromMs + (x / Math.max(1, width)) * (view.toMs - view.fromMs)
  /** The segment whose end is under the pointer, if one number of the plan decides its length. */
  const edgeAt = (x: number): Segment | null => {
    const pxOf = (ms: number): number => ((ms - view.fromMs) / (view.toMs - view.fromMs)) * width
    const near = segments.filter(
      (segment) => Math.abs(pxOf(segment.startMs + segment.durationMs) - x) <= EDGE_PX && segment.origin?.length,
    )
    return (
      near.sort(
        (one, other) =>
          Math.abs(pxOf(one.startMs + one.durationMs) - x) - Math.abs(pxOf(other.startMs + other.durationMs) - x),
      )[0] ?? null
    )
  }
  const onMove = (event: PointerEvent): void => {
    const x = placeOf(event.clientX)
    if (drag) return onResize(drag.segment, lengthWhileDragging(drag, x), false)
    const stretch = stretchAt(stretches, { width, ...view }, x)
    setHover(stretch ? { id: stretch.id, atMs: msAt(x) } : null)
    setEdge(edgeAt(x) !== null)
  }
  const onDown = (event: PointerEvent): void => {
    const x = placeOf(event.clientX)
    const segment = edgeAt(x)
    if (!segment) return
    event.currentTarget.setPointerCapture(event.pointerId)
    setDrag({
      segment,
      fromX: x,
      durationMs: segment.durationMs,
      msPerPx: (view.toMs - view.fromMs) / Math.max(1, width),
    })
  }
  const onUp = (event: PointerEvent): void => {
    const x = placeOf(event.clientX)
    const dragged = drag !== null && Math.abs(x - drag.fromX) >= DRAGGED_PX
    if (drag) onResize(drag.segment, dragged ? lengthWhileDragging(drag, x) : null, true)
    setDrag(null)
    // Where intervals are narrow, every point is near an edge; a press that does not move selects.
    if (!dragged) onSelect(stretchAt(stretches, { width, ...view }, x)?.id ?? null)
  }
  return {
    ...{ drag, hover, edge },
    handlers: {
      onPointerMove: onMove,
      onPointerDown: onDown,
      onPointerUp: onUp,
      onPointerLeave: () => setHover(null),
      onPointerCancel: () => {
        if (drag) onResize(drag.segment, null, true)
        setDrag(null)
      },
    },
  }
}
