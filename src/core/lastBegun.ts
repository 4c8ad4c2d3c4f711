// Finds what runs at an instant, in a row of things that each begin at one.
import type { Ms } from './units'

/**
 * By binary search.
 * @param all in order of their beginnings.
 * @returns index of the last that has begun by then; -1 before the first.
 */
export function lastBegun<T>(all: readonly T[], beginOf: (one: T) => Ms, atMs: Ms): number {
  let low = 0,
    high = all.length
  while (low < high) {
    const middle = (low + high) >> 1
    const one = all[middle]
    if (one !== undefined && beginOf(one) <= atMs) low = middle + 1
    else high = middle
  }
  return low - 1
}

/** Place of the first of rising values that is not below `from`. */
export function firstFrom(values: readonly Ms[], from: Ms): number {
  let [low, high] = [0, values.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((values[middle] ?? Infinity) < from) low = middle + 1
    else high = middle
  }
  return low
}
