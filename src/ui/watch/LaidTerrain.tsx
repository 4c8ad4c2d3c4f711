// The terrain as viewers get it, as the way through the session: press anywhere to go there, or use it as a slider.
'use client'
import { Slider } from 'radix-ui'
import { useCallback, useMemo, type ReactNode } from 'react'
import type { ShownSegment } from '@/core/cut/cut'
import { drawTerrain } from '@/core/look/terrain'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import { useCanvas } from '../parts/useCanvas'
import { useTheme } from '../parts/useTheme'
import { useSteps, type VideoClock } from '../parts/useVideoClock'

/** The thumb moves in steps that the eye takes for smooth on a whole session's width. */
const STEP_MS = 250

interface Props {
  shown: readonly ShownSegment[]
  durationMs: Ms
  clock: VideoClock
  onSeek: (ms: Ms) => void
}

export function LaidTerrain({ shown, durationMs, clock, onSeek }: Props): ReactNode {
  const { palette } = useTheme()
  const nowMs = useSteps(clock, STEP_MS)
  const stretches = useMemo(() => shown.map(({ segment, startMs, endMs }) => ({ ...segment, startMs, endMs })), [shown])
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, width: number, height: number) => {
      pen.fillStyle = palette.paper
      pen.fillRect(0, 0, width, height)
      drawTerrain(pen, stretches, {
        width,
        height,
        fromMs: 0,
        toMs: durationMs,
        palette,
        selected: null,
        labels: false,
      })
    },
    [stretches, durationMs, palette],
  )
  const canvas = useCanvas(draw)
  return (
    <div className="relative h-[124px] shrink-0 border-y-4 border-ink">
      <canvas ref={canvas} className="absolute inset-0 h-full w-full" aria-hidden="true" />
      <Slider.Root
        value={[nowMs]}
        min={0}
        max={durationMs}
        step={100}
        onValueChange={([ms]) => onSeek(ms ?? 0)}
        className="absolute inset-0 flex touch-none items-stretch"
      >
        <Slider.Track className="grow" />
        <Slider.Thumb aria-label={texts.watch.seek} className="block h-[116px] w-2 bg-signal" />
      </Slider.Root>
    </div>
  )
}
