// The range of a picture's light: the usual one (BT.709, 8 bit), or a high one (PQ or HLG of ITU-R BT.2100, 10 bit).
// What is filmed is mapped to the usual range, or kept; what is drawn is put where text belongs in either.
import type { FootageFacts } from './probe'

/** A high range. */
export type Hdr = NonNullable<FootageFacts['hdr']>
/** Of a video: null for the usual one. */
export type Range = Hdr | null

const TRANSFER: Readonly<Record<Hdr, string>> = { pq: 'smpte2084', hlg: 'arib-std-b67' }

/** White of the usual range, and of text, in cd/m2 (ITU-R BT.2408). */
const WHITE = 203

/** Linear light, with the reference white as 1. */
const LINEAR = [`zscale=t=linear:npl=${WHITE}`, 'format=gbrpf32le']

/**
 * Maps high dynamic range to BT.709. In linear light, with the reference white as 1, what is below 0.6 stays as it is,
 * and what is brighter is rolled off up to 1000 cd/m2.
 */
export const MAPPED_TO_SDR = [
  ...LINEAR,
  'zscale=p=bt709',
  ...['tonemap=tonemap=mobius:param=0.6:desat=0:peak=5', 'zscale=t=bt709:m=bt709:r=tv', 'format=yuv420p'],
].join(',')

/** From linear light of BT.709, with the reference white as 1, into a high range. */
const raised = (hdr: Hdr, format: string): string =>
  `zscale=p=bt2020:t=${TRANSFER[hdr]}:npl=${WHITE}:m=bt2020nc:r=tv,format=${format}`

/** @param film as it was filmed. @returns filters that bring its pictures into a video's range. */
export function intoRange(film: Range, range: Range): string[] {
  if (range === null) return film ? [MAPPED_TO_SDR] : []
  if (film === range) return []
  if (film) return [...LINEAR, raised(range, FORMAT.high)]
  return [
    'scale=out_color_matrix=bt709',
    'setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709',
    ...LINEAR,
    raised(range, FORMAT.high),
  ]
}

/**
 * @param alpha whether something is seen through it.
 * @returns filters that bring what is drawn into a video's range.
 */
export function drawnIntoRange(range: Range, { alpha }: { alpha: boolean }): string[] {
  if (range === null) return [`format=${alpha ? 'yuva420p' : FORMAT.usual}`]
  return [
    `format=${alpha ? 'gbrap' : 'gbrp'}`,
    `zscale=tin=iec61966-2-1:pin=bt709:min=gbr:rin=pc:m=gbr:r=pc:p=bt709:t=linear:npl=${WHITE}`,
    `format=${alpha ? 'gbrapf32le' : 'gbrpf32le'}`,
    raised(range, alpha ? 'yuva420p10le' : FORMAT.high),
  ]
}

/** Filters that bring what was drawn in a high range back to how it was drawn, with its luma by BT.601. */
export const asDrawn = (range: Range): string[] =>
  range === null ? [] : [...LINEAR, 'zscale=p=bt709:t=iec61966-2-1:m=170m:r=tv', 'format=yuv420p']

const FORMAT = { usual: 'yuv420p', high: 'yuv420p10le' }
export const pixelsOf = (range: Range): string => (range === null ? FORMAT.usual : FORMAT.high)
/** As ffmpeg's filter for laying one over another calls it. */
export const laidAs = (range: Range): string => (range === null ? 'yuv420' : 'yuv420p10')

/** What an encoder writes of the range beside the picture. */
export const taggedAs = (range: Range): string[] =>
  range === null
    ? []
    : [
        ...['-color_primaries', 'bt2020', '-color_trc', TRANSFER[range], '-colorspace', 'bt2020nc'],
        ...['-color_range', 'tv'],
      ]
