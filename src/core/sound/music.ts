// The bed of music: which piece plays when, and how it gives way. A piece begins on a change of the score, so that its
// first beat is the beat of the work; it goes down to nothing before talk, and under whatever is said.
import { z } from 'zod'
import type { ShownSegment } from '../cut/cut'
import { lastBegun } from '../lastBegun'
import { SECOND, type Ms } from '../units'
import { gainOf, integrated, PEAKS_A_STEP, STEP_MS, type Decibel, type Steps } from './loudness'

const pieceSchema = z.object({
  /** Of its contents. */
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name: z.string().max(300),
  ms: z.number().min(1000),
})
export type MusicPiece = z.infer<typeof pieceSchema>

/** Against the coach, in LU. */
export const MUSIC_LU = { least: -30, most: 0 } as const

export const musicSchema = z.object({
  /** In the order in which they play; after the last comes the first. None: no music. */
  pieces: z.array(pieceSchema).max(40).default([]),
  lu: z.number().min(MUSIC_LU.least).max(MUSIC_LU.most).default(-12),
})
export type Music = z.infer<typeof musicSchema>

/** A piece from its beginning on, or the first part of it. */
export interface BedPart {
  /** Index of the piece. */
  piece: number
  outMs: Ms
  lengthMs: Ms
  /** It is broken off, and goes down before. */
  fades: boolean
}

/** Talk that lasts less is played over. */
const TALK_MS: Ms = 4 * SECOND
/** A piece that lasts less beyond the last change in it is not broken off there. */
const LEAST_MS: Ms = 8 * SECOND

/** @param pieces how long each lasts. @returns parts in order of time, without overlaps. */
export function bedOf(shown: readonly ShownSegment[], pieces: readonly Ms[]): BedPart[] {
  const parts: BedPart[] = []
  for (const { fromMs, untilMs, changes } of movedThrough(shown)) {
    for (let atMs = fromMs; atMs < untilMs && pieces.length;) {
      const piece = parts.length % pieces.length
      const endMs = atMs + (pieces[piece] ?? 0)
      const last = changes.findLast((change) => change <= endMs && change >= atMs + LEAST_MS)
      const isLast = endMs >= untilMs
      const stopMs = isLast ? untilMs : (last ?? endMs)
      if (stopMs <= atMs) break
      parts.push({ piece, outMs: atMs, lengthMs: stopMs - atMs, fades: stopMs < endMs })
      atMs = stopMs
    }
  }
  return parts
}

/** Stretches without longer talk, with the changes in them. */
function movedThrough(shown: readonly ShownSegment[]): { fromMs: Ms; untilMs: Ms; changes: Ms[] }[] {
  const stretches: { fromMs: Ms; untilMs: Ms; changes: Ms[] }[] = []
  let goesOn = false
  for (const { segment, startMs, endMs } of shown) {
    if (endMs <= startMs) continue
    if (segment.kind === 'talk' && (!goesOn || endMs - startMs >= TALK_MS)) {
      goesOn = false
      continue
    }
    const last = stretches.at(-1)
    if (goesOn && last) {
      last.untilMs = endMs
      last.changes.push(startMs)
    } else stretches.push({ fromMs: startMs, untilMs: endMs, changes: [] })
    goesOn = true
  }
  return stretches
}

const FADE_MS: Ms = 2500

/** How loud the bed is at an instant, by what it fades for; 0 where nothing plays. */
export function fadeAt(parts: readonly BedPart[], outMs: Ms): number {
  const part = partAt(parts, outMs)
  if (!part) return 0
  const leftMs = part.outMs + part.lengthMs - outMs
  const over = Math.min(FADE_MS, part.lengthMs)
  // Equal steps of loudness sound even; the last few are silence.
  return part.fades && leftMs < over ? (leftMs / over) ** 2 : 1
}

export function partAt(parts: readonly BedPart[], outMs: Ms): BedPart | null {
  const part = parts[lastBegun(parts, (one) => one.outMs, outMs)]
  return part && outMs < part.outMs + part.lengthMs ? part : null
}

/** Each piece is brought to this loudness before it is laid. */
const PIECE_LUFS = -20

/** What each piece is multiplied by, so that all are equally loud; of a silent one nothing is known. */
export const evenedBy = (steps: Steps | null): number => {
  const loud = steps && integrated(steps.energy)
  return loud === null ? 1 : gainOf(PIECE_LUFS - loud)
}

/** The gain of the bed that makes it so much louder, or softer, than the coach. */
export const bedGain = (coachLufs: number, lu: Decibel): number => gainOf(coachLufs + lu - PIECE_LUFS)

/**
 * The bed in steps of output time, faded and evened, before it gives way to what is said.
 * @param pieces each in steps of its own time; null for one that is not there yet.
 */
export function bedSteps(parts: readonly BedPart[], pieces: readonly (Steps | null)[], lengthMs: Ms): Steps | null {
  if (!parts.length || pieces.every((one) => one === null)) return null
  const gains = pieces.map(evenedBy)
  const length = Math.ceil(lengthMs / STEP_MS)
  const through = (kind: keyof Steps, stepMs: Ms): Float32Array =>
    Float32Array.from({ length: Math.ceil(length * (STEP_MS / stepMs)) }, (_, at) => {
      const outMs = (at + 0.5) * stepMs
      const part = partAt(parts, outMs)
      const value = part && pieces[part.piece]?.[kind][Math.floor((outMs - part.outMs) / stepMs)]
      if (!part || !value) return 0
      const gain = (gains[part.piece] ?? 1) * fadeAt(parts, outMs)
      return value * (kind === 'energy' ? gain ** 2 : gain)
    })
  return { energy: through('energy', STEP_MS), peak: through('peak', STEP_MS / PEAKS_A_STEP) }
}

/** Where something is said, by a voice or by the coach, as stretches without overlaps. */
export function saidIn(
  lines: readonly { atMs: Ms; lengthMs: Ms }[],
  coach: readonly { fromMs: Ms; untilMs: Ms }[],
): { atMs: Ms; lengthMs: Ms }[] {
  const all = [...lines, ...coach.map(({ fromMs, untilMs }) => ({ atMs: fromMs, lengthMs: untilMs - fromMs }))]
  const said: { atMs: Ms; lengthMs: Ms }[] = []
  for (const { atMs, lengthMs } of all.sort((one, other) => one.atMs - other.atMs)) {
    const last = said.at(-1)
    if (last && atMs <= last.atMs + last.lengthMs) last.lengthMs = Math.max(last.lengthMs, atMs + lengthMs - last.atMs)
    else said.push({ atMs, lengthMs })
  }
  return said
}
