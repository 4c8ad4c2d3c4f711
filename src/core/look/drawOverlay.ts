// Draws the overlay: a printed block with the count, its tide staff, and a plate with move, side, counters and what is
// next. The same code draws the preview in the browser and the pictures that are rendered into the video.
import { STAFF_STEPS, type OverlayState } from './overlay'
import { FONTS, OVERLAY } from './palette'
import type { Surface } from './surface'
import { clipped } from '../text'

export interface Frame {
  width: number
  height: number
}

/** A part of the overlay that changes on its own: the plate once an interval, the block once a second. */
export interface Layer {
  /** Where it stands in the frame, in whole even pixels. */
  x: number
  y: number
  width: number
  height: number
  /** Equal keys are the same picture. */
  keyOf: (state: OverlayState) => string
  draw: (surface: Surface, state: OverlayState, frame: Frame) => void
}

/** The layers from the lowest up, for drawing them apart; together they are what `drawOverlay` draws. */
export function overlayLayers(frame: Frame): Layer[] {
  const even = (value: number): number => 2 * Math.ceil(value / 2)
  const unit = unitOf(frame)
  const foot = (width: number, height: number): Pick<Layer, 'x' | 'y' | 'width' | 'height'> => ({
    x: 0,
    y: frame.height - Math.min(frame.height, even(height)),
    width: Math.min(frame.width, even(width)),
    height: Math.min(frame.height, even(height)),
  })
  return [
    {
      ...foot(frame.width, PLATE_HEIGHT * unit),
      keyOf: ({ count: _count, staff: _staff, ...plate }) => JSON.stringify(plate),
      draw: inUnits((surface, state, width) => drawPlate(surface, state, width)),
    },
    {
      ...foot(BLOCK_WIDTH * unit, BLOCK_HEIGHT * unit),
      keyOf: ({ ground, count, staff }) => JSON.stringify([ground, count, staff]),
      draw: inUnits(drawBlock),
    },
  ]
}

// All lengths in hundredths of the picture's shorter side, so that an upright phone gets the same sizes.
const BLOCK_HEIGHT = 22
const BLOCK_WIDTH = 25
const STAFF_WIDTH = 3.2
const PLATE_HEIGHT = 15.5
const MARGIN = 2.4

const unitOf = ({ width, height }: Frame): number => Math.min(width, height) / 100

const GROUNDS: Record<OverlayState['ground'], { block: string; digits: string }> = {
  work: { block: OVERLAY.land, digits: OVERLAY.ink },
  rest: { block: OVERLAY.water, digits: OVERLAY.pale },
  ready: { block: OVERLAY.pale, digits: OVERLAY.ink },
}

/** Draws one state into a frame whose origin is the picture's top left corner. Clears nothing. */
export function drawOverlay(surface: Surface, state: OverlayState, frame: Frame): void {
  for (const layer of overlayLayers(frame)) layer.draw(surface, state, frame)
}

/** Moves the origin to the foot of the frame and the unit to a hundredth of its shorter side. */
function inUnits(draw: (surface: Surface, state: OverlayState, width: number) => void): Layer['draw'] {
  return (surface, state, frame) => {
    const unit = unitOf(frame)
    surface.save()
    surface.translate(0, frame.height)
    surface.scale(unit, unit)
    draw(surface, state, frame.width / unit)
    surface.restore()
  }
}

function drawPlate(surface: Surface, state: OverlayState, width: number): void {
  surface.fillStyle = OVERLAY.ink
  surface.fillRect(0, -PLATE_HEIGHT, width, PLATE_HEIGHT)
  const left = BLOCK_WIDTH + MARGIN
  const room = width - left - MARGIN
  surface.textBaseline = 'alphabetic'
  surface.textAlign = 'left'
  const pennant = state.side ? 13 : 0
  surface.fillStyle = OVERLAY.pale
  const drawn = fitText(surface, state.label, {
    ...{ x: left, y: -PLATE_HEIGHT + 7.3, room: room - pennant, size: 7.4 },
    font: `400 %px "${FONTS.display}"`,
  })
  if (state.side) drawPennant(surface, state.side, left + drawn + 2.2, -PLATE_HEIGHT + 7.3)
  const half = state.counters && state.next ? room * 0.46 : room
  surface.fillStyle = OVERLAY.muted
  if (state.counters)
    fitText(surface, state.counters, { x: left, y: -2.3, room: half, size: 3.7, font: `500 %px "${FONTS.text}"` })
  if (state.next) {
    surface.fillStyle = state.ground === 'work' ? OVERLAY.muted : OVERLAY.land
    surface.textAlign = 'right'
    fitText(surface, state.next, {
      ...{ x: width - MARGIN, y: -2.3, room: state.counters ? room * 0.52 : half, size: 3.9 },
      font: `700 %px "${FONTS.text}"`,
    })
  }
}

function drawBlock(surface: Surface, state: OverlayState): void {
  const { block, digits } = GROUNDS[state.ground]
  surface.fillStyle = block
  cutBlock(surface)
  surface.fillStyle = digits
  const text = state.count < 600 ? String(state.count) : `${Math.ceil(state.count / 60)}m`
  surface.textAlign = 'center'
  surface.textBaseline = 'alphabetic'
  const size = text.length < 3 ? 19.8 : 12.4
  surface.font = `400 ${size}px "${FONTS.display}"`
  const middle = STAFF_WIDTH + 0.7 + (BLOCK_WIDTH - STAFF_WIDTH) / 2
  surface.fillText(text, middle, -BLOCK_HEIGHT / 2 + size * 0.355)
  if (state.staff !== null) drawStaff(surface, state.staff, digits)
}

/** The tide staff: ten marks that go under one by one, the time left as a share. */
function drawStaff(surface: Surface, steps: number, colour: string): void {
  const pitch = (BLOCK_HEIGHT - 3) / STAFF_STEPS
  surface.fillStyle = colour
  for (let step = 0; step < STAFF_STEPS; step++) {
    const lit = step < steps
    surface.globalAlpha = lit ? 1 : 0.22
    surface.fillRect(
      1.4,
      -1.5 - (step + 1) * pitch + 0.4,
      step % 5 === 4 || lit ? STAFF_WIDTH : STAFF_WIDTH * 0.6,
      pitch - 0.8,
    )
  }
  surface.globalAlpha = 1
}

/** The block of the count, with the corners a gouge leaves. */
function cutBlock(surface: Surface): void {
  const x = 0,
    y = -BLOCK_HEIGHT,
    width = BLOCK_WIDTH,
    height = BLOCK_HEIGHT
  surface.beginPath()
  surface.moveTo(x, y + 0.5)
  surface.lineTo(x + width * 0.4, y)
  surface.lineTo(x + width - 1.6, y + 0.35)
  surface.lineTo(x + width, y + 1.9)
  surface.lineTo(x + width - 0.25, y + height)
  surface.lineTo(x, y + height)
  surface.closePath()
  surface.fill()
}

/** A pennant that flies to the side that works, with the word beside it: never the mark alone. */
function drawPennant(surface: Surface, side: 'left' | 'right', x: number, baseline: number): void {
  surface.save()
  surface.translate(x, baseline - 2.6)
  surface.fillStyle = OVERLAY.land
  surface.font = `700 4.4px "${FONTS.text}"`
  surface.textAlign = 'left'
  const wordAt = side === 'left' ? 4.6 : 0
  const wide = surface.measureText(side).width
  surface.fillText(side, wordAt, 1.55)
  const mast = side === 'left' ? 3.6 : wide + 1.2
  const tip = side === 'left' ? mast - 3.6 : mast + 3.6
  surface.beginPath()
  surface.moveTo(mast, -2.4)
  surface.lineTo(tip, -0.4)
  surface.lineTo(mast, 1.6)
  surface.closePath()
  surface.fill()
  surface.restore()
}

/** How a text is set: from where, in how much room, how large, and in a font with `%` for the size. */
interface Setting {
  x: number
  y: number
  room: number
  size: number
  font: string
}

/** Writes a text, smaller where it must be to at least 60 %, then shortened. @returns its drawn width. */
function fitText(surface: Surface, text: string, { x, y, room, size, font }: Setting): number {
  const set = (px: number): number => {
    surface.font = font.replace('%', px.toFixed(2))
    return surface.measureText(text).width
  }
  const wide = set(size)
  const fitted = wide > room ? Math.max(size * 0.6, (size * room) / wide) : size
  let shown = text
  if (set(fitted) > room) {
    let keep = Math.floor((text.length * room) / surface.measureText(text).width)
    while (keep > 1 && surface.measureText(`${clipped(text, keep).trimEnd()}...`).width > room) keep--
    shown = `${clipped(text, keep).trimEnd()}...`
  }
  surface.fillText(shown, x, y)
  return surface.measureText(shown).width
}
