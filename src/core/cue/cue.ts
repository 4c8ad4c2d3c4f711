// What viewers may hear, before and after it is decided what they do hear.
import type { Ms } from '../units'

/** The sounds of a family: `core/sound/families`. */
export const SOUNDS = ['pip', 'go', 'rest', 'halfway', 'switch', 'ten', 'last', 'end'] as const
export type Sound = (typeof SOUNDS)[number]

export const RULES = [
  'countIn',
  'go',
  'rest',
  'end',
  'switch',
  'halfway',
  'last',
  'ten',
  'next',
  'block',
  'reps',
  'minute',
  'easier',
  'water',
] as const
export type RuleName = (typeof RULES)[number]

interface Sounded {
  /** Names it among all of its rule in its segment. Empty where there is one only. */
  key: string
  segmentId: string
  /** Higher goes before lower where both cannot be had. */
  priority: number
}
/** A sound at its very instant. */
export interface ToneWish extends Sounded {
  sound: Sound
  atMs: Ms
}
/** A line that is said within a window: it begins no earlier, and is over no later. */
export interface LineWish extends Sounded {
  /** In full first, then what says less in less time. At least one. */
  lines: readonly string[]
  /** When it is best begun. */
  atMs: Ms
  fromMs: Ms
  untilMs: Ms
}
export type Candidate = ToneWish | LineWish

interface Laid {
  /** Made of its segment, its rule and its key, so that it survives edits elsewhere. */
  id: string
  rule: RuleName
  segmentId: string
  atMs: Ms
  lengthMs: Ms
}
export interface ToneCue extends Laid {
  sound: Sound
  line: null
}
export interface LineCue extends Laid {
  sound: null
  line: string
}
export type Cue = ToneCue | LineCue

/** Why something is not heard, or not as it was meant, tried in this order. */
export const MISFITS = [
  /** None of its wordings was recorded. */
  'unrecorded',
  /** The coach speaks all through its window. */
  'coachSpeaks',
  /** Its window is shorter than its shortest wording. */
  'noTime',
  /** Something that matters more sounds there. */
  'crowded',
] as const
export interface CueFinding {
  id: string
  rule: RuleName
  segmentId: string
  atMs: Ms
  why: (typeof MISFITS)[number]
  /** What was to be said; null for a tone. */
  line: string | null
}
export interface CueSheet {
  /** In order of time. */
  cues: readonly Cue[]
  /** Of every candidate that was dropped. */
  findings: readonly CueFinding[]
  /** Those that somebody silenced, as they would sound. */
  muted: readonly Cue[]
}
