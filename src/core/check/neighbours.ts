// Two neighbours load the same muscles, one posture is kept for long, or a short-rest block changes posture every time.
import { areKnown } from '../score/cast'
import type { Segment } from '../score/segment'
import { nameOf } from '../words/en/names'
import { atSegment, finding, Repeats, type Check, type Finding, type Review } from './finding'

/** With a rest this long the muscles have had their break. */
const RESTED_MS = 45_000
/** Wrists, knees and backs ask for a change by then. */
const LONG_POSTURE_MS = 240_000
const SHORT_REST_MS = 15_000
const CHURN = 4

export const checkNeighbours: Check = (review) => [...sameMuscles(review), ...longPosture(review), ...churn(review)]

function sameMuscles({ expansion, cast }: Review): Finding[] {
  const found = new Repeats()
  let before: Segment | null = null
  let gapMs = 0
  for (const segment of expansion.segments) {
    if (segment.kind === 'talk') before = null
    else if (segment.kind !== 'work') gapMs += segment.durationMs
    else {
      if (before && !sameMoves(before, segment) && gapMs < RESTED_MS && before.sectionKey === segment.sectionKey)
        judge(before, segment)
      before = segment
      gapMs = 0
    }
  }
  return found.findings()

  function judge(one: Segment, next: Segment): void {
    if ((one.effort ?? 0) < 3 || (next.effort ?? 0) < 3) return
    const first = cast(one.moves[0] ?? '').muscles,
      second = new Set(cast(next.moves[0] ?? '').muscles)
    const shared = first.filter((muscle) => second.has(muscle))
    if (!shared.includes('grip') && (shared.length < 2 || shared[0] !== first[0])) return
    const pair = [one.label, next.label].sort((a, b) => a.localeCompare(b)).join(' > ')
    const guess = !areKnown(cast, [...one.moves, ...next.moves])
    found.meet('muscles', `${one.sectionKey} ${pair}`, (times) => ({
      severity: 'note',
      ...atSegment(next),
      fact: { code: 'same-muscles', one: one.label, next: next.label, muscles: shared, times, guess },
    }))
  }
}

/** A climb and its descent are one set of moves. */
const sameMoves = (one: Segment, other: Segment): boolean => one.moves.join('\n') === other.moves.join('\n')

function longPosture({ expansion, cast }: Review): Finding[] {
  const found: Finding[] = []
  let run: Segment[] = [],
    ms = 0
  const close = (): void => {
    const first = run[0]
    // Standing may go on for ever; everything else presses on something.
    if (first?.posture && first.posture !== 'standing' && ms > LONG_POSTURE_MS) {
      const guess = !areKnown(
        cast,
        run.flatMap(({ moves }) => moves),
      )
      found.push(
        finding('posture', {
          id: first.id,
          severity: 'note',
          ...atSegment(first),
          fact: { code: 'long-posture', ms, from: nameOf(first), guess },
        }),
      )
    }
    run = []
    ms = 0
  }
  for (const segment of expansion.segments) {
    if (segment.kind === 'talk' || segment.kind === 'break') close()
    else if (segment.kind === 'work') {
      if (run[0] && run[0].posture !== segment.posture) close()
      run.push(segment)
      ms += segment.durationMs
    }
  }
  close()
  return found
}

/** Down to the floor, or up from it; turning over on it is neither. */
function changesLevel(one: Segment, next: Segment): boolean {
  const from = one.endPosture ?? one.posture
  return from !== null && next.posture !== null && (from === 'standing') !== (next.posture === 'standing')
}

function churn({ expansion, score }: Review): Finding[] {
  const state = new Map<
    string,
    { before: Segment | null; gapMs: number; gaps: number; changes: number; shortest: number; first: Segment | null }
  >()
  for (const segment of expansion.segments) {
    const at = state.get(segment.sectionKey) ?? {
      before: null,
      gapMs: 0,
      gaps: 0,
      changes: 0,
      shortest: Infinity,
      first: null,
    }
    state.set(segment.sectionKey, at)
    if (segment.kind === 'rest') at.gapMs += segment.durationMs
    if (segment.kind !== 'work') continue
    if (at.before && at.gapMs && at.gapMs <= SHORT_REST_MS) {
      at.gaps++
      at.shortest = Math.min(at.shortest, at.gapMs)
      if (changesLevel(at.before, segment)) at.changes++
      at.first ??= segment
    }
    at.before = segment
    at.gapMs = 0
  }
  return [...state].flatMap(([key, { gaps, changes, shortest, first }]) => {
    if (changes < CHURN || changes < gaps || !first) return []
    const section = score.sections.find((one) => one.key === key)?.name ?? ''
    const fact = { code: 'posture-every-rest', section, rests: gaps, shortestMs: shortest } as const
    return [finding('posture', { id: `every ${key}`, severity: 'note', ...atSegment(first), fact })]
  })
}
