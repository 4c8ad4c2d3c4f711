// Draws a score as land seen from the side: work stands above the waterline, rest is cut under it, talk is a jetty.
// Height is effort, texture is posture, a pennant is the side. One row; the caller chooses the stretch of time.
import type { Posture } from '../score/postures'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import type { Palette } from './palette'
import { FONTS } from './palette'
import type { Surface } from './surface'
import { clipped } from '../text'

export interface TerrainView {
  width: number
  height: number
  /** The stretch of time shown. */
  fromMs: Ms
  toMs: Ms
  palette: Palette
  /** Id of the segment to mark, or null. */
  selected: string | null
  /** Labels above the land, where they fit. */
  labels: boolean
}

export type Stretch = Pick<Segment, 'id' | 'kind' | 'side' | 'posture' | 'effort' | 'label'> & {
  startMs: Ms
  endMs: Ms
}

/** A score's own times as stretches. */
export const stretchesOf = (segments: readonly Segment[]): Stretch[] =>
  segments.map(({ id, kind, side, posture, effort, label, startMs, durationMs }) => ({
    id,
    kind,
    side,
    posture,
    effort,
    label,
    startMs,
    endMs: startMs + durationMs,
  }))

/** Share of the height that lies above the waterline. */
const WATERLINE = 0.72
/** Narrower than this on screen, a stretch is a part of the skyline: its height is all that can be seen. */
const DETAIL_WIDTH = 9
/** Narrower than this a dip loses its curve. */
const DIP_WIDTH = 4
/** A pennant needs more room than that, or it flies over its neighbours. */
const PENNANT_WIDTH = 18
/** Talk of open length has no width on the plan, yet it is there. */
const SHORTEST_JETTY = 20

export const waterlineOf = (view: Pick<TerrainView, 'height'>): number => Math.round(view.height * WATERLINE)

export function drawTerrain(surface: Surface, stretches: readonly Stretch[], view: TerrainView): void {
  const { width, height, palette } = view
  const level = waterlineOf(view)
  const scale = width / Math.max(1, view.toMs - view.fromMs)
  surface.fillStyle = palette.water
  surface.fillRect(0, level, width, height - level)
  const skyline = new Skyline(width, level)
  for (const stretch of stretches) {
    if (stretch.endMs < view.fromMs || stretch.startMs > view.toMs) continue
    const x = (stretch.startMs - view.fromMs) * scale
    const wide = Math.max(0.5, (stretch.endMs - stretch.startMs) * scale)
    if (wide < (stretch.kind === 'work' ? DETAIL_WIDTH : DIP_WIDTH) && stretch.kind !== 'talk')
      skyline.add(
        x,
        wide,
        stretch.kind === 'work' ? heightOf(stretch, level, view) : -depthOf(stretch.kind, level, view),
      )
    else drawStretch(surface, stretch, { x, wide, level }, view)
    if (stretch.id === view.selected) markSelected(surface, x, wide, view)
  }
  skyline.draw(surface, palette)
  surface.fillStyle = palette.ink
  surface.fillRect(0, level - 2, width, 4)
}

/** The stretch under a point, or null. */
export function stretchAt(
  stretches: readonly Stretch[],
  view: Pick<TerrainView, 'width' | 'fromMs' | 'toMs'>,
  x: number,
): Stretch | null {
  const atMs = view.fromMs + (x / view.width) * (view.toMs - view.fromMs)
  return stretches.find((one) => atMs >= one.startMs && atMs < one.endMs) ?? null
}

interface Place {
  x: number
  wide: number
  level: number
}

/**
 * What is too narrow for shapes of its own, gathered by pixel column: thousands of stretches cost no more than the
 * width.
 */
class Skyline {
  private readonly heights: Float32Array
  private readonly depths: Float32Array
  constructor(
    width: number,
    private readonly level: number,
  ) {
    this.heights = new Float32Array(Math.ceil(width) + 1)
    this.depths = new Float32Array(Math.ceil(width) + 1)
  }

  /** @param rise above the waterline, or below it when negative. */
  add(x: number, wide: number, rise: number): void {
    const held = rise > 0 ? this.heights : this.depths
    const size = Math.abs(rise)
    // A column between neighbours keeps them apart while they are wide enough to be told apart.
    const last = wide > 2.5 ? Math.floor(x + wide - 1.5) : Math.ceil(x + wide - 1)
    const to = Math.min(held.length - 1, Math.max(Math.floor(x), last))
    for (let column = Math.max(0, Math.floor(x)); column <= to; column++)
      if ((held[column] ?? 0) < size) held[column] = size
  }

  draw(surface: Surface, palette: Palette): void {
    this.runs(surface, this.heights, palette.land, -1)
    this.runs(surface, this.depths, palette.deep, 1)
  }

  /** One rectangle for as many columns as are equally high. */
  private runs(surface: Surface, sizes: Float32Array, colour: string, way: 1 | -1): void {
    surface.fillStyle = colour
    for (let from = 0; from < sizes.length;) {
      const size = sizes[from] ?? 0
      let to = from + 1
      while (to < sizes.length && sizes[to] === size) to++
      if (size) surface.fillRect(from, way < 0 ? this.level - size : this.level, to - from, size)
      from = to
    }
  }
}

/** How far land stands out of the water. */
function heightOf(stretch: Stretch, level: number, view: TerrainView): number {
  const headroom = view.labels ? 44 : Math.min(24, level * 0.25)
  return (level - headroom) * (0.28 + 0.144 * (stretch.effort ?? 3))
}

const DEPTHS = { rest: 0.5, break: 0.85, lead: 0.25, talk: 0, work: 0 } as const
const depthOf = (kind: Stretch['kind'], level: number, view: Pick<TerrainView, 'height'>): number =>
  DEPTHS[kind] * (view.height - level)

function drawStretch(surface: Surface, stretch: Stretch, place: Place, view: TerrainView): void {
  const { palette } = view
  switch (stretch.kind) {
    case 'work':
      return drawLand(surface, stretch, place, view)
    case 'talk':
      return drawJetty(surface, place, palette)
    case 'rest':
    case 'break':
    case 'lead':
      return drawDip(surface, place, depthOf(stretch.kind, place.level, view), palette)
  }
}

function drawLand(surface: Surface, stretch: Stretch, { x, wide, level }: Place, view: TerrainView): void {
  const { palette } = view
  const tall = heightOf(stretch, level, view)
  const top = level - tall
  const cut = Math.min(7, wide * 0.12, tall * 0.2)
  surface.save()
  surface.beginPath()
  surface.moveTo(x + 0.5, level)
  surface.lineTo(x + 0.5, top + cut * 0.7)
  surface.lineTo(x + cut, top)
  surface.lineTo(x + wide - cut, top + cut * 0.3)
  surface.lineTo(x + wide - 0.5, top + cut)
  surface.lineTo(x + wide - 0.5, level)
  surface.closePath()
  surface.fillStyle = palette.land
  // Ground that nobody has seen is faint, without a texture, and asks.
  if (stretch.posture === null) surface.globalAlpha = 0.4
  surface.fill()
  surface.clip()
  if (stretch.posture) drawTexture(surface, stretch.posture, { x, top, wide, tall }, palette.print)
  surface.restore()
  if (stretch.posture === null && wide >= NARROWEST_ASK) drawAsk(surface, x + wide / 2, level - tall / 2, palette.ink)
  surface.fillStyle = palette.ink
  if (wide >= PENNANT_WIDTH && stretch.side) drawPennant(surface, stretch.side, x + wide / 2, top)
  if (view.labels && wide > 46) drawLabel(surface, stretch.label, { x, wide, baseline: top - (stretch.side ? 28 : 8) })
}

/** So wide a stretch has room for its question mark, in pixels. */
const NARROWEST_ASK = 9

function drawAsk(surface: Surface, x: number, y: number, ink: string): void {
  surface.fillStyle = ink
  surface.textAlign = 'center'
  surface.textBaseline = 'alphabetic'
  surface.font = `700 15px "${FONTS.text}"`
  surface.fillText('?', x, y + 5)
}

function drawDip(surface: Surface, { x, wide, level }: Place, deep: number, palette: Palette): void {
  surface.fillStyle = palette.deep
  surface.beginPath()
  surface.moveTo(x, level)
  surface.quadraticCurveTo(x + wide * 0.18, level + deep, x + wide / 2, level + deep)
  surface.quadraticCurveTo(x + wide * 0.82, level + deep, x + wide, level)
  surface.closePath()
  surface.fill()
}

/** A jetty on posts, its end frayed: nobody knows how long the talk will be. */
function drawJetty(surface: Surface, { x, wide, level }: Place, palette: Palette): void {
  const end = x + Math.max(wide, SHORTEST_JETTY)
  surface.fillStyle = palette.ink
  surface.beginPath()
  surface.moveTo(x, level - 16)
  surface.lineTo(end, level - 16)
  for (const [back, down] of [
    [5, -14],
    [1, -12.5],
    [7, -10.5],
    [2, -9],
  ] as const)
    surface.lineTo(end - back, level + down)
  surface.lineTo(x, level - 9)
  surface.closePath()
  surface.fill()
  for (let post = x + 6; post < end - 8; post += 22) surface.fillRect(post, level - 10, 3, 20)
}

function drawPennant(surface: Surface, side: NonNullable<Segment['side']>, x: number, top: number): void {
  const flags = side === 'switch' || side === 'both' ? [-1, 1] : [side === 'left' ? -1 : 1]
  surface.fillRect(x - 1.25, top - 22, 2.5, 23)
  for (const way of flags) {
    surface.beginPath()
    surface.moveTo(x, top - 22)
    surface.lineTo(x + 13 * way, top - 16.5)
    surface.lineTo(x, top - 11)
    surface.closePath()
    surface.fill()
  }
}

function drawLabel(
  surface: Surface,
  label: string,
  { x, wide, baseline }: Pick<Place, 'x' | 'wide'> & { baseline: number },
): void {
  surface.font = `400 15px "${FONTS.display}"`
  surface.textAlign = 'center'
  surface.textBaseline = 'alphabetic'
  let shown = label
  while (shown.length > 1 && surface.measureText(shown).width > wide + 8) shown = clipped(shown, shown.length - 1)
  if (shown.length > 3)
    surface.fillText(
      shown === label ? label : `${clipped(shown, shown.length - 1)}.`,
      x + wide / 2,
      Math.max(14, baseline),
    )
}

function markSelected(surface: Surface, x: number, wide: number, view: TerrainView): void {
  const level = waterlineOf(view)
  surface.strokeStyle = view.palette.signal
  surface.lineWidth = 3
  surface.beginPath()
  surface.moveTo(x, level + 9)
  surface.lineTo(x + wide, level + 9)
  surface.stroke()
}

/** A rectangle in pixels, from its left and its top. */
interface Patch {
  x: number
  top: number
  wide: number
  tall: number
}

type Stroke = (surface: Surface, patch: Patch) => void
type Point = readonly [x: number, y: number]

/**
 * Each ground by the feel of it: reeds to stand in, slats to kneel on, brick for hands and feet, waves up and down,
 * pebbles to sit on.
 */
const TEXTURES: Record<Posture, Stroke> = {
  standing(surface, { x, top, wide, tall }) {
    for (let at = x + 4; at < x + wide; at += 6) line(surface, [at, top + 7], [at, top + tall - 5])
  },
  kneeling(surface, { x, top, wide, tall }) {
    for (let at = x - tall; at < x + wide; at += 9) line(surface, [at, top + tall], [at + tall, top])
  },
  handsFeet(surface, { x, top, wide, tall }) {
    for (let row = 0; row * 7 < tall; row++) {
      for (let at = x - 6 + (row % 2) * 8; at < x + wide; at += 16)
        line(surface, [at, top + 8 + row * 7], [at + 9, top + 8 + row * 7])
    }
  },
  faceDown(surface, { x, top, wide, tall }) {
    for (let down = 6; down < tall + 8; down += 10)
      for (let at = x; at < x + wide; at += 15) arc(surface, [at + 7, top + down], 0.25, Math.PI - 0.25)
  },
  faceUp(surface, { x, top, wide, tall }) {
    for (let down = 14; down < tall + 8; down += 10)
      for (let at = x; at < x + wide; at += 15) arc(surface, [at + 7, top + down], Math.PI + 0.25, -0.25)
  },
  seated(surface, { x, top, wide, tall }) {
    for (let row = 0; row * 8 < tall; row++) {
      for (let at = x + 4 + (row % 2) * 4; at < x + wide; at += 8) {
        surface.beginPath()
        surface.arc(at, top + 9 + row * 8, 1.7, 0, 2 * Math.PI)
        surface.fill()
      }
    }
  },
}

function drawTexture(surface: Surface, posture: Posture, patch: Patch, ink: string): void {
  surface.strokeStyle = ink
  surface.fillStyle = ink
  surface.lineWidth = 1.7
  surface.lineCap = 'round'
  TEXTURES[posture](surface, patch)
}

function line(surface: Surface, from: Point, to: Point): void {
  surface.beginPath()
  surface.moveTo(...from)
  surface.lineTo(...to)
  surface.stroke()
}

function arc(surface: Surface, middle: Point, from: number, to: number): void {
  surface.beginPath()
  surface.arc(...middle, 6, from, to)
  surface.stroke()
}
