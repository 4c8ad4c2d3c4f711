// What a video is rendered for, and how large it may be for that.
import { even, type Size } from '../cut/framing'

/**
 * `host`: what is sent to a host, which encodes it anew. `hdr`: the same, in the high dynamic range that it was filmed
 * in. `phone`: to be played on a phone as it is. `small`: to be sent
 * in a message. `master`: to be kept, or worked on. `draft`: to be looked at once.
 */
export const PURPOSES = ['host', 'hdr', 'phone', 'small', 'master', 'draft'] as const
export type Purpose = (typeof PURPOSES)[number]
export const USUAL_PURPOSE: Purpose = 'host'

/** The most pixels of the shorter side; null as many as there are. */
const MOST_SIDE: Record<Purpose, number | null> = {
  ...{ host: null, hdr: null, phone: 720, small: 480, master: null, draft: 360 },
}

/** Never larger than it is, and of the same shape to a pixel. */
export function sizeFor({ width, height }: Size, purpose: Purpose): Size {
  const most = MOST_SIDE[purpose]
  const shorter = Math.min(width, height)
  if (most === null || shorter <= most) return { width, height }
  return { width: even((width * most) / shorter), height: even((height * most) / shorter) }
}
