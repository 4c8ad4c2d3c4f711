// Countdown truth: at each change what is seen, what is sounded and what was filmed, and how far these are apart. What
// was checked is remembered by what it showed, so that only what has changed is asked again.
import type { Cue } from '../cue/cue'
import { spanAt, toOutputs, type Cut, type ShownSegment } from '../cut/cut'
import { byTime, ofKind, type Evidence } from '../evidence'
import { timerBeeps } from '../hear/timerBeeps'
import { keyOf, overlayAt, type OverlayChange } from '../look/overlay'
import type { Segment } from '../score/segment'
import { frameMsOf, type Ms, type Rate } from '../units'

/** Why somebody should look twice. */
export const DOUBTS = [
  /** Its instant is reckoned from its neighbours. */
  'reckoned',
  /** What is seen was filmed for another interval. */
  'reused',
  /** Nothing was filmed for it. */
  'drawn',
  /** What was heard says otherwise. */
  'apart',
] as const
export type Doubt = (typeof DOUBTS)[number]

export interface WatchedChange {
  /** Of the segment that begins; `end` where the session ends. */
  id: string
  segment: Segment | null
  before: Segment | null
  /** In output time. */
  atMs: Ms
  /** When the first picture with the new state is shown; null where nothing changes on screen. */
  seenMs: Ms | null
  /** When its tone begins; null where none sounds. */
  soundedMs: Ms | null
  /** What was heard in the footage nearest to it, that marks a change; null where nothing did. */
  filmed: { atMs: Ms; kind: Evidence['kind'] } | null
  doubts: readonly Doubt[]
  /** Of all that is seen and heard around it. */
  signature: string
}

export interface Watched {
  cut: Cut
  shown: readonly ShownSegment[]
  overlay: readonly OverlayChange[]
  cues: readonly Cue[]
  /** Of the video. */
  rate: Rate
  /** In output time: `marksIn`. In order of time. */
  marks: readonly Mark[]
}

/** Something in the footage that marks a change, where the cut shows it. */
export interface Mark {
  atMs: Ms
  kind: Evidence['kind']
}

/** How far around a change it is checked. */
export const AROUND_MS: Ms = 2000
/** What was heard farther away belongs to something else. */
const NEAR_MS: Ms = 1500
/** So far apart, somebody sees and hears it. */
const APART_MS: Ms = 250
const LEAST_LIKELY = 0.5

/** @param cut of a reel that lies in one time, source 0. @param heard in that time. */
export function marksIn(cut: Cut, heard: readonly Evidence[]): Mark[] {
  const marking = [
    ...timerBeeps(ofKind(heard, 'beep')).filter((beep) => beep.boundaryLikelihood >= LEAST_LIKELY),
    ...ofKind(heard, 'word').filter(({ word }) => word === 'work' || word === 'rest'),
    ...ofKind(heard, 'sample'),
    ...ofKind(heard, 'chirp'),
  ]
  marking.sort(byTime)
  const shown = toOutputs(
    cut,
    0,
    marking.map(({ atMs }) => atMs),
  )
  return marking
    .flatMap(({ kind }, at) => {
      const outMs = shown[at] ?? null
      return outMs === null ? [] : [{ atMs: outMs, kind }]
    })
    .sort((one, other) => one.atMs - other.atMs)
}

/** Every change that viewers could see or hear, in order of time. */
export function watchedChanges(watched: Watched): WatchedChange[] {
  const lasting = watched.shown.filter(({ startMs, endMs }) => endMs > startMs)
  const begun = lasting.flatMap((laid, index): WatchedChange[] => {
    const before = lasting[index - 1]?.segment ?? null
    const isSilent = laid.segment.kind === 'talk' && (before === null || before.kind === 'talk')
    return isSilent ? [] : [changeAt(laid.startMs, laid.segment, { before, tied: laid.startTied, ...watched })]
  })
  const last = lasting.at(-1)
  if (!last || last.segment.kind === 'talk') return begun
  return [...begun, changeAt(last.endMs, null, { before: last.segment, tied: last.endTied, ...watched })]
}

function changeAt(
  atMs: Ms,
  segment: Segment | null,
  { before, tied, ...watched }: Watched & { before: Segment | null; tied: boolean },
): WatchedChange {
  const { overlay, cues, cut, rate, marks } = watched
  const frameMs = frameMsOf(rate)
  const changes = overlay.some(({ fromMs }) => Math.abs(fromMs - atMs) < 1)
  const tone = cues.find(
    (cue) => cue.sound !== null && cue.rule !== 'countIn' && Math.abs(cue.atMs - atMs) < NEAR_MS / 2,
  )
  const filmed = nearest(marks, atMs)
  const span = cut.spans[spanAt(cut, atMs)]
  const doubts: Doubt[] = []
  if (!tied) doubts.push('reckoned')
  if (span?.why === 'reused') doubts.push('reused')
  // Where all of it is drawn, nobody is told so of each change.
  if (span?.why === 'card' && cut.spans.some(({ why }) => why !== 'card')) doubts.push('drawn')
  if (filmed && Math.abs(filmed.atMs - atMs) > APART_MS) doubts.push('apart')
  return {
    ...{ id: segment?.id ?? 'end', segment, before, atMs, filmed, doubts },
    seenMs: changes ? Math.ceil(atMs / frameMs - 1e-6) * frameMs : null,
    soundedMs: tone?.atMs ?? null,
    signature: signatureOf(atMs, watched),
  }
}

function nearest(marks: readonly Mark[], atMs: Ms): Mark | null {
  const near = marks.filter((mark) => Math.abs(mark.atMs - atMs) <= NEAR_MS)
  return near.sort((one, other) => Math.abs(one.atMs - atMs) - Math.abs(other.atMs - atMs))[0] ?? null
}

/** Two equal signatures look and sound alike around their change. Where in the output it is makes no difference. */
function signatureOf(atMs: Ms, { cut, overlay, cues }: Watched): string {
  const fromMs = atMs - AROUND_MS,
    untilMs = atMs + AROUND_MS
  const within = (ms: Ms): boolean => ms > fromMs && ms < untilMs
  const states = [overlayAt(overlay, fromMs), ...overlay.filter((one) => within(one.fromMs)).map(({ state }) => state)]
  const heard = cues.filter((cue) => within(cue.atMs))
  const spans = cut.spans.filter((span) => span.outMs < untilMs && span.outMs + span.lengthMs > fromMs)
  return hashOf(
    JSON.stringify([
      // Shares of what lasts long change with whatever is far away.
      states.map((state) => state && keyOf({ ...state, passed: null, staff: null })),
      heard.map((cue) => [cue.sound, cue.line, Math.round(cue.atMs - atMs)]),
      spans.map((span) => [span.source, Math.round(span.fromMs + (atMs - span.outMs) * span.rate), span.mirrored]),
    ]),
  )
}

/** 53 bits of a text: enough to tell a few hundred apart; no safeguard against anybody. FNV-1a, twice. */
function hashOf(text: string): string {
  let one = 0x811c9dc5,
    other = 0x01000193
  for (let at = 0; at < text.length; at++) {
    one = Math.imul(one ^ text.charCodeAt(at), 0x01000193)
    other = Math.imul(other ^ text.charCodeAt(at), 0x5bd1e995)
  }
  return (one >>> 0).toString(36) + (other >>> 0).toString(36)
}
