// The ruler under the terrain: time into the session above, time left below.
import { formatClock } from '../time/clock'
import type { Ms } from '../units'
import { FONTS, type Palette } from './palette'
import type { Surface } from './surface'

export interface RulerView {
  width: number
  height: number
  fromMs: Ms
  toMs: Ms
  totalMs: Ms
  palette: Palette
}

const STEPS: readonly Ms[] = [5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200].map((seconds) => seconds * 1000)
/** Two times side by side need that much room. */
const LABEL_WIDTH = 120

const rulerStep = (view: Pick<RulerView, 'width' | 'fromMs' | 'toMs'>): Ms => {
  const least = ((view.toMs - view.fromMs) * LABEL_WIDTH) / Math.max(1, view.width)
  return STEPS.find((step) => step >= least) ?? Math.ceil(least / 3_600_000) * 3_600_000
}

export function drawRuler(surface: Surface, view: RulerView): void {
  const { width, height, fromMs, toMs, totalMs, palette } = view
  const step = rulerStep(view)
  surface.fillStyle = palette.paper
  surface.fillRect(0, 0, width, height)
  surface.fillStyle = palette.ink
  surface.font = `500 13px "${FONTS.text}"`
  surface.textAlign = 'left'
  surface.textBaseline = 'middle'
  for (let at = Math.ceil(fromMs / step) * step; at <= Math.min(toMs, totalMs); at += step) {
    const x = ((at - fromMs) / Math.max(1, toMs - fromMs)) * width
    surface.fillRect(x, 0, 1.5, height)
    surface.fillText(
      at ? `${formatClock(at)} in, ${formatClock(totalMs - at)} left` : `${formatClock(totalMs)} in all`,
      x + 6,
      height / 2 + 1,
    )
  }
}
