// Where a stretch is taken out of the sound so that it is least noticed: no word and no beep is cut through where that
// can be helped, and what is taken out is silence rather than talk.
import { ofKind, type Evidence } from '../evidence'
import type { Ms } from '../units'

/** `[fromMs, toMs)` of the reel. */
export interface Range {
  fromMs: Ms
  toMs: Ms
}

/** Stretches in which something is heard that a joint should not fall into, in order, none overlapping. */
export type Busy = readonly Range[]

/** A beep rings on a little. */
const RINGS_MS: Ms = 60

/** @param heard in order of time. */
export function busyStretches(heard: readonly Evidence[]): Busy {
  const all = [
    ...ofKind(heard, 'speech').map(({ atMs, durationMs }) => ({ fromMs: atMs, toMs: atMs + durationMs })),
    ...ofKind(heard, 'beep').map(({ atMs, durationMs }) => ({ fromMs: atMs, toMs: atMs + durationMs + RINGS_MS })),
  ].sort((one, other) => one.fromMs - other.fromMs)
  const out: Range[] = []
  for (const one of all) {
    const last = out.at(-1)
    if (last && one.fromMs <= last.toMs) last.toMs = Math.max(last.toMs, one.toMs)
    else out.push({ ...one })
  }
  return out
}

/** A silence longer than this is noticed, and so much of it is left. */
const LONG_SILENCE_MS: Ms = 3000,
  LEFT_OF_IT_MS: Ms = 1000

/**
 * What can be taken out of talk: the middle of each long silence between two things that are said in it. Where nothing
 * was heard nobody knows what the talk is, and all of it stays.
 */
export function silencesIn(busy: Busy, { fromMs, toMs }: Range): Range[] {
  const said = busy.filter((one) => one.toMs > fromMs && one.fromMs < toMs)
  return said.slice(1).flatMap((next, at): Range[] => {
    const endMs = said[at]?.toMs ?? 0
    if (next.fromMs - endMs <= LONG_SILENCE_MS) return []
    const half = LEFT_OF_IT_MS / 2
    return [{ fromMs: Math.round(endMs + half), toMs: Math.round(next.fromMs - half) }]
  })
}

/** Nobody begins or ends to move so near to a leap that was seen. */
const LEAPS_MS: Ms = 800

/**
 * The longest stretch within another in which nothing is said or sounds, and nobody leaps. Where nothing at all was
 * heard of a footage, nobody knows what is still.
 * @param heard in order of time.
 */
export function longestStill(heard: readonly Evidence[], { fromMs, toMs }: Range): Range | null {
  if (!heard.length) return null
  const leaps = ofKind(heard, 'motion').map(({ atMs }) => ({ fromMs: atMs - LEAPS_MS, toMs: atMs + LEAPS_MS }))
  const loud = [...busyStretches(heard), ...leaps].sort((one, other) => one.fromMs - other.fromMs)
  let best: Range | null = null
  let sinceMs = fromMs
  for (const one of [...loud, { fromMs: toMs, toMs }]) {
    const untilMs = Math.min(toMs, one.fromMs)
    if (untilMs - sinceMs > (best ? best.toMs - best.fromMs : 0)) best = { fromMs: sinceMs, toMs: untilMs }
    sinceMs = Math.max(sinceMs, one.toMs)
  }
  return best
}

const STEP_MS: Ms = 20
/** A word that is cut through counts as much as so many seconds of talk that are lost. */
const CUT_WORD = 20

/**
 * The `byMs` that are taken out of a stretch.
 * @param from the earliest instant, and the latest, at which what is taken out may end.
 * @param wanted where it should end, if nothing speaks against it.
 */
export function leastNoticed(busy: Busy, byMs: Ms, { fromMs, toMs }: Range, wanted: Ms): Range {
  const near = busy.filter((one) => one.toMs > fromMs - byMs && one.fromMs < toMs)
  let best = { cost: Infinity, endMs: wanted }
  for (let endMs = toMs; endMs >= fromMs; endMs -= STEP_MS) {
    const startMs = endMs - byMs
    const cut = near.filter((one) => within(one, startMs) || within(one, endMs)).length
    const lost = near.reduce(
      (sum, one) => sum + Math.max(0, Math.min(one.toMs, endMs) - Math.max(one.fromMs, startMs)),
      0,
    )
    const cost = cut * CUT_WORD + lost / 1000 + Math.abs(endMs - wanted) / 1e6
    if (cost < best.cost) best = { cost, endMs }
  }
  return { fromMs: best.endMs - byMs, toMs: best.endMs }
}

/** Strictly inside: a word that begins or ends at a joint is whole. */
const within = ({ fromMs, toMs }: Range, ms: Ms): boolean => ms > fromMs && ms < toMs
