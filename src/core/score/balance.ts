// How a session is spread: over blocks, postures, muscles, sides, impact, gear and time. Sums only; the drawing is
// elsewhere.
import type { Ms } from '../units'
import type { Cast } from './cast'
import { IMPACTS, MUSCLES, POSTURES, type Impact, type Muscle, type Posture } from './postures'
import type { Expansion, Segment } from './segment'

export interface Balance {
  blocks: { name: string; workMs: Ms; restMs: Ms; otherMs: Ms }[]
  postures: Record<Posture, Ms>
  /**
   * Work time in which a muscle is loaded; a move counts for each of its muscles, so these add up to more than the
   * work.
   */
  muscles: Record<Muscle, Ms>
  leftMs: Ms
  rightMs: Ms
  impacts: Record<Impact, Ms>
  gear: { name: string; ms: Ms }[]
  /** Effort 0 to 5 from an instant on. */
  effort: { atMs: Ms; effort: number }[]
  longest: Segment | null
}

const zeros = <K extends string>(names: readonly K[]): Record<K, Ms> =>
  Object.fromEntries(names.map((name) => [name, 0])) as Record<K, Ms>

const SPENT_AS = {
  work: 'workMs',
  rest: 'restMs',
  break: 'restMs',
  lead: 'otherMs',
  talk: 'otherMs',
} as const satisfies Record<Segment['kind'], keyof Balance['blocks'][number]>

/** What of an interval the left side works, and the right. */
const SIDE_SHARES: Record<NonNullable<Segment['side']>, readonly [left: number, right: number]> = {
  left: [1, 0],
  right: [0, 1],
  switch: [0.5, 0.5],
  both: [1, 1],
}

export function balanceOf({ segments, totalMs }: Expansion, cast: Cast): Balance {
  const blocks = new Map<string, Balance['blocks'][number]>()
  const gear = new Map<string, Ms>()
  const balance: Balance = {
    blocks: [],
    postures: zeros(POSTURES),
    muscles: zeros(MUSCLES),
    leftMs: 0,
    rightMs: 0,
    impacts: zeros(IMPACTS),
    gear: [],
    effort: [],
    longest: null,
  }
  for (const segment of segments) {
    const { kind, durationMs: ms, side } = segment
    const block = blocks.get(segment.sectionKey) ?? { name: segment.section, workMs: 0, restMs: 0, otherMs: 0 }
    blocks.set(segment.sectionKey, block)
    block[SPENT_AS[kind]] += ms
    balance.effort.push({ atMs: segment.startMs, effort: segment.effort ?? 0 })
    if (kind !== 'work') continue
    if (segment.posture) balance.postures[segment.posture] += ms
    const sides = side ? SIDE_SHARES[side] : [0, 0]
    balance.leftMs += ms * sides[0]
    balance.rightMs += ms * sides[1]
    if (!balance.longest || ms > balance.longest.durationMs) balance.longest = segment
    const moves = segment.moves.map(cast)
    // Several moves in one interval share its time.
    const shareMs = ms / Math.max(1, moves.length)
    for (const move of moves) {
      if (move.impact) balance.impacts[move.impact] += shareMs
      for (const muscle of move.muscles) balance.muscles[muscle] += shareMs
      for (const one of move.gear) gear.set(one, (gear.get(one) ?? 0) + shareMs)
    }
  }
  balance.blocks = [...blocks.values()]
  balance.gear = [...gear].map(([name, ms]) => ({ name, ms: Math.round(ms) })).sort((one, other) => other.ms - one.ms)
  balance.effort.push({ atMs: totalMs, effort: 0 })
  return balance
}
