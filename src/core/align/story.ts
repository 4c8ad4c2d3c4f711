// What the ties of a footage tell of the session as a whole, and the one tie that would help most.
import type { EvidenceKind } from '../evidence'
import type { Segment } from '../score/segment'
import { sum } from '../sum'
import { SECOND, type Ms, type Share } from '../units'
import { boundariesOf, tieKey, type Boundary } from './boundaries'
import { isSure, type Stitch } from './ties'

/** A stretch that took longer or shorter than planned, between two changes that are sure. */
export interface Strayed {
  segment: Segment
  plannedMs: Ms
  lastedMs: Ms
}

export interface Story {
  sure: number
  likely: number
  /** Changes that nothing was heard of and nobody tied. */
  open: number
  /** What was heard of the changes, whatever marked most of them first. */
  heard: EvidenceKind[]
  /** The furthest first. */
  strayed: Strayed[]
  /** The change that, once tied, would settle most; null where the rest is held well enough. */
  ask: Boundary | null
}

/** Less than this is the jitter of calls. */
const STRAYED_MS: Ms = 5 * SECOND
const MOST_STRAYED = 2
/** A single change between two that are sure is held by them well enough. */
const WORTH_ASKING = 2

/** So much less than planned is no haste: not all of it was filmed. */
const IN_PART: Share = 0.9

/** Whether footage is too short for all that was planned, talk aside. @returns both lengths; null where it is not. */
export function filmedInPart(segments: readonly Segment[], footageMs: Ms): { plannedMs: Ms; footageMs: Ms } | null {
  const timed = segments.filter(({ kind, pace }) => kind !== 'talk' && pace === 'fixed')
  const plannedMs = sum(timed.map(({ durationMs }) => durationMs))
  return footageMs < IN_PART * plannedMs ? { plannedMs, footageMs } : null
}

/** @param stitches of one footage, in any order. */
export function storyOf(segments: readonly Segment[], stitches: readonly Stitch[]): Story {
  const boundaries = boundariesOf(segments).filter(({ audible }) => audible)
  const tied = new Map(stitches.map((one) => [tieKey(one), one]))
  const ties = boundaries.map((boundary) => tied.get(tieKey(boundary)))
  const areSure = ties.map((tie) => tie !== undefined && isSure(tie))
  const sure = areSure.filter(Boolean).length
  const all = ties.filter(Boolean).length
  return {
    ...{ sure, likely: all - sure, open: boundaries.length - all },
    heard: heardIn(ties.flatMap((tie) => tie?.evidence ?? [])),
    strayed: strayedIn(
      segments,
      ties.filter((_, at) => areSure[at]).flatMap((tie) => tie ?? []),
    ),
    ask: middleOfLongest(boundaries, areSure),
  }
}

function heardIn(kinds: readonly EvidenceKind[]): EvidenceKind[] {
  const counts = new Map<EvidenceKind, number>()
  for (const kind of kinds) if (kind !== 'hand') counts.set(kind, (counts.get(kind) ?? 0) + 1)
  return [...counts].sort(([, one], [, other]) => other - one).map(([kind]) => kind)
}

/** Of segments whose beginning and end are both sure; open lengths were never planned. */
function strayedIn(segments: readonly Segment[], sure: readonly Stitch[]): Strayed[] {
  const starts = new Map(sure.filter(({ edge }) => edge === 'start').map((one) => [one.segmentId, one.footageMs]))
  const end = sure.find(({ edge }) => edge === 'end')
  const strayed = segments.flatMap((segment, at): Strayed[] => {
    const next = segments[at + 1]
    const fromMs = starts.get(segment.id),
      toMs = next ? starts.get(next.id) : end?.footageMs
    if (segment.pace !== 'fixed' || segment.kind === 'talk' || fromMs === undefined || toMs === undefined) return []
    const lastedMs = toMs - fromMs
    const off = Math.abs(lastedMs - segment.durationMs)
    return off >= STRAYED_MS ? [{ segment, plannedMs: segment.durationMs, lastedMs }] : []
  })
  const off = ({ plannedMs, lastedMs }: Strayed): Ms => Math.abs(lastedMs - plannedMs)
  return strayed.sort((one, other) => off(other) - off(one)).slice(0, MOST_STRAYED)
}

/** In the middle of what is unsure: with it, both halves are held at their ends. */
function middleOfLongest(boundaries: readonly Boundary[], areSure: readonly boolean[]): Boundary | null {
  let best = { from: 0, length: 0 },
    from = 0
  for (let at = 0; at <= areSure.length; at++) {
    if (at < areSure.length && !areSure[at]) continue
    if (at - from > best.length) best = { from, length: at - from }
    from = at + 1
  }
  return best.length >= Math.min(WORTH_ASKING, boundaries.length)
    ? (boundaries[best.from + Math.floor(best.length / 2)] ?? null)
    : null
}
