// The longest selection whose values rise.

/**
 * n log n. Of selections as long, the one whose values are smallest, and of equal values the latest.
 * @param equal whether a value may stand beside its like.
 */
export function longestRising<T>(all: readonly T[], valueOf: (one: T) => number, equal: boolean): T[] {
  /** `tails[k]`: index of the smallest last value of a selection of k + 1. */
  const tails: number[] = []
  const before: number[] = []
  const values = all.map(valueOf)
  values.forEach((value, index) => {
    let low = 0,
      high = tails.length
    while (low < high) {
      const middle = (low + high) >> 1
      const tail = values[tails[middle] ?? -1] ?? -Infinity
      if (equal ? tail <= value : tail < value) low = middle + 1
      else high = middle
    }
    before[index] = tails[low - 1] ?? -1
    tails[low] = index
  })
  const chosen: T[] = []
  for (let index = tails.at(-1) ?? -1; index >= 0; index = before[index] ?? -1)
    chosen.push(...all.slice(index, index + 1))
  return chosen.reverse()
}
