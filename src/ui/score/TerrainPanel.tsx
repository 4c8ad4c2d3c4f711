// The terrain of the whole score in one row, zoomable: a window of it is drawn, so that hours cost no more than minutes.
'use client'
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react'
import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react'
import { drawTerrain, stretchAt, stretchesOf } from '@/core/look/terrain'
import type { Expansion } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { nameOf, roundOf } from '@/core/write/wording'
import { IconButton } from '../parts/Button'
import { useCanvas, useSize } from '../parts/useCanvas'
import { useTheme } from '../parts/useTheme'
import { texts } from '../texts'

const words = texts.score
const CLOSEST_MS = 20_000

export function TerrainPanel({ expansion, selected, onSelect }: { expansion: Expansion; selected: string | null; onSelect: (id: string | null) => void }): ReactNode {
  const { palette } = useTheme()
  const { segments, totalMs } = expansion
  const stretches = useMemo(() => stretchesOf(segments), [segments])
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const [zoom, setZoom] = useState(1)
  const [scroll, setScroll] = useState(0)
  const [hover, setHover] = useState<string | null>(null)
  const mostZoom = Math.max(1, totalMs / CLOSEST_MS)
  const shownZoom = Math.min(zoom, mostZoom)
  const whole = Math.max(1, totalMs)
  const fromMs = width ? (scroll / (width * shownZoom)) * whole : 0
  const view = useMemo(() => ({ fromMs, toMs: fromMs + whole / shownZoom }), [fromMs, whole, shownZoom])

  const draw = useCallback((pen: CanvasRenderingContext2D, wide: number, tall: number) => {
    pen.fillStyle = palette.paper
    pen.fillRect(0, 0, wide, tall)
    drawTerrain(pen, stretches, { width: wide, height: tall, ...view, palette, selected, labels: true })
  }, [stretches, view, palette, selected])
  const canvas = useCanvas(draw)

  const zoomTo = (next: number, centre = 0.5): void => {
    const bounded = Math.min(mostZoom, Math.max(1, next))
    const at = (scroll + width * centre) / (width * shownZoom)
    setZoom(bounded)
    requestAnimationFrame(() => { if (frame.current) frame.current.scrollLeft = at * width * bounded - width * centre })
  }
  const over = segments.find((segment) => segment.id === hover)
  const find = (clientX: number): string | null => {
    const box = canvas.current?.getBoundingClientRect()
    return box ? stretchAt(stretches, { width, ...view }, clientX - box.left)?.id ?? null : null
  }
  return (
    <section className="relative border-y-4 border-ink">
      <div ref={frame} className="h-[250px] overflow-x-auto overflow-y-hidden" tabIndex={0} aria-label="Terrain"
        onScroll={(event) => setScroll(event.currentTarget.scrollLeft)}
        onWheel={(event) => { if (event.ctrlKey || event.metaKey) zoomTo(shownZoom * (event.deltaY < 0 ? 1.25 : 0.8), (event.clientX - event.currentTarget.getBoundingClientRect().left) / width) }}>
        <div style={{ width: `${shownZoom * 100}%` }} className="h-full">
          <canvas ref={canvas} className="sticky left-0 block h-full" style={{ width: width || '100%' }} role="img"
            aria-label={`${segments.length} intervals, ${formatClock(totalMs)}`}
            onPointerMove={(event) => setHover(find(event.clientX))} onPointerLeave={() => setHover(null)} onClick={(event) => onSelect(find(event.clientX))} />
        </div>
      </div>
      <div className="absolute top-2 right-3 flex bg-paper">
        <IconButton label={words.zoomOut} disabled={shownZoom <= 1} onClick={() => zoomTo(shownZoom / 1.6)}><ZoomOut size={18} /></IconButton>
        <IconButton label={words.zoomFit} disabled={shownZoom <= 1} onClick={() => zoomTo(1)}><Maximize2 size={17} /></IconButton>
        <IconButton label={words.zoomIn} disabled={shownZoom >= mostZoom} onClick={() => zoomTo(shownZoom * 1.6)}><ZoomIn size={18} /></IconButton>
      </div>
      {over && (
        <p className="pointer-events-none absolute top-2 left-3 bg-bar px-3 py-1.5 text-on-bar tabular-nums">
          {[nameOf(over), formatLength(over.durationMs), roundOf(over), `${formatClock(over.startMs)} in, ${formatClock(totalMs - over.startMs)} left`].filter(Boolean).join('  ·  ')}
        </p>
      )}
    </section>
  )
}
