// How loud what was filmed and what is added are, in the preview and in the render alike: settings, and the gains that
// follow from them. Pure: everything is reckoned from energies in steps, before a single sample is mixed.
import { z } from 'zod'
import type { Hertz, Ms } from '../units'
import { CEILING, RELEASE_MS as RELEASE_OF_LIMITER_MS } from './limiter'
import { bedGain, musicSchema } from './music'
import { gainOf, integrated, PEAKS_A_STEP, STEP_MS, type Decibel, type Lufs, type Steps } from './loudness'

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
  music: musicSchema.prefault({}),
})
export type Mix = z.infer<typeof mixSchema>

export const USUAL_MIX: Mix = mixSchema.parse({})

/** Of everything that is mixed. */
export const MIX_RATE: Hertz = 48_000

/** All that a mix is made with; factors, not decibels. */
export interface Gains {
  film: number
  cues: number
  /** Over what each piece is evened by. */
  music: number
  /** Over all. */
  whole: number
}

/** Where there is no coach to be heard beside, cues are as loud as speech usually is. */
const SPEECH_LUFS: Lufs = -20
/** What is hardly audible is not raised beyond this. */
const MOST_RAISE: Decibel = 24

export interface Heard {
  /** The footage through the cut, in steps of output time; null where it has no sound. */
  film: Steps | null
  /** The cues as laid, each sound as loud as `CUE_LUFS`. */
  cues: Steps
  /** The gain of the footage under lines, for each step. */
  ducked: Float32Array
  /** Of the mix; the cues sound on all of them. Default: one. */
  channels?: 1 | 2
  /** The music as it is laid, and its gain under all that is said. Default: none. */
  bed?: Steps | null
  bedDucked?: Float32Array
}

/** Every sound and every line is brought to this loudness before it is laid. */
export const CUE_LUFS: Lufs = -20

export function gainsFor(heard: Heard, mix: Mix): Gains {
  const coach = heard.film && integrated(heard.film.energy)
  // Against the coach as they were filmed: who turns the footage down wants to hear the cues all the same. On two
  // channels they are twice as strong.
  const own = CUE_LUFS + 10 * Math.log10(heard.channels ?? 1)
  const cues = mix.cuesOn ? gainOf((coach ?? SPEECH_LUFS) + mix.cueLu - own) : 0
  const gains = { film: mix.voice, cues, music: bedGain(coach ?? SPEECH_LUFS, mix.music.lu) }
  const target = TARGETS[mix.target]
  return { ...gains, whole: target === null ? 1 : gainOf(raiseTo(target, stepsTogether(heard, gains))) }
}

/** All, as they are mixed before the limiter. */
function stepsTogether(
  { film, cues, ducked, bed, bedDucked, channels = 1 }: Heard,
  gains: Omit<Gains, 'whole'>,
): Steps {
  const length = Math.max(cues.energy.length, film?.energy.length ?? 0)
  const underAt = (step: number): number => gains.film * (ducked[step] ?? 1)
  const bedAt = (step: number): number => gains.music * (bedDucked?.[step] ?? 1)
  return {
    energy: Float32Array.from({ length }, (_, at) => {
      return (
        (film?.energy[at] ?? 0) * underAt(at) ** 2 +
        channels * (cues.energy[at] ?? 0) * gains.cues ** 2 +
        (bed?.energy[at] ?? 0) * bedAt(at) ** 2
      )
    }),
    peak: Float32Array.from({ length: length * PEAKS_A_STEP }, (_, at) => {
      const step = Math.floor(at / PEAKS_A_STEP)
      const music = (bed?.peak[at] ?? 0) * bedAt(step)
      return (film?.peak[at] ?? 0) * underAt(step) + (cues.peak[at] ?? 0) * gains.cues + music
    }),
  }
}

/** So often the raise is mended by what the limiter takes from it. */
const MENDED = 8

/** By how much a mix is raised to be as loud as is wanted once the limiter has been over it. */
function raiseTo(target: Lufs, steps: Steps): Decibel {
  let raise = 0
  for (let time = 0; time < MENDED; time++) {
    const loud = integrated(limitedEnergy(steps, gainOf(raise)))
    if (loud === null) return 0
    raise = Math.min(MOST_RAISE, raise + target - loud)
  }
  return raise
}

/** What a limiter leaves of the energy, reckoned from peaks: within a step it lies where the peaks are. */
function limitedEnergy({ energy, peak }: Steps, gain: number): Float32Array {
  const returns = 1 - Math.exp(-STEP_MS / PEAKS_A_STEP / RELEASE_OF_LIMITER_MS)
  let held = 1
  return energy.map((one, step) => {
    let left = 0,
      whole = 0
    for (let at = step * PEAKS_A_STEP; at < (step + 1) * PEAKS_A_STEP; at++) {
      const high = peak[at] ?? 0
      held = Math.min(CEILING / Math.max(high * gain, CEILING), held + (1 - held) * returns)
      left += (high * held) ** 2
      whole += high ** 2
    }
    return one * gain ** 2 * (whole > 0 ? left / whole : 1)
  })
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
