// What is unsure about the ties of a footage, most harmful first: where a viewer may see a count that is wrong, by how
// much, and for how many changes. One question for each stretch that hangs together, and not one for each change.
import type { Segment } from '../score/segment'
import { sum } from '../sum'
import { SECOND, type Ms, type Share } from '../units'
import { boundariesOf, tieKey, type BoundaryName } from './boundaries'
import { isSure, type Stitch } from './ties'

/**
 * `unsure`: it is tied, and the tie may be wrong. `unheard`: nothing ties it, nor those beside it, and how long they
 * took is not as planned, or not known.
 */
export type TodoWhy = 'unsure' | 'unheard'

export interface Todo extends BoundaryName {
  why: TodoWhy
  /** How far viewers' counts may be off, over all the changes that hang on it. */
  harmMs: Ms
  /** How many changes hang on it, itself included. */
  changes: number
}

/** Less than this no viewer sees. */
const SEEN_MS: Ms = 150
/** How far a wrong tie is off, where nothing says where it might be instead. */
const USUALLY_OFF_MS: Ms = 500
/** Beyond the last sure tie a session strays by this share of its time, and by so much at once. */
const STRAYS: Share = 0.02
const STRAYS_AT_ONCE_MS: Ms = 1.5 * SECOND
/** Talk that nobody timed can hide this much at most. */
const TALK_HIDES_MS: Ms = 5 * SECOND
/** Where neither work begins nor ends, no count is wrong. */
const BESIDE_WORK: Share = 1
const APART_FROM_WORK: Share = 0.4
/** The count of a lead-in is right wherever that began, as it counts to the first work. */
const BEFORE_ALL: Share = 0.05

interface Placed extends BoundaryName {
  audible: boolean
  plannedMs: Ms
  weight: Share
  stitch: Stitch | undefined
}

/** @param stitches of one footage, in any order. */
export function todoOf(segments: readonly Segment[], stitches: readonly Stitch[]): Todo[] {
  const tied = new Map(stitches.map((one) => [tieKey(one), one]))
  const placed = boundariesOf(segments).map((boundary, at): Placed => {
    const stitch = tied.get(tieKey(boundary))
    const works = segments[at]?.kind === 'work' || segments[at - 1]?.kind === 'work'
    const { segmentId, edge, audible, plannedMs } = boundary
    const leads = segments[at]?.kind === 'lead' && segments[at - 1]?.kind !== 'work'
    const weight = leads ? BEFORE_ALL : works ? BESIDE_WORK : APART_FROM_WORK
    return { segmentId, edge, audible, plannedMs, stitch, weight }
  })
  const unsure = placed.flatMap((one): Todo[] => {
    if (!one.stitch || isSure(one.stitch)) return []
    const harmMs = one.weight * (1 - one.stitch.confidence) * offOf(one.stitch)
    return [{ segmentId: one.segmentId, edge: one.edge, why: 'unsure', harmMs, changes: 1 }]
  })
  return [...unsure, ...unheardIn(segments, placed)]
    .filter(({ harmMs }) => harmMs >= SEEN_MS)
    .sort((one, other) => other.harmMs - one.harmMs)
}

function offOf({ footageMs, alternatives = [] }: Stitch): Ms {
  const [rival] = alternatives
  return rival ? Math.max(SEEN_MS, Math.abs(rival.footageMs - footageMs)) : USUALLY_OFF_MS
}

/** Stretches of changes that nothing ties, between two that are tied. */
function unheardIn(segments: readonly Segment[], placed: readonly Placed[]): Todo[] {
  const todos: Todo[] = []
  let from = 0
  for (let at = 0; at <= placed.length; at++) {
    if (at < placed.length && !placed[at]?.stitch) continue
    const run = placed.slice(from, at).filter(({ audible }) => audible)
    const asked = askedIn(segments, placed, from - 1, at)
    const looseMs = loosenessOf(segments, placed, from - 1, at)
    if (asked && looseMs >= SEEN_MS) {
      const harmMs = looseMs * sum(run.map(({ weight }) => weight))
      todos.push({ segmentId: asked.segmentId, edge: asked.edge, why: 'unheard', harmMs, changes: run.length })
    }
    from = at + 1
  }
  return todos
}

/**
 * The change of a stretch that settles most: its far end, where only one end is tied, as then the plan may hold
 * between; the end of its longest break, then its beginning, as sessions stray in breaks; else the middle.
 */
function askedIn(
  segments: readonly Segment[],
  placed: readonly Placed[],
  before: number,
  after: number,
): Placed | undefined {
  const run = placed.slice(before + 1, after).filter(({ audible }) => audible)
  if (!placed[before]?.stitch) return run.find(({ weight }) => weight > BEFORE_ALL) ?? run[0]
  if (!placed[after]?.stitch) return run.at(-1)
  const pauses = segments
    .slice(before, after)
    .map((segment, offset) => ({ segment, at: before + offset }))
    .filter(({ segment }) => segment.kind === 'break' || segment.kind === 'talk')
    .sort((one, other) => other.segment.durationMs - one.segment.durationMs)
  const end = pauses.flatMap(({ at }) => [at + 1, at]).find((at) => at > before && at < after && placed[at]?.audible)
  return placed[end ?? -1] ?? run[Math.floor(run.length / 2)]
}

/** How far a change between two ties may be from where the plan has it. @param before,after places of the ties. */
function loosenessOf(segments: readonly Segment[], placed: readonly Placed[], before: number, after: number): Ms {
  const left = placed[before],
    right = placed[after]
  if (!left?.stitch || !right?.stitch) {
    return STRAYS_AT_ONCE_MS + STRAYS * plannedMsOf(segments.slice(Math.max(0, before), after))
  }
  const between = segments.slice(before, after)
  const open = plannedMsOf(between.filter(({ pace }) => pace !== 'fixed'))
  const off = Math.abs(right.stitch.footageMs - left.stitch.footageMs - (right.plannedMs - left.plannedMs))
  return Math.max(off, Math.min(open, TALK_HIDES_MS))
}

const plannedMsOf = (segments: readonly Segment[]): Ms => sum(segments.map(({ durationMs }) => durationMs))
