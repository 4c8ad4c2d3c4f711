// A rest is shorter than what must happen in it. Needs add up: hearing the next move, changing posture, gear and side,
// and the count-in. The numbers come from the creator's table (score/needs.ts).
import { changeOfPosture, type Needs } from '../score/needs'
import type { Segment } from '../score/segment'
import { nameOf } from '../write/wording'
import { fieldFor, setField } from '../score/edits'
import { atSegment, inSeconds, Repeats, type Check, type Review } from './finding'

interface Need {
  what: string
  ms: number
}

/** What has to happen between two works, in the order in which it is done. */
function needsBetween(
  before: Segment,
  after: Segment,
  shownMs: number,
  { cast, needs }: Pick<Review, 'cast' | 'needs'>,
): Need[] {
  const list: Need[] = []
  const add = (what: string, seconds: number): void => {
    if (seconds > 0) list.push({ what, ms: Math.round(seconds * 1000) })
  }
  const posture = before.posture && after.posture ? changeOfPosture(before.posture, after.posture, needs) : null
  if (posture) add(posture.what, posture.seconds)
  const gear = gearToSwap(before, after, cast)
  if (gear) add(gear, needs.gearChange)
  if (
    after.side &&
    before.side &&
    after.side !== before.side &&
    before.label === after.label &&
    after.side !== 'switch'
  )
    add('change side', needs.sideChange)
  if (before.label !== after.label) add('hear next move', spoken(nameOf(after), needs))
  if (shownMs) add('show the next move', shownMs / 1000)
  return list
}

export const spoken = (text: string, needs: Needs): number =>
  text.split(/\s+/).filter(Boolean).length / needs.wordsPerSecond

/** "swap water jug" or "take water jug"; what is only put down takes no time worth counting. */
function gearToSwap(before: Segment, after: Segment, cast: Review['cast']): string | null {
  const had = before.moves.flatMap((name) => cast(name).gear)
  const fresh = after.moves.flatMap((name) => cast(name).gear).find((one) => !had.includes(one))
  return fresh === undefined ? null : `${had.length ? 'swap' : 'take'} ${fresh}`
}

export const checkRestNeeds: Check = (review) => {
  const found = new Repeats()
  /** Needs by all that decides them: rounds repeat the same changes over and over. */
  const reckoned = new Map<string, Need[]>()
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
  return found.findings()

  function judge(from: Segment, to: Segment, gap: Segment | null): void {
    const change = `${from.label} ${from.side} ${from.posture} > ${to.label} ${to.side} ${to.posture} ${shownMs}`
    let needs = reckoned.get(change)
    if (!needs) reckoned.set(change, (needs = needsBetween(from, to, shownMs, review)))
    // Straight through, the coach calls the next move during the one before; only what the body must do counts.
    const must = gap ? [...needs] : needs.filter((need) => need.what !== 'hear next move')
    if (!must.length) return
    if (gap) must.push({ what: 'count in', ms: review.needs.countIn * 1000 })
    const sum = must.reduce((total, need) => total + need.ms, 0)
    if (sum <= restMs || (!gap && sum < 3000)) return
    const id = `${to.sectionKey} ${from.label} > ${to.label} ${gap ? gap.kind : 'none'}`
    const hasMs = restMs
    const wanted = Math.ceil(sum / 1000) * 1000 - hasMs + (gap?.durationMs ?? 0)
    const field = gap && fieldFor(gap, wanted)
    found.meet('rest', id, (times) => ({
      severity: gap && hasMs < sum / 2 ? 'error' : 'warning',
      ...atSegment(gap ?? to),
      what: `From ${nameOf(from)} to ${nameOf(to)} needs about ${inSeconds(sum)}: ${must.map((need) => `${need.what} ${inSeconds(need.ms).replace(' s', '')}`).join(', ')}; has ${inSeconds(hasMs)}${times}.`,
      why: 'What does not fit into the rest eats into the work, and the count no longer matches what is seen.',
      mend:
        gap && field
          ? {
              label: `Make it ${inSeconds(wanted)}`,
              apply: (draft) => setField(draft, gap.sectionKey, field.path, field.value),
            }
          : null,
    }))
  }
}
