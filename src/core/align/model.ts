// What is believed before anything is matched: how long each stretch of a session really lasts, and what begins where.
import type { Segment } from '../score/segment'
import { SECOND, type Ms, type Share } from '../units'
import type { Boundary } from './boundaries'
import type { Length } from './lengths'
import { TIMER_MS, type Begins, type Grid } from './marks'
import type { Tie } from './ties'

/** Stretches that a coach ends by looking at a watch. */
const COACH_MS = 400
const SLOW_COACH_MS = 1600

/**
 * @param timed how many clocked lengths a timer ran.
 * @returns what is believed of the time from one boundary to the next, made of the segments between them.
 */
export function lengthOf(between: readonly Segment[], timed: Share): Length {
  const atMs = between.reduce((sum, segment) => sum + segment.durationMs, 0)
  const paces = new Set(between.map(({ pace }) => pace))
  const over = (weight: Share, scaleMs: Ms): Length[number] => ({ weight, shape: 'over', atMs, scaleMs })
  const about = (weight: Share, scaleMs: Ms): Length[number] => ({ weight, shape: 'about', atMs, scaleMs })
  const anything = { weight: 0.1, shape: 'any', atMs: SECOND, scaleMs: 0 } as const
  if (between.some(({ kind }) => kind === 'talk') || paces.has('open'))
    return [{ weight: 0.9, shape: 'over', atMs: SECOND, scaleMs: Math.max(30 * SECOND, atMs) }, anything]
  if (paces.has('own'))
    return [about(0.6, Math.max(SECOND, 0.2 * atMs)), about(0.3, Math.max(SECOND, 0.6 * atMs)), anything]
  if (paces.has('range')) {
    const halfMs = between.reduce((sum, { minMs, maxMs }) => sum + ((maxMs ?? minMs) - minMs) / 2, 0)
    return [about(0.9, Math.max(SECOND, halfMs)), anything]
  }
  // Nearly all that goes astray does so in breaks, where nobody is in a hurry.
  const loose = between.some(({ kind }) => kind === 'break' || kind === 'lead')
  const strays = loose ? 0.3 : 0.03
  const clocked = 1 - strays
  return [
    { weight: clocked * timed, shape: 'near', atMs, scaleMs: TIMER_MS },
    about(clocked * (1 - timed) * 0.8, COACH_MS),
    about(clocked * (1 - timed) * 0.2, SLOW_COACH_MS),
    over(strays * 0.9, 20 * SECOND),
    { weight: strays * 0.1, shape: 'any', atMs: SECOND, scaleMs: 0 },
  ]
}

const LEAST_USUAL: Share = 0.2

/** Only the likely parts of a length: a break that runs over is one of them. */
export function usually(length: Length): Length {
  const likely = length.filter(({ weight }) => weight >= LEAST_USUAL)
  const sum = likely.reduce((total, { weight }) => total + weight, 0)
  return likely.map((part) => ({ ...part, weight: part.weight / sum }))
}

/** What a coach would call out where these segments begin, or where the score ends. */
export function beginsWith(segments: readonly Segment[] | undefined): Begins {
  const kind = segments?.[0]?.kind
  if (kind === 'work') return 'work'
  return kind === 'lead' ? null : 'rest'
}

/** A boundary that a hand tied lies there and nowhere else. */
export function tiedLikelihood({ footageMs }: Tie, { cells, stepMs }: Grid): Float64Array {
  const field = new Float64Array(cells)
  field[Math.min(cells - 1, Math.max(0, Math.round(footageMs / stepMs)))] = 1
  return field
}

/** The boundaries that can be heard, and what lies between each and the next. */
export function stretchesBetween(
  segments: readonly Segment[],
  boundaries: readonly Boundary[],
): { audible: Boundary[]; between: Segment[][]; plannedMs: Ms[] } {
  const places = boundaries.flatMap((boundary, at) => (boundary.audible ? [at] : []))
  const audible = places.flatMap((at) => boundaries[at] ?? [])
  const between = places.slice(1).map((at, index) => segments.slice(places[index], at))
  return { audible, between, plannedMs: between.map((held) => held.reduce((sum, one) => sum + one.durationMs, 0)) }
}
