// The overlay's layers laid over the picture: input 0 is the picture, the layers' strips follow from input 1 on.
import type { Ms } from '../core/units'
import { drawnIntoRange, laidAs, type Range } from './range'
import type { Strip } from './strip'

/** Arguments that open the lists of pictures, for ffmpeg. */
export const listInputs = (strips: readonly Strip[]): string[] =>
  strips.flatMap(({ list }) => ['-f', 'concat', '-safe', '0', '-i', list])

/**
 * The empty picture that comes after what stands is laid, too: ffmpeg asks whether a layer is on for each picture that
 * it takes in, and it takes that one in while the last that is to be seen is still on its way.
 */
const AFTER_MS: Ms = 10

/** Filters from `under0` to `picture`, which are of a video's range. */
export function overlaid(strips: readonly Strip[], range: Range): string[] {
  // Where nothing is ever shown, as where there is only talk, the picture is as it is.
  if (!strips.length) return ['[under0]null[picture]']
  return strips.map(({ x, y, stands }, number) => {
    const over = number === strips.length - 1 ? 'picture' : `under${number + 1}`
    // Laying what cannot be seen over a picture takes as long as laying anything.
    const seen = stands.map(({ fromMs, untilMs }) => `between(t,${fromMs / 1000},${(untilMs + AFTER_MS) / 1000})`)
    const layer = `[${number + 1}:v:0]${drawnIntoRange(range, { alpha: true }).join(',')}[layer${number}]`
    return `${layer};[under${number}][layer${number}]overlay=x=${x}:y=${y}:eof_action=repeat:format=${laidAs(range)}:enable='${seen.join('+')}'[${over}]`
  })
}
