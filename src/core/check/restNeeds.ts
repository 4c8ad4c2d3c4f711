// A rest is shorter than what must happen in it. Needs add up: hearing the next move, changing posture, gear and side,
// and the count-in. The numbers come from the creator's table (score/needs.ts).
import type { NeedFact } from '../facts'
import { changeOfPosture, type Needs } from '../score/needs'
import type { Segment } from '../score/segment'
import { nameOf } from '../words/en/names'
import { areKnown } from '../score/cast'
import { fieldFor, setField } from '../score/edits'
import { atSegment, finding, type Check, type Finding, type Review } from './finding'

/** What has to happen between two works, in the order in which it is done. */
function needsBetween(
  before: Segment,
  after: Segment,
  shownMs: number,
  { cast, needs }: Pick<Review, 'cast' | 'needs'>,
): NeedFact[] {
  const from = before.endPosture ?? before.posture
  const posture = from && after.posture ? changeOfPosture(from, after.posture, needs) : null
  const gear = gearToSwap(before, after, cast)
  const sides = before.side && after.side && after.side !== before.side && after.side !== 'switch'
  const all: (NeedFact | null)[] = [
    posture,
    gear && { ...gear, ms: inMs(needs.gearChange) },
    sides && before.label === after.label ? { code: 'change-side', ms: inMs(needs.sideChange) } : null,
    before.label === after.label ? null : { code: 'hear-next', ms: inMs(spoken(nameOf(after), needs)) },
    { code: 'show-next', ms: shownMs },
  ]
  return all.filter((need) => need !== null && need.ms > 0).flatMap((need) => need ?? [])
}

const inMs = (seconds: number): number => Math.round(seconds * 1000)

const spoken = (text: string, needs: Needs): number => text.split(/\s+/).filter(Boolean).length / needs.wordsPerSecond

/** What is only put down takes no time worth counting. */
function gearToSwap(
  before: Segment,
  after: Segment,
  cast: Review['cast'],
): { code: 'swap-gear' | 'take-gear'; gear: string } | null {
  const had = before.moves.flatMap((name) => cast(name).gear)
  const gear = after.moves.flatMap((name) => cast(name).gear).find((one) => !had.includes(one))
  return gear === undefined ? null : { code: had.length ? 'swap-gear' : 'take-gear', gear }
}

/** What must happen, and how long it takes together. */
interface Must {
  needs: readonly NeedFact[]
  sum: number
}
const together = (needs: readonly NeedFact[]): Must => ({
  needs,
  sum: needs.reduce((total, need) => total + need.ms, 0),
})
interface Reckoned {
  resting: Must
  straight: Must
  guess: boolean
}

function reckonedBetween(from: Segment, to: Segment, shownMs: number, review: Review): Reckoned {
  const needs = needsBetween(from, to, shownMs, review)
  const countIn: NeedFact = { code: 'count-in', ms: inMs(review.needs.countIn) }
  return {
    resting: together(needs.length ? [...needs, countIn] : needs),
    // Straight through, the coach calls the next move during the one before; only what the body must do counts.
    straight: together(needs.filter((need) => need.code !== 'hear-next')),
    guess: !areKnown(review.cast, [...from.moves, ...to.moves]),
  }
}

/** A change that does not fit into what stands between. */
interface Short {
  change: string
  hasMs: number
  lacksMs: number
  from: Segment
  to: Segment
  gap: Segment | null
  needs: readonly NeedFact[]
  guess: boolean
  /** The length that the gap would need. */
  wanted: number
  field: ReturnType<typeof fieldFor>
}
interface Cause {
  worst: Short
  /** How often each change was met. */
  changes: Map<string, number>
}

export const checkRestNeeds: Check = (review) => {
  const causes = new Map<string, Cause>()
  /** By all that decides them: rounds repeat the same changes over and over. */
  const reckoned = new Map<string, Reckoned>()
  let before: Segment | null = null
  let pause: Segment | null = null
  let restMs = 0,
    shownMs = 0
  for (const segment of review.expansion.segments) {
    if (segment.kind === 'talk') before = null
    if (segment.kind === 'rest' || segment.kind === 'break' || segment.kind === 'lead') {
      restMs += segment.durationMs
      if (!pause || segment.durationMs > pause.durationMs) pause = segment
      if (segment.note && review.score.demos.place === 'inRests') shownMs += review.score.demos.eachMs
    }
    if (segment.kind !== 'work') continue
    if (before && !(before.estimated && !pause)) judge(before, segment, pause)
    before = segment
    pause = null
    restMs = shownMs = 0
  }
  return [...causes].map(([id, cause]) => told(id, cause))

  function judge(from: Segment, to: Segment, gap: Segment | null): void {
    const decided = `${from.label} ${from.side} ${from.posture} > ${to.label} ${to.side} ${to.posture} ${shownMs}`
    let both = reckoned.get(decided)
    if (!both) reckoned.set(decided, (both = reckonedBetween(from, to, shownMs, review)))
    const { needs: must, sum } = gap ? both.resting : both.straight
    if (!must.length || sum <= restMs || (!gap && sum < 3000)) return
    const { guess } = both
    const wanted = Math.ceil(sum / 1000) * 1000 - restMs + (gap?.durationMs ?? 0)
    const field = gap && fieldFor(gap, wanted)
    const change = `${from.label} > ${to.label}`
    keep({ change, lacksMs: sum - restMs, hasMs: restMs, from, to, gap, needs: must, guess, wanted, field })
  }

  /** All changes that one length decides are one cause: the one that lacks most is told, the others are counted. */
  function keep(short: Short): void {
    const { to, gap, field, guess, change } = short
    const decided = field ? ` ${field.path.join('/')}` : ''
    const id = `${to.sectionKey} ${gap?.kind ?? 'none'}${decided}${guess ? ' guess' : ''}`
    let cause = causes.get(id)
    if (!cause) causes.set(id, (cause = { worst: short, changes: new Map() }))
    cause.changes.set(change, (cause.changes.get(change) ?? 0) + 1)
    if (short.lacksMs > cause.worst.lacksMs) cause.worst = short
  }

  function told(id: string, { worst, changes }: Cause): Finding {
    const { from, to, gap, needs, hasMs, lacksMs, guess, wanted, field, change } = worst
    const severity = guess ? 'note' : gap && lacksMs > hasMs ? 'error' : 'warning'
    const others = changes.size - 1
    return finding('rest', {
      id,
      // What rests on a guess says so, and changes no length.
      severity,
      ...atSegment(gap ?? to),
      fact: {
        ...{ code: 'rest-too-short', from: nameOf(from), to: nameOf(to), needs, hasMs },
        ...{ times: changes.get(change) ?? 1, guess, others },
      },
      mend:
        gap && field && !guess
          ? {
              fact: { code: 'make-it', ms: wanted },
              apply: (draft) => setField(draft, gap.sectionKey, field.path, field.value),
            }
          : null,
    })
  }
}
