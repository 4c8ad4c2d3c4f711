// How large files are, as people say it.

const UNITS = ['byte', 'kilobyte', 'megabyte', 'gigabyte', 'terabyte'] as const

/** @param bytes 1,000 to the kilobyte. */
export function sizeText(bytes: number): string {
  const step = Math.min(UNITS.length - 1, Math.floor(Math.log10(Math.max(1, bytes)) / 3))
  const style = { style: 'unit', unit: UNITS[step] ?? 'byte', maximumFractionDigits: step > 1 ? 1 : 0 } as const
  return new Intl.NumberFormat('en-GB', style).format(bytes / 1000 ** step)
}
