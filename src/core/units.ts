// Names for the numbers that pass through the core, so that a signature says what it measures.

/**
 * Milliseconds; integers everywhere except inside signal processing. Lengths and instants of plan and footage are 0 to
 * `DAY`, differences -`DAY` to `DAY`.
 */
export type Ms = number
/** A position or count of sound samples at a stated rate: whole, 0 or more. */
export type Samples = number
/** Above 0. */
export type Hertz = number
/** Parts per million, the unit of clock drift; -1000 to 1000, beyond which it is no drift. */
export type Ppm = number
/** A part of a whole: 0 to 1. How far work is, how loud, how sure. */
export type Share = number

/** A frame rate as a fraction of whole numbers above 0, e.g. 30000/1001. */
export interface Rate {
  num: number
  den: number
}

/** How long a picture stands; a fraction of milliseconds. */
export const frameMsOf = ({ num, den }: Rate): Ms => (1000 * den) / num

export const SECOND: Ms = 1000
export const MINUTE: Ms = 60 * SECOND
export const HOUR: Ms = 60 * MINUTE
export const DAY: Ms = 24 * HOUR
