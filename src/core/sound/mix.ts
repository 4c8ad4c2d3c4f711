// How loud what was filmed and what is added are, in the preview and in the render alike: settings, and the gains that
// follow from them. Pure: everything is reckoned from energies in steps, before a single sample is mixed.
import { z } from 'zod'
import type { Hertz, Ms } from '../units'
import { gainOf, integrated, STEP_MS, type Decibel, type Lufs } from './loudness'

/** What a whole video is as loud as; `asIs` leaves it. */
export const TARGETS = { asIs: null, host: -14, quieter: -16, broadcast: -23 } as const satisfies Record<
  string,
  Lufs | null
>
export type Target = keyof typeof TARGETS
export const TARGET_NAMES = Object.keys(TARGETS) as [Target, ...Target[]]

export const CUE_LU = { least: -12, most: 9 } as const
export const MOST_DUCK: Decibel = 18

export const mixSchema = z.object({
  /** The sound of the footage: 0 silences, 1 leaves as it is. */
  voice: z.number().min(0).max(1).default(1),
  /** Cues against the coach, in LU. */
  cueLu: z.number().min(CUE_LU.least).max(CUE_LU.most).default(3),
  /** Off: nothing is added to the footage's sound. */
  cuesOn: z.boolean().default(true),
  /** How far the footage goes down under a line that is said, in dB. */
  duckDb: z.number().min(0).max(MOST_DUCK).default(9),
  target: z.enum(TARGET_NAMES).default('host'),
})
export type Mix = z.infer<typeof mixSchema>

export const USUAL_MIX: Mix = mixSchema.parse({})

/** Of everything that is mixed. */
export const MIX_RATE: Hertz = 48_000

/** Highest level of the whole, between samples too. */
export const CEILING_DB: Decibel = -1
/** An encoder that loses something may rise above what it was given by about so much. */
export const ENCODER_ROOM: Decibel = 0.6

/** All that a mix is made with; factors, not decibels. */
export interface Gains {
  film: number
  cues: number
  /** Over both. */
  whole: number
}

/** Where there is no coach to be heard beside, cues are as loud as speech usually is. */
const SPEECH_LUFS: Lufs = -20
/** What is hardly audible is not raised beyond this. */
const MOST_RAISE: Decibel = 24

export interface Energies {
  /** Of the footage through the cut, in steps of output time; null where it has no sound. */
  film: Float32Array | null
  /** Of the cues as laid, each sound as loud as `CUE_LUFS`. */
  cues: Float32Array
  /** The gain of the footage under lines, for each step. */
  ducked: Float32Array
}

/** Every sound and every line is brought to this loudness before it is laid. */
export const CUE_LUFS: Lufs = -20

export function gainsFor({ film, cues, ducked }: Energies, mix: Mix): Gains {
  const coach = film && integrated(film)
  const filmGain = mix.voice
  // Against the coach as they were filmed: who turns the footage down wants to hear the cues all the same.
  const cueGain = mix.cuesOn ? gainOf((coach ?? SPEECH_LUFS) + mix.cueLu - CUE_LUFS) : 0
  const target = TARGETS[mix.target]
  if (target === null) return { film: filmGain, cues: cueGain, whole: 1 }
  const both = Float32Array.from({ length: Math.max(cues.length, film?.length ?? 0) }, (_, at) => {
    const under = filmGain * (ducked[at] ?? 1)
    return (film?.[at] ?? 0) * under * under + (cues[at] ?? 0) * cueGain * cueGain
  })
  const loud = integrated(both)
  const raise = loud === null ? 0 : Math.min(MOST_RAISE, target - loud)
  return { film: filmGain, cues: cueGain, whole: gainOf(raise) }
}

const ATTACK_MS: Ms = 120
const RELEASE_MS: Ms = 450

/** Straight pieces of the footage's gain; 1 before the first and after the last. In order of time. */
export interface GainPoint {
  atMs: Ms
  gain: number
}

/** The gain of the footage under what is said: down before a line, up after it, once where lines follow closely. */
export function duckingFor(lines: readonly { atMs: Ms; lengthMs: Ms }[], duckDb: Decibel): GainPoint[] {
  if (duckDb <= 0) return []
  const low = gainOf(-duckDb)
  const points: GainPoint[] = []
  for (const { atMs, lengthMs } of lines) {
    const untilMs = atMs + lengthMs
    const last = points.at(-1)
    // Where it would hardly have come back, it stays down.
    if (last && last.atMs >= atMs - ATTACK_MS) points.splice(-2, 2)
    else points.push({ atMs: Math.max(0, atMs - ATTACK_MS), gain: 1 }, { atMs, gain: low })
    points.push({ atMs: untilMs, gain: low }, { atMs: untilMs + RELEASE_MS, gain: 1 })
  }
  return points
}

/** Walks along such pieces; instants must not go back. */
export class GainWalk {
  private at = 0
  constructor(private readonly points: readonly GainPoint[]) {}

  gainAt(ms: Ms): number {
    const { points } = this
    while (this.at < points.length && (points[this.at]?.atMs ?? 0) <= ms) this.at++
    const before = points[this.at - 1],
      after = points[this.at]
    if (!before || !after) return 1
    const share = (ms - before.atMs) / Math.max(1, after.atMs - before.atMs)
    return before.gain + (after.gain - before.gain) * share
  }
}

/** The same in the middle of each step. */
export function duckedSteps(points: readonly GainPoint[], lengthMs: Ms): Float32Array {
  const walk = new GainWalk(points)
  return Float32Array.from({ length: Math.ceil(lengthMs / STEP_MS) }, (_, step) => walk.gainAt((step + 0.5) * STEP_MS))
}
