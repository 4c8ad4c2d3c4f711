// A session whose blocks were filmed in another order than the one that is written.
import { tryExpand } from '../expand/expand'
import type { Score } from '../score/score'
import type { Segment } from '../score/segment'
import type { Share } from '../units'
import { boundariesOf } from './boundaries'
import { joinedReel, type ReelFile } from './reel'
import { matchEvidence, type Matched } from './sync'
import { isSure, type Stitch } from './ties'

export interface OtherOrder {
  /** Keys of all sections, in the order that was filmed. */
  sections: string[]
  /** The section that was filmed elsewhere, and the one that it came before; null where it came last. */
  moved: string
  before: string | null
}

/** A block of which less than this is sure was not filmed where it is written. */
const LOST: Share = 0.3
/** So much of the plan has to be surely there in the other order, and so much more than as it is written. */
const LEAST_SURE: Share = 0.6
const LEAST_WON: Share = 0.15
const LEAST_WON_CHANGES = 4

/**
 * @param found what was matched to the score as it is written, without any hand.
 * @returns the order that explains much more of what was heard; null where the written one is as good.
 */
export function otherOrderOf(score: Score, files: readonly ReelFile[], found: readonly Stitch[]): OtherOrder | null {
  const written = tryExpand(score).expansion?.segments
  if (!written || score.sections.length < 2) return null
  const audible = boundariesOf(written).filter((boundary) => boundary.audible)
  const needed = found.filter(isSure).length + Math.max(LEAST_WON_CHANGES, LEAST_WON * audible.length)
  const tried = new Set([patternOf(written)])
  const reel = joinedReel(files)
  let best: { order: OtherOrder; sure: number } | null = null
  for (const key of lostBlocks(written, found)) {
    for (const sections of ordersWith(score, key)) {
      const segments = tryExpand({ ...score, sections }).expansion?.segments
      if (!segments || tried.has(patternOf(segments))) continue
      tried.add(patternOf(segments))
      const matched = matchEvidence(segments, reel)
      const sure = sureOf(matched)
      if (sure < Math.max(needed, LEAST_SURE * audible.length) || sure <= (best?.sure ?? 0)) continue
      const keys = sections.map((section) => section.key)
      best = { order: { sections: keys, moved: key, before: keys[keys.indexOf(key) + 1] ?? null }, sure }
    }
  }
  return best?.order ?? null
}

const sureOf = ({ found, doubtful }: Matched): number => (doubtful ? 0 : found.filter(isSure).length)

/** Orders of the same lengths cannot be told apart by when something sounds. */
const patternOf = (segments: readonly Segment[]): string =>
  segments.map(({ kind, durationMs, pace }) => `${kind} ${pace} ${durationMs}`).join()

/** Keys of sections hardly any change of which is surely tied. */
function lostBlocks(segments: readonly Segment[], found: readonly Stitch[]): string[] {
  const sure = new Set(found.filter(isSure).map(({ segmentId }) => segmentId))
  const counts = new Map<string, { all: number; sure: number }>()
  for (const { id, sectionKey, kind } of segments) {
    if (kind === 'talk') continue
    const count = counts.get(sectionKey) ?? { all: 0, sure: 0 }
    counts.set(sectionKey, { all: count.all + 1, sure: count.sure + (sure.has(id) ? 1 : 0) })
  }
  return [...counts].filter(([, count]) => count.sure < LOST * count.all).map(([key]) => key)
}

/** The sections with one of them in each other place. */
function ordersWith({ sections }: Score, key: string): Score['sections'][] {
  const one = sections.find((section) => section.key === key)
  if (!one) return []
  const others = sections.filter((section) => section !== one)
  return sections
    .map((_, at) => [...others.slice(0, at), one, ...others.slice(at)])
    .filter((order) => order.some((section, at) => section !== sections[at]))
}
