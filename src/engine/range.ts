// The range of a picture's light: the usual one (8 bit), or a high one (PQ or HLG of ITU-R BT.2100, 10 bit). What is
// filmed is mapped to the usual range, or kept; what is drawn is put where its colours belong in either.
import type { Size } from '../core/cut/framing'
import type { Share } from '../core/units'
import { usualMatrix, type FootageFacts } from './probe'

/** A high range. */
export type Hdr = NonNullable<FootageFacts['hdr']>
type Matrix = Exclude<NonNullable<FootageFacts['matrix']>, 'rgb'>
/** Of a video: a high range, or the matrix by which the colours of the usual one are written. */
export type Range = Hdr | Matrix

const TRANSFER: Readonly<Record<Hdr, string>> = { pq: 'smpte2084', hlg: 'arib-std-b67' }
/** Matrices as ffmpeg names them in a picture's properties; its scaler has our names. */
const SPACE: Readonly<Record<Matrix, string>> = { bt601: 'smpte170m', bt709: 'bt709', bt2020: 'bt2020nc' }

const isHigh = (range: Range): range is Hdr => range in TRANSFER

type Colours = Pick<FootageFacts, 'hdr' | 'matrix' | 'fullRange'> & Size

/** @returns the usual range of a video that is as its film is, as far as that can be. */
export function usualRange(film: Colours): Matrix {
  if (film.hdr) return 'bt709'
  return film.matrix === undefined || film.matrix === 'rgb' ? usualMatrix(film) : film.matrix
}

/** White of the usual range, and of text, in cd/m2 (ITU-R BT.2408). */
const WHITE = 203

/** Linear light, with the reference white as 1. */
const LINEAR = [`zscale=t=linear:npl=${WHITE}`, 'format=gbrpf32le']

/**
 * Maps high dynamic range to BT.709. In linear light, with the reference white as 1, what is below 0.6 stays as it is,
 * and what is brighter is rolled off up to 1000 cd/m2.
 */
const MAPPED_TO_SDR = [
  ...LINEAR,
  'zscale=p=bt709',
  ...['tonemap=tonemap=mobius:param=0.6:desat=0:peak=5', 'zscale=t=bt709:m=bt709:r=tv', 'format=yuv420p'],
].join(',')

/** From linear light of BT.709, with the reference white as 1, into a high range. */
const raised = (hdr: Hdr, format: string): string =>
  `zscale=p=bt2020:t=${TRANSFER[hdr]}:npl=${WHITE}:m=bt2020nc:r=tv,format=${format}`

/** @returns filters that bring a film's pictures into a video's range. */
export function intoRange(film: Colours, range: Range): string[] {
  const read = film.matrix && film.matrix !== 'rgb' ? [`setparams=colorspace=${SPACE[film.matrix]}`] : []
  if (!isHigh(range)) return [...read, ...(film.hdr ? [MAPPED_TO_SDR] : []), ...written(film, range)]
  if (film.hdr === range) return read
  if (film.hdr) return [...read, ...LINEAR, raised(range, FORMAT.high)]
  return [
    ...[...read, 'scale=out_color_matrix=bt709:out_range=tv'],
    'setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709',
    ...[...LINEAR, raised(range, FORMAT.high)],
  ]
}

/** Filters that write a film of the usual range by a matrix; none where it is written so, or nobody looked. */
function written(film: Colours, matrix: Matrix): string[] {
  const isSo = usualRange(film) === matrix && film.matrix !== 'rgb' && (film.hdr || !film.fullRange)
  return isSo ? [] : writtenBy(matrix, FORMAT.usual)
}

/** Filters that write what is of the usual range by a matrix, and have it say so. */
const writtenBy = (matrix: Matrix, format: string): string[] => [
  ...[`scale=out_color_matrix=${matrix}:out_range=tv`, `format=${format}`],
  `setparams=range=tv:colorspace=${SPACE[matrix]}`,
]

/**
 * @param alpha whether something is seen through it.
 * @returns filters that bring what is drawn into a video's range.
 */
export function drawnIntoRange(range: Range, { alpha }: { alpha: boolean }): string[] {
  const drawn = `format=${alpha ? 'gbrap' : 'gbrp'}`
  if (!isHigh(range)) return alpha ? writtenBy(range, 'yuva420p') : [drawn, ...writtenBy(range, FORMAT.usual)]
  return [
    drawn,
    `zscale=tin=iec61966-2-1:pin=bt709:min=gbr:rin=pc:m=gbr:r=pc:p=bt709:t=linear:npl=${WHITE}`,
    `format=${alpha ? 'gbrapf32le' : 'gbrpf32le'}`,
    raised(range, alpha ? 'yuva420p10le' : FORMAT.high),
  ]
}

/** Filters that bring what was drawn in a high range back to how it was drawn; its luma then is of BT.601. */
export const asDrawn = (range: Range): string[] =>
  isHigh(range) ? [...LINEAR, 'zscale=p=bt709:t=iec61966-2-1:m=170m:r=tv', 'format=yuv420p'] : []

/** Shares of red, green and blue in the luma of what is drawn, as `asDrawn` leaves it. */
export const lumaShares = (range: Range): readonly [red: Share, green: Share, blue: Share] =>
  LUMA[isHigh(range) ? 'bt601' : range]

/** ITU-R BT.601, BT.709, BT.2020. */
const LUMA: Readonly<Record<Matrix, readonly [red: Share, green: Share, blue: Share]>> = {
  bt601: [0.299, 0.587, 0.114],
  bt709: [0.2126, 0.7152, 0.0722],
  bt2020: [0.2627, 0.678, 0.0593],
}

const FORMAT = { usual: 'yuv420p', high: 'yuv420p10le' }
export const pixelsOf = (range: Range): string => (isHigh(range) ? FORMAT.high : FORMAT.usual)
/** As ffmpeg's filter for laying one over another calls it. */
export const laidAs = (range: Range): string => (isHigh(range) ? 'yuv420p10' : 'yuv420')

/** What an encoder writes of a high range beside the picture; of the usual one it writes what its pictures say. */
export const taggedAs = (range: Range): string[] =>
  isHigh(range)
    ? [
        ...['-color_primaries', 'bt2020', '-color_trc', TRANSFER[range], '-colorspace', 'bt2020nc'],
        ...['-color_range', 'tv'],
      ]
    : []
