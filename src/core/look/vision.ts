// How colours look to people who see fewer of them: Machado, Oliveira and Fernandes (2009), at full severity, on light
// as it adds up (linear RGB).

/** Who lacks the long, the middle, the short cones; about 1, 1 and 0.01 in a hundred men. */
export const VISIONS = ['protan', 'deutan', 'tritan'] as const
export type Vision = (typeof VISIONS)[number]

type Row = readonly [red: number, green: number, blue: number]
export const SEEN_BY: Record<Vision, readonly [Row, Row, Row]> = {
  protan: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deutan: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritan: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
}

const toLight = (value: number): number => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4)

/** Linear red, green and blue, 0 to 1, of `#rrggbb`; as somebody sees it. */
export function lightOf(hex: string, vision: Vision | null = null): Row {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => toLight(parseInt(hex.slice(at, at + 2), 16) / 255))
  if (!vision) return [red, green, blue]
  const seen = SEEN_BY[vision].map((row) => Math.min(1, Math.max(0, row[0] * red + row[1] * green + row[2] * blue)))
  return [seen[0] ?? 0, seen[1] ?? 0, seen[2] ?? 0]
}

/** Contrast as WCAG 2 defines it, 1 to 21. */
export function contrastOf(one: string, other: string, vision: Vision | null = null): number {
  const [high = 0, low = 0] = [one, other]
    .map((hex) => lightOf(hex, vision))
    .map(([red, green, blue]) => 0.2126 * red + 0.7152 * green + 0.0722 * blue)
    .sort((left, right) => right - left)
  return (high + 0.05) / (low + 0.05)
}
