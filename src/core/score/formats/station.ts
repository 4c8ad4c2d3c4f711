// A station: one place in a rotation, with its move, its sides, and what it does differently from its neighbours.
import { z } from 'zod'
import type { Cast, Facts } from '../cast'
import { POSTURES, SIDE_RULES, type Side, type SideRule } from '../postures'
import { count, ms, name, placeKey, ranges, remarks } from '../primitives'

export const FIRST_SIDES = ['left', 'right'] as const

export const WEIGHT_UNITS = ['kg', 'lb'] as const
/** What is lifted: so much, in one hand or piece, or in each of two. */
export const weightSchema = z.object({
  amount: z.number().positive().max(1000),
  unit: z.enum(WEIGHT_UNITS),
  pair: z.boolean().default(false),
})
export type Weight = z.infer<typeof weightSchema>

/** "12 kg", "2 x 8 kg". */
export const weightText = ({ amount, unit, pair }: Weight): string => `${pair ? '2 x ' : ''}${amount} ${unit}`

/** "12 kg", "2 x 8 kg", "15lb"; null for anything else. */
export function parseWeight(text: string): Weight | null {
  const [, pair, amount, unit] = /^\s*(2 ?[x×] ?)?(\d{1,4}(?:[.,]\d{1,3})?) ?([a-z]+)\s*$/i.exec(text) ?? []
  const known = WEIGHT_UNITS.find((one) => one === unit?.toLowerCase().replace(/s$/, ''))
  const read = weightSchema.safeParse({ amount: Number(amount?.replace(',', '.')), unit: known, pair: Boolean(pair) })
  return read.success ? read.data : null
}

/** From pass `from` on the station is done so. */
const swapSchema = z.object({
  from: count(2, 500),
  /** Empty for the same move. */
  label: name,
  /** Null takes the rule of the move that has come in, or stays where the move does. */
  sideRule: z.enum(SIDE_RULES).nullable().default(null),
  /** Null leaves the number as it was. */
  reps: count(1, 10_000).nullable().default(null),
})
export type Swap = z.infer<typeof swapSchema>

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
  /** What counts as one, in the creator's words: "each side counts one". */
  repIs: z.string().max(120).default(''),
  weight: weightSchema.nullable().default(null),
  /** Of a length of its own only the bounds may be known. */
  ranges,
  /** Done in one interval with the station before it ("5 burpees + 10 squats" in one minute). */
  joined: z.boolean().default(false),
  /** What is otherwise in later passes: another move, other reps, other sides. In rising order. */
  swaps: z.array(swapSchema).max(50).default([]),
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
  repIs: '',
  weight: null,
  ranges: {},
  joined: false,
  swaps: [],
  above: [],
  beside: '',
  ...change,
})

export const newSwap = (from: number, label = '', change: Partial<Swap> = {}): Swap => ({
  from,
  label,
  sideRule: null,
  reps: null,
  ...change,
})

/** The swap that holds in a pass (1-based): of those that have begun the latest, in whatever order they stand. */
export function swapIn(swaps: readonly Swap[], pass: number): Swap | null {
  let latest: Swap | null = null
  for (const swap of swaps) if (swap.from <= pass && (!latest || swap.from >= latest.from)) latest = swap
  return latest
}

/** The station as it is done in a pass (1-based). */
export function stationIn(station: Station, pass: number): Station {
  const swap = station.swaps.length ? swapIn(station.swaps, pass) : null
  if (!swap) return station
  const reps = swap.reps ?? repsBefore(station, pass)
  if (!swap.label)
    return { ...station, label: labelIn(station, pass), reps, sideRule: swap.sideRule ?? station.sideRule }
  // Another move has sides, and a place on the floor, of its own.
  return { ...station, label: swap.label, reps, sideRule: swap.sideRule, posture: null, effort: null }
}

/** The latest number of reps that a pass, or one before it, says. */
function repsBefore({ swaps, reps }: Station, pass: number): number | null {
  let latest = reps,
    from = 0
  for (const swap of swaps)
    if (swap.reps !== null && swap.from <= pass && swap.from >= from) [latest, from] = [swap.reps, swap.from]
  return latest
}

/** The move of a station in a pass (1-based). */
export function labelIn({ swaps, label }: Station, pass: number): string {
  if (!swaps.length) return label
  return (
    swapIn(
      swaps.filter((swap) => swap.label),
      pass,
    )?.label ?? label
  )
}

export const moveIn = (station: Station, pass: number, cast: Cast): Facts => cast(labelIn(station, pass))

/** The side rule that holds: the station's own before the move's. */
export const ruleOf = (station: Station, move: Pick<Facts, 'sideRule'>): SideRule => station.sideRule ?? move.sideRule

/** The rule that holds in a pass. */
export function ruleIn(station: Station, pass: number, cast: Cast): SideRule {
  const held = stationIn(station, pass)
  return ruleOf(held, cast(held.label))
}

/** The intervals that one turn at a station takes: one, or two where each side has its own. */
export function turnsOf(rule: SideRule, pass: number, first: 'left' | 'right' = 'left'): readonly (Side | null)[] {
  switch (rule) {
    case 'none':
    case 'byRep':
    case 'direction':
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
export function withReps(station: Station, pass: number): string {
  const { reps, label } = stationIn(station, pass)
  return reps ? `${reps} ${label}` : label
}
