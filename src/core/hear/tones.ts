// Hears an interval timer's beeps: steady tones of unknown pitch with a sudden start. Fed block by block, so that
// a recording of any length is heard in a fixed amount of memory.
import FFT from 'fft.js'
import { byTime, type EvidenceOf } from '../evidence'
import { median } from '../sum'
import type { Hertz, Samples } from '../units'

/** A tone heard; the onset has a fraction of a millisecond. */
export type Beep = EvidenceOf<'beep'>

/** Measured on the demo's truth: onsets come out 1.5 to 2.4 ms late. */
const SPREAD_MS = 3

/** The rate that the listener wants its samples at. */
export const HEARING_RATE: Hertz = 16_000

const WINDOW: Samples = 512
const HOP: Samples = 128
const BIN_HZ = HEARING_RATE / WINDOW
const LOWEST_BIN = Math.floor(450 / BIN_HZ)
const HIGHEST_BIN = Math.ceil(4600 / BIN_HZ)
/** Several tones may sound at once: the timer's, its harmonic, and whatever the coach sings. */
const PEAKS_PER_FRAME = 4
/** A peak has to stand this far (power ratio) above the median of its neighbourhood. */
const PROMINENCE = 40
/** Power below which nothing is heard at all (about -72 dB below full scale). */
const FLOOR = 1e-3
const SHORTEST_FRAMES = 5
const LONGEST_FRAMES = Math.round((2.5 * HEARING_RATE) / HOP)
/** The direct sound may be this much weaker than what the room makes of it. */
const FIRST_SHARE = 0.3
const FIRST_S = 0.012
/** A tone is what is within 9 dB of its loudest; what follows is the room. */
const LOUD = 8
const HISTORY: Samples = 1 << 17

interface Peak {
  bin: number
  power: number
  prominence: number
}
interface Track {
  firstFrame: number
  lastFrame: number
  bins: number[]
  powers: number[]
  prominence: number
  startedSuddenly: boolean
}

export class ToneListener {
  private readonly fft = new FFT(WINDOW)
  private readonly hann = Float64Array.from(
    { length: WINDOW },
    (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / WINDOW),
  )
  private readonly windowed = new Array<number>(WINDOW).fill(0)
  private readonly spectrum = this.fft.createComplexArray()
  private readonly power = new Float64Array(WINDOW / 2)
  /** Spectra a few frames back, to see whether a tone began suddenly. */
  private readonly past: Float64Array[] = Array.from({ length: 8 }, () => new Float64Array(WINDOW / 2))
  private readonly history = new Float32Array(HISTORY)
  private heard: Samples = 0
  private frame = 0
  private tracks: Track[] = []
  private readonly beeps: Beep[] = []

  /** @param samples mono, -1..1, at `HEARING_RATE`; blocks follow one another without gaps. */
  push(samples: Float32Array): void {
    for (const sample of samples) {
      this.history[this.heard % HISTORY] = sample
      this.heard++
      if (this.heard >= WINDOW && (this.heard - WINDOW) % HOP === 0) this.analyse()
    }
  }

  /** Ends the recording. @returns every tone heard, in order of time. */
  finish(): Beep[] {
    for (const track of this.tracks) this.close(track)
    this.tracks = []
    return onePerInstant(this.beeps.sort(byTime))
  }

  private analyse(): void {
    const start = this.heard - WINDOW
    for (let index = 0; index < WINDOW; index++)
      this.windowed[index] = (this.history[(start + index) % HISTORY] ?? 0) * (this.hann[index] ?? 0)
    this.fft.realTransform(this.spectrum, this.windowed)
    for (let bin = 0; bin < WINDOW / 2; bin++) {
      this.power[bin] = (this.spectrum[2 * bin] ?? 0) ** 2 + (this.spectrum[2 * bin + 1] ?? 0) ** 2
    }
    this.follow(findPeaks(this.power))
    this.past[this.frame % this.past.length]?.set(this.power)
    this.frame++
  }

  /** Carries every open track on with the peak nearest to it, opens tracks for peaks left over, closes the silent. */
  private follow(peaks: Peak[]): void {
    const free = new Set(peaks)
    const open: Track[] = []
    for (const track of this.tracks) {
      const at = track.bins.at(-1) ?? 0
      const next = [...free].find((peak) => Math.abs(peak.bin - at) < 0.7)
      if (next && this.frame - track.firstFrame < LONGEST_FRAMES) {
        free.delete(next)
        track.bins.push(next.bin)
        track.powers.push(next.power)
        track.prominence = Math.max(track.prominence, next.prominence)
        track.lastFrame = this.frame
        open.push(track)
      } else this.close(track)
    }
    for (const peak of free) {
      const before = this.past[(this.frame + this.past.length - 5) % this.past.length]
      const earlier =
        this.frame < 5 || !before ? 0 : Math.max(...[-1, 0, 1].map((step) => before[Math.round(peak.bin) + step] ?? 0))
      open.push({
        firstFrame: this.frame,
        lastFrame: this.frame,
        bins: [peak.bin],
        powers: [peak.power],
        prominence: peak.prominence,
        startedSuddenly: earlier < peak.power / 4,
      })
    }
    this.tracks = open
  }

  private close(track: Track): void {
    const frames = track.lastFrame - track.firstFrame + 1
    if (frames < SHORTEST_FRAMES || !track.startedSuddenly) return
    // The tone itself, and not how it dies away in the room: there its pitch wanders to the room's own.
    const loudest = Math.max(...track.powers)
    const loud = track.powers.flatMap((power, index) => (power >= loudest / LOUD ? index : []))
    const middle = loud.map((index) => track.bins[index] ?? 0).slice(1, -1)
    if (middle.length < SHORTEST_FRAMES - 2) return
    const bin = median(middle)
    const wander = Math.sqrt(middle.reduce((sum, value) => sum + (value - bin) ** 2, 0) / middle.length)
    if (wander > 0.12) return
    const hz = bin * BIN_HZ
    const roughly = track.firstFrame * HOP + WINDOW / 2
    const onset = this.onsetNear(roughly, hz)
    if (onset === null) return
    const lasting = (loud.at(-1) ?? 0) - (loud[0] ?? 0) + 1
    const durationMs = Math.max(20, ((lasting * HOP - WINDOW / 4) / HEARING_RATE) * 1000)
    const decibels = 10 * Math.log10(track.prominence)
    this.beeps.push({
      kind: 'beep',
      spreadMs: SPREAD_MS,
      atMs: (onset / HEARING_RATE) * 1000,
      durationMs,
      hz,
      strength: Math.min(1, Math.max(0, (decibels - 14) / 26)),
    })
  }

  /**
   * The sample at which the tone's own envelope passes half its height: a box of 5 ms slides over the tone brought
   * down to 0 Hz, and a sudden start gives half height when the box is centred on it. Null when there is no such rise.
   */
  private onsetNear(roughly: Samples, hz: Hertz): Samples | null {
    const box = Math.round(HEARING_RATE * 0.005)
    const reach = Math.round(HEARING_RATE * 0.05)
    const from = Math.max(0, roughly - reach - box, this.heard - HISTORY)
    const to = Math.min(this.heard, roughly + reach + box)
    const length = to - from
    const inPhase = new Float64Array(length + 1),
      quadrature = new Float64Array(length + 1)
    for (let index = 0; index < length; index++) {
      const value = this.history[(from + index) % HISTORY] ?? 0
      const turn = (2 * Math.PI * hz * index) / HEARING_RATE
      inPhase[index + 1] = (inPhase[index] ?? 0) + value * Math.cos(turn)
      quadrature[index + 1] = (quadrature[index] ?? 0) + value * Math.sin(turn)
    }
    const envelope: number[] = []
    for (let index = 0; index + box <= length; index++) {
      envelope.push(
        Math.hypot(
          (inPhase[index + box] ?? 0) - (inPhase[index] ?? 0),
          (quadrature[index + box] ?? 0) - (quadrature[index] ?? 0),
        ),
      )
    }
    const rise = firstRise(envelope, box)
    const startsLoud = rise === 0 && from > 0
    return startsLoud ? null : from + rise + box / 2
  }
}

/**
 * Where an envelope first passes half of what it reaches within 12 ms. What comes later and louder is the room's
 * answer.
 * @param box its width, in samples.
 */
function firstRise(envelope: readonly number[], box: Samples): number {
  const height = Math.max(...envelope)
  const least = Math.max(height * FIRST_SHARE, 4 * median(envelope.slice(0, 4 * box)))
  const reached = envelope.findIndex((value) => value >= least)
  const first = reached < 0 ? envelope.indexOf(height) : reached
  const top = Math.max(...envelope.slice(first, first + Math.round(FIRST_S * HEARING_RATE)))
  let rise = first
  while (rise < envelope.length - 1 && (envelope[rise] ?? 0) < top / 2) rise++
  while (rise > 0 && (envelope[rise - 1] ?? 0) >= top / 2) rise--
  return rise
}

function findPeaks(power: Float64Array): Peak[] {
  const tops: number[] = []
  for (let bin = LOWEST_BIN; bin <= HIGHEST_BIN; bin++) {
    const here = power[bin] ?? 0
    if (here >= FLOOR && here >= (power[bin - 1] ?? 0) && here > (power[bin + 1] ?? 0)) tops.push(bin)
  }
  // Neighbourhoods are costly to judge, so only the strongest few are.
  tops.sort((one, other) => (power[other] ?? 0) - (power[one] ?? 0))
  return tops.slice(0, PEAKS_PER_FRAME).flatMap((bin) => {
    const here = power[bin] ?? 0
    const around = median(Array.from(power.subarray(Math.max(1, bin - 14), bin + 15)))
    const prominence = here / (around + 1e-9)
    return prominence >= PROMINENCE ? [{ bin: bin + vertex(power, bin), power: here, prominence }] : []
  })
}

/** Where between the bins the peak lies: a parabola through the logarithms of three bins. */
function vertex(power: Float64Array, bin: number): number {
  const [left, here, right] = [-1, 0, 1].map((step) => Math.log((power[bin + step] ?? 0) + 1e-12)) as [
    number,
    number,
    number,
  ]
  const bend = left - 2 * here + right
  return bend ? Math.max(-0.5, Math.min(0.5, (0.5 * (left - right)) / bend)) : 0
}

/** Harmonics start together with their tone; the strongest speaks for all. */
function onePerInstant(beeps: Beep[]): Beep[] {
  const kept: Beep[] = []
  for (const beep of beeps) {
    const last = kept.at(-1)
    if (last && beep.atMs - last.atMs < 40) {
      if (beep.strength > last.strength) kept[kept.length - 1] = beep
    } else kept.push(beep)
  }
  return kept
}
