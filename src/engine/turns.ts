// Changes of the count in a decoded video: each is drawn as its pictures come near, looked for around its own picture,
// judged, and forgotten, so that a long session takes no more memory than a short one.
import { createCanvas } from '@napi-rs/canvas'
import { lastBegun } from '../core/lastBegun'
import { drawOverlay, type Frame, type Layer } from '../core/look/drawOverlay'
import type { LookWish } from '../core/look/looks/family'
import type { OverlayChange, OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import { LETS, nearerTo, unlikeness, type Fault } from '../core/proof/verify'
import type { Ms } from '../core/units'
import type { Frames } from './expected'
import { registerFonts } from './fonts'
import { lumaShares, type Range } from './range'

/** Pictures that are looked at on either side of a change. */
export const AROUND_FRAMES = 5
/** Times of pictures are told to a microsecond, and reckoned from a rate that is none. */
export const ROUNDED_MS: Ms = 0.05
/** So far from what was drawn, in grey levels, it is something else. An encoder is off by a few. */
const OTHER_PICTURE = 26
/** One pixel in so many is compared. */
const EVERY_PIXEL = 3
/** Where so few pixels differ a change cannot be told. */
const LEAST_PLACES = 12
const CLEARLY_UNLIKE = 30

/** A change of the count. */
export interface Turn {
  /** Number of the first picture that shows it. */
  frame: number
  atMs: Ms
  before: OverlayState | null
  after: OverlayState
}

export interface Judged {
  frame: number
  /** By so many pictures it is late; early below 0. */
  off: number
  fault: Fault | null
}

/** @param times when each picture is shown. @param frames in which changes are looked for. @returns in order. */
export function turnsIn(changes: readonly OverlayChange[], times: readonly Ms[], frames: readonly Frames[]): Turn[] {
  return changes.flatMap(({ fromMs, state }, at): Turn[] => {
    const before = changes[at - 1]?.state ?? null
    if (!state?.count || (before?.count === state.count && before.segmentId === state.segmentId)) return []
    const frame = lastBegun(times, (ms) => ms, fromMs - ROUNDED_MS) + 1
    return frames.some(({ from, to }) => frame >= from && frame < to)
      ? [{ frame, atMs: fromMs, before, after: state }]
      : []
  })
}

interface Drawing {
  layer: Layer
  frame: Frame
  look: LookWish
  /** The video's. */
  range: Range
}

/** What is to be seen in the layer's box before and after a change, as luma. */
interface Looked {
  turn: Turn
  before: Uint8Array | null
  after: Uint8Array
  /** Where both cover the film, and differ. */
  places: readonly number[]
  /** Where the later one covers the film. */
  covered: readonly number[]
  /** Between the changes before it and after it, which are near where there are few pictures a second. */
  frames: Frames
  /** Frame by frame around it: above 0 it is nearer to the later one. */
  seen: { frame: number; side: number; unlike: number }[]
}

/** Sees the layer's box of pictures in their order. */
export class TurnWatcher {
  private readonly judged: Judged[] = []
  private next = 0
  private open: Looked[] = []
  private readonly drawn = new Map<OverlayState, Drawn>()

  /** @param turns in order; those before the first picture that is seen are passed over. */
  constructor(
    private readonly turns: readonly Turn[],
    private readonly drawing: Drawing,
  ) {
    registerFonts()
  }

  /** @param luma of the layer's box, as video has it. */
  see(luma: Uint8Array, frame: number): void {
    for (let turn = this.turns[this.next]; turn && turn.frame <= frame + AROUND_FRAMES; turn = this.turns[this.next]) {
      const [from = 0, to = Infinity] = [this.turns[this.next - 1]?.frame, this.turns[++this.next]?.frame]
      if (turn.frame >= frame - AROUND_FRAMES) this.open.push(...this.looked(turn, { from, to }))
    }
    if (!this.open.length) return
    const full = fullRange(luma)
    for (const { before, after, places, covered, frames, seen } of this.open) {
      if (frame < frames.from || frame >= frames.to) continue
      const unlike = unlikeness(full, after, covered)
      seen.push({ frame, side: before ? nearerTo(full, before, after, places) : OTHER_PICTURE - unlike, unlike })
    }
    const isOver = ({ turn }: Looked): boolean => turn.frame + AROUND_FRAMES <= frame
    this.judged.push(...this.open.filter(isOver).map(judge))
    this.open = this.open.filter((one) => !isOver(one))
  }

  /** @returns in order. */
  finish(): Judged[] {
    this.judged.push(...this.open.map(judge))
    this.open = []
    return this.judged
  }

  /** Nothing where before and after can hardly be told apart. */
  private looked(turn: Turn, frames: Frames): Looked[] {
    const after = this.pictureOf(turn.after)
    const before = turn.before ? this.pictureOf(turn.before) : null
    // Of two changes in a row the later picture of one is the earlier of the other.
    for (const state of this.drawn.keys()) if (state !== turn.after) this.drawn.delete(state)
    const { covered } = after
    const places = before
      ? covered.filter(
          (place) =>
            before.isCovered(place) && Math.abs((before.luma[place] ?? 0) - (after.luma[place] ?? 0)) > CLEARLY_UNLIKE,
        )
      : []
    if (before && places.length < LEAST_PLACES) return []
    return [{ turn, before: before?.luma ?? null, after: after.luma, places, covered, frames, seen: [] }]
  }

  private pictureOf(state: OverlayState): Drawn {
    const known = this.drawn.get(state) ?? lumaOf(state, this.drawing)
    this.drawn.set(state, known)
    return known
  }
}

function judge({ turn, seen }: Looked): Judged {
  const last = seen.findLast(({ side }) => side <= 0)
  const first = seen.find(({ frame, side }) => side > 0 && frame > (last?.frame ?? -1))
  const off = first ? first.frame - turn.frame : AROUND_FRAMES + 1
  const at = { atMs: Math.round(turn.atMs), what: String(turn.after.count), expected: 0 }
  const { frame } = turn
  if (Math.abs(off) > LETS.frames) return { frame, off, fault: { kind: 'count', ...at, found: off } }
  const unlike = first?.unlike ?? 0
  return { frame, off, fault: unlike > OTHER_PICTURE ? { kind: 'picture', ...at, found: Math.round(unlike) } : null }
}

interface Drawn {
  luma: Uint8Array
  covered: readonly number[]
  isCovered: (place: number) => boolean
}

/** What is seen in the layer's box, with all that lies over one another there; luma as the render has it. */
function lumaOf(state: OverlayState, { layer, frame, look, range }: Drawing): Drawn {
  const canvas = createCanvas(layer.width, layer.height)
  const surface = canvas.getContext('2d')
  surface.translate(-layer.x, -layer.y)
  drawOverlay(surface as unknown as Surface, state, frame, look)
  const { data } = surface.getImageData(0, 0, layer.width, layer.height)
  const [red, green, blue] = lumaShares(range)
  const luma = new Uint8Array(layer.width * layer.height)
  const covered: number[] = []
  const isCovered = (place: number): boolean => (data[place * 4 + 3] ?? 0) > 250
  for (let place = 0; place < luma.length; place++) {
    const at = place * 4
    luma[place] = Math.round(red * (data[at] ?? 0) + green * (data[at + 1] ?? 0) + blue * (data[at + 2] ?? 0))
    if (place % EVERY_PIXEL === 0 && isCovered(place)) covered.push(place)
  }
  return { luma, covered, isCovered }
}

/** Luma of video lies between 16 and 235. */
function fullRange(luma: Uint8Array): Uint8Array {
  return luma.map((one) => Math.max(0, Math.min(255, Math.round(((one - 16) * 255) / 219))))
}
