// Settles what is heard where not all of it can be: by priority, by what fits, in fewer words, a little earlier or
// later, or not at all, which is then told. Pure; knows nothing of workouts.
import type { Ms } from '../units'
import type { Candidate, Cue, CueFinding, CueSheet, LineWish, RuleName, Sound, ToneWish } from './cue'

/** `[fromMs, untilMs)` in output time. */
export interface Stretch {
  fromMs: Ms
  untilMs: Ms
}

export type Asked<One extends Candidate = Candidate> = One & { id: string; rule: RuleName; muted: boolean }

export interface Ear {
  /** How long a sound takes the ear. */
  soundMs: (sound: Sound) => Ms
  /** How long a line takes in the voice that says it. */
  lineMs: (line: string) => Ms
  canSay: (line: string) => boolean
  /** Where the coach speaks; in order of time, without overlaps. Lines keep off it, tones do not. */
  coach: readonly Stretch[]
  /** Instants that the coach's own timer counts. Pips keep off them; none where pips are wanted all the same. */
  timer: readonly Ms[]
}

/** A line keeps so far off whatever else is heard. */
const APART_MS: Ms = 120
/** Two tones that begin this close to each other are one noise. */
const TONES_APART_MS: Ms = 300
/** A pip that close to one of the coach's timer is counted already. */
const COUNTED_MS: Ms = 450
/** A line is tried at places this far apart. */
const STEP_MS: Ms = 100

/** @param asked in any order. Nothing begins before `[0`; no two lines overlap, and none is over after its window. */
export function schedule(asked: readonly Asked[], ear: Ear): CueSheet {
  const audible = asked.filter(({ muted }) => !muted).sort(byPriority)
  const tones = layTones(audible.filter(isTone), ear)
  const lines = layLines(audible.filter(isLine), tones.cues, ear)
  return {
    cues: [...tones.cues, ...lines.cues].sort(byTime),
    findings: [...tones.findings, ...lines.findings].sort(byTime),
    muted: asked
      .filter(({ muted }) => muted)
      .map((one) => (isTone(one) ? toneCue(one, ear) : lineCue(one, one.lines[0] ?? '', one.atMs, ear)))
      .sort(byTime),
  }
}

const isTone = (one: Asked): one is Asked<ToneWish> => 'sound' in one
const isLine = (one: Asked): one is Asked<LineWish> => !isTone(one)
const byTime = (one: { atMs: Ms; id: string }, other: { atMs: Ms; id: string }): number =>
  one.atMs - other.atMs || (one.id < other.id ? -1 : 1)
const byPriority = (one: Asked, other: Asked): number => other.priority - one.priority || byTime(one, other)

const toneCue = ({ id, rule, segmentId, atMs, sound }: Asked<ToneWish>, ear: Ear): Cue => ({
  ...{ id, rule, segmentId, atMs, sound, line: null, lengthMs: ear.soundMs(sound) },
})
const lineCue = ({ id, rule, segmentId }: Asked<LineWish>, line: string, atMs: Ms, ear: Ear): Cue => ({
  ...{ id, rule, segmentId, atMs, sound: null, line, lengthMs: ear.lineMs(line) },
})

interface Laid {
  cues: Cue[]
  findings: CueFinding[]
}

/** Tones stay where they are or are left out: each marks its very instant. */
function layTones(tones: readonly Asked<ToneWish>[], ear: Ear): Laid {
  const laid: Laid = { cues: [], findings: [] }
  const taken = new Timeline()
  for (const tone of tones) {
    const { id, rule, segmentId, atMs, sound } = tone
    if (atMs < 0) continue
    // The timer says it already, so nothing is lost.
    if (sound === 'pip' && ear.timer.some((beepMs) => Math.abs(beepMs - atMs) <= COUNTED_MS)) continue
    const fromMs = atMs - TONES_APART_MS,
      untilMs = atMs + TONES_APART_MS
    if (taken.meets({ fromMs, untilMs })) {
      laid.findings.push({ id, rule, segmentId, atMs, why: 'crowded', line: null })
      continue
    }
    taken.take({ fromMs: atMs, untilMs: atMs + 1 })
    laid.cues.push(toneCue(tone, ear))
  }
  return laid
}

/**
 * Each line in full where it is best begun, else as near to it as it fits within its window; then the same in fewer
 * words, and so on.
 */
function layLines(lines: readonly Asked<LineWish>[], tones: readonly Cue[], ear: Ear): Laid {
  const laid: Laid = { cues: [], findings: [] }
  const heard = new Timeline()
  for (const { atMs, lengthMs } of tones) heard.take({ fromMs: atMs - APART_MS, untilMs: atMs + lengthMs })
  const coach = new Timeline(ear.coach)
  for (const asked of lines) {
    const wish = { ...asked, lines: asked.lines.filter((line) => ear.canSay(line)) }
    const placed = placeLine(wish, ear, (stretch) => !heard.meets(stretch) && !coach.meets(stretch))
    if (placed) {
      heard.take({ fromMs: placed.atMs - APART_MS, untilMs: placed.atMs + placed.lengthMs + APART_MS })
      laid.cues.push(placed)
      continue
    }
    const { id, rule, segmentId, atMs } = wish
    if (!wish.lines.length) {
      laid.findings.push({ id, rule, segmentId, atMs, why: 'unrecorded', line: asked.lines.at(-1) ?? null })
      continue
    }
    const free = (stretch: Stretch): boolean => !heard.meets(stretch)
    const why = !placeLine(wish, ear, () => true) ? 'noTime' : placeLine(wish, ear, free) ? 'coachSpeaks' : 'crowded'
    laid.findings.push({ id, rule, segmentId, atMs, why, line: wish.lines.at(-1) ?? null })
  }
  return laid
}

function placeLine(wish: Asked<LineWish>, ear: Ear, isFree: (stretch: Stretch) => boolean): Cue | null {
  for (const line of wish.lines) {
    const lengthMs = ear.lineMs(line)
    const lastMs = wish.untilMs - lengthMs
    for (const atMs of placesAround(wish.atMs, Math.max(0, wish.fromMs), lastMs))
      if (isFree({ fromMs: atMs, untilMs: atMs + lengthMs })) return lineCue(wish, line, atMs, ear)
  }
  return null
}

/** Places within `[fromMs, lastMs]`, the nearest to the best first. */
function* placesAround(bestMs: Ms, fromMs: Ms, lastMs: Ms): Generator<Ms> {
  if (lastMs < fromMs) return
  const best = Math.min(lastMs, Math.max(fromMs, bestMs))
  yield best
  for (let off = STEP_MS; best - off >= fromMs || best + off <= lastMs; off += STEP_MS) {
    if (best + off <= lastMs) yield best + off
    if (best - off >= fromMs) yield best - off
  }
}

/** What is taken of the time, in order and without overlaps. */
class Timeline {
  private readonly taken: Stretch[] = []

  constructor(stretches: readonly Stretch[] = []) {
    for (const stretch of stretches) this.take(stretch)
  }

  take({ fromMs, untilMs }: Stretch): void {
    let at = this.firstEndingAfter(fromMs)
    let from = fromMs,
      until = untilMs
    const begin = at
    for (let one = this.taken[at]; one && one.fromMs <= until; one = this.taken[++at]) {
      from = Math.min(from, one.fromMs)
      until = Math.max(until, one.untilMs)
    }
    this.taken.splice(begin, at - begin, { fromMs: from, untilMs: until })
  }

  meets({ fromMs, untilMs }: Stretch): boolean {
    const one = this.taken[this.firstEndingAfter(fromMs)]
    return one !== undefined && one.fromMs < untilMs
  }

  private firstEndingAfter(ms: Ms): number {
    let low = 0,
      high = this.taken.length
    while (low < high) {
      const middle = (low + high) >> 1
      if ((this.taken[middle]?.untilMs ?? 0) <= ms) low = middle + 1
      else high = middle
    }
    return low
  }
}
