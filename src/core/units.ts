// Names for the numbers that pass through the core, so that a signature says what it measures.

/** Milliseconds; integers everywhere except inside signal processing. */
export type Ms = number
/** A position or count of sound samples at a stated rate. */
export type Samples = number
export type Hertz = number
/** Parts per million, the unit of clock drift. */
export type Ppm = number

/** A frame rate as a fraction, e.g. 30000/1001. */
export interface Rate {
  num: number
  den: number
}

export const SECOND: Ms = 1000
export const DAY: Ms = 24 * 3600 * SECOND
