// Draws Sync's two shores: the score's terrain hanging above in planned time, the footage's sound below, and a thread
// from every planned change to where it is in the footage.
import type { EvidenceKind } from '../evidence'
import type { PeakLevel } from '../hear/peaks'
import { PEAKS_RATE } from '../hear/peaks'
import { formatClock } from '../time/clock'
import type { Ms } from '../units'
import { drawHeardRows, ROW_PX, type HeardRow } from './heardRows'
import { FONTS, type Palette } from './palette'
import type { Surface } from './surface'
import { drawTerrain, waterlineOf, type Stretch } from './terrain'

export interface Thread {
  /** Where the plan puts the change, on the footage's clock. */
  plannedMs: Ms
  footageMs: Ms
  strength: 'sure' | 'unsure' | 'reckoned'
  selected: boolean
}

export interface ShoresView {
  width: number
  height: number
  fromMs: Ms
  toMs: Ms
  palette: Palette
  footageMs: Ms
}

/** Shares of the height: terrain, the water that threads cross, and the sound. */
const TERRAIN_SHARE = 0.42
const SOUND_FROM = 0.66
const RULER = 20
/** Where there are many rows, the water gives way to the sound first. */
const LEAST_SOUND = 54
const LEAST_WATER = 40

/** How many pixels lie below the sound. */
export const belowSound = (rows: number): number => RULER + rows * ROW_PX
/** Where the sound begins below the water, in pixels from the top. */
const soundTopOf = (height: number, rows: number): number =>
  Math.round(
    Math.max(
      height * TERRAIN_SHARE + LEAST_WATER,
      Math.min(height * SOUND_FROM, height - belowSound(rows) - LEAST_SOUND),
    ),
  )
/** Where a playhead begins that is moved over the shores: a little into the water above the sound. */
export const playheadTopOf = (height: number, rows: number): number => soundTopOf(height, rows) - 12

export interface ShoresScene {
  stretches: readonly Stretch[]
  threads: readonly Thread[]
  levels: readonly PeakLevel[]
  heard: readonly HeardRow[]
  /** Kinds of evidence that are kept out of the matching. */
  hushed: ReadonlySet<EvidenceKind>
  /** Where the second file of the reel begins, and every one after it. */
  borders: readonly Ms[]
}

export function drawShores(
  surface: Surface,
  { stretches, threads, levels, heard, hushed, borders }: ShoresScene,
  view: ShoresView,
): void {
  const { width, height, palette } = view
  const terrainTall = Math.round(height * TERRAIN_SHARE),
    soundTop = soundTopOf(height, heard.length)
  surface.fillStyle = palette.paper
  surface.fillRect(0, 0, width, height)
  drawTerrain(surface, stretches, {
    width,
    height: terrainTall,
    fromMs: view.fromMs,
    toMs: view.toMs,
    palette,
    selected: null,
    labels: true,
  })
  surface.fillStyle = palette.water
  surface.fillRect(0, terrainTall - 1, width, soundTop - terrainTall + 1)
  const soundFoot = height - belowSound(heard.length)
  drawSound(surface, levels, { top: soundTop, foot: soundFoot }, view)
  drawHeardRows(surface, heard, { width, top: soundFoot, palette, hushed, placeOf: (ms) => placeOf(ms, view) })
  drawBorders(surface, borders, { top: soundTop, foot: height - RULER }, view)
  const shores = { top: waterlineOf({ height: terrainTall }), foot: soundTop }
  for (const thread of threads) if (!thread.selected) drawThread(surface, thread, shores, view)
  for (const thread of threads) if (thread.selected) drawThread(surface, thread, shores, view)
  drawRuler(surface, view)
}

export const placeOf = (ms: Ms, { width, fromMs, toMs }: Pick<ShoresView, 'width' | 'fromMs' | 'toMs'>): number =>
  ((ms - fromMs) / (toMs - fromMs)) * width
export const timeAt = (x: number, { width, fromMs, toMs }: Pick<ShoresView, 'width' | 'fromMs' | 'toMs'>): Ms =>
  fromMs + (x / width) * (toMs - fromMs)

interface Band {
  top: number
  foot: number
}

function drawSound(surface: Surface, levels: readonly PeakLevel[], { top, foot }: Band, view: ShoresView): void {
  const { width, palette, fromMs, toMs } = view
  surface.fillStyle = palette.pale
  surface.fillRect(0, top, width, foot - top)
  surface.fillStyle = palette.ink
  surface.fillRect(0, top - 2, width, 4)
  const samplesPerPixel = (((toMs - fromMs) / 1000) * PEAKS_RATE) / width
  const level = [...levels].reverse().find((one) => one.step <= samplesPerPixel) ?? levels[0]
  if (!level) return
  const middle = (top + foot) / 2,
    reach = (foot - top) / 2 - 3
  surface.fillStyle = palette.sound
  for (let x = 0; x < width; x++) {
    const first = Math.floor(((timeAt(x, view) / 1000) * PEAKS_RATE) / level.step)
    const last = Math.max(first + 1, Math.floor(((timeAt(x + 1, view) / 1000) * PEAKS_RATE) / level.step))
    let low = 0,
      high = 0
    for (let pair = Math.max(0, first); pair < last && pair * 2 < level.pairs.length; pair++) {
      low = Math.min(low, level.pairs[pair * 2] ?? 0)
      high = Math.max(high, level.pairs[pair * 2 + 1] ?? 0)
    }
    const up = loudness(high) * reach,
      down = loudness(-low) * reach
    if (first >= 0) surface.fillRect(x, middle - up, 1, Math.max(1, up + down))
  }
}

/** Where one file ends and the next begins: a cut through the sound. */
function drawBorders(surface: Surface, borders: readonly Ms[], { top, foot }: Band, view: ShoresView): void {
  for (const ms of borders) {
    const x = Math.round(placeOf(ms, view))
    surface.fillStyle = view.palette.paper
    surface.fillRect(x - 3, top, 6, foot - top)
    surface.fillStyle = view.palette.signal
    surface.fillRect(x - 1, top - 8, 2, foot - top + 8)
  }
}

/** A square root lifts the quiet parts: a beep across a cabin is faint beside a voice at the microphone. */
const loudness = (peak: number): number => Math.sqrt(Math.min(1, Math.max(0, peak) / 127))

function drawThread(surface: Surface, thread: Thread, { top, foot }: Band, view: ShoresView): void {
  const from = placeOf(thread.plannedMs, view),
    to = placeOf(thread.footageMs, view)
  if (Math.max(from, to) < -20 || Math.min(from, to) > view.width + 20) return
  const { palette } = view
  surface.strokeStyle = thread.selected ? palette.land : thread.strength === 'reckoned' ? palette.ink : palette.thread
  surface.globalAlpha = thread.strength === 'reckoned' && !thread.selected ? 0.45 : 1
  surface.lineWidth = thread.selected ? 5 : thread.strength === 'sure' ? 3.5 : 2
  const pieces = thread.strength === 'sure' ? 1 : thread.strength === 'unsure' ? 5 : 11
  for (let piece = 0; piece < pieces; piece++) {
    const at = (share: number): [number, number] => [from + (to - from) * share, top + (foot - top) * share]
    const [startX, startY] = at(piece / pieces),
      [endX, endY] = at((piece + (pieces === 1 ? 1 : 0.55)) / pieces)
    surface.beginPath()
    surface.moveTo(startX, startY)
    surface.lineTo(endX, endY)
    surface.stroke()
  }
  surface.globalAlpha = 1
  if (thread.strength !== 'reckoned' || thread.selected) drawKnot(surface, { x: to, y: foot }, thread, view)
}

/** Where a thread is made fast on the footage's shore. */
function drawKnot(surface: Surface, { x, y }: { x: number; y: number }, thread: Thread, view: ShoresView): void {
  surface.fillStyle = thread.selected ? view.palette.land : view.palette.ink
  surface.beginPath()
  surface.moveTo(x - 6, y - 2)
  surface.lineTo(x + 6, y - 2)
  surface.lineTo(x + 1, y + 11)
  surface.lineTo(x - 1, y + 11)
  surface.closePath()
  surface.fill()
  if (!thread.selected) return
  surface.fillStyle = view.palette.land
  surface.fillRect(x - 1, y + 10, 2, view.height - RULER - y - 10)
}

const RULER_STEPS: readonly Ms[] = [
  100, 250, 500, 1000, 2000, 5000, 10_000, 15_000, 30_000, 60_000, 120_000, 300_000, 600_000, 1_800_000,
]

function drawRuler(surface: Surface, view: ShoresView): void {
  const { width, height, fromMs, toMs, palette } = view
  const step = RULER_STEPS.find((one) => (one / (toMs - fromMs)) * width >= 74) ?? 3_600_000
  surface.fillStyle = palette.paper
  surface.fillRect(0, height - RULER, width, RULER)
  surface.fillStyle = palette.ink
  surface.font = `500 13px "${FONTS.text}"`
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  for (let ms = Math.ceil(Math.max(0, fromMs) / step) * step; ms <= Math.min(toMs, view.footageMs); ms += step) {
    const x = placeOf(ms, view)
    surface.fillRect(x, height - RULER, 1.5, 6)
    surface.fillText(
      step < 1000
        ? `${formatClock(Math.floor(ms / 1000) * 1000)}.${String(ms % 1000)
            .padStart(3, '0')
            .slice(0, 2)}`
        : formatClock(ms),
      x + 5,
      height - 5,
    )
  }
}
