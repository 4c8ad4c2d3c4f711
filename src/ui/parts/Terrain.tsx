// The score's terrain on a canvas, for the shelf and wherever the whole is shown at a glance.
'use client'
import { useCallback, type ReactNode } from 'react'
import { drawTerrain, type Stretch } from '@/core/look/terrain'
import { useCanvas } from './useCanvas'
import { useTheme } from './useTheme'

export function Terrain({
  stretches,
  totalMs,
  label,
  className = '',
}: {
  stretches: readonly Stretch[]
  totalMs: number
  label: string
  className?: string
}): ReactNode {
  const { palette } = useTheme()
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, width: number, height: number) => {
      drawTerrain(pen, stretches, { width, height, fromMs: 0, toMs: totalMs, palette, selected: null, labels: false })
    },
    [stretches, totalMs, palette],
  )
  return <canvas ref={useCanvas(draw)} role="img" aria-label={label} className={`block w-full ${className}`} />
}
