// Colours of what lies over footage: dark plates over bright pictures, pale ones over dark ones. Whatever text stands
// on has a contrast of 4.5 to it or better, which a test holds.
import type { Ground } from '../overlay'
import { OVERLAY } from '../palette'

export const TONE_NAMES = ['dark', 'pale'] as const

export interface Tone {
  plate: string
  text: string
  muted: string
  /** Of what is to be seen first: reps, a side, what is next in a rest. */
  accent: string
  /** Paper strips, and those that call. */
  strip: string
  stripText: string
  call: string
  callText: string
  /** Behind the count, and its digits. */
  grounds: Record<Ground, { block: string; digits: string }>
}

const GROUNDS: Tone['grounds'] = {
  work: { block: OVERLAY.land, digits: OVERLAY.ink },
  rest: { block: OVERLAY.water, digits: OVERLAY.pale },
  ready: { block: OVERLAY.pale, digits: OVERLAY.ink },
  talk: { block: OVERLAY.ink, digits: OVERLAY.pale },
}
const CALL = { call: OVERLAY.land, callText: OVERLAY.ink } as const

export const TONES: Record<(typeof TONE_NAMES)[number], Tone> = {
  dark: {
    ...{ plate: OVERLAY.ink, text: OVERLAY.pale, muted: OVERLAY.muted, accent: OVERLAY.land },
    ...{ strip: OVERLAY.pale, stripText: OVERLAY.ink, ...CALL, grounds: GROUNDS },
  },
  pale: {
    ...{ plate: OVERLAY.pale, text: OVERLAY.ink, muted: OVERLAY.dim, accent: OVERLAY.water },
    ...{ strip: OVERLAY.ink, stripText: OVERLAY.pale, ...CALL },
    grounds: { ...GROUNDS, ready: { block: OVERLAY.ink, digits: OVERLAY.pale } },
  },
}
