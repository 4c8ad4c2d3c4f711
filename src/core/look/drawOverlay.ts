// Draws the overlay by a look. The same code draws the preview in the browser and the pictures that are rendered into
// the video.
import type { OverlayState } from './overlay'
import { card } from './looks/card'
import { FAMILY, type LookWish, USUAL_LOOK } from './looks/family'
import type { Box, Part, Pen } from './looks/part'
import { TONES } from './looks/tones'
import type { Surface } from './surface'

export interface Frame {
  width: number
  height: number
}

/** A part of the overlay that changes on its own: a plate once an interval, a count once a second. */
export interface Layer {
  /** Where it stands in the frame, in whole even pixels. */
  x: number
  y: number
  width: number
  height: number
  /** Equal keys are the same picture. */
  keyOf: (state: OverlayState) => string
  /** Whether there is anything of it in a state. */
  shows: (state: OverlayState) => boolean
  draw: (surface: Surface, state: OverlayState, frame: Frame) => void
}

/** Draws one state into a frame whose origin is the picture's top left corner. Clears nothing. */
export function drawOverlay(surface: Surface, state: OverlayState, frame: Frame, wish: LookWish = USUAL_LOOK): void {
  for (const part of partsOf(wish)) drawPart(surface, part, state, { frame, wish })
}

/**
 * The layers from the lowest up, for drawing them apart; together they are what `drawOverlay` draws.
 * @param states all that will be drawn: no layer is larger than it has to be.
 */
export function overlayLayers(
  frame: Frame,
  states: readonly OverlayState[],
  ruler: Surface,
  wish: LookWish = USUAL_LOOK,
): Layer[] {
  const pen = penFor(ruler, frame, wish)
  const unit = unitOf(frame, wish)
  return partsOf(wish).flatMap((part): Layer[] => {
    const keyOf = (state: OverlayState): string => part.keyOf(shownOf(state, wish))
    const boxes = [...new Map(states.map((state) => [keyOf(state), state])).values()].flatMap(
      (state) => part.boxOf(pen, shownOf(state, wish)) ?? [],
    )
    if (!boxes.length) return []
    const draw: Layer['draw'] = (surface, state, within) => drawPart(surface, part, state, { frame: within, wish })
    const shows: Layer['shows'] = (state) => part.boxOf(pen, shownOf(state, wish)) !== null
    return [{ ...pixelsOf(boxes, unit, { frame, wish }), keyOf, shows, draw }]
  })
}

/** The parts of a look, each empty while a card stands, and the card. */
const partsOf = ({ look }: LookWish): Part[] => [...FAMILY[look].parts.map(exceptUnderCard), card]

const exceptUnderCard = ({ keyOf, boxOf, draw }: Part): Part => ({
  keyOf: (state) => (state.card ? 'card' : keyOf(state)),
  boxOf: (pen, state) => (state.card ? null : boxOf(pen, state)),
  draw: (pen, state) => {
    if (!state.card) draw(pen, state)
  },
})

/** The smallest rectangle of even pixels that holds all boxes, within the frame. */
function pixelsOf(
  boxes: readonly Box[],
  unit: number,
  { frame, wish }: { frame: Frame; wish: LookWish },
): Pick<Layer, 'x' | 'y' | 'width' | 'height'> {
  const edge = edgeOf(frame, wish)
  const down = (value: number, from: number): number => Math.max(0, 2 * Math.floor((from + value * unit) / 2))
  const up = (value: number, from: number, most: number): number =>
    Math.min(most, 2 * Math.ceil((from + value * unit) / 2))
  const x = down(Math.min(...boxes.map((box) => box.x)), edge.x),
    y = down(Math.min(...boxes.map((box) => box.y)), edge.y)
  const right = up(Math.max(...boxes.map((box) => box.x + box.width)), edge.x, frame.width),
    foot = up(Math.max(...boxes.map((box) => box.y + box.height)), edge.y, frame.height)
  return { x, y, width: right - x, height: foot - y }
}

function drawPart(
  surface: Surface,
  part: Part,
  state: OverlayState,
  { frame, wish }: { frame: Frame; wish: LookWish },
): void {
  const unit = unitOf(frame, wish)
  const edge = edgeOf(frame, wish)
  surface.save()
  surface.translate(edge.x, edge.y)
  surface.scale(unit, unit)
  part.draw(penFor(surface, frame, wish), shownOf(state, wish))
  surface.restore()
}

/** What is kept free at the left and at the top, in pixels; as much at the right and at the foot. */
const edgeOf = ({ width, height }: Frame, { edgeFree }: LookWish): { x: number; y: number } => ({
  x: Math.round((width * edgeFree) / 100),
  y: Math.round((height * edgeFree) / 100),
})

/** A hundredth of the picture's shorter side, so that an upright phone gets the same sizes. */
const unitOf = ({ width, height }: Frame, { size }: LookWish): number => (Math.min(width, height) / 100) * size

function penFor(surface: Surface, frame: Frame, wish: LookWish): Pen {
  const unit = unitOf(frame, wish)
  const edge = edgeOf(frame, wish)
  const height = (frame.height - 2 * edge.y) / unit
  // What is kept free at the foot is for a host's own controls.
  return {
    surface,
    width: (frame.width - 2 * edge.x) / unit,
    height: height * (1 - wish.footFree / 100),
    tone: TONES[wish.tone],
    snap: (place) => Math.round(place * unit) / unit,
  }
}

/** What is wished to be shown of a state. */
function shownOf(state: OverlayState, { shows }: LookWish): OverlayState {
  return {
    ...state,
    ...(shows.counters ? {} : { counters: [], marks: null }),
    ...(shows.next ? {} : { next: '', nextMs: null }),
    ...(shows.lines ? {} : { lines: [] }),
    ...(shows.titles ? {} : { begins: false }),
    ...(shows.whole ? {} : { passed: null }),
  }
}
