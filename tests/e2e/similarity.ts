// How alike two pictures are to the eye: structural similarity (Wang et al., 2004), in windows of 8 x 8, of the luma.
const WINDOW = 8
const C1 = (0.01 * 255) ** 2
const C2 = (0.03 * 255) ** 2

/**
 * The mean over the windows in which at least one of the pictures has something.
 * @param one RGBA, not premultiplied, laid over grey here.
 */
export function similarity(one: Uint8Array, other: Uint8Array, width: number, height: number): number {
  let sum = 0,
    count = 0
  for (let y = 0; y + WINDOW <= height; y += WINDOW)
    for (let x = 0; x + WINDOW <= width; x += WINDOW) {
      const window = [one, other].map((pixels) => lumaIn(pixels, x, y, width))
      if (!window.some(({ isDrawn }) => isDrawn)) continue
      sum += ssim(window[0]!.luma, window[1]!.luma)
      count++
    }
  return count ? sum / count : 1
}

function lumaIn(pixels: Uint8Array, x: number, y: number, width: number): { luma: number[]; isDrawn: boolean } {
  const luma: number[] = []
  let isDrawn = false
  for (let row = y; row < y + WINDOW; row++)
    for (let column = x; column < x + WINDOW; column++) {
      const at = (row * width + column) * 4
      const alpha = pixels[at + 3]! / 255
      isDrawn ||= alpha > 0.1
      luma.push((0.299 * pixels[at]! + 0.587 * pixels[at + 1]! + 0.114 * pixels[at + 2]!) * alpha + 128 * (1 - alpha))
    }
  return { luma, isDrawn }
}

function ssim(one: number[], other: number[]): number {
  const mean = (all: number[]): number => all.reduce((sum, value) => sum + value, 0) / all.length
  const [a, b] = [mean(one), mean(other)]
  const covariance = (left: number[], l: number, right: number[], r: number): number =>
    mean(left.map((value, at) => (value - l) * (right[at]! - r)))
  const [va, vb, both] = [covariance(one, a, one, a), covariance(other, b, other, b), covariance(one, a, other, b)]
  return ((2 * a * b + C1) * (2 * both + C2)) / ((a * a + b * b + C1) * (va + vb + C2))
}
