// A station: one place in a rotation, with its move, its sides, and what it does differently from its neighbours.
import { z } from 'zod'
import type { Cast, Facts } from '../cast'
import { POSTURES, SIDE_RULES, type Side, type SideRule } from '../postures'
import { count, ms, name, placeKey, remarks } from '../primitives'

export const FIRST_SIDES = ['left', 'right'] as const

export const stationSchema = z.object({
  /** Unique within the section. */
  key: placeKey,
  label: name,
  /** Null takes the move's own rule. */
  sideRule: z.enum(SIDE_RULES).nullable().default(null),
  /** The side that begins, wherever both are done. */
  firstSide: z.enum(FIRST_SIDES).default('left'),
  /** Null takes the move's own. */
  posture: z.enum(POSTURES).nullable().default(null),
  effort: count(1, 5).nullable().default(null),
  /** This station's own work and rest length; null takes the section's. */
  workMs: ms.nullable().default(null),
  restMs: ms.nullable().default(null),
  /** The rep target, where the format counts reps. */
  reps: count(1, 10_000).nullable().default(null),
  /** Done in one interval with the station before it ("5 burpees + 10 squats" in one minute). */
  joined: z.boolean().default(false),
  /** Other moves in later passes: from pass `from` on it is `label`. In rising order. */
  swaps: z
    .array(z.object({ from: count(2, 500), label: name }))
    .max(50)
    .default([]),
  ...remarks,
})
export type Station = z.infer<typeof stationSchema>
export const stations = z.array(stationSchema).max(10_000)
export const groups = z
  .array(
    z
      .array(stationSchema)
      .min(1)
      .max(500)
      .refine(
        (group) => group.every((station, index) => index === 0 || (!station.above.length && !station.beside)),
        'remarks stand at the first move of a group',
      ),
  )
  .max(500)

/** A station that has no key yet: `withKeys` gives it one where it comes to stand. */
export const newStation = (label: string, change: Partial<Station> = {}): Station => ({
  key: '',
  label,
  sideRule: null,
  firstSide: 'left',
  posture: null,
  effort: null,
  workMs: null,
  restMs: null,
  reps: null,
  joined: false,
  swaps: [],
  above: [],
  beside: '',
  ...change,
})

export type Swap = Station['swaps'][number]

/** The swap that holds in a pass (1-based): of those that have begun the latest, in whatever order they stand. */
export function swapIn(swaps: readonly Swap[], pass: number): Swap | null {
  let latest: Swap | null = null
  for (const swap of swaps) if (swap.from <= pass && (!latest || swap.from >= latest.from)) latest = swap
  return latest
}

/** The move of a station in a pass (1-based). */
export const labelIn = (station: Station, pass: number): string => swapIn(station.swaps, pass)?.label ?? station.label

export const moveIn = (station: Station, pass: number, cast: Cast): Facts => cast(labelIn(station, pass))

/** The side rule that holds: the station's own before the move's. */
export const ruleOf = (station: Station, move: Pick<Facts, 'sideRule'>): SideRule => station.sideRule ?? move.sideRule

/** The intervals that one turn at a station takes: one, or two where each side has its own. */
export function turnsOf(rule: SideRule, pass: number, first: 'left' | 'right' = 'left'): readonly (Side | null)[] {
  switch (rule) {
    case 'none':
    case 'byRep':
      return NO_SIDE
    case 'halves':
      return HALVES
    case 'alternate':
      return (pass % 2 === 1) === (first === 'left') ? LEFT : RIGHT
    case 'each':
      return first === 'left' ? EACH : RIGHT_FIRST
    case 'left':
      return LEFT
    case 'right':
      return RIGHT
    case 'both':
      return BOTH
  }
}
const NO_SIDE = [null] as const,
  HALVES = ['switch'] as const,
  LEFT = ['left'] as const,
  RIGHT = ['right'] as const,
  BOTH = ['both'] as const
const EACH = ['left', 'right'] as const,
  RIGHT_FIRST = ['right', 'left'] as const

/** "12 Deck-rail squat", or the label alone. */
export const withReps = (station: Station, pass: number): string =>
  station.reps ? `${station.reps} ${labelIn(station, pass)}` : labelIn(station, pass)
