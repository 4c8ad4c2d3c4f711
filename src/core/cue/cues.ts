// Cues: what is heard of a session, and when. Rules say what each interval would have; the scheduler settles the rest.
import type { ShownSegment } from '../cut/cut'
import type { Score } from '../score/score'
import { soundMs } from '../sound/families'
import type { Ms } from '../units'
import { RULES, type Candidate, type Cue, type CueSheet } from './cue'
import { placesIn } from './place'
import { CUE_RULES } from './rules'
import { schedule, type Asked, type Ear, type Stretch } from './schedule'
import { holds, UNEDITED, USUAL_CUES, type CueEdit, type CueWishes } from './wishes'

/** What a session's cues depend on, besides its intervals. */
export interface CueAsk {
  /** Default: as usual. */
  wishes?: CueWishes
  /** The creator's own moves. */
  moves?: Score['moves']
  /** How long each line lasts in the voice that says it. What is not there is reckoned from its words. */
  lineMs?: ReadonlyMap<string, Ms>
  /** Lines that there is a recording of, where the coach's own voice says them. Default: all can be said. */
  recorded?: ReadonlySet<string>
  /** Where the coach speaks, and where their timer beeps, in output time. */
  coach?: readonly Stretch[]
  timer?: readonly Ms[]
}

/** The pace of a calm voice, in words a second, and what every line takes besides. */
const WORDS_A_SECOND = 2.5
const BREATH_MS: Ms = 250

/** How long a line takes, as far as its words tell. */
export const reckonedLineMs = (line: string): Ms =>
  Math.round(BREATH_MS + (line.split(/\s+/).filter(Boolean).length / WORDS_A_SECOND) * 1000)

export function cueSheet(lane: readonly ShownSegment[], ask: CueAsk = {}): CueSheet {
  const { wishes = USUAL_CUES, lineMs, coach = [], timer = [] } = ask
  const { voice } = wishes
  const ear: Ear = {
    canSay: (line) => voice !== 'own' || (ask.recorded?.has(line) ?? true),
    soundMs: (sound) => soundMs(wishes.family, sound),
    lineMs: (line) => lineMs?.get(line) ?? reckonedLineMs(line),
    coach,
    timer: wishes.hushPips ? timer : [],
  }
  return schedule(askedIn(lane, ask), ear)
}

/** What is heard where nobody chose anything: tones alone. In order of time. */
export const cuesFor = (lane: readonly ShownSegment[]): readonly Cue[] => cueSheet(lane).cues

/** Every line that may be said, in all its wordings, so that it can be had ahead of time. */
export function linesIn(lane: readonly ShownSegment[], ask: CueAsk = {}): string[] {
  const lines = askedIn(lane, ask).flatMap((one) => ('lines' in one ? one.lines : []))
  return [...new Set(lines)]
}

function askedIn(lane: readonly ShownSegment[], { wishes = USUAL_CUES, moves = [] }: CueAsk): Asked[] {
  const speaks = wishes.voice !== 'none'
  const rules = RULES.filter((name) => holds(wishes, name)).map((name) => CUE_RULES[name])
  return placesIn(lane, moves).flatMap((place) =>
    rules.flatMap(({ name, candidates }) =>
      candidates(place)
        .filter((one) => speaks || !('lines' in one))
        .map((one) => {
          const id = [one.segmentId, name, one.key].filter(Boolean).join('#')
          const edit = wishes.edits[id] ?? UNEDITED
          return { ...edited(one, edit), id, rule: name, muted: edit.muted }
        }),
    ),
  )
}

/** What was moved by hand stays where it was put: a line has no other place then. */
function edited(one: Candidate, { shiftMs, line }: CueEdit): Candidate {
  const atMs = Math.max(0, one.atMs + shiftMs)
  if (!('lines' in one)) return { ...one, atMs }
  const lines = line === null ? one.lines : [line]
  if (!shiftMs) return { ...one, lines }
  return { ...one, lines, atMs, fromMs: atMs, untilMs: Math.max(one.untilMs, atMs + one.untilMs - one.atMs) }
}
