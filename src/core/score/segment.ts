// A segment: one flat stretch of time after expansion. Field names are fixed by the headless contract.
import type { Ms } from '../units'
import type { Posture, Side } from './postures'

export const KINDS = ['talk', 'lead', 'work', 'rest', 'break'] as const
export type Kind = (typeof KINDS)[number]

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
  label: string
  side: Side | null
  startMs: Ms
  durationMs: Ms
  /** True where the length is a guess, as for talk. */
  estimated: boolean
  posture: Posture | null
  /** 1 to 5; null for anything that is not work. */
  effort: number | null
}

/** What a format hands to `expand`, which numbers and places it. */
export type Draft = Omit<Segment, 'row' | 'startMs' | 'section'>

export interface Totals {
  totalMs: Ms
  workMs: Ms
  /** Rest, breaks between rounds and between sections. */
  restMs: Ms
  /** True when the total holds a guess. */
  estimated: boolean
}

export interface Expansion extends Totals {
  segments: Segment[]
}
