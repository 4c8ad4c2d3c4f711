// What is believed of a length of time, and what weights on a grid become after it: the inner loop of all matching.
import type { Ms, Share } from '../units'

/**
 * One part of what is believed of a length; the weights of all parts sum to 1. A length has one `near` at most, one
 * `any`, and of the others three that begin at one place. `near` is a bell of standard deviation
 * `scaleMs` round `atMs`, `about` falls off on both sides of it (Laplace), `over` only above it (exponential), and
 * `any` is every length from `atMs` on alike.
 */
export interface LengthPart {
  weight: Share
  shape: 'near' | 'about' | 'over' | 'any'
  atMs: Ms
  scaleMs: Ms
}
export type Length = readonly LengthPart[]

/** No length is shorter: one tone is not heard for two changes. Of shorter plans, half of what is planned. */
export const SHORTEST_MS: Ms = 1000

/** Beyond this many standard deviations a bell is nothing. */
const REACH = 3
/** Less than this is nothing: sums that fade further take a processor many times as long. */
const NOTHING = 1e-200

/** A length times a weight, laid on a grid: as factors of recursions and as taps. */
export interface Carrier {
  /** Of the bell; the first lies so many cells on. */
  taps: Float64Array
  tapsAt: number
  /** Of exponentials, which begin so many cells on: what is left after a cell, and by how much they count. */
  fadesAt: number
  keep: readonly [number, number, number]
  onward: readonly [number, number, number]
  /** Of those of them that fall off to both sides. */
  backward: readonly [number, number, number]
  /** No length has fewer cells. */
  least: number
  /** Of what may be any length from so many cells on. */
  anyAt: number
  any: number
}

/** @throws where a length has more parts than `LengthPart` says. */
export function carrierOf(length: Length, weight: number, { cells, stepMs }: { cells: number; stepMs: Ms }): Carrier {
  const [near, ...nearer] = length.filter(({ shape }) => shape === 'near')
  const [any, ...more] = length.filter(({ shape }) => shape === 'any')
  const fading = length.filter(({ shape }) => shape === 'about' || shape === 'over')
  const apart = fading.some(({ atMs }) => atMs !== fading[0]?.atMs)
  if (nearer.length || more.length || fading.length > 3 || apart) throw new Error('a length of too many parts')
  const cellsIn = (ms: Ms): number => Math.round(ms / stepMs)
  const of = <Value>(valueOf: (part: LengthPart | undefined) => Value): readonly [Value, Value, Value] => [
    valueOf(fading[0]),
    valueOf(fading[1]),
    valueOf(fading[2]),
  ]
  const keepOf = (part: LengthPart | undefined): number =>
    part ? Math.exp(-1 / Math.max(0.5, part.scaleMs / stepMs)) : 0
  // What would be shorter than the least is spread over all that is not.
  const bothWays = (part: LengthPart): number =>
    (part.weight * weight * (1 - keepOf(part))) / (1 + keepOf(part) - keepOf(part) ** (fadesAt - least + 1))
  const plannedMs = Math.max(0, near?.atMs ?? fading[0]?.atMs ?? 0)
  const least = Math.max(1, cellsIn(Math.min(SHORTEST_MS, plannedMs / 2)))
  const fadesAt = Math.max(least, cellsIn(fading[0]?.atMs ?? 0))
  const { taps, tapsAt } = near
    ? bell(near.scaleMs / stepMs, near.weight * weight, { at: cellsIn(near.atMs), least })
    : { taps: NO_TAPS, tapsAt: 0 }
  return {
    ...{ taps, tapsAt, fadesAt, least },
    keep: of(keepOf),
    onward: of((part) => {
      if (!part) return 0
      return part.shape === 'about' ? bothWays(part) : part.weight * weight * (1 - keepOf(part))
    }),
    backward: of((part) => (part?.shape === 'about' ? bothWays(part) : 0)),
    anyAt: Math.max(least, cellsIn(any?.atMs ?? 0)),
    any: ((any?.weight ?? 0) * weight) / cells,
  }
}

const NO_TAPS = new Float64Array(0)

/** @param scale standard deviation in cells. @param at its middle, and the fewest cells that a length has. */
function bell(
  scale: number,
  share: number,
  { at, least }: { at: number; least: number },
): { taps: Float64Array; tapsAt: number } {
  const sigma = Math.max(0.5, scale)
  const reach = Math.ceil(REACH * sigma)
  const tapsAt = Math.max(least, at - reach)
  const taps = Float64Array.from({ length: Math.max(1, at + reach - tapsAt + 1) }, (_, index) =>
    Math.exp(-(((tapsAt + index - at) / sigma) ** 2) / 2),
  )
  const total = taps.reduce((sum, tap) => sum + tap, 0)
  return { taps: taps.map((tap) => (tap * share) / total), tapsAt }
}

/** Weights that anything may come of, from a cell later by `lag` on. */
export interface Pool {
  weights: Float64Array
  lag: number
  factor: number
}

/** Adds to `into` what `from` becomes after a length, and what a pool does. All three are of one size. */
export function carry(from: Float64Array, into: Float64Array, carrier: Carrier, pool: Pool | null = null): void {
  const { taps, tapsAt, anyAt, any, onward, backward } = carrier
  for (let tap = 0; tap < taps.length; tap += AT_ONCE)
    addTaps(from, into, tapsAt + tap, taps.subarray(tap, tap + AT_ONCE))
  if (onward.some(Boolean)) addOnward(from, into, carrier)
  if (backward.some(Boolean)) addBackward(from, into, carrier)
  if (any) addSums(from, into, anyAt, any)
  if (pool) addSums(pool.weights, into, pool.lag, pool.factor)
}

/** Taps that are added in one sweep: a loop within the loop costs more than twice as much. */
const AT_ONCE = 5

function addTaps(
  from: Float64Array,
  into: Float64Array,
  at: number,
  [a = 0, b = 0, c = 0, d = 0, e = 0]: Float64Array,
): void {
  const size = into.length
  const first = Math.max(0, at + AT_ONCE - 1)
  for (let cell = Math.max(0, at); cell < Math.min(first, size); cell++)
    [a, b, c, d, e].forEach((tap, index) => {
      into[cell] = (into[cell] ?? 0) + tap * (from[cell - at - index] ?? 0)
    })
  for (let cell = first; cell < size; cell++) {
    const place = cell - at
    into[cell] =
      (into[cell] ?? 0) +
      a * (from[place] ?? 0) +
      b * (from[place - 1] ?? 0) +
      c * (from[place - 2] ?? 0) +
      d * (from[place - 3] ?? 0) +
      e * (from[place - 4] ?? 0)
  }
}

/** Three recursions in one sweep: none of them has to wait for another. */
function addOnward(
  from: Float64Array,
  into: Float64Array,
  { fadesAt, keep: [keepA, keepB, keepC], onward: [a, b, c] }: Carrier,
): void {
  const size = into.length
  let fadeA = 0,
    fadeB = 0,
    fadeC = 0
  for (let cell = fadesAt; cell < size; cell++) {
    const come = from[cell - fadesAt] ?? 0
    fadeA = keepA * fadeA + come
    fadeB = keepB * fadeB + come
    fadeC = keepC * fadeC + come
    if (fadeA < NOTHING) fadeA = 0
    if (fadeB < NOTHING) fadeB = 0
    if (fadeC < NOTHING) fadeC = 0
    into[cell] = (into[cell] ?? 0) + a * fadeA + b * fadeB + c * fadeC
  }
}

/**
 * What falls off below the middle of a length, down to the least there is: of each cell, the cells before it at `least`
 * to `fadesAt - 1`, weighted by how far they are from the middle. Summed in blocks as long as that window, from both
 * sides of a block's border (van Herk): weights differ by hundreds of orders, so that nothing may be taken off again.
 */
function addBackward(from: Float64Array, into: Float64Array, { fadesAt, least, keep, backward }: Carrier): void {
  const width = fadesAt - least
  if (width <= 0) return
  keep.forEach((kept, index) => {
    const factor = backward[index] ?? 0
    if (factor) addWindows(from, into, { powers: powersOf(kept, width), factor, width, fadesAt })
  })
}

/** `kept` to the power of 0 to `width`. */
function powersOf(kept: number, width: number): Float64Array {
  const powers = new Float64Array(width + 1)
  let power = 1
  for (let at = 0; at <= width; at++) {
    powers[at] = power
    power = power * kept < NOTHING ? 0 : power * kept
  }
  return powers
}

interface Windows {
  powers: Float64Array
  factor: number
  width: number
  fadesAt: number
}

function addWindows(from: Float64Array, into: Float64Array, { powers, factor, width, fadesAt }: Windows): void {
  const size = into.length
  const kept = powers[1] ?? 0
  const head = new Float64Array(width + 1)
  for (let border = 0; border - width < size; border += width) {
    // Of windows that reach over this border: what lies before it, by how far before it they begin.
    for (let back = 1; back <= width; back++) {
      const come = border >= back && border - back < size ? (from[border - back] ?? 0) : 0
      const sum = kept * ((head[back - 1] ?? 0) + come)
      head[back] = sum < NOTHING ? 0 : sum
    }
    let behind = 0
    const first = border - width - 1 + fadesAt
    const until = Math.min(width, size - first)
    for (let ahead = 0; ahead < until; ahead++) {
      const cell = first + ahead
      const before = head[width - ahead] ?? 0
      if (cell >= 0) into[cell] = (into[cell] ?? 0) + factor * (before + behind * (powers[width - ahead] ?? 0))
      const at = border + ahead
      if (at < size) behind += (powers[ahead + 1] ?? 0) * (from[at] ?? 0)
    }
  }
}

function addSums(from: Float64Array, into: Float64Array, at: number, factor: number): void {
  const size = into.length
  let sum = 0
  for (let cell = at; cell < size; cell++) {
    sum += from[cell - at] ?? 0
    into[cell] = (into[cell] ?? 0) + factor * sum
  }
}
