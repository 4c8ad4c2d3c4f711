// The overlay's layers laid over the picture: input 0 is the picture, the layers' strips follow from input 1 on.
import type { Layer } from '../core/look/drawOverlay'

/** Arguments that open the lists of pictures, for ffmpeg. */
export const listInputs = (lists: readonly string[]): string[] =>
  lists.flatMap((list) => ['-f', 'concat', '-safe', '0', '-i', list])

/** Filters from `under0` to `picture`. */
export function overlaid(layers: readonly Layer[]): string[] {
  // Where nothing is ever shown, as where there is only talk, the picture is as it is.
  if (!layers.length) return ['[under0]null[picture]']
  return layers.map(({ x, y }, number) => {
    const over = number === layers.length - 1 ? 'picture' : `under${number + 1}`
    return `[${number + 1}:v:0]format=yuva420p[layer${number}];[under${number}][layer${number}]overlay=x=${x}:y=${y}:eof_action=repeat:format=yuv420[${over}]`
  })
}
