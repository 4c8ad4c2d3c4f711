// What a look is made of. All lengths in units: hundredths of the picture's shorter side at the usual size, from the
// picture's top left corner.
import type { OverlayState } from '../overlay'
import type { Surface } from '../surface'
import type { Tone } from './tones'

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

export interface Pen {
  surface: Surface
  /** Of the picture; what is kept free at its foot is not counted. */
  width: number
  height: number
  tone: Tone
  /** The nearest border of two pixels: areas that meet there leave no hair of the footage between them. */
  snap: (place: number) => number
}

/** What changes together. */
export interface Part {
  /** Equal keys are the same picture. */
  keyOf: (state: OverlayState) => string
  /** Where it may draw in a state; null where it draws nothing. */
  boxOf: (pen: Pen, state: OverlayState) => Box | null
  draw: (pen: Pen, state: OverlayState) => void
}

/** The smallest that a look sets its texts in, in units; the count's is how large it always is. */
export interface Sizes {
  count: number
  label: number
  next: number
  lines: number
}

export interface Look {
  /** From the lowest up. */
  parts: readonly Part[]
  sizes: Sizes
}
