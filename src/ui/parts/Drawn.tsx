// A chart with its numbers in words for those who do not see it.
'use client'
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js'
import { useEffect, useRef, type ReactNode } from 'react'

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
)

export type ChartConfig = ChartConfiguration<'bar' | 'line'>

interface Props {
  label: string
  /** The numbers, in words; empty where they stand beside it. */
  spoken?: string
  config: ChartConfig
  /** In pixels. */
  height: number
}

export function Drawn({ label, spoken = '', config, height }: Props): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    if (!canvas.current) return
    const chart = new Chart(canvas.current, config)
    return () => chart.destroy()
  }, [config])
  return (
    <div style={{ height }}>
      <canvas ref={canvas} role="img" aria-label={`${label}. ${spoken}`} />
    </div>
  )
}
