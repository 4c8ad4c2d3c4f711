// A segment: one flat stretch of time after expansion. Field names are fixed by the headless contract.
import type { Ms } from '../units'
import type { Pace } from './pace'
import type { Posture, Side } from './postures'
import type { Weight } from './formats/station'
import type { Words } from './vocabulary'

export const KINDS = ['talk', 'lead', 'work', 'rest', 'break'] as const
export type Kind = (typeof KINDS)[number]

/** A way into a section, e.g. `['stations', 2, 'workMs']`. */
export type Path = readonly (string | number)[]

/**
 * What in the section decides a segment, so that whoever edits the segment edits the plan. Its length is
 * `baseMs + times * field`; null where no single field decides (talk from a list of moves, estimates).
 */
export interface Origin {
  station: Path | null
  /** Which time the station is done, 1-based: decides swaps and sides. */
  pass: number
  length: { field: Path; baseMs: Ms; times: number } | null
}

export interface Segment {
  /** Path in the score, e.g. `main/r2/s3/work`; unique, and unchanged by edits elsewhere. */
  id: string
  /** 1-based place in the running order. */
  row: number
  kind: Kind
  section: string
  round: number | null
  rounds: number | null
  set: number | null
  sets: number | null
  station: number | null
  stations: number | null
  /** Which of the blocks that are trained this is in; null in talk, breaks, warm-up and cool-down. */
  block: number | null
  blocks: number | null
  label: string
  side: Side | null
  /** The side that begins, where both are done in one interval. */
  firstSide: 'left' | 'right'
  /** Halfway the direction changes, and not the side. */
  reverses: boolean
  startMs: Ms
  durationMs: Ms
  /** What is known of the length; `core/score/pace.ts` says what each means. */
  pace: Pace
  /** At least, and at most; null where nothing bounds it. */
  minMs: Ms
  maxMs: Ms | null
  /** True where the length is not fixed. */
  estimated: boolean
  /** The clock that runs over this and its neighbours, where a slot is fixed and its parts are not. */
  slot: { beforeMs: Ms; ofMs: Ms } | null
  /** Where the body is as it begins, and as it ends; null where nobody knows, and for anything that is not work. */
  posture: Posture | null
  endPosture: Posture | null
  /** 1 to 5; null for anything that is not work. */
  effort: number | null
  /** The target, where the work is counted; null where the clock alone decides. */
  reps: number | null
  /** What counts as one rep, in the creator's words; empty where that is plain. */
  repIs: string
  /** What is lifted. */
  weight: Weight | null
  /** The moves done in it, by name: one, or all of a buy-in or couplet. */
  moves: readonly string[]
  /** What is shown or said besides the label, e.g. that a rest holds a demonstration. */
  note: string
  sectionKey: string
  words: Words
  origin: Origin | null
}

export interface Totals {
  totalMs: Ms
  /** Without talk, warm-up and cool-down: what many a title counts. */
  workoutMs: Ms
  workMs: Ms
  /** Rest, breaks between rounds and between sections. */
  restMs: Ms
  /** True when the total holds a guess. */
  estimated: boolean
  /** The total at least, and at most; null where nothing bounds it. */
  minMs: Ms
  maxMs: Ms | null
}

/** How long a plan is, for whoever shows no more of it. */
export type Planned = Pick<Totals, 'totalMs' | 'estimated'>

export interface Expansion extends Totals {
  segments: Segment[]
}
