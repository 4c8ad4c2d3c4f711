// What a rendered video is checked against, and what is found in it.
import type { Cue } from '../core/cue/cue'
import type { Cut } from '../core/cut/cut'
import type { LookWish } from '../core/look/looks/family'
import type { OverlayChange } from '../core/look/overlay'
import type { Fault, Verified } from '../core/proof/verify'
import type { Mix } from '../core/sound/mix'
import type { Heard } from '../core/sound/track'
import type { Ms } from '../core/units'

export interface Expected {
  cut: Pick<Cut, 'outMs' | 'spans'>
  changes: readonly OverlayChange[]
  look: LookWish
  cues: readonly Cue[]
  heard: Heard
  mix: Mix
}

/** Pictures `[from, to)` of a video, by their numbers. */
export interface Frames {
  from: number
  to: number
}

/** What was found to be right in parts of an earlier video that this one is joined from. */
export interface Known {
  /** What is yet to be looked at. Default: all. */
  frames?: readonly Frames[]
  /** What was found in all else. */
  counts?: Verified['counts']
  /** Default: it is listened to. */
  sound?: SoundFound
}

export interface SoundFound {
  faults: readonly Fault[]
  cues: Verified['cues']
  loudness: Verified['loudness']
  lengthMs: Ms
}

export interface Found {
  verified: Verified
  /** Changes of the count that were looked at, and by how many pictures each is off. */
  turns: readonly { frame: number; off: number }[]
  sound: SoundFound
}
