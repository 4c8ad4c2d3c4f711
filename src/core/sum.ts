export const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0)

/** The middle one of the values in order; the upper of two, 0 of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((one, other) => one - other)
  return sorted[Math.floor(sorted.length / 2)] ?? 0
}
